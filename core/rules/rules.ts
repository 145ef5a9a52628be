import type { Unit } from '#core/units/units'

/** A number the shop sets: a threshold, with the reason for its default. */
export interface NumberRule {
  readonly kind: 'number'
  readonly label: string
  readonly unit: Unit
  readonly default: number
  readonly limits: readonly [least: number, most: number]
  readonly reason: string
}

/**
 * A question on which workshops differ: the schools, what each says for itself, and the reason for the
 * default.
 */
export interface SchoolRule<O extends string = string> {
  readonly kind: 'school'
  readonly label: string
  readonly options: Readonly<Record<O, string>>
  readonly says: Readonly<Record<O, string>>
  readonly default: NoInfer<O>
  readonly reason: string
}

const number = (
  label: string,
  unit: Unit,
  value: number,
  limits: readonly [number, number],
  reason: string,
): NumberRule => ({ kind: 'number', label, unit, default: value, limits, reason })

const school = <const O extends string>(
  label: string,
  schools: Readonly<Record<O, readonly [option: string, says: string]>>,
  value: NoInfer<O>,
  reason: string,
): SchoolRule<O> => {
  const part = (index: 0 | 1) =>
    Object.fromEntries(
      Object.entries<readonly [string, string]>(schools).map(([id, words]) => [id, words[index]]),
    ) as Record<O, string>
  return { kind: 'school', label, options: part(0), says: part(1), default: value, reason }
}

const schools = {
  chargerSchool: school(
    'Charger without a lithium profile',
    {
      window: [
        'Allowed while its voltages stay inside the battery’s window',
        'A meter decides, not the word on the lid; what it leaves uncharged another source tops up',
      ],
      replace: [
        'Replace always',
        'One visit, one known profile, nothing left to a switch that someone moves',
      ],
    },
    'window',
    'Decided by numbers that can be measured; a slower or incomplete charge is topped up by another source',
  ),
  mixedSchool: school(
    'Lithium in direct parallel with lead-acid',
    {
      never: [
        'Never: a DC-DC unit always stands between',
        'Each battery gets its own charge, and most makers allow nothing else',
      ],
      hybrid: [
        'Allowed as a hybrid bank, with conditions',
        'The lead stays on the alternator, the lithium works first; stops and switches keep both safe',
      ],
    },
    'never',
    'Few battery makers permit it; the hybrid bank is one click away and fully supported',
  ),
  alternatorSchool: school(
    'Protecting the alternator',
    {
      dcdc: ['DC-DC unit that limits the current', 'Limits current and makes the right voltage at once'],
      duty: ['Duty-cycling relay that opens on over-current', 'Cheap, and full current while it is closed'],
      regulator: [
        'External regulator with a temperature sensor',
        'Gives all the machine can bear, and no more',
      ],
      cable: ['Deliberate resistance in the cable', 'Nothing to fail, no signal, no setting'],
    },
    'dcdc',
    'All four are offered; a DC-DC first, since it also suits a computer-controlled alternator',
  ),
  chargeRateSchool: school(
    'Charge current held to',
    {
      recommended: ['The maker’s recommended figure', 'The cycle life on the sheet was measured with it'],
      largest: ['The maker’s largest figure', 'Short charging times are worth some life'],
    },
    'recommended',
    'The maker’s recommendation is what the cycle life is stated for',
  ),
  coldSchool: school(
    'Cold limit',
    {
      maker: ['The maker’s own lower figure where there is one', 'The maker knows the cells'],
      zero: ['0 °C for everything', 'One limit that everybody remembers'],
    },
    'maker',
    '0 °C unless the maker’s data say otherwise',
  ),
  fullSchool: school(
    'Full regularly, or held lower',
    {
      full: [
        'Charge to full now and then, so that cells balance',
        'Cells drift apart and only meet again at the top',
      ],
      held: ['Hold at 80 to 90 % for life', 'Cells age fastest while they sit full'],
    },
    'full',
    'Full at least monthly, held lower while laid up',
  ),
  layupSchool: school(
    'Lay-up charge',
    {
      rest: ['50 to 70 % and disconnected', 'Nothing connected, nothing to go wrong'],
      topped: ['Topped up every fortnight', 'Ready to go at any time'],
    },
    'rest',
    '60 % and disconnected, checked monthly',
  ),
  signalSchool: school(
    'Running signal for a DC-DC unit',
    {
      fitting: ['A wire where voltage would mislead, otherwise either', 'As much work as the vehicle needs'],
      wire: ['Ignition or alternator wire, always', 'A wire is never wrong'],
      voltage: [
        'Voltage detection will do unless a computer controls the alternator',
        'No wire to run, nothing to find in the loom',
      ],
    },
    'fitting',
    'A wire where the alternator is computer-controlled, or a charger or solar also feeds the starting battery',
  ),
  upkeepSchool: school(
    'Starting battery when plugged in or parked',
    {
      trickle: ['Trickle it', 'A starting battery that stands flat is a starting battery lost'],
      leave: ['Leave it to the engine', 'One thing less to fit'],
    },
    'trickle',
    'Trickle where the vehicle stands more than a month',
  ),
} as const

