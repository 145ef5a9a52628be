import type { RuleId, ShopRules } from '../rules/rules'
import { typicalPackOhm } from '../physics/lfp'
import type { Unit } from '../units/units'

/** How a value is known, best first. */
export const howKnown = {
  measured: 'measured',
  maker: 'maker’s data',
  label: 'read from label',
  customer: 'customer says',
  assumed: 'assumed',
} as const
export type How = keyof typeof howKnown

/** A surveyed value. `value: null` is "not known yet". */
export interface Known<T> {
  readonly value: T | null
  readonly how?: How
  /** For a measured value: when (ISO date-time) and by whom. */
  readonly when?: string
  readonly by?: string
}

export type Range = readonly [low: number, high: number]

/** What a plausible range may depend on: the known values of the same part. */
export interface RangeContext {
  /** The known number of a sibling field, or null. */
  readonly number: (field: string) => number | null
  /** The known choice of a sibling field, or null. */
  readonly choice: (field: string) => string | null
}

/** What a computed default may depend on: the part's other values, known or not, and the rules. */
export interface DefaultContext {
  readonly value: (field: string) => number
  readonly rules: ShopRules
}

interface FieldBase {
  readonly label: string
  /** How to find or measure it, in a line. */
  readonly measure: string
  /** Asked only when each of these sibling fields holds one of the values, or is not known yet. */
  readonly when?: readonly Condition[]
}

export interface Condition {
  readonly field: string
  readonly is: readonly string[]
}

export interface QuantityField extends FieldBase {
  readonly type: 'quantity'
  readonly unit: Unit
  /** What can be true at all, in the stored unit; anything else is refused. */
  readonly limits: Range
  /** Step of the arrow keys. */
  readonly step: number
  /** Range to judge over while it is not known. For voltages of a 12 V system: see `scales`. */
  readonly plausible: Range | ((at: RangeContext) => Range)
  /** Plausible range and default are for 12 V and grow with the part's nominal voltage. */
  readonly scales?: true
  /** Used instead of a range where nothing is given: a shop rule, a number, or computed from the part. */
  readonly otherwise?: RuleId | number | ((at: DefaultContext) => number)
  /** While the sibling holds one of these values, only a measured value counts as known. */
  readonly onlyMeasuredWhen?: Condition
}

export interface ChoiceField<O extends string = string> extends FieldBase {
  readonly type: 'choice'
  readonly options: Readonly<Record<O, string>>
  /** What to take where the maker's data say nothing. */
  readonly otherwise?: NoInfer<O>
}

/** Minutes spent at each voltage on a drive, as tallied by the installer. */
export interface TallyRow {
  readonly minutes: number
  readonly volts: number
}
export interface TallyField extends FieldBase {
  readonly type: 'tally'
}

export type Field = QuantityField | ChoiceField | TallyField
export type Fields = Readonly<Record<string, Field>>

export type ValueOf<F> = F extends ChoiceField<infer O> ? O : F extends TallyField ? readonly TallyRow[] : number
/** A part as it is surveyed: every field may be missing or not known. */
export type Surveyed<F extends Fields> = { readonly [K in keyof F]?: Known<ValueOf<F[K]>> }
/** A part as a check reads it: every field has a value; a tally may be missing. */
export type Resolved<F extends Fields> = { readonly [K in keyof F]: F[K] extends TallyField ? ValueOf<F[K]> | null : ValueOf<F[K]> }

const quantity = (
  label: string, unit: Unit, step: number, limits: Range, plausible: QuantityField['plausible'], measure: string,
  more: Partial<Pick<QuantityField, 'when' | 'scales' | 'otherwise' | 'onlyMeasuredWhen'>> = {},
): QuantityField => ({ type: 'quantity', label, unit, step, limits, plausible, measure, ...more })

const choice = <const O extends string>(
  label: string, options: Readonly<Record<O, string>>, measure: string, more: Partial<Pick<ChoiceField<O>, 'when' | 'otherwise'>> = {},
): ChoiceField<O> => ({ type: 'choice', label, options, measure, ...more })

