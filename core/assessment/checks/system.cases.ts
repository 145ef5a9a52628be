import {
  alternator,
  charger,
  goodJob,
  link,
  straightJob,
  under,
  type Values,
  withArray,
  withMeasured,
  withValues,
} from '#core/testing'
import type { JobDocument } from '#core/job/document'
import type { Case } from './battery.cases'

const [good, changed, open, bad] = ['suits', 'suits-once-changed', 'measure-first', 'does-not-suit'] as const
const [onCharger, onLink, onArray, onBattery] = [
  'chargers/charger-1',
  'links/link-1',
  'solar/array-1',
  'candidate',
]

const adjustable = (values: Values = {}, job: JobDocument = goodJob()): JobDocument =>
  withValues(
    job,
    under(onCharger, {
      profile: 'adjustable',
      absorptionV: 14.4,
      floatMode: 'on',
      floatV: 13.5,
      absorptionLeastV: 13.8,
      absorptionMostV: 15,
      floatLeastV: 13,
      floatMostV: 14,
      ...values,
    }),
  )
const cold = (coldestC: number, values: Values = {}): JobDocument =>
  withValues(goodJob(), { 'place/coldestC': coldestC, ...values })
const hybrid = (values: Values = {}, job: JobDocument = goodJob()): JobDocument =>
  withValues(job, {
    'use/mixed': 'hybrid',
    'use/chargeStop': 'yes',
    'use/isolators': 'yes',
    'houseBank/restedV': 12.7,
    'houseBank/ageYears': 1,
    'candidate/leadParallel': 'yes',
    ...values,
  })
const pump = (amps: number | null): JobDocument =>
  withMeasured(hybrid(), 'loads', { supply: 'dc', amps, hours: 24, essential: 'yes' })
const readings = (celsius: number): Values => ({
  temperatureReadings: [
    { amps: 60, rpm: 4800, minutes: 10, celsius: 60 + (celsius - 60) / 2 },
    { amps: 60, rpm: 4800, minutes: 40, celsius },
  ],
})
const onStarting = 'startingBatteries/starting-1'
const standing = (weeks: number, values: Values = {}): JobDocument =>
  withValues(goodJob(), { 'use/standsWeeks': weeks, 'startingBatteries/starting-1/standbyA': 0.1, ...values })