const voltages = {
  windowLowV: number(
    'Charge window, lowest',
    'V',
    14.2,
    [13, 15],
    'Most LFP makers ask for 14.2 V or more before the cells are full and balanced',
  ),
  windowHighV: number(
    'Charge window, highest',
    'V',
    14.6,
    [13.5, 15.5],
    '3.65 V a cell, the usual largest charge voltage',
  ),
  absoluteHighV: number(
    'Absolute highest voltage',
    'V',
    14.8,
    [14, 16],
    '3.70 V a cell; above it protection is near',
  ),
  bmsOverVoltageV: number(
    'BMS over-voltage cut',
    'V',
    15,
    [14, 16],
    '3.75 V a cell, where the data give none',
  ),
  maxFloatV: number(
    'Highest float',
    'V',
    13.6,
    [13, 14.6],
    '3.40 V a cell: above it the battery is held full',
  ),
  balanceStartV: number(
    'Balancing starts at',
    'V',
    13.8,
    [13.2, 14.6],
    '3.45 V a cell, where most protection boards begin to balance',
  ),
  restLow: number(
    'Rest band, from state of charge',
    '%',
    30,
    [0, 60],
    'The flat part of the curve begins here',
  ),
  restHigh: number(
    'Rest band, to state of charge',
    '%',
    99,
    [70, 100],
    'A full battery settles here within hours',
  ),
} as const

const charging = {
  lowChargeReaches: number(
    'Charge reached that is enough when another source tops up',
    '%',
    90,
    [50, 100],
    'Nine tenths a day and a full charge now and then keep the cells balanced',
  ),
  lowChargeFrom: number(
    'Charge at the start of a charge',
    '%',
    20,
    [0, 80],
    'What is left after the usable four fifths',
  ),
  chargeRateC: number(
    'Charge rate where the maker gives none',
    '×',
    0.5,
    [0.1, 1],
    '0.5C is inside what LFP makers commonly allow; others hold to 0.3C or allow 1C',
  ),
  leadChargeRateC: number(
    'Charge rate of lead-acid',
    '×',
    0.2,
    [0.1, 0.3],
    'Lead takes 0.2C to 0.3C until it gasses',
  ),
  tailRateC: number(
    'Current at the end of the charge',
    '×',
    0.05,
    [0.01, 0.2],
    '5 % of the capacity is the usual tail current',
  ),
  chargerEfficiency: number('Mains charger efficiency', '%', 85, [50, 98], 'Where its data give none'),
  chargerPowerFactor: number(
    'Mains charger power factor',
    '×',
    0.8,
    [0.4, 1],
    'Where its data give none; older units are worse',
  ),
  chargeHoursMost: number(
    'Longest charge from low to full on mains',
    'h',
    24,
    [1, 168],
    'A night, a day and no more; a day’s use is put back far sooner',
  ),
  heldReaches: number(
    'Charge that is enough where it is held lower for life',
    '%',
    80,
    [50, 100],
    'Half of 80 to 90 %, where cells age least',
  ),
  clearness: number(
    'Share of a clear sky’s sun',
    '%',
    50,
    [5, 100],
    'A mean of bright and grey days; used for yields by the month',
  ),
  sunHours: number(
    'Hours of full sun a day',
    'h',
    2.5,
    [0.2, 8],
    'Spring and autumn at middle latitudes, panel flat',
  ),
  solarDerate: number(
    'Solar yield, share of the label',
    '%',
    75,
    [30, 100],
    'Heat, dirt, cable and controller take their part',
  ),
} as const