const volts = (label: string, plausible: QuantityField['plausible'], measure: string, more: Partial<Pick<QuantityField, 'when' | 'otherwise' | 'onlyMeasuredWhen'>> = {}): QuantityField =>
  quantity(label, 'V', 0.1, [0, 80], plausible, measure, { scales: true, ...more })

const systemVoltages = { 12: '12 V', 24: '24 V', 48: '48 V' } as const

const leadKinds = { flooded: 'Flooded', calcium: 'Calcium', agm: 'AGM', gel: 'Gel', lithium: 'Lithium' } as const

/** Which profile such a charger takes is seen only on the day: its label does not decide it. */
const detectsByItself: Condition = { field: 'profile', is: ['automatic'] }

/** Stages that a mains charger and a DC-DC charger have in common. */
const chargeStages = {
  ratedA: quantity('Rated current', 'A', 1, [0, 1000], [10, 60], 'Label on the unit.'),
  currentLimit: choice('Current limit', { fixed: 'Fixed', adjustable: 'Can be set lower' }, 'Menu, switch or maker’s sheet.', { otherwise: 'fixed' }),
  profile: choice('Charge profile', {
    lithium: 'Lithium profile, set now',
    selectable: 'Has a lithium profile, not set',
    adjustable: 'Voltages can be set one by one',
    automatic: 'Detects the battery by itself',
    fixed: 'Fixed, for lead',
  }, 'Look for a switch, a menu or the maker’s sheet. The word on the lid proves nothing.'),
  absorptionV: volts('Absorption voltage', [13.8, 15], 'Meter on the battery posts once the current has begun to fall.', { onlyMeasuredWhen: detectsByItself }),
  absorptionH: quantity('Absorption time', 'h', 0.5, [0, 48], [1, 6], 'Maker’s sheet, or watch the clock from the moment the voltage stops rising.', { otherwise: 2 }),
  floatMode: choice('After absorption', { off: 'Stops', on: 'Floats' }, 'Meter on the posts an hour after the current fell away.'),
  floatV: volts('Float voltage', [13.2, 14], 'Meter on the posts an hour after the current fell away.', { when: [{ field: 'floatMode', is: ['on'] }], onlyMeasuredWhen: detectsByItself }),
  equaliseStage: choice('Equalise, desulfation or pulse stage', {
    none: 'Has none',
    off: 'Has one, switched off',
    switchable: 'On, can be switched off',
    fixed: 'On, cannot be switched off',
  }, 'Maker’s sheet: equalise, recondition, desulfation, pulse.'),
  equaliseV: volts('Voltage of that stage', [14.4, 16.2], 'Maker’s sheet; do not run it to find out.', { when: [{ field: 'equaliseStage', is: ['off', 'switchable', 'fixed'] }] }),
  compensation: choice('Temperature compensation', {
    none: 'Has none',
    off: 'Has it, switched off',
    switchable: 'On, can be switched off',
    fixed: 'On, cannot be switched off',
  }, 'A sensor on the battery or a note in the maker’s sheet.'),
  compensationMv: quantity('Compensation for each lead cell', 'mV/°C', 0.5, [0, 10], [2, 5], 'Maker’s sheet, as millivolts a degree a cell, without the minus sign.', { when: [{ field: 'compensation', is: ['off', 'switchable', 'fixed'] }] }),
} satisfies Fields

const use = {
  dcAtOnceA: quantity('DC loads on at once', 'A', 1, [0, 3000], [5, 60], 'Clamp meter at the house battery with everything on that runs together; leave the inverter off.'),
  negatives: choice('Battery negatives', { common: 'House and starting side joined', separate: 'Kept apart' }, 'Meter on ohms between the two negative posts, everything switched off.', { otherwise: 'common' }),
} satisfies Fields

