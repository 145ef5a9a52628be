import type { JobDocument } from '#core/job/document'
import { applyRemedy } from '#core/remedies/catalogue'
import type { RuleOverrides } from '#core/rules/rules'
import {
  candidate,
  charger,
  goodJob,
  link,
  straightJob,
  type Values,
  withArray,
  withMeasured,
  withValues,
} from '#core/testing'
import type { Verdict } from '#core/system/verdict'

/** One job that holds a check to a verdict. */
export interface Case {
  readonly says: string
  readonly job: JobDocument
  readonly on: string
  readonly verdict: Verdict
  readonly rules?: RuleOverrides
  /** Words or numbers that must stand in the formula or summary. */
  readonly shows?: readonly string[]
  readonly remedy?: string
  /** The check stays away: there is nothing of the kind to check. */
  readonly absent?: true
}

const [good, changed, open, bad] = ['suits', 'suits-once-changed', 'measure-first', 'does-not-suit'] as const
const on = 'candidate'
const craft = (job: JobDocument, kind: JobDocument['job']['craft']): JobDocument => ({
  ...job,
  job: { ...job.job, craft: kind },
})
const with_ = (values: Values): JobDocument => withValues(goodJob(), values)
const inverter = (values: Values, more: Values = {}): JobDocument =>
  withMeasured(with_(more), 'inverters', { efficiency: 90, ...values })
const array = (values: Values, more: Values = {}): JobDocument => withArray(values, with_(more))
const shaft = (values: Values): JobDocument =>
  withMeasured(goodJob(), 'sources', {
    kind: 'shaft',
    largestA: 20,
    regulatorV: 14.4,
    onDisconnect: 'diversion',
    hours: 4,
    ...values,
  })
const fused = (values: Values, more: Values = {}): JobDocument =>
  withMeasured(
    with_({ 'candidate/resistanceMohm': 6, ...more }),
    'conductors',
    { lengthM: 2, areaMm2: 16, fuseA: 60, ...values },
    { of: 'chargers/charger-1' },
  )
const starter = (values: Values = {}): JobDocument =>
  with_({
    'candidate/purpose': 'starter',
    'candidate/crankingA': 300,
    'candidate/ahEach': 12,
    'startingBatteries/starting-1/present': 'no',
    'startingBatteries/starting-1/engineNeedA': 150,
    ...values,
  })
/** A lithium battery of the same kind as the new one that stays in parallel with it. */
const oldLithium = (values: Values = {}): JobDocument =>
  with_({
    'use/mixed': 'hybrid',
    'houseBank/chemistry': 'lithium',
    'houseBank/ahEach': 200,
    'houseBank/parallel': 1,
    'houseBank/ageYears': 1,
    'houseBank/sameModel': 'yes',
    ...values,
  })
const onArray = 'solar/array-1'
/** One panel of 320 W made for a roof, on a PWM controller. */
const residential: Values = {
  controller: 'pwm',
  panelW: 320,
  parallel: 1,
  openCircuitV: 38,
  maxPowerV: 32,
  maxPowerA: 10,
}
const onSource = 'sources/source-1'