const alternator = {
  alternatorIdleShare: number(
    'Alternator all day at idle, share of rated',
    '%',
    50,
    [20, 100],
    'Little cooling air at idle; used where no temperature readings exist',
  ),
  alternatorCruiseShare: number(
    'Alternator all day at cruise, share of rated',
    '%',
    65,
    [20, 100],
    'More cooling air at speed; used where no temperature readings exist',
  ),
  hotOutputShare: number(
    'Hot output, share of rated',
    '%',
    85,
    [50, 100],
    'A warm machine gives less than its label',
  ),
  spareLeastA: number(
    'Least current to spare that is worth wiring for',
    'A',
    10,
    [1, 100],
    'Under it a day’s drive brings less than a fridge uses',
  ),
  windowTimeShare: number(
    'Drive time inside the window that is enough',
    '%',
    50,
    [10, 100],
    'With less than half the drive usable a charge cannot be counted on',
  ),
  lowLossDropV: number(
    'Drop of a low-loss isolator',
    'V',
    0.1,
    [0.02, 0.4],
    'Typical of the field-effect kind',
  ),
  leadFloatC: number(
    'Current a full starting battery takes from a lithium bank',
    '×',
    0.001,
    [0, 0.01],
    'About 0.1 A for each 100 Ah at 13.2 V',
  ),
  cableMohm: number(
    'Cable run not entered yet, there and back',
    'mΩ',
    5,
    [0, 100],
    'About 3 m of 25 mm² with its return; entering the run replaces it',
  ),
  cableC: number(
    'Temperature of cables for voltage drop',
    '°C',
    20,
    [-20, 90],
    'At 20 °C the table holds as it is; a loaded cable in a warm place has some 15 % more resistance',
  ),
  dcdcEfficiency: number('DC-DC efficiency', '%', 90, [70, 99], 'Typical under load'),
} as const

const cold = {
  coldLimitC: number(
    'No charging below',
    '°C',
    0,
    [-30, 10],
    '0 °C unless the maker’s data say otherwise: lithium plates on the cells below it',
  ),
  coldBand0To5C: number('Charge rate from 0 to 5 °C', '×', 0.1, [0, 1], 'Slow uptake in cold cells'),
  coldBand5To10C: number('Charge rate from 5 to 10 °C', '×', 0.2, [0, 1], 'Slow uptake in cool cells'),
  hotBand45To55C: number('Charge rate from 45 to 55 °C', '×', 0.3, [0, 1], 'Ageing rises steeply when hot'),
  chargeStopV: number(
    'Hybrid bank: charge stop of the lithium',
    'V',
    14,
    [13.4, 14.6],
    'Below the charger’s absorption, so that lead still gets its own',
  ),
  dischargeStopV: number(
    'Hybrid bank: discharge stop of the lithium',
    'V',
    12,
    [11, 12.8],
    'Before the BMS would cut; lead carries on alone',
  ),
  weakLeadV: number(
    'Hybrid bank: rested voltage of healthy lead',
    'V',
    12.4,
    [12, 12.8],
    'Under it a rested battery is weak, or was not full',
  ),
  leadLossMost: number(
    'Hybrid bank: most the lead may lose inside in a day, share of the lithium',
    '%',
    1,
    [0.1, 20],
    'Beyond it the lithium is there to keep the lead',
  ),
  leadTakeoverH: number(
    'Hybrid bank: hours the lead alone must carry what must not stop',
    'h',
    8,
    [0.5, 72],
    'A night until somebody looks',
  ),
  leadGassingMostH: number(
    'Hybrid bank: most hours a day above gassing',
    'h',
    8,
    [0.5, 24],
    'An absorption’s length; more dries it out',
  ),
  heaterMostH: number(
    'Longest wait for a heater before the charge begins',
    'h',
    3,
    [0.5, 24],
    'Longer than that and the drive is over',
  ),
  layupSoc: number(
    'Charge at the start of a lay-up',
    '%',
    60,
    [30, 100],
    'Between 50 and 70 % the cells age least',
  ),
  layupMargin: number(
    'Lay-up must last longer by',
    '%',
    25,
    [0, 200],
    'Winters run on, and nobody comes on the day',
  ),
  selfDischarge: number('Self-discharge a month', '%', 2, [0, 10], 'Typical of LFP'),
  bmsDrawMa: number(
    'Draw of the BMS itself',
    'mA',
    10,
    [0, 500],
    'Where its data give none; a phone link can take more',
  ),
} as const

const capacity = {
  usableLithium: number(
    'Usable share of lithium',
    '%',
    80,
    [50, 100],
    'Longer life and a reserve before cut-off; others use 75, 90 or 100 %',
  ),
  usableLead: number('Usable share of lead-acid', '%', 50, [20, 80], 'Below half charge its life falls fast'),
  leadAgeing: number('Capacity lead loses in a year', '%', 5, [0, 30], 'Where no capacity test was made'),
  leadOldest: number(
    'Least that is left of an old lead battery',
    '%',
    40,
    [0, 100],
    'Below it somebody would have replaced it',
  ),
  enoughShare: number(
    'Daily use at which lead would do',
    '%',
    60,
    [10, 100],
    'Share of what the lead bank in good order gives; above it the customer feels the difference',
  ),
  lowSoc: number(
    'State of charge at which heavy loads must still run',
    '%',
    20,
    [5, 50],
    'Voltage is lower there, so current is higher',
  ),
  inverterEfficiency: number('Inverter efficiency', '%', 90, [60, 99], 'Where its data give none'),
  sharing: number(
    'Share each battery of a parallel bank can be counted on for',
    '%',
    90,
    [50, 100],
    'Currents never divide quite evenly; the cabling may make it worse',
  ),
  bankLinkMohm: number(
    'Lead between neighbours of a bank, with its lugs',
    'mΩ',
    0.5,
    [0.01, 5],
    'About 0.3 m of 35 mm² and two lugs',
  ),
  leadParallelMost: number(
    'Most lead-acid strings in parallel',
    '',
    4,
    [1, 10],
    'Beyond it the far ones work and age less than the near ones',
  ),
} as const