const place = {
  where: choice('House battery place', { cabin: 'Cabin', locker: 'Outside locker', engine: 'Engine space', bilge: 'Bilge' }, 'Where the new battery will stand.'),
  coldestC: quantity('Coldest there', '°C', 1, [-50, 40], [-15, 10], 'Ask where it spends the winter; a logging thermometer tells best.'),
  hottestC: quantity('Hottest there', '°C', 1, [0, 90], [25, 50], 'Thermometer beside the battery after an hour’s run on a warm day.'),
} satisfies Fields

const houseBank = {
  chemistry: choice('Kind', leadKinds, 'Label, caps, weight.'),
  nominalV: choice('House system', systemVoltages, 'Add up the batteries in series.', { otherwise: '12' }),
  series: quantity('In series', '', 1, [1, 12], [1, 2], 'Count along one string.', { otherwise: 1 }),
  parallel: quantity('In parallel', '', 1, [1, 20], [1, 4], 'Count the strings.', { otherwise: 1 }),
  ahEach: quantity('Capacity of each (20 h)', 'Ah', 5, [1, 3000], [60, 220], 'Label.'),
  ageYears: quantity('Age', 'years', 1, [0, 40], [1, 8], 'Date code, or ask.'),
  restedV: volts('Rested voltage of the weakest', [11.8, 12.8], 'Meter on the posts after four hours of rest.'),
} satisfies Fields

const startingBattery = {
  present: choice('Starting battery', { yes: 'Has its own', no: 'None: the house bank starts the engine' }, 'Follow the starter cable back.'),
  chemistry: choice('Kind', leadKinds, 'Label, caps, weight.', { when: [{ field: 'present', is: ['yes'] }] }),
  ah: quantity('Capacity', 'Ah', 5, [1, 1000], [40, 120], 'Label.', { when: [{ field: 'present', is: ['yes'] }] }),
  standbyA: quantity('Vehicle’s draw with the key off', 'A', 0.01, [0, 20], [0.02, 0.3], 'Clamp meter on the negative lead, half an hour after locking.'),
  restedV: volts('Rested voltage', [12, 12.8], 'Meter on the posts after four hours of rest.', { when: [{ field: 'present', is: ['yes'] }] }),
  fedByCharger: choice('A mains charger or solar also feeds it', { yes: 'Yes', no: 'No' }, 'Look for a second output lead or a trickle charger.', { otherwise: 'no' }),
} satisfies Fields

/** Stands for “no limit fitted” where a limit may be missing. */
const noLimitA = 9999

const alternators = {
  nominalV: choice('Nominal voltage', systemVoltages, 'Label.'),
  ratedA: quantity('Rated current', 'A', 5, [5, 1000], [45, 200], 'Label on the housing.'),
  regulator: choice('Regulator', {
    fixed: 'Fixed voltage',
    compensated: 'Lowers its voltage when warm',
    computer: 'Computer-controlled',
    external: 'External, can be set',
  }, 'Watch the voltage for ten minutes of driving: one that swings below 13 V or above 14.8 V is computer-controlled.'),
  regulatorV: volts('Regulator voltage', (at) => {
    const seen: [number | null, number | null] = [at.number('lowestV'), at.number('highestV')]
    if (at.choice('regulator') === 'computer') return [seen[0] ?? 12.4, seen[1] ?? 15.1]
    return [seen[0] ?? 13.6, Math.max(seen[0] ?? 0, seen[1] ?? 14.6)]
  }, 'Meter on the alternator stud and its case, engine warm, 1500 rpm.'),
  lowestV: volts('Lowest seen on a drive', [12.2, 13.8], 'Logging meter on the starting battery for one drive.', { when: [{ field: 'regulator', is: ['computer'] }] }),
  highestV: volts('Highest seen on a drive', [14.4, 15.4], 'Logging meter on the starting battery for one drive; coast downhill.', { when: [{ field: 'regulator', is: ['computer'] }] }),
  driveTally: { type: 'tally', label: 'Minutes at each voltage', measure: 'From the log of one drive: minutes at volts, as “25 at 14.4, 30 at 12.6”.', when: [{ field: 'regulator', is: ['computer'] }] },
  vehicleDrawA: quantity('Engine and lights draw', 'A', 1, [0, 300], [4, 40], 'Clamp meter on the alternator lead with the house side disconnected, lights and fans on.'),
  idleRpm: quantity('Engine speed at idle', 'rpm', 50, [200, 3000], [650, 900], 'Rev counter.', { otherwise: 750 }),
  cruiseRpm: quantity('Engine speed at cruise', 'rpm', 100, [500, 10000], [1500, 2800], 'Rev counter.', { otherwise: noLimitA }),
  pulleyRatio: quantity('Pulley ratio', '×', 0.1, [0.5, 6], [1.8, 3], 'Crank pulley diameter ÷ alternator pulley diameter.', { otherwise: 2.4 }),
  driveHours: quantity('Hours run a day', 'h', 0.5, [0, 24], [0.5, 6], 'Ask for an ordinary day.'),
  limitA: quantity('Current limit fitted', 'A', 5, [1, noLimitA], [10, 100], 'External regulator with a set current, or a duty-cycling relay. Empty: none.', { otherwise: noLimitA }),
  surgeProtector: choice('Surge protector fitted', { yes: 'Yes', no: 'No' }, 'A small two-wire box on the alternator output.', { otherwise: 'no' }),
  chargeStopWire: choice('Battery’s charge-stop signal wired to the regulator', { yes: 'Yes', no: 'No' }, 'A wire from the battery’s signal terminal to the regulator’s enable terminal.', { otherwise: 'no' }),
} satisfies Fields