/** Cases of settings, of what joins the paths, and of what takes a run, by check id. */
export const systemCases: Readonly<Record<string, readonly Case[]>> = {
  'charger.range': [
    {
      says: 'set inside every limit suits, and names its settings',
      job: adjustable(),
      on: onCharger,
      verdict: good,
      shows: ['14.4 V', '13.5 V'],
    },
    {
      says: 'set inside every limit suits whatever its menu reaches',
      job: adjustable({ absorptionLeastV: null, absorptionMostV: null, floatLeastV: null, floatMostV: null }),
      on: onCharger,
      verdict: good,
    },
    {
      says: 'set wrong, but settable, suits once set',
      job: adjustable({ absorptionV: 14.9 }),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.set-all',
    },
    {
      says: 'that cannot go as high as the battery wants does not suit, and names both limits',
      job: adjustable({ absorptionV: 14, absorptionMostV: 14.1 }),
      on: onCharger,
      verdict: bad,
      shows: ['lowest charge voltage', '14.2 V', '14.1 V'],
      remedy: 'charger.replace',
    },
    {
      says: 'whose fixed compensation is wider than the window does not suit',
      job: withValues(adjustable({ compensation: 'fixed', compensationMv: 5 }), {
        'place/coldestC': 0,
        'place/hottestC': 40,
      }),
      on: onCharger,
      verdict: bad,
      shows: ['compensated in the cold', 'compensated in the heat'],
    },
    {
      says: 'of whose menu nothing is known is to be read where it decides',
      job: adjustable(
        { absorptionMostV: null, absorptionLeastV: null },
        withValues(goodJob(), {
          'candidate/chargeLowV': 14.8,
          'candidate/chargeHighV': 15,
          'candidate/absoluteHighV': 15.2,
          'candidate/bmsOverV': 15.4,
        }),
      ),
      on: onCharger,
      verdict: open,
    },
    {
      says: 'must stay above the charge stop where lead stays beside it: 14.3 and no more does not suit a stop of 14.4',
      job: adjustable({ absorptionMostV: 14.3 }, hybrid()),
      on: onCharger,
      verdict: bad,
      rules: { mixedSchool: 'hybrid', chargeStopV: 14.4 },
      shows: ['charge stop'],
    },
  ],
  'charger.role': [
    { says: 'that only charges suits', job: goodJob(), on: onCharger, verdict: good },
    {
      says: 'that holds the fuse block and must go is to be made good',
      job: charger({ equaliseStage: 'fixed', equaliseV: 15.5, holdsFuseBlock: 'yes' }),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.make-good',
      shows: ['fuse block'],
    },
    {
      says: 'that feeds both batteries and may stay suits, with a word',
      job: charger({ feeds: 'both' }),
      on: onCharger,
      verdict: good,
    },
    {
      says: 'whose equalise stage is not known may have to go: to be looked up',
      job: charger({ equaliseStage: null, equaliseV: 15.5, holdsFuseBlock: 'yes' }),
      on: onCharger,
      verdict: open,
    },
  ],
  'charger.feeds-dcdc': [
    {
      says: 'waiting for its wire suits',
      job: withValues(link({ signal: 'wire' }), { 'startingBatteries/starting-1/fedByCharger': 'yes' }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'starting on voltage runs off the charger: a wire',
      job: withValues(link({ signal: 'voltage' }), { 'startingBatteries/starting-1/fedByCharger': 'yes' }),
      on: onLink,
      verdict: changed,
      remedy: 'dcdc.signal-wire',
    },
    {
      says: 'even under the school that trusts voltage',
      job: withValues(link({ signal: 'voltage' }), { [`${onCharger}/feeds`]: 'both' }),
      on: onLink,
      verdict: changed,
      rules: { signalSchool: 'voltage' },
    },
    {
      says: 'signal not known is to be looked at',
      job: withValues(link({ signal: null }), { 'startingBatteries/starting-1/fedByCharger': 'yes' }),
      on: onLink,
      verdict: open,
    },
  ],
  'link.rating': [
    {
      says: 'above the current suits',
      job: straightJob({ kind: 'solenoid', relayA: 200 }),
      on: onLink,
      verdict: good,
      shows: ['200 A'],
    },
    {
      says: 'under it suits once larger',
      job: straightJob({ kind: 'solenoid', relayA: 50 }),
      on: onLink,
      verdict: changed,
      remedy: 'link.larger',
    },
    {
      says: 'alternator not known is to be read where it decides',
      job: alternator(straightJob({ kind: 'solenoid', relayA: 80 }), { ratedA: null }),
      on: onLink,
      verdict: open,
    },
  ],
  'link.battery-switch': [
    {
      says: 'that can open the alternator does not suit',
      job: straightJob({ kind: 'switch' }),
      on: onLink,
      verdict: bad,
      remedy: 'dcdc.add',
      shows: ['off'],
    },
    {
      says: 'with a surge protector suits once a DC-DC takes its place',
      job: alternator(straightJob({ kind: 'switch' }), { surgeProtector: 'yes' }),
      on: onLink,
      verdict: changed,
    },
    {
      says: 'that is not there suits: nothing to forget',
      job: straightJob({ kind: 'solenoid' }),
      on: onLink,
      verdict: good,
      absent: true,
    },
    {
      says: 'link not known is to be looked at',
      job: straightJob({ kind: null }),
      on: onLink,
      verdict: open,
    },
  ],
  'dcdc.place': [
    { says: 'in a cool place suits', job: link({ stands: 'cool' }), on: onLink, verdict: good },
    {
      says: 'derates in the heat: 30 × 80 % at 50 °C = 24 A',
      job: withValues(link({}), { 'place/hottestC': 50 }),
      on: onLink,
      verdict: good,
      shows: ['24 A'],
    },
    {
      says: 'in the engine space without permission is to be moved',
      job: link({ stands: 'engine', engineSpace: 'no' }),
      on: onLink,
      verdict: changed,
      remedy: 'dcdc.move',
    },
    {
      says: 'in the engine space with permission suits',
      job: link({ stands: 'engine', engineSpace: 'yes' }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'hottest place not known does not matter where it may stand there',
      job: withValues(link({}), { 'place/hottestC': null }),
      on: onLink,
      verdict: good,
    },
  ],
  'dcdc.daily': [
    {
      says: 'brings most of the day, and the battery bridges the rest',
      job: goodJob(),
      on: onLink,
      verdict: good,
      shows: ['90 Ah', '120 Ah', '1 h more'],
    },
    {
      says: 'too small for a long stay is told in Ah',
      job: withValues(link({ ratedA: 10 }), { 'use/daysAway': 6 }),
      on: onLink,
      verdict: changed,
      remedy: 'use.charge-more',
      shows: ['90 Ah a day are missing'],
    },
    {
      says: 'hours of driving not known are to be asked where they decide',
      job: withValues(alternator(link({ ratedA: 20 }), { driveHours: null }), { 'use/daysAway': 4 }),
      on: onLink,
      verdict: open,
    },
  ],
  'dcdc.solar-input': [
    {
      says: 'under the limits of the input suits',
      job: withArray({ through: 'dcdc' }, link({ solarMostV: 25, solarMostW: 400 })),
      on: onArray,
      verdict: good,
      shows: ['24.31 V'],
    },
    {
      says: 'over its voltage in series suits in parallel',
      job: withArray({ through: 'dcdc', series: 2, parallel: 1 }, link({ solarMostV: 25, solarMostW: 400 })),
      on: onArray,
      verdict: changed,
      remedy: 'solar.in-parallel',
    },
    {
      says: 'over its power suits on a controller of its own',
      job: withArray({ through: 'dcdc', parallel: 4 }, link({ solarMostV: 25, solarMostW: 400 })),
      on: onArray,
      verdict: changed,
      remedy: 'solar.own-controller',
    },
    {
      says: 'coldest place not known is to be asked where it decides',
      job: withValues(withArray({ through: 'dcdc' }, link({ solarMostV: 24.5, solarMostW: 400 })), {
        'place/coldestC': null,
      }),
      on: onArray,
      verdict: open,
    },
  ],
  'alternator.spare': [
    {
      says: 'suits with 54 A to spare: 64 A, at which its case settles at 100 °C, less 10 A',
      job: goodJob(),
      on: onLink,
      verdict: good,
      shows: ['54 A', 'all day 32 A at idle, 54 A at cruise'],
    },
    {
      says: 'is never more than the machine makes: 200 A label, 70 A at idle',
      job: alternator(goodJob(), { ratedA: 200, vehicleDrawA: 0, riseK: 20, idleShare: 100 }),
      on: onLink,
      verdict: good,
      shows: ['70 A to spare', '70 A at idle for 100 % of the drive'],
    },
    {
      says: 'goes by a share of the rating where the shop does: 120 × 65 % − 10',
      job: goodJob(),
      on: onLink,
      rules: { alternatorAllDay: 'share', alternatorIdleShare: 100 },
      verdict: good,
      shows: ['68 A', '120 A × 65 %'],
    },
    {
      says: 'with nothing to spare does not suit',
      job: alternator(goodJob(), { ratedA: 55, vehicleDrawA: 25 }),
      on: onLink,
      verdict: bad,
      remedy: 'link.unjoined',
    },
    {
      says: 'readings of its case count before the rise that is entered',
      job: alternator(goodJob(), { ...readings(92), riseK: 45 }),
      on: onLink,
      verdict: good,
      shows: ['by its readings'],
    },
    {
      says: 'with permanent magnets hangs on what it makes alone',
      job: alternator(goodJob(), { machine: 'magnet', riseK: null }),
      on: onLink,
      verdict: good,
      shows: ['at idle for 20 % of the drive'],
    },
    {
      says: 'the rise of its case not known is to be measured where it decides',
      job: alternator(goodJob(), { riseK: null, ratedA: 50 }),
      on: onLink,
      verdict: open,
    },
    {
      says: 'and need not be where the whole range has enough',
      job: alternator(goodJob(), { riseK: null }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'vehicle draw not known is to be measured where it decides',
      job: alternator(goodJob(), { ratedA: 60, vehicleDrawA: null }),
      on: onLink,
      verdict: open,
    },
  ],
  'charger.time': [
    {
      says: 'full in a night suits',
      job: goodJob(),
      on: onCharger,
      verdict: good,
      shows: ['mains night', ' h '],
    },
    {
      says: 'slower than the shop bears suits once larger',
      job: charger({ ratedA: 8 }),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.replace',
    },
    {
      says: 'that stops under the window never fills it',
      job: charger({ absorptionV: 13.2 }),
      on: onCharger,
      verdict: changed,
      shows: ['not full'],
    },
    {
      says: 'over the AC supply’s limit suits once limited',
      job: charger({ supplyV: 115, supplyLimitA: 4 }),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.limit-current',
      shows: ['4 A'],
    },
    {
      says: 'current not known is to be read where it decides',
      job: charger({ ratedA: null }),
      on: onCharger,
      verdict: open,
      rules: { chargeHoursMost: 10 },
    },
  ],
  'alternator.heat': [
    {
      says: 'held by a DC-DC suits',
      job: goodJob(),
      on: onLink,
      verdict: good,
      shows: ['driving day', '°C'],
    },
    {
      says: 'straight through is too much for it',
      job: straightJob({ kind: 'solenoid' }),
      on: onLink,
      verdict: changed,
      remedy: 'dcdc.add',
      shows: ['passes 100 °C after'],
    },
    {
      says: 'is held by no relay that leaves it without a battery each time it opens',
      job: withValues(straightJob({ kind: 'solenoid' }), { [`${onStarting}/present`]: 'no' }),
      on: onLink,
      verdict: changed,
      rules: { alternatorSchool: 'duty' },
      remedy: 'dcdc.add',
    },
    {
      says: 'is held by the way of the shop’s school',
      job: straightJob({ kind: 'solenoid' }),
      on: onLink,
      verdict: changed,
      rules: { alternatorSchool: 'duty' },
      remedy: 'link.duty',
    },
    {
      says: 'or by cable',
      job: straightJob({ kind: 'solenoid' }),
      on: onLink,
      verdict: changed,
      rules: { alternatorSchool: 'cable' },
      remedy: 'link.cable',
    },
    {
      says: 'readings that show it cool count',
      job: alternator(straightJob({ kind: 'solenoid' }), readings(78)),
      on: onLink,
      verdict: good,
      shows: ['by its readings'],
    },
    {
      says: 'readings that show it hot count too',
      job: alternator(straightJob({ kind: 'solenoid' }), readings(130)),
      on: onLink,
      verdict: changed,
      shows: ['passes 100 °C after'],
    },
    {
      says: 'without readings is to be measured where the plausible rise decides',
      job: alternator(link({ ratedA: 60 }), { riseK: null }),
      on: onLink,
      verdict: open,
    },
    {
      says: 'in air that was measured hotter than usual is too hot',
      job: alternator(link({ ratedA: 40 }), { riseK: 60, airC: 85 }),
      on: onLink,
      verdict: changed,
      shows: ['air 85 °C'],
    },
    {
      says: 'that warms slowly bears a short drive',
      job: alternator(straightJob({ kind: 'solenoid' }), { driveHours: 0.5, tauMin: 60 }),
      on: onLink,
      verdict: good,
      shows: ['60 min'],
    },
    {
      says: 'suits without readings where the whole plausible range does',
      job: alternator(goodJob(), { riseK: null, ratedA: 200 }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'with a regulator that watches the case suits whatever the rise',
      job: alternator(straightJob({ kind: 'solenoid' }), {
        riseK: null,
        regulator: 'external',
        fieldWire: 'sensor',
      }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'of permanent magnets hardly depends on the battery',
      job: alternator(straightJob({ kind: 'solenoid' }), { machine: 'magnet', riseK: null }),
      on: onLink,
      verdict: good,
      shows: ['its maker’s figure counts'],
    },
    {
      says: 'rating not known is to be read where it decides',
      job: alternator(straightJob({ kind: 'solenoid' }), { ratedA: null, limitA: 80 }),
      on: onLink,
      verdict: open,
    },
  ],
  'cold.heater': [
    {
      says: 'strong enough suits: mains warms the cells in time',
      job: cold(-8, { 'candidate/heater': 'yes', 'candidate/heaterW': 150, [`${onCharger}/hours`]: 16 }),
      on: onBattery,
      verdict: good,
      shows: ['Wh'],
      rules: { heaterMostH: 8 },
    },
    {
      says: 'too weak for the cold suits in a warmer place',
      job: cold(-20, { 'candidate/heater': 'yes', 'candidate/heaterW': 15 }),
      on: onBattery,
      verdict: changed,
      remedy: 'cold.warmer-place',
    },
    {
      says: 'coldest place not known is to be asked where it decides',
      job: withValues(goodJob(), {
        'place/coldestC': null,
        'candidate/heater': 'yes',
        'candidate/heaterW': 60,
      }),
      on: onBattery,
      verdict: open,
    },
  ],
  'mixed.gassing': [
    {
      says: 'a short absorption suits',
      job: hybrid(),
      on: onBattery,
      verdict: good,
      shows: ['driving day', '8 h on mains'],
      rules: { mixedSchool: 'hybrid' },
    },
    {
      says: 'held high for a day does not',
      job: hybrid({ [`${onCharger}/floatV`]: 14.2, [`${onCharger}/hours`]: 24, 'use/chargeStop': 'no' }),
      on: onBattery,
      verdict: changed,
      rules: { mixedSchool: 'hybrid', leadGassingMostH: 0.5 },
    },
    {
      says: 'arrangement not known does not matter: it is taken as replaced, and there is nothing to judge',
      job: goodJob(),
      on: onBattery,
      verdict: good,
      absent: true,
    },
  ],
  'solar.voltage': [
    { says: 'a lithium profile inside the window suits', job: withArray(), on: onArray, verdict: good },
    {
      says: 'a float that is too high on a fixed controller does not',
      job: withArray({ profile: 'fixed', floatMode: 'on', floatV: 13.9 }),
      on: onArray,
      verdict: bad,
      shows: ['13.9 V'],
    },
    {
      says: 'too high but adjustable suits once set',
      job: withArray({ profile: 'adjustable', absorptionV: 14.9 }),
      on: onArray,
      verdict: changed,
    },
    {
      says: 'absorption not known is to be measured',
      job: withArray({ profile: 'fixed', absorptionV: null }),
      on: onArray,
      verdict: open,
    },
  ],
  'solar.yield': [
    {
      says: 'beside an alternator suits, and shows best and worst',
      job: withArray(),
      on: onArray,
      verdict: good,
      shows: ['best month', 'worst'],
    },
    {
      says: 'alone, for days, on too few panels, asks for more',
      job: withValues(withArray({ panelW: 20, parallel: 1 }), {
        'use/daysAway': 5,
        'links/link-1/kind': 'none',
      }),
      on: onArray,
      verdict: changed,
      remedy: 'use.charge-more',
    },
    {
      says: 'power not known is to be read where it decides',
      job: withValues(withArray({ panelW: null, parallel: 1 }), {
        'use/daysAway': 4,
        'links/link-1/kind': 'none',
        'use/dailyAh': 100,
      }),
      on: onArray,
      verdict: open,
    },
  ],
  'cold.capacity': [
    { says: 'enough on the coldest night suits', job: goodJob(), on: onBattery, verdict: good },
    {
      says: 'what no warmth makes enough asks for more batteries, of which the lead beside them needs none',
      job: cold(-15, { 'use/dailyAh': 420, 'use/mixed': 'hybrid', 'candidate/leadParallel': 'yes' }),
      on: onBattery,
      verdict: changed,
      remedy: 'battery.more-parallel',
    },
    {
      says: 'too little when frozen suits once warmed',
      job: cold(-15, { 'use/dailyAh': 180 }),
      on: onBattery,
      verdict: changed,
      remedy: 'cold.heater',
      shows: ['−15 °C'],
    },
    {
      says: 'under the maker’s lowest it gives nothing',
      job: cold(-25),
      on: onBattery,
      verdict: changed,
      shows: ['no discharge below'],
    },
    {
      says: 'coldest place not known is to be asked where it decides',
      job: withValues(goodJob(), { 'place/coldestC': null, 'use/dailyAh': 190 }),
      on: onBattery,
      verdict: open,
    },
  ],
  'mixed.series': [
    { says: 'in parallel suits', job: hybrid(), on: onBattery, verdict: good },
    {
      says: 'in series never does',
      job: withValues(goodJob(), { 'use/mixed': 'series' }),
      on: onBattery,
      verdict: bad,
      remedy: 'mixed.separate',
    },
    {
      says: 'arrangement not known is taken as replaced: nothing to judge',
      job: goodJob(),
      on: onBattery,
      verdict: good,
      absent: true,
    },
  ],
  'mixed.sharing': [
    {
      says: 'within the largest charge current suits',
      job: hybrid(),
      on: onBattery,
      verdict: good,
      shows: ['at rest'],
    },
    {
      says: 'all sources into a small lithium suit once limited',
      job: hybrid({
        [`${onCharger}/currentLimit`]: 'adjustable',
        'candidate/largestChargeA': 40,
        'candidate/recommendedChargeA': 30,
      }),
      on: onBattery,
      verdict: changed,
      remedy: 'charger.limit-current',
    },
    {
      says: 'charger current not known is to be read where it decides',
      job: hybrid({
        [`${onCharger}/ratedA`]: null,
        'candidate/largestChargeA': 70,
        'candidate/recommendedChargeA': 60,
      }),
      on: onBattery,
      verdict: open,
    },
  ],
  'mixed.lead-health': [
    { says: 'a healthy lead battery suits', job: hybrid(), on: onBattery, verdict: good },
    {
      says: 'one that rests low is to be renewed',
      job: hybrid({ 'houseBank/restedV': 12.2 }),
      on: onBattery,
      verdict: changed,
      remedy: 'mixed.fresh-lead',
      shows: ['12.2 V'],
    },
    {
      says: 'one that loses more than the shop bears too',
      job: hybrid({ 'houseBank/ageYears': 12, 'houseBank/ahEach': 220 }),
      on: onBattery,
      verdict: changed,
    },
    {
      says: 'rested voltage not known is to be measured',
      job: hybrid({ 'houseBank/restedV': null }),
      on: onBattery,
      verdict: open,
    },
  ],
  'mixed.stops': [
    {
      says: 'under the absorption of the chargers suit',
      job: hybrid(),
      on: onBattery,
      verdict: good,
      shows: ['14.0 V'],
    },
    {
      says: 'over it are to be passed by a higher absorption',
      job: hybrid({ [`${onCharger}/absorptionV`]: 13.9 }),
      on: onBattery,
      verdict: changed,
      remedy: 'charger.set-absorption',
    },
    {
      says: 'that the sources pass under load with the lithium hardly charged never let it charge',
      job: hybrid({ [`${onCharger}/ratedA`]: 116, 'candidate/resistanceMohm': 12 }),
      on: onBattery,
      verdict: changed,
      shows: ['it chatters', 'the lead gets all'],
    },
    {
      says: 'absorption not known is to be measured',
      job: hybrid({ [`${onCharger}/absorptionV`]: null }),
      on: onBattery,
      verdict: open,
    },
  ],
  'mixed.takeover': [
    { says: 'a bilge pump for a day suits', job: pump(3), on: onBattery, verdict: good },
    {
      says: 'forty amperes are too much for the night',
      job: pump(40),
      on: onBattery,
      verdict: changed,
      remedy: 'mixed.fresh-lead',
    },
    {
      says: 'draw not known is to be measured where it decides',
      job: withValues(pump(null), { 'houseBank/parallel': 1, 'houseBank/ahEach': 60 }),
      on: onBattery,
      verdict: open,
    },
  ],
  'start.upkeep': [
    { says: 'that is driven every week suits', job: standing(1), on: onStarting, verdict: good },
    {
      says: 'that stands for a quarter with nothing feeding it is to be trickled',
      job: standing(13),
      on: onStarting,
      verdict: changed,
      remedy: 'start.trickle',
      shows: ['13 weeks'],
    },
    {
      says: 'fed by a charger suits',
      job: standing(13, { 'startingBatteries/starting-1/fedByCharger': 'yes' }),
      on: onStarting,
      verdict: good,
    },
    {
      says: 'is left to the engine under the other school',
      job: standing(13),
      on: onStarting,
      verdict: good,
      rules: { upkeepSchool: 'leave' },
      shows: ['leaves it to the engine'],
    },
    {
      says: 'standby draw not known is to be measured where it decides',
      job: standing(6, { 'startingBatteries/starting-1/standbyA': null }),
      on: onStarting,
      verdict: open,
    },
  ],
}

/** A charge that is held lower for life needs no top-up from another source. */
export const schoolCases: readonly Case[] = [
  {
    says: 'low and alone suits once accepted where the shop holds lower for life',
    job: charger({ absorptionV: 13.6 }),
    on: onCharger,
    verdict: changed,
    rules: { fullSchool: 'held' },
  },
  {
    says: 'and does not where it is filled',
    job: charger({ absorptionV: 13.6 }),
    on: onCharger,
    verdict: bad,
  },
]
