import {
  alternator,
  goodJob,
  link,
  straightJob,
  type Values,
  under,
  withArray,
  withMeasured,
  withValues,
} from '#core/testing'
import type { JobDocument } from '#core/job/document'
import { wired } from '#core/wiring/wiring'
import type { Case } from './battery.cases'

const [good, changed, open, bad] = ['suits', 'suits-once-changed', 'measure-first', 'does-not-suit'] as const
const [onCharger, onLink, onBattery, onCable, onInverter] = [
  'chargers/charger-1',
  'links/link-1',
  'candidate',
  'conductors/cable-1',
  'inverters/inverter-1',
]

const cable = (values: Values, job: JobDocument = goodJob(), of = onCharger): JobDocument =>
  withMeasured(
    job,
    'conductors',
    { lengthM: 3, areaMm2: 10, insulationC: '70', fuseKind: 'class-t', fuseA: 40, ...values },
    { of },
  )
const relay = { kind: 'vsr', closesV: 13.3, opensV: 12.8, relayA: 200 }
const inverter = (continuousW: number, more: Values = {}): JobDocument =>
  withMeasured(withValues(goodJob(), more), 'inverters', { continuousW, efficiency: 100 })

const onLoad = 'loads/load-1'
const dcLoad = (values: Values): JobDocument =>
  withMeasured(goodJob(), 'loads', { supply: 'dc', amps: 2, hours: 4, ...values })

const onSource = 'sources/source-1'
const windmill = (regulatorV: number | null): JobDocument =>
  withMeasured(goodJob(), 'sources', {
    kind: 'wind',
    largestA: 10,
    regulatorV,
    onDisconnect: 'brake',
    hours: 5,
  })
const starting = (values: Values): JobDocument =>
  withValues(goodJob(), under(onCharger, { feeds: 'starting', ...values }))

/** A charger, a DC-DC and an array, into a pack that takes 50 A. */
const three = withArray(
  { panelW: 300, ratedA: 60 },
  withValues(goodJob(), {
    ...under(onCharger, { ratedA: 40, currentLimit: 'adjustable' }),
    ...under(onLink, { ratedA: 40, currentLimit: 'adjustable' }),
    'candidate/recommendedChargeA': 50,
    'candidate/largestChargeA': 50,
  }),
)