const dcdcOnly = { when: [{ field: 'kind', is: ['dcdc'] }] } as const
const relayOnly = { when: [{ field: 'kind', is: ['vsr'] }] } as const
const forDcdc = <F extends Fields>(fields: F): F =>
  Object.fromEntries(Object.entries(fields).map(([id, field]) => [id, { ...field, when: [...dcdcOnly.when, ...(field.when ?? [])] }])) as unknown as F

const links = {
  kind: choice('What joins the house bank to it', {
    direct: 'Nothing: straight to the house bank',
    vsr: 'Voltage-sensed relay',
    solenoid: 'Ignition solenoid',
    diode: 'Diode isolator',
    dcdc: 'DC-DC charger',
  }, 'Follow the alternator’s cable to the house bank.'),
  closesV: volts('Closes at', [13, 13.7], 'Meter on the starting side while the engine warms; listen for the click.', relayOnly),
  opensV: volts('Opens at', [12.6, 13.2], 'Meter on the starting side after the engine stops; listen for the click.', relayOnly),
  dropV: volts('Drop of the isolator', [0.1, 0.9], 'Meter from its input stud to the house output while charging.', { when: [{ field: 'kind', is: ['diode'] }] }),
  inputV: choice('Input made for', systemVoltages, 'Label.', dcdcOnly),
  outputV: choice('Output made for', systemVoltages, 'Label.', dcdcOnly),
  isolation: choice('Input and output negatives', { common: 'Joined inside', isolated: 'Isolated' }, 'Label or maker’s sheet.', { ...dcdcOnly, otherwise: 'common' }),
  signal: choice('Starts on', { wire: 'Ignition or alternator wire', voltage: 'Voltage it detects' }, 'Look for a thin wire to the signal terminal.', dcdcOnly),
  ...forDcdc(chargeStages),
} satisfies Fields

const chargers = {
  ...chargeStages,
  feeds: choice('Feeds', { house: 'House bank', starting: 'Starting battery', both: 'Both' }, 'Follow its output leads.', { otherwise: 'house' }),
  hours: quantity('Hours plugged in a day', 'h', 1, [0, 24], [0, 12], 'Ask for an ordinary day.'),
} satisfies Fields

const inverters = {
  continuousW: quantity('Continuous power', 'W', 100, [10, 50000], [300, 3000], 'Label.'),
  efficiency: quantity('Efficiency', '%', 1, [40, 100], [80, 95], 'Maker’s sheet, at full load.', { otherwise: 'inverterEfficiency' }),
} satisfies Fields