const fitting = {
  airGapMm: number(
    'Air around each battery',
    'mm',
    10,
    [0, 100],
    'Heat leaves by the sides, and hands must reach the posts',
  ),
  deviceTripLow: number(
    'A voltage device is useful from',
    '%',
    10,
    [0, 40],
    'Below it the warning comes too late',
  ),
  deviceTripHigh: number(
    'A voltage device is useful up to',
    '%',
    40,
    [10, 80],
    'Above it the device trips with energy to spare',
  ),
  ohmicShare: number(
    'Share of pack resistance that limits a short circuit',
    '%',
    33,
    [10, 100],
    'The ohmic part alone acts in the first milliseconds; the BMS is never relied on',
  ),
  crankColdShare: number(
    'Cranking current left on the coldest morning',
    '%',
    60,
    [10, 100],
    'Of the label, where the maker gives none for the cold; lithium gains as the first seconds warm it',
  ),
  labourPerH: number('Labour, an hour', 'money', 60, [0, 1000], 'What an answer costs beside its parts'),
  startS: number('Seconds of cranking a start takes', 's', 10, [1, 60], 'Three tries of three seconds'),
  standWeeks: number(
    'A vehicle stands long from',
    'weeks',
    4,
    [1, 52],
    'A month without the engine is what a starting battery bears',
  ),
  certificatesVessel: school(
    'Certificates asked for, vessels',
    {
      none: ['None', 'The shop judges by its own experience of the maker'],
      cell: ['Named for the cells', 'The cells decide whether it can burn'],
      both: ['Named for cells and pack', 'Insurers of vessels ask for the pack as well'],
    },
    'cell',
    'What most insurers ask first; set it to what this owner’s insurer asks',
  ),
  certificatesVehicle: school(
    'Certificates asked for, vehicles',
    {
      none: ['None', 'The shop judges by its own experience of the maker'],
      cell: ['Named for the cells', 'The cells decide whether it can burn'],
      both: ['Named for cells and pack', 'People sleep above it'],
    },
    'cell',
    'What most insurers ask first; set it to what this owner’s insurer asks',
  ),
} as const

/**
 * Every threshold and school the assessment uses, with its default. Voltages are for a 12 V battery and are
 * scaled to the battery's own nominal voltage. No check has a number of its own.
 */
export const ruleCatalogue = {
  ...schools,
  ...voltages,
  ...charging,
  ...alternator,
  ...cold,
  ...capacity,
  ...fitting,
}

export type RuleId = keyof typeof ruleCatalogue
export type RuleValue<K extends RuleId> = (typeof ruleCatalogue)[K] extends SchoolRule<infer O> ? O : number

/** The rules by topic, in the order a shop would settle them. */
export const ruleTopics: readonly { readonly title: string; readonly ids: readonly RuleId[] }[] = [
  ['Where workshops differ', schools],
  ['Battery voltages, for 12 V', voltages],
  ['Charging', charging],
  ['Alternator and links', alternator],
  ['Cold and lay-up', cold],
  ['Capacity and current', capacity],
  ['Fitting', fitting],
].map(([title, rules]) => ({ title: title as string, ids: Object.keys(rules!) as RuleId[] }))

/** The rules in force, one value each. Per cents are as written (50, not 0.5). */
export type ShopRules = { readonly [K in RuleId]: RuleValue<K> }

/** Rules a shop or a job has changed; the rest keep their defaults. */
export type RuleOverrides = { readonly [K in RuleId]?: RuleValue<K> }

export const ruleIds = Object.keys(ruleCatalogue) as RuleId[]

const defaults = Object.fromEntries(
  ruleIds.map((id) => [id, ruleCatalogue[id].default]),
) as unknown as ShopRules

/** Defaults, overlaid by the shop's changes, overlaid by the job's own. */
export const resolveRules = (...overrides: readonly RuleOverrides[]): ShopRules =>
  Object.assign({}, defaults, ...overrides)