/** What belongs to the whole: cables with their fuses and plugs, voltage under load, all sources together. */
export const wholeCases: Readonly<Record<string, readonly Case[]>> = {
  'cable.ampacity': [
    {
      says: '30 A in 10 mm² of 70 °C insulation, which carry 65 A, suit',
      job: cable({}),
      on: onCable,
      verdict: good,
      shows: ['65 A', '30 A'],
    },
    {
      says: 'a thin, poor cable in the engine space is to be thicker: 29 A × 0.75 = 22 A',
      job: cable({ areaMm2: 6, insulationC: '60', engineSpace: 'yes' }),
      on: onCable,
      verdict: changed,
      remedy: 'cable.thicker',
      shows: ['22 A', '30 A'],
    },
    {
      says: 'or fed with less, where the unit can be set',
      job: cable({ areaMm2: 2.5 }, withValues(goodJob(), { [`${onCharger}/currentLimit`]: 'adjustable' })),
      on: onCable,
      verdict: changed,
      remedy: 'cable.thicker',
    },
    {
      says: 'the engine’s side of a DC-DC carries its input: 14.4 × 30 ÷ (0.9 × 13.9 …) = 35 A',
      job: cable({ areaMm2: 4, fromPost: 'starting', toPost: 'link' }, goodJob(), onLink),
      on: onCable,
      verdict: changed,
      shows: ['35 A; 36 A flow'],
    },
    {
      says: 'an inverter’s cable carries its power at the voltage the battery sags to',
      job: cable({ areaMm2: 16, lengthM: 1 }, inverter(1500, { 'candidate/resistanceMohm': 4 }), onInverter),
      on: onCable,
      verdict: changed,
      remedy: 'cable.thicker',
    },
    {
      says: 'size not known is to be looked at where it decides',
      job: cable(
        { areaMm2: null, insulationC: '60' },
        withValues(goodJob(), { [`${onCharger}/ratedA`]: 60 }),
      ),
      on: onCable,
      verdict: open,
    },
  ],
  'cable.fuse': [
    { says: 'no larger than the cable carries suits', job: cable({}), on: onCable, verdict: good },
    {
      says: 'of 200 A on 6 mm² of 60 °C cable in the engine space is to be smaller, or the cable thicker',
      job: cable({ areaMm2: 6, insulationC: '60', engineSpace: 'yes', fuseA: 200 }),
      on: onCable,
      verdict: changed,
      shows: ['200 A', '22 A', 'burns before the fuse blows'],
      remedy: 'cable.thicker',
    },
    {
      says: 'too large on a good cable is changed for one that fits',
      job: cable({ fuseA: 100 }),
      on: onCable,
      verdict: changed,
      remedy: 'fuse.size',
    },
    {
      says: 'counts at the far end too',
      job: cable({ farFuseKind: 'anl', farFuseA: 150 }),
      on: onCable,
      verdict: changed,
      remedy: 'fuse.size',
    },
    {
      says: 'smaller than the current blows',
      job: cable({ fuseA: 25 }),
      on: onCable,
      verdict: changed,
      remedy: 'fuse.size',
      shows: ['and blows'],
    },
    { says: 'not known is to be read', job: cable({ fuseA: null }), on: onCable, verdict: open },
    {
      says: 'where there is none is to be fitted, of a family that interrupts a short',
      job: cable({ fuseKind: 'none', fuseA: null }),
      on: onCable,
      verdict: changed,
      remedy: 'fuse.size',
      shows: ['has no fuse near the battery'],
    },
    {
      says: 'that nobody looked for is to be looked for',
      job: cable({ fuseKind: null, fuseA: null }),
      on: onCable,
      verdict: open,
    },
    {
      says: 'whose rating was read is there, whatever its kind',
      job: cable({ fuseKind: null }),
      on: onCable,
      verdict: good,
    },
  ],
  'cable.both-ends': [
    {
      says: 'behind a relay, with the starting battery at the far end, wants a fuse there',
      job: cable({ areaMm2: 50, fuseA: 150 }, straightJob(relay), onLink),
      on: onCable,
      verdict: changed,
      remedy: 'fuse.far-end',
    },
    {
      says: 'fused at both ends suits',
      job: cable(
        { areaMm2: 50, fuseA: 150, farFuseKind: 'class-t', farFuseA: 150 },
        straightJob(relay),
        onLink,
      ),
      on: onCable,
      verdict: good,
    },
    {
      says: 'from the starting battery to a DC-DC wants a fuse at each end',
      job: cable({ fromPost: 'starting', toPost: 'link' }, goodJob(), onLink),
      on: onCable,
      verdict: changed,
      remedy: 'fuse.far-end',
    },
    {
      says: 'an unknown source at the far end is to be checked',
      job: withValues(cable({ areaMm2: 50, fuseA: 150 }, straightJob(relay), onLink), {
        'startingBatteries/starting-1/present': null,
      }),
      on: onCable,
      verdict: open,
    },
  ],
  'cable.plug': [
    {
      says: 'made for the current and for the fuse suits',
      job: cable({ connectorA: 50 }),
      on: onCable,
      verdict: good,
      shows: ['50 A'],
    },
    {
      says: 'of 20 A with a 60 A fuse melts first',
      job: cable({ areaMm2: 10, fuseA: 60, connectorA: 20 }),
      on: onCable,
      verdict: changed,
      remedy: 'plug.larger',
    },
    {
      says: 'smaller than its fuse alone is protected by a smaller fuse',
      job: cable({ fuseA: 60, connectorA: 50 }),
      on: onCable,
      verdict: changed,
      remedy: 'fuse.size',
      shows: ['the plug melts first'],
    },
    {
      says: 'too small for the cable is changed',
      job: cable({ connectorA: 50, connectorMostMm2: 6 }),
      on: onCable,
      verdict: changed,
      remedy: 'plug.larger',
    },
    {
      says: 'with a fuse not known is to be looked at',
      job: cable({ fuseA: null, connectorA: 50 }),
      on: onCable,
      verdict: open,
    },
  ],
  'bank.total-charge': [
    {
      says: 'sources that together stay within the recommended current suit',
      job: withArray(),
      on: onCharger,
      verdict: good,
      shows: ['Mains and sun give'],
    },
    {
      says: '40 A of charger and the sun into a pack for 50 A are too much',
      job: three,
      on: onCharger,
      verdict: changed,
      remedy: 'charger.limit-current',
      shows: ['82 A', 'takes 50 A at most'],
    },
    {
      says: 'and so are 40 A of DC-DC with it, under way',
      job: three,
      on: onLink,
      verdict: changed,
      remedy: 'charger.limit-current',
      shows: ['82 A'],
    },
    {
      says: 'mains and engine run together where a generator feeds the charger',
      job: withMeasured(
        withValues(goodJob(), { 'candidate/recommendedChargeA': 50, 'candidate/largestChargeA': 50 }),
        'generators',
        { watts: 2000, hours: 2 },
      ),
      on: onCharger,
      verdict: changed,
      shows: ['60 A'],
    },
    {
      says: 'a current not known is to be read where it decides',
      job: withValues(three, {
        [`${onCharger}/ratedA`]: null,
        'candidate/recommendedChargeA': 60,
        'candidate/largestChargeA': 60,
      }),
      on: onCharger,
      verdict: open,
    },
  ],
  'battery.sag': [
    {
      says: 'a small load hardly moves it',
      job: goodJob(),
      on: onBattery,
      verdict: good,
    },
    {
      says: '3 kW from 8 mΩ: (12.94 + √(12.94² − 4 × 3333 × 0.008)) ÷ 2 = 10.37 V, and the BMS opens at 10.5 V',
      job: withMeasured(
        withValues(goodJob(), {
          'use/dcAtOnceA': 0,
          'candidate/resistanceMohm': 8,
          'candidate/bmsUnderV': 10.5,
        }),
        'inverters',
        { continuousW: 3000, surgeW: 3000, efficiency: 90 },
      ),
      on: onBattery,
      verdict: changed,
      shows: ['10.37 V'],
      remedy: 'battery.more-parallel',
    },
    {
      says: 'a start that an inverter’s setting does not soften asks for another battery',
      job: withMeasured(
        withValues(goodJob(), {
          'use/dcAtOnceA': 0,
          'candidate/resistanceMohm': 8,
          'candidate/mostParallel': 1,
        }),
        'inverters',
        { continuousW: 2000, surgeW: 4500, efficiency: 90 },
      ),
      on: onBattery,
      verdict: bad,
      remedy: 'battery.other',
    },
    {
      says: 'a surge of 6.7 kW asked of a pack that can give 5.2 kW',
      job: withMeasured(
        withValues(goodJob(), {
          'use/dcAtOnceA': 0,
          'candidate/resistanceMohm': 8,
          'candidate/mostParallel': 1,
        }),
        'inverters',
        { continuousW: 1500, surgeW: 6000, efficiency: 90 },
      ),
      on: onBattery,
      verdict: bad,
      shows: ['6667 W', '5233 W'],
    },
    {
      says: 'inverter power not known is to be read',
      job: withMeasured(withValues(goodJob(), { 'candidate/resistanceMohm': 8 }), 'inverters', {
        continuousW: null,
      }),
      on: onBattery,
      verdict: open,
    },
  ],
  'inverter.cut-off': [
    {
      says: 'that sees enough suits',
      job: inverter(500, { 'candidate/resistanceMohm': 4 }),
      on: onInverter,
      verdict: good,
    },
    {
      says: 'of 11.5 V is reached under full load',
      job: withValues(inverter(2000, { 'candidate/resistanceMohm': 6 }), { [`${onInverter}/cutOffV`]: 11.7 }),
      on: onInverter,
      verdict: changed,
      remedy: 'battery.more-parallel',
    },
    {
      says: 'is reached through a thin cable, and a thicker one helps',
      job: cable({ lengthM: 9, areaMm2: 10 }, inverter(1200, { 'candidate/resistanceMohm': 2 }), onInverter),
      on: onInverter,
      verdict: changed,
      remedy: 'cable.thicker',
    },
    {
      says: 'power not known is to be read where it decides',
      job: withValues(inverter(1000, { 'candidate/resistanceMohm': 6 }), {
        [`${onInverter}/continuousW`]: null,
        [`${onInverter}/cutOffV`]: 11.5,
      }),
      on: onInverter,
      verdict: open,
    },
  ],
  'alternator.load-dump': [
    {
      says: 'with the lead starting battery on the output suits',
      job: straightJob({ kind: 'vsr', closesV: 13.3, opensV: 12.8 }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'a permanent-magnet machine with a shunting regulator is a caution, and no hard stop',
      job: withValues(straightJob({ kind: 'vsr', closesV: 13.3, opensV: 12.8 }), {
        'startingBatteries/starting-1/present': 'no',
        'alternators/alternator-1/machine': 'magnet',
      }),
      on: onLink,
      verdict: good,
      shows: ['shunting regulator'],
    },
    {
      says: 'straight onto the lithium does not suit until lead stays on its output',
      job: straightJob({ kind: 'direct' }),
      on: onLink,
      verdict: bad,
      remedy: 'start.keep-lead',
    },
    {
      says: 'straight onto lead and lithium on one bus suits: the lead stays',
      job: withValues(straightJob({ kind: 'direct' }), { 'use/mixed': 'hybrid' }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'a DC-DC on a machine with no battery of its own does not suit',
      job: withValues(link({}), { 'startingBatteries/starting-1/present': 'other' }),
      on: onLink,
      verdict: bad,
      remedy: 'start.keep-lead',
    },
    {
      says: 'behind a battery switch lead does not help: it may be turned off the machine',
      job: withValues(straightJob({ kind: 'switch' }), { 'startingBatteries/starting-1/present': 'other' }),
      on: onLink,
      verdict: bad,
      remedy: 'alternator.surge-protector',
    },
    {
      says: 'a relay that opens a lone machine is one each time, whatever protects it',
      job: withValues(alternator(straightJob({ kind: 'duty', opensAboveA: 60 }), { surgeProtector: 'yes' }), {
        'startingBatteries/starting-1/present': 'other',
      }),
      on: onLink,
      verdict: bad,
      shows: ['Each time the relay opens'],
    },
    {
      says: 'with a lithium starting battery does not suit',
      job: withValues(straightJob({ kind: 'solenoid' }), {
        'startingBatteries/starting-1/chemistry': 'lithium',
      }),
      on: onLink,
      verdict: bad,
    },
    {
      says: 'behind a battery switch lead may be left on it or not',
      job: straightJob({ kind: 'switch' }),
      on: onLink,
      verdict: bad,
    },
    {
      says: 'straight, with a surge protector, suits',
      job: alternator(straightJob({ kind: 'direct' }), { surgeProtector: 'yes' }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'straight, with the charge-stop wire, suits',
      job: alternator(straightJob({ kind: 'direct' }), { chargeStopWire: 'yes' }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'starting battery not known is to be looked at',
      job: withValues(straightJob({ kind: 'solenoid' }), { 'startingBatteries/starting-1/chemistry': null }),
      on: onLink,
      verdict: open,
    },
    {
      says: 'link not known is to be looked at',
      job: straightJob({ kind: null }),
      on: onLink,
      verdict: open,
    },
  ],
  'charger.generator': [
    {
      says: 'within its power suits',
      job: withMeasured(goodJob(), 'generators', { watts: 1000, hours: 2 }),
      on: onCharger,
      verdict: good,
    },
    {
      says: 'of 300 W runs a 30 A charger no more',
      job: withMeasured(goodJob(), 'generators', { watts: 300, hours: 2 }),
      on: onCharger,
      verdict: changed,
      remedy: 'charger.replace',
      shows: ['300 W'],
    },
    {
      says: 'power not known is to be read where it decides',
      job: withMeasured(withValues(goodJob(), { [`${onCharger}/ratedA`]: 80 }), 'generators', {
        watts: null,
        hours: 2,
      }),
      on: onCharger,
      verdict: open,
    },
  ],
  'unit.nominal': [
    { says: 'a 12 V charger on 12 V suits', job: goodJob(), on: onCharger, verdict: good },
    {
      says: 'a charger that absorbs at 14.4 V on a 24 V battery does not',
      job: withValues(goodJob(), { 'candidate/nominalV': '24', 'houseBank/nominalV': '24' }),
      on: onCharger,
      verdict: bad,
      shows: ['12.0 V', '24.0 V'],
      remedy: 'charger.replace',
    },
    {
      says: 'its label counts, where its voltage is not known',
      job: withValues(goodJob(), under(onCharger, { nominalV: '24', absorptionV: null })),
      on: onCharger,
      verdict: bad,
    },
  ],
  'inverter.nominal': [
    { says: 'a 12 V inverter on 12 V suits', job: inverter(500), on: onInverter, verdict: good },
    {
      says: 'one that stops at 21 V on 12 V does not',
      job: withValues(inverter(500), { [`${onInverter}/cutOffV`]: 21 }),
      on: onInverter,
      verdict: bad,
      remedy: 'inverter.replace',
    },
    {
      says: 'cut-off not known is taken as usual',
      job: withValues(inverter(500), { [`${onInverter}/cutOffV`]: null }),
      on: onInverter,
      verdict: good,
    },
  ],
  'load.nominal': [
    { says: 'a 12 V load on 12 V suits', job: dcLoad({ nominalV: '12' }), on: onLoad, verdict: good },
    {
      says: 'a 12 V load on a 24 V battery does not, and a converter feeds it',
      job: withValues(dcLoad({ nominalV: '12' }), { 'candidate/nominalV': '24', 'houseBank/nominalV': '24' }),
      on: onLoad,
      verdict: bad,
      shows: ['12 V', '24 V'],
      remedy: 'load.converter',
    },
    {
      says: 'a draw not known changes nothing of it',
      job: dcLoad({ nominalV: '24', amps: null }),
      on: onLoad,
      verdict: bad,
    },
  ],
  'source.nominal': [
    { says: 'regulated for the battery suits', job: windmill(14.4), on: onSource, verdict: good },
    { says: 'regulated for 24 V on 12 V does not', job: windmill(28.4), on: onSource, verdict: bad },
    { says: 'voltage not known is taken as usual', job: windmill(null), on: onSource, verdict: good },
  ],
  'start.charger': [
    {
      says: 'within the tolerance of battery and vehicle suits',
      job: starting({ equaliseStage: 'none' }),
      on: onCharger,
      verdict: good,
    },
    {
      says: 'one that feeds both banks is judged for the starting battery too',
      job: withValues(starting({ equaliseStage: 'none', feeds: 'both', absorptionV: 14.6 }), {
        'startingBatteries/starting-1/chemistry': 'gel',
      }),
      on: onCharger,
      verdict: changed,
      shows: ['14.6 V', '14.4 V'],
      remedy: 'charger.house-only',
    },
    {
      says: 'one for 24 V that feeds a 12 V starting battery too does not suit',
      job: withValues(starting({ equaliseStage: 'none', feeds: 'both', absorptionV: 28.8 }), {
        'houseBank/nominalV': '24',
        'candidate/nominalV': '24',
        'startingBatteries/starting-1/nominalV': '12',
      }),
      on: onCharger,
      verdict: bad,
      remedy: 'charger.house-only',
    },
    {
      says: 'a fixed 16 V recondition stage into a gel battery does not',
      job: withValues(starting({ equaliseStage: 'fixed', equaliseV: 16 }), {
        'startingBatteries/starting-1/chemistry': 'gel',
      }),
      on: onCharger,
      verdict: bad,
      shows: ['16.0 V'],
      remedy: 'charger.replace',
    },
    {
      says: 'is more than the electronics tolerate, even if flooded lead-acid does',
      job: starting({ equaliseStage: 'switchable', equaliseV: 16 }),
      on: onCharger,
      verdict: changed,
      shows: ['15.5 V'],
      remedy: 'charger.equalise-off',
    },
    {
      says: 'stages not known are to be read: a 12 V engine in a 24 V boat is no reason against it',
      job: withValues(starting({ equaliseStage: 'none', absorptionV: null }), {
        'houseBank/nominalV': '24',
        'candidate/nominalV': '24',
      }),
      on: onCharger,
      verdict: open,
    },
    {
      says: 'voltage of the stage not known is to be read',
      job: starting({ equaliseStage: 'fixed', equaliseV: null }),
      on: onCharger,
      verdict: open,
    },
  ],
  'dcdc.input-voltage': [
    {
      says: 'with enough left suits',
      job: link({ lowestInputV: 11.5 }),
      on: onLink,
      verdict: good,
    },
    {
      says: 'too little through a long thin cable asks for a thicker one, never for a unit that nobody makes',
      job: withMeasured(
        link({ lowestInputV: 11.5, ratedA: 40 }),
        'conductors',
        { lengthM: 12, areaMm2: 4, returnBy: 'cable', fuseKind: 'anl', fuseA: 30 },
        { of: onLink },
      ),
      on: onLink,
      verdict: changed,
      remedy: 'cable.thicker',
    },
    {
      says: 'below the computer’s lowest voltage, a unit that runs lower, down to the lowest that is made',
      job: alternator(link({ lowestInputV: 12.4 }), { regulator: 'computer', lowestV: 12.2, highestV: 14.9 }),
      on: onLink,
      verdict: changed,
      remedy: 'dcdc.lower-input',
    },
    {
      says: 'lowest voltage of the drive not known is to be measured where it decides',
      job: alternator(link({ lowestInputV: 12.4 }), { regulator: 'computer', lowestV: null, highestV: 14.8 }),
      on: onLink,
      verdict: open,
    },
    {
      says: 'a run set thin by hand counts in place of the surveyed cable',
      job: wired(
        withValues(link({ lowestInputV: 12, ratedA: 40 }), {
          'runs/link-1-in-feed/lengthM': 9,
          'runs/link-1-in-feed/areaMm2': 6,
        }),
        {},
      ),
      on: onLink,
      verdict: changed,
      remedy: 'run.thicker',
    },
    {
      says: 'a run set thick enough by hand suits',
      job: wired(
        withValues(link({ lowestInputV: 12, ratedA: 40 }), {
          'runs/link-1-in-feed/lengthM': 9,
          'runs/link-1-in-feed/areaMm2': 50,
        }),
        {},
      ),
      on: onLink,
      verdict: good,
    },
    {
      says: 'cable not known is to be looked at',
      job: withMeasured(
        link({ lowestInputV: 13.5 }),
        'conductors',
        { lengthM: 6, areaMm2: null, fuseA: 60, fuseKind: 'anl' },
        { of: onLink },
      ),
      on: onLink,
      verdict: open,
    },
  ],
}