const conductors = {
  lengthM: quantity('One-way length', 'm', 0.5, [0.05, 100], [0.5, 12], 'Pull a cord along the run.'),
  areaMm2: quantity('Size', 'mm²', 1, [0.5, 1000], [6, 35], 'Print on the sheath; else strip an end and measure the strands.'),
  returnBy: choice('Current returns by', { cable: 'Cable', chassis: 'Chassis or hull' }, 'Look for a negative cable of the same size.', { otherwise: 'cable' }),
  insulationC: choice('Insulation rating', { 60: '60 °C', 70: '70 °C', 90: '90 °C', 105: '105 °C', 125: '125 °C', 200: '200 °C' }, 'Print on the sheath.', { otherwise: '70' }),
  fuseA: quantity('Fuse or breaker', 'A', 5, [1, 2000], [30, 150], 'Print on the fuse, nearest the battery.'),
  connectorA: quantity('Plug or connector', 'A', 5, [1, noLimitA], [30, 175], 'Moulded on the shell. Empty: none.', { otherwise: noLimitA }),
} satisfies Fields

const devices = {
  kind: choice('Kind', { gauge: 'Gauge', alarm: 'Alarm', disconnect: 'Low-voltage disconnect', appliance: 'Appliance cut-out' }, 'What it does when the voltage falls.', { otherwise: 'alarm' }),
  tripV: volts('Set to', [10.5, 12.5], 'Maker’s sheet, or lower a bench supply until it trips. For a gauge: the voltage it calls half full.'),
} satisfies Fields

const candidate = {
  chemistry: choice('Chemistry', { lfp: 'Lithium iron phosphate (LFP)', nmc: 'Lithium NMC or cobalt', other: 'Other lithium' }, 'Maker’s data sheet.'),
  nominalV: choice('Nominal voltage of each', systemVoltages, 'Label: 12.8 V counts as 12 V.', { otherwise: '12' }),
  series: quantity('In series', '', 1, [1, 4], [1, 2], 'How many you would fit in series.', { otherwise: 1 }),
  parallel: quantity('In parallel', '', 1, [1, 20], [1, 4], 'How many you would fit side by side.', { otherwise: 1 }),
  mostParallel: quantity('Most allowed in parallel', '', 1, [1, 20], [1, 4], 'Maker’s data sheet.', { otherwise: 1 }),
  ahEach: quantity('Capacity of each', 'Ah', 10, [1, 3000], [100, 300], 'Label.'),
  chargeLowV: volts('Charge voltage, lowest', [14, 14.4], 'Maker’s data sheet.', { otherwise: 'windowLowV' }),
  chargeHighV: volts('Charge voltage, highest', [14.4, 14.6], 'Maker’s data sheet.', { otherwise: 'windowHighV' }),
  absoluteHighV: volts('Absolute highest voltage', [14.6, 15], 'Maker’s data sheet.', { otherwise: 'absoluteHighV' }),
  bmsOverV: volts('BMS cuts charging at', [14.6, 15.6], 'Maker’s data sheet.', { otherwise: 'bmsOverVoltageV' }),
  floatAllowed: choice('Float', { limited: 'Allowed up to a voltage', off: 'Must be off' }, 'Maker’s data sheet.', { otherwise: 'limited' }),
  maxFloatV: volts('Highest float', [13.4, 13.8], 'Maker’s data sheet.', { when: [{ field: 'floatAllowed', is: ['limited'] }], otherwise: 'maxFloatV' }),
  recommendedChargeA: quantity('Recommended charge current', 'A', 5, [0.5, 2000], [20, 100], 'Maker’s data sheet, for one battery.', { otherwise: ({ value, rules }) => rules.chargeRateC * value('ahEach') }),
  largestChargeA: quantity('Largest charge current', 'A', 5, [0.5, 2000], [50, 200], 'Maker’s data sheet, for one battery.', { otherwise: ({ value }) => value('recommendedChargeA') }),
  continuousA: quantity('Largest continuous discharge', 'A', 5, [1, 5000], (at) => { const ah = at.number('ahEach'); return ah === null ? [50, 200] : [ah / 2, ah] }, 'Maker’s data sheet, for one battery.'),
  resistanceMohm: quantity('Resistance with its BMS', 'mΩ', 0.5, [0.1, 500], [2, 12], 'Maker’s data sheet, or ΔV ÷ ΔA on a load step.', { otherwise: ({ value }) => typicalPackOhm(value('ahEach'), value('nominalV')) * 1000 }),
  coldLimitC: quantity('No charging below', '°C', 1, [-40, 15], [-20, 5], 'Maker’s data sheet.', { otherwise: 'coldLimitC' }),
  coldCut: choice('BMS stops charging when cold', { yes: 'Yes', no: 'No' }, 'Maker’s data sheet: low-temperature charge protection, with the temperature it is set to.'),
  heater: choice('Heats itself before charging', { yes: 'Yes', no: 'No' }, 'Maker’s data sheet.', { otherwise: 'no' }),
  band0To5C: quantity('Charge rate allowed, 0 to 5 °C', '×', 0.05, [0, 2], [0.05, 0.5], 'Maker’s data sheet, as a share of C.', { otherwise: 'coldBand0To5C' }),
  band5To10C: quantity('Charge rate allowed, 5 to 10 °C', '×', 0.05, [0, 2], [0.1, 0.5], 'Maker’s data sheet, as a share of C.', { otherwise: 'coldBand5To10C' }),
} satisfies Fields