/** Cases of the checks of the battery itself, of solar and of other sources, by check id. */
export const batteryCases: Readonly<Record<string, readonly Case[]>> = {
  'battery.hot': [
    {
      says: 'a place that stays below the maker’s charge limit suits',
      job: with_({ 'place/hottestC': 44, 'candidate/chargeHotC': 45 }),
      on,
      verdict: good,
      shows: ['44 °C', '45 °C'],
    },
    {
      says: 'no charging above 45 °C in a place of 52 °C suits once it stands cooler',
      job: with_({ 'place/hottestC': 52, 'candidate/chargeHotC': 45 }),
      on,
      verdict: changed,
      shows: ['52 °C', '45 °C', 'it does not charge on hot days'],
      remedy: 'place.cooler',
    },
    {
      says: 'without a figure of the maker the shop’s last band counts',
      job: with_({ 'place/hottestC': 52 }),
      on,
      verdict: good,
      shows: ['55 °C'],
    },
    {
      says: 'and above it nothing charges',
      job: with_({ 'place/hottestC': 58 }),
      on,
      verdict: changed,
      shows: ['58 °C', '55 °C'],
    },
    {
      says: 'a place nobody has measured is to be measured',
      job: with_({ 'place/hottestC': null, 'candidate/chargeHotC': 45 }),
      on,
      verdict: open,
    },
  ],
  'battery.surge': [
    {
      says: 'within the peak of the BMS suits: 40 + 2222 ÷ 11.55 under load = 232 A',
      job: inverter({ continuousW: 1000, surgeW: 2000, surgeS: 5 }),
      on,
      verdict: good,
      shows: ['232 A', '300 A'],
    },
    {
      says: 'over it, where more may stand in parallel, suits once doubled',
      job: inverter({ continuousW: 1000, surgeW: 4000, surgeS: 5 }),
      on,
      verdict: changed,
      remedy: 'battery.more-parallel',
    },
    {
      says: 'longer than the peak lasts counts the continuous current',
      job: inverter({ continuousW: 1000, surgeW: 2000, surgeS: 60 }, { 'candidate/mostParallel': 1 }),
      on,
      verdict: bad,
      shows: ['lasts 10 s', '150 A'],
    },
    {
      says: 'of a listed DC load counts: 40 + 30 × 5 = 190 A',
      job: withMeasured(goodJob(), 'loads', { supply: 'dc', amps: 30, hours: 1, surge: 6 }),
      on,
      verdict: good,
      shows: ['190 A'],
    },
    {
      says: 'of listed AC loads counts instead of all the inverter could',
      job: withMeasured(inverter({ continuousW: 1000, surgeW: 6000, surgeS: 5 }), 'loads', {
        supply: 'ac',
        watts: 500,
        hours: 1,
        surge: 3,
      }),
      on,
      verdict: good,
    },
    {
      says: 'peak of the BMS not known is taken as its continuous',
      job: inverter(
        { continuousW: 1000, surgeW: 1500, surgeS: 5 },
        { 'candidate/peakA': null, 'candidate/continuousA': null, 'candidate/mostParallel': 1 },
      ),
      on,
      verdict: open,
    },
  ],
  'battery.inverter-cap': [
    {
      says: 'without a cap suits, and says how long it runs: 160 Ah ÷ 91 A',
      job: inverter({ continuousW: 1000 }),
      on,
      verdict: good,
      shows: ['105 min'],
    },
    {
      says: 'over the cap, where more may stand in parallel, suits once doubled',
      job: inverter({ continuousW: 1500 }, { 'candidate/mostInverterW': 1000 }),
      on,
      verdict: changed,
      remedy: 'battery.more-parallel',
    },
    {
      says: 'over the cap of a battery that stands alone does not suit',
      job: inverter({ continuousW: 1500 }, { 'candidate/mostInverterW': 1000, 'candidate/mostParallel': 1 }),
      on,
      verdict: bad,
      remedy: 'inverter.limit',
    },
    {
      says: 'power not known is to be read where it decides',
      job: inverter({ continuousW: null }, { 'candidate/mostInverterW': 1000 }),
      on,
      verdict: open,
    },
  ],
  'battery.usable': [
    {
      says: 'more than the old bank gives suits: 160 Ah against 97 Ah',
      job: goodJob(),
      on,
      verdict: good,
      shows: ['160 Ah', '97 Ah'],
    },
    {
      says: 'less, where more may stand in parallel, suits once doubled',
      job: candidate({ ahEach: 100 }),
      on,
      verdict: changed,
      remedy: 'battery.more-parallel',
    },
    {
      says: 'less, alone, does not suit',
      job: candidate({ ahEach: 100, mostParallel: 1 }),
      on,
      verdict: bad,
    },
    {
      says: 'a capacity test counts before age',
      job: with_({ 'candidate/ahEach': 100, 'houseBank/testedAh': 50 }),
      on,
      verdict: good,
      shows: ['45 % left'],
    },
    {
      says: 'the reserve of the BMS is not usable',
      job: candidate({ reserve: 45, mostParallel: 1 }),
      on,
      verdict: bad,
      shows: ['55 %'],
    },
    { says: 'capacity not known is to be read', job: candidate({ ahEach: null }), on, verdict: open },
  ],
  'battery.autonomy': [
    {
      says: 'lasts longer than asked for: 153 Ah ÷ (120 − 90)',
      job: goodJob(),
      on,
      verdict: good,
      shows: ['5.1 days'],
    },
    {
      says: 'too short, where more may stand in parallel, suits once more',
      job: with_({ 'use/daysAway': 8 }),
      on,
      verdict: changed,
      remedy: 'battery.more-parallel',
    },
    {
      says: 'too short, alone, does not suit',
      job: with_({ 'use/daysAway': 8, 'candidate/mostParallel': 1 }),
      on,
      verdict: bad,
    },
    {
      says: 'sources that cover the use last without end',
      job: with_({ 'use/daysAway': 60, 'use/dailyAh': 80 }),
      on,
      verdict: good,
      shows: ['as long as sources run', 'no shortfall'].slice(1),
    },
    {
      says: 'cold takes its share',
      job: with_({ 'use/daysAway': 5, 'place/coldestC': -18 }),
      on,
      verdict: changed,
      shows: ['101 Ah'],
    },
    {
      says: 'use a day is added up from the loads',
      job: withMeasured(with_({ 'use/dailyAh': null }), 'loads', {
        supply: 'dc',
        amps: 20,
        hours: 10,
        duty: 50,
      }),
      on,
      verdict: good,
      shows: ['100 Ah', 'from the loads'],
    },
    {
      says: 'use not known is to be counted',
      job: with_({ 'use/dailyAh': null, 'use/daysAway': 6, 'candidate/mostParallel': 1 }),
      on,
      verdict: open,
    },
  ],
  'battery.parallel': [
    { says: 'one alone suits', job: goodJob(), on, verdict: good },
    { says: 'two where four are allowed suits', job: candidate({ parallel: 2 }), on, verdict: good },
    {
      says: 'two where one is allowed does not',
      job: candidate({ parallel: 2, mostParallel: 1 }),
      on,
      verdict: bad,
      shows: ['the maker allows 1'],
    },
    {
      says: 'not known how many the maker allows: measure first',
      job: candidate({ parallel: 2, mostParallel: null }),
      on,
      verdict: open,
    },
  ],
  'battery.data': [
    { says: 'figures that fit each other suit', job: goodJob(), on, verdict: good },
    {
      says: 'a lowest charge voltage above the highest is asked for again',
      job: candidate({ chargeLowV: 14.6, chargeHighV: 14.2 }),
      on,
      verdict: open,
      shows: ['14.6 V', '14.2 V'],
    },
    {
      says: 'more discharge than its own protection lets through is asked for again',
      job: candidate({ continuousA: 150, overCurrentA: 120 }),
      on,
      verdict: open,
      shows: ['150 A', '120 A'],
    },
    { says: 'a figure not known contradicts none', job: candidate({ chargeLowV: null }), on, verdict: good },
  ],
  'battery.series': [
    { says: 'none in series suits a 12 V house', job: goodJob(), on, verdict: good },
    {
      says: 'two make 24 V, which a 12 V house does not want',
      job: candidate({ series: 2 }),
      on,
      verdict: bad,
      shows: ['24.0 V'],
    },
    {
      says: 'more than the maker allows does not suit',
      job: with_({ 'houseBank/nominalV': '24', 'candidate/series': 2, 'candidate/mostSeries': 1 }),
      on,
      verdict: bad,
      shows: ['the maker allows 1'],
    },
    {
      says: 'not known how many the maker allows: measure first',
      job: with_({ 'houseBank/nominalV': '24', 'candidate/series': 2, 'candidate/mostSeries': null }),
      on,
      verdict: open,
    },
  ],
  'battery.monitor': [
    {
      says: 'a shunt monitor counts all',
      job: goodJob(),
      on,
      verdict: good,
      shows: ['200 Ah', 'floor 20 %'],
    },
    {
      says: 'a link to the only battery counts all',
      job: with_({ 'use/monitor': 'bms' }),
      on,
      verdict: good,
    },
    {
      says: 'a link to one of two does not',
      job: with_({ 'use/monitor': 'bms', 'candidate/parallel': 2 }),
      on,
      verdict: changed,
      remedy: 'monitor.add',
    },
    {
      says: 'voltage says nothing',
      job: with_({ 'use/monitor': 'voltage' }),
      on,
      verdict: changed,
      remedy: 'monitor.add',
    },
    { says: 'not known is to be looked at', job: with_({ 'use/monitor': null }), on, verdict: open },
  ],
  'battery.warning': [
    { says: 'a device on board warns', job: goodJob(), on, verdict: good },
    {
      says: 'the battery’s own signal warns',
      job: with_({ 'use/warns': 'no', 'candidate/warning': 'stop' }),
      on,
      verdict: good,
    },
    {
      says: 'nothing, in a vehicle, suits once fitted',
      job: craft(with_({ 'use/warns': 'no' }), 'vehicle'),
      on,
      verdict: changed,
      remedy: 'warning.add',
    },
    {
      says: 'nothing, afloat, does not suit',
      job: craft(with_({ 'use/warns': 'no' }), 'vessel'),
      on,
      verdict: bad,
      remedy: 'warning.add',
    },
    {
      says: 'not known whether anything warns: measure first',
      job: craft(with_({ 'use/warns': null }), 'vehicle'),
      on,
      verdict: open,
    },
  ],
  'battery.needed': [
    {
      says: 'more than lead gives with ease: 120 Ah against 60 % of 129 Ah',
      job: goodJob(),
      on,
      verdict: good,
      shows: ['120 Ah', '129 Ah', '78 Ah'],
    },
    {
      says: 'little use, always near a charger: lead would do',
      job: with_({ 'use/dailyAh': 20 }),
      on,
      verdict: changed,
      remedy: 'battery.keep-lead',
    },
    { says: 'use not known is to be counted', job: with_({ 'use/dailyAh': null }), on, verdict: open },
  ],
  'battery.cranking': [
    { says: 'nothing that lets a starter draw on it suits', job: goodJob(), on, verdict: good },
    {
      says: 'a jump switch suits once out, and says how long it may be held',
      job: with_({
        'startingBatteries/starting-1/jumpSwitch': 'yes',
        'startingBatteries/starting-1/cca': 900,
      }),
      on,
      verdict: changed,
      remedy: 'start.no-jump',
      shows: ['450 A', '300 A', 'min of transfer'],
    },
    {
      says: 'a both-way relay suits once one-way',
      job: withValues(straightJob({ closesV: 13.9, opensV: 13.6, bothWay: 'yes' }), {
        'startingBatteries/starting-1/cca': 900,
      }),
      on,
      verdict: changed,
      remedy: 'link.one-way',
    },
    {
      says: 'a switch with “both” suits once a DC-DC takes its place',
      job: withValues(straightJob({ kind: 'switch' }), { 'startingBatteries/starting-1/cca': 900 }),
      on,
      verdict: changed,
      remedy: 'dcdc.add',
    },
    {
      says: 'an engine that starts from the house bank does not suit',
      job: with_({
        'startingBatteries/starting-1/present': 'no',
        'startingBatteries/starting-1/engineNeedA': 400,
      }),
      on,
      verdict: bad,
      remedy: 'start.own-battery',
    },
    {
      says: 'a small starter within the BMS suits',
      job: with_({
        'startingBatteries/starting-1/jumpSwitch': 'yes',
        'startingBatteries/starting-1/engineNeedA': 120,
      }),
      on,
      verdict: good,
    },
    {
      says: 'jump switch not known is to be looked for',
      job: with_({
        'startingBatteries/starting-1/jumpSwitch': null,
        'startingBatteries/starting-1/cca': 900,
      }),
      on,
      verdict: open,
    },
  ],
  'battery.starter-rated': [
    {
      says: 'cranks more than the engine needs',
      job: starter(),
      on,
      verdict: good,
      shows: ['300 A', '150 A'],
    },
    {
      says: 'is weak on the coldest start: 300 × 60 % = 180 A',
      job: starter({ 'place/coldestC': -10, 'startingBatteries/starting-1/engineNeedA': 200 }),
      on,
      verdict: bad,
      shows: ['180 A'],
    },
    {
      says: 'does not carry house loads',
      job: starter({ 'startingBatteries/starting-1/present': 'yes' }),
      on,
      verdict: bad,
      shows: ['house loads'],
    },
    {
      says: 'cranking current not known is to be looked up',
      job: starter({ 'candidate/crankingA': null, 'startingBatteries/starting-1/engineNeedA': 400 }),
      on,
      verdict: open,
    },
  ],
  'battery.fit': [
    { says: 'fits with air around', job: goodJob(), on, verdict: good, shows: ['520 × 240 × 220 mm'] },
    {
      says: 'fits turned',
      job: with_({ 'place/widthMm': 300, 'place/depthMm': 600 }),
      on,
      verdict: good,
      shows: ['turned'],
    },
    {
      says: 'two fit one behind the other',
      job: with_({ 'candidate/parallel': 2, 'place/depthMm': 510 }),
      on,
      verdict: good,
      shows: ['All 2 fit'],
    },
    {
      says: 'without air it does not',
      job: with_({ 'place/widthMm': 535, 'place/depthMm': 255 }),
      on,
      verdict: bad,
    },
    {
      says: 'too high does not',
      job: with_({ 'place/heightMm': 200 }),
      on,
      verdict: bad,
      shows: ['20 mm higher'],
    },
    { says: 'space not known is to be measured', job: with_({ 'place/widthMm': null }), on, verdict: open },
  ],
  'battery.weight': [
    {
      says: 'a lighter battery than the old one suits',
      job: goodJob(),
      on,
      verdict: good,
      shows: ['35.4 kg less'],
    },
    {
      says: 'more than the tray carries suits once it does',
      job: with_({ 'place/loadLimitKg': 20 }),
      on,
      verdict: changed,
      remedy: 'place.carry',
    },
    {
      says: 'weight not known is to be read where it decides',
      job: with_({ 'candidate/weightKg': null, 'place/loadLimitKg': 22 }),
      on,
      verdict: open,
    },
  ],
  'battery.place': [
    { says: 'a dry cabin suits', job: goodJob(), on, verdict: good },
    {
      says: 'an engine space the maker does not permit suits once moved',
      job: with_({ 'place/where': 'engine' }),
      on,
      verdict: changed,
      remedy: 'place.move',
    },
    {
      says: 'an engine space the maker permits suits',
      job: with_({ 'place/where': 'engine', 'candidate/engineSpace': 'yes' }),
      on,
      verdict: good,
    },
    {
      says: 'colder than it works does not suit',
      job: with_({ 'place/coldestC': -28 }),
      on,
      verdict: bad,
      shows: ['−28 °C', '−20 °C'],
    },
    { says: 'hotter than it works does not suit', job: with_({ 'place/hottestC': 66 }), on, verdict: bad },
    {
      says: 'a bilge that floods suits once it stands dry',
      job: with_({ 'place/where': 'bilge', 'place/ingress': 'wet' }),
      on,
      verdict: changed,
      remedy: 'place.dry',
    },
    { says: 'place not known is to be decided', job: with_({ 'place/where': null }), on, verdict: open },
  ],
  'battery.certificates': [
    { says: 'cells and pack suit', job: goodJob(), on, verdict: good },
    {
      says: 'cells alone suit where cells are asked',
      job: candidate({ certificates: 'cell' }),
      on,
      verdict: good,
    },
    {
      says: 'cells alone do not suit where the pack is asked',
      job: candidate({ certificates: 'cell' }),
      on,
      verdict: bad,
      rules: { certificatesVehicle: 'both' },
    },
    { says: 'none do not suit', job: candidate({ certificates: 'none' }), on, verdict: bad },
    { says: 'not known is to be looked up', job: candidate({ certificates: null }), on, verdict: open },
  ],
  'battery.short-circuit': [
    {
      says: 'the short at the fuse is that of the wiring, leads counted, at the voltage it is charged to',
      job: fused({ fuseKind: 'terminal-block' }),
      on,
      verdict: good,
      shows: ['3230 A', '5000 A'],
    },
    {
      says: 'three batteries of 200 Ah, each through its own lead, are within a class T fuse',
      job: fused({ fuseKind: 'class-t' }, { 'candidate/parallel': 3 }),
      on,
      verdict: good,
    },
    {
      says: 'a bolt-down fuse interrupts too little',
      job: fused({ fuseKind: 'bolt-down-midi' }),
      on,
      verdict: changed,
      remedy: 'fuse.main',
      shows: ['2000 A'],
    },
    {
      says: 'the maker’s figure counts before the family’s',
      job: fused({ fuseKind: 'anl', fuseAicA: 8000 }),
      on,
      verdict: good,
    },
    { says: 'kind of fuse not known is to be looked at', job: fused({ fuseKind: null }), on, verdict: open },
  ],
  'battery.unlike': [
    {
      says: 'another capacity must not be joined in parallel',
      job: oldLithium({ 'houseBank/ahEach': 150 }),
      on,
      verdict: bad,
      shows: ['150 Ah', '200 Ah'],
      remedy: 'mixed.separate',
    },
    { says: 'the same model of the same age suits', job: oldLithium(), on, verdict: good },
    {
      says: 'another maker must not be joined',
      job: oldLithium({ 'houseBank/sameModel': 'no' }),
      on,
      verdict: bad,
    },
    {
      says: 'five years apart must not be joined',
      job: oldLithium({ 'houseBank/ageYears': 5 }),
      on,
      verdict: bad,
      shows: ['5 years'],
    },
    {
      says: 'more than the maker allows side by side must not be joined',
      job: oldLithium({ 'houseBank/parallel': 4 }),
      on,
      verdict: bad,
    },
    {
      says: 'maker not known is to be compared',
      job: oldLithium({ 'houseBank/sameModel': null }),
      on,
      verdict: open,
    },
  ],
  'mixed.school': [
    {
      says: 'joined does not suit under the school that parts them',
      job: with_({ 'use/mixed': 'hybrid' }),
      on,
      verdict: bad,
      remedy: 'mixed.separate',
    },
    {
      says: 'with all conditions suits under the other',
      job: with_({
        'use/mixed': 'hybrid',
        'use/chargeStop': 'yes',
        'use/isolators': 'yes',
        'houseBank/restedV': 12.6,
        'candidate/leadParallel': 'yes',
      }),
      on,
      verdict: good,
      rules: { mixedSchool: 'hybrid' },
    },
    {
      says: 'lacking stops suits once fitted',
      job: with_({ 'use/mixed': 'hybrid', 'houseBank/restedV': 12.6, 'candidate/leadParallel': 'yes' }),
      on,
      verdict: changed,
      rules: { mixedSchool: 'hybrid' },
      remedy: 'mixed.conditions',
      shows: ['stops'],
    },
    {
      says: 'that the maker forbids does not suit',
      job: with_({ 'use/mixed': 'hybrid', 'houseBank/restedV': 12.6 }),
      on,
      verdict: bad,
      rules: { mixedSchool: 'hybrid' },
    },
    {
      says: 'health of the lead not known is to be measured',
      job: with_({
        'use/mixed': 'hybrid',
        'use/chargeStop': 'yes',
        'use/isolators': 'yes',
        'houseBank/restedV': null,
        'candidate/leadParallel': 'yes',
      }),
      on,
      verdict: open,
      rules: { mixedSchool: 'hybrid' },
    },
  ],
  'cold.layup': [
    {
      says: 'disconnected at 60 % a winter is nothing: 116 Ah ÷ (1.68 + 0.92 Ah a week) = 44.5 weeks',
      job: with_({ 'use/layupWeeks': 20 }),
      on,
      verdict: good,
      shows: ['44.6 weeks', '0.92 Ah'],
    },
    {
      says: 'a small one that its own BMS empties suits once topped up',
      job: with_({ 'use/layupWeeks': 20, 'candidate/ahEach': 20 }),
      on,
      verdict: changed,
      remedy: 'layup.top-up',
    },
    {
      says: 'left connected, the vehicle’s draw counts',
      job: with_({ 'use/layupWeeks': 20, 'startingBatteries/starting-1/present': 'no' }),
      on,
      verdict: changed,
      rules: { layupSchool: 'topped' },
      remedy: 'layup.disconnect',
    },
    {
      says: 'draw of the vehicle not known is to be measured where it decides',
      job: with_({
        'use/layupWeeks': 20,
        'startingBatteries/starting-1/present': 'no',
        'startingBatteries/starting-1/standbyA': null,
      }),
      on,
      verdict: open,
      rules: { layupSchool: 'topped', bmsDrawMa: 1 },
    },
  ],
  'solar.cold-voc': [
    {
      says: 'one panel under its controller’s limit suits: 22 × (1 + 0.3 % × 35) = 24.31 V at −10 °C outside',
      job: array({}),
      on: onArray,
      verdict: good,
      shows: ['24.31 V'],
    },
    {
      says: 'the cold that was seen outside counts: 22 × (1 + 0.3 % × 20) = 23.32 V at 5 °C',
      job: array({}, { 'place/outsideC': 5 }),
      on: onArray,
      verdict: good,
      shows: ['23.32 V'],
    },
    {
      says: 'outside is never warmer than where the battery stands: 22 × (1 + 0.3 % × 45) = 24.97 V at −20 °C',
      job: array({ maxPvV: 24.5 }, { 'place/outsideC': 5, 'place/coldestC': -20 }),
      on: onArray,
      verdict: changed,
      shows: ['24.97 V'],
    },
    {
      says: 'a battery that was moved into the warm leaves its panels in the cold',
      job: applyRemedy(array({ maxPvV: 24.5 }, { 'place/coldestC': -20 }), {
        id: 'cold.warmer-place',
        on: 'place',
        value: 15,
      }),
      on: onArray,
      verdict: changed,
      shows: ['24.97 V'],
    },
    {
      says: 'three in series over it suit once in parallel',
      job: array({ series: 3, maxPvV: 60 }),
      on: onArray,
      verdict: changed,
      remedy: 'solar.in-parallel',
    },
    {
      says: 'one over it suits with another controller',
      job: array({ openCircuitV: 80 }),
      on: onArray,
      verdict: changed,
      remedy: 'solar.controller',
    },
    {
      says: 'limit not known is to be read where it decides',
      job: array({ series: 2, openCircuitV: 40, maxPvV: null }),
      on: onArray,
      verdict: open,
    },
  ],
  'solar.current': [
    {
      says: '350 W ÷ 14.2 V = 25 A on 30 A suits',
      job: array({}),
      on: onArray,
      verdict: good,
      shows: ['25 A'],
    },
    {
      says: 'on 20 A suits once larger',
      job: array({ ratedA: 20 }),
      on: onArray,
      verdict: changed,
      remedy: 'solar.larger',
    },
    {
      says: 'a controller that is set to a limit holds its panels there, and asks for no larger one',
      job: array({ ratedA: 20, currentLimit: 'adjustable' }),
      on: onArray,
      verdict: good,
      shows: ['limits that to 20 A'],
    },
    {
      says: 'a PWM controller passes Imp, not watts ÷ volts: 10 A of 320 W on 15 A suits',
      job: array({ ...residential, ratedA: 15 }),
      on: onArray,
      verdict: good,
      shows: ['PWM passes Imp', '10 A'],
    },
    {
      says: 'and on 8 A does not',
      job: array({ ...residential, ratedA: 8 }),
      on: onArray,
      verdict: changed,
      remedy: 'solar.larger',
    },
    {
      says: 'power not known is to be read where it decides',
      job: array({ panelW: null, ratedA: 20 }),
      on: onArray,
      verdict: open,
    },
  ],
  'source.voltage': [
    { says: 'inside the window suits', job: shaft({}), on: onSource, verdict: good },
    {
      says: 'over it does not',
      job: shaft({ regulatorV: 15 }),
      on: onSource,
      verdict: bad,
      remedy: 'source.regulator',
    },
    {
      says: 'under it suits once accepted',
      job: shaft({ regulatorV: 13.8 }),
      on: onSource,
      verdict: changed,
      remedy: 'charger.top-up',
    },
    { says: 'not known is to be measured', job: shaft({ regulatorV: null }), on: onSource, verdict: open },
  ],
  'source.unloaded': [
    { says: 'with a diversion load suits', job: shaft({}), on: onSource, verdict: good },
    {
      says: 'with nothing does not',
      job: shaft({ onDisconnect: 'none' }),
      on: onSource,
      verdict: bad,
      remedy: 'source.diversion',
    },
    { says: 'not known is to be looked at', job: shaft({ onDisconnect: null }), on: onSource, verdict: open },
  ],
}

/** Cases of cold on the paths that are not a charger's. */
export const coldCases: readonly Case[] = [
  {
    says: 'under the school of 0 °C for everything the maker’s lower limit does not count',
    job: withValues(charger({}), { 'place/coldestC': -5, 'candidate/coldLimitC': -10 }),
    on: 'chargers/charger-1',
    verdict: changed,
    rules: { coldSchool: 'zero' },
  },
  {
    says: 'the sun is judged too',
    job: array({}, { 'place/coldestC': -5 }),
    on: onArray,
    verdict: changed,
    shows: ['2.5 h'],
  },
  {
    says: 'and other sources',
    job: withValues(shaft({}), { 'place/coldestC': -5 }),
    on: onSource,
    verdict: changed,
  },
  {
    says: 'and the DC-DC',
    job: withValues(link({}), { 'place/coldestC': -5 }),
    on: 'links/link-1',
    verdict: changed,
  },
]