/** What a part refers to: the collection it points into. */
export interface PartKind {
  readonly title: string
  readonly one: string
  /** One line for the installer who stands before it. */
  readonly about: string
  readonly fields: Fields
  /** A collection of parts by id; otherwise exactly one. */
  readonly many: boolean
  /** Name of the property that points at another part, and where to. */
  readonly refers?: { readonly field: 'from' | 'of'; readonly label: string; readonly to: readonly string[] }
}

/** Every part of the survey, in walking order. */
export const partKinds = {
  use: { title: 'Use', one: 'Use', about: 'What runs, and how it is wired together.', fields: use, many: false },
  houseBank: { title: 'House bank', one: 'House bank', about: 'The lead-acid bank that is there now.', fields: houseBank, many: false },
  startingBattery: { title: 'Starting battery', one: 'Starting battery', about: 'The one that turns the engine.', fields: startingBattery, many: false },
  alternators: { title: 'Alternators', one: 'Alternator', about: 'Engine warm, 1500 rpm, mind the fan and the belt.', fields: alternators, many: true },
  links: { title: 'Links', one: 'Link', about: 'What joins the alternator to the house bank.', fields: links, many: true, refers: { field: 'from', label: 'Fed by', to: ['alternators'] } },
  chargers: { title: 'Mains chargers', one: 'Mains charger', about: 'Mains wiring stays with licensed hands; read the label and the low-voltage side.', fields: chargers, many: true },
  inverters: { title: 'Inverters', one: 'Inverter', about: 'What the battery must give at full power.', fields: inverters, many: true },
  conductors: { title: 'Cables and fuses', one: 'Cable', about: 'The run between a source and the house bank.', fields: conductors, many: true, refers: { field: 'of', label: 'Serves', to: ['chargers', 'links'] } },
  devices: { title: 'Gauges and alarms', one: 'Device', about: 'Anything that acts on battery voltage.', fields: devices, many: true },
  place: { title: 'Place', one: 'Place', about: 'Where the battery stands, and how cold and hot it gets.', fields: place, many: false },
  candidate: { title: 'New battery', one: 'New battery', about: 'The lithium battery in question, from its data sheet.', fields: candidate, many: false },
} as const satisfies Record<string, PartKind>

export type PartKindId = keyof typeof partKinds
export type FieldsOf<K extends PartKindId> = (typeof partKinds)[K]['fields']
export type ManyKindId = { [K in PartKindId]: (typeof partKinds)[K]['many'] extends true ? K : never }[PartKindId]
export type OneKindId = Exclude<PartKindId, ManyKindId>

export const partKindIds = Object.keys(partKinds) as PartKindId[]
