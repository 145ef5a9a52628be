import type { PartKindId } from '#core/job/fields'
import type { Unit } from '#core/units/units'
import type { Concept } from './concepts'

/** One of the fields that a value on a plate may be. The first rule of a part that a value fits is its field. */
export interface LabelRule {
  readonly unit: Unit
  /** Each of these stands before the value. */
  readonly all?: readonly Concept[]
  /** One of these stands before the value. */
  readonly any?: readonly Concept[]
  /** None of these does. */
  readonly none?: readonly Concept[]
  /** Fields of a single value, and of a range. A rule without a field takes a value that has none. */
  readonly field?: string
  readonly low?: string
  readonly high?: string
  /** A value without words before it fits too. */
  readonly bare?: true
  /** Usual values; voltages of a 12 V system, see `scales`. */
  readonly usual: readonly [least: number, most: number]
  readonly scales?: true
  /** The value chooses one of these by the nearest printed value. */
  readonly choices?: Readonly<Record<string, readonly number[]>>
  /** Sizes come in round numbers: see `isRound`. */
  readonly round?: true
  /** Its words do not make its meaning certain: never ticked automatically. */
  readonly isDoubtful?: true
}

/** Nominal voltages as plates print them. */
const lithiumV = { 12: [12, 12.8], 24: [24, 25.6], 48: [48, 51.2] } as const
const leadV = { 12: [12], 24: [24], 48: [48] } as const
const alternatorV = {
  12: [12, 13.5, 14, 14.2, 14.4, 14.5],
  24: [24, 27, 28, 28.5],
  48: [48, 54, 56],
} as const

const temperatureUnit = '°C' as const
const celsius = (
  low: string | undefined,
  high: string | undefined,
  any: readonly Concept[],
  none: readonly Concept[],
) => ({ unit: temperatureUnit, any, none, usual: [-40, 80], ...(low && high ? { low, high } : {}) }) as const

/** Stages of whatever charges. */
const stages: readonly LabelRule[] = [
  { unit: 'V', any: ['equalise'], field: 'equaliseV', usual: [14.4, 16.5], scales: true },
  { unit: 'V', any: ['float'], field: 'floatV', usual: [13, 14], scales: true },
  { unit: 'V', any: ['absorption'], field: 'absorptionV', usual: [13.8, 15], scales: true },
]
const nothing = (unit: Unit, any: readonly Concept[], none: readonly Concept[] = []): LabelRule => ({
  unit,
  any,
  none,
  usual: [0, 0],
})

const battery: readonly LabelRule[] = [
  { unit: 'V', any: ['cutOff', 'discharge'], field: 'bmsUnderV', usual: [8, 11.5], scales: true },
  { unit: 'V', any: ['float'], field: 'maxFloatV', usual: [13.2, 13.9], scales: true, isDoubtful: true },
  {
    unit: 'V',
    any: ['charge', 'absorption'],
    field: 'chargeHighV',
    low: 'chargeLowV',
    high: 'chargeHighV',
    usual: [13.8, 14.8],
    scales: true,
  },
  {
    unit: 'V',
    any: ['nominal', 'voltage'],
    bare: true,
    field: 'nominalV',
    usual: [12, 52],
    choices: lithiumV,
  },
  { unit: 'Ah', bare: true, field: 'ahEach', usual: [4, 1000] },
  { unit: 'A', any: ['peak'], none: ['charge'], field: 'peakA', usual: [20, 3000], round: true },
  { unit: 's', any: ['peak'], field: 'peakS', usual: [0.1, 60] },
  {
    unit: 'A',
    all: ['charge', 'recommended'],
    none: ['discharge'],
    field: 'recommendedChargeA',
    usual: [2, 400],
    round: true,
  },
  {
    unit: 'A',
    all: ['charge', 'most'],
    none: ['discharge'],
    field: 'largestChargeA',
    usual: [5, 600],
    round: true,
  },
  {
    unit: 'A',
    all: ['charge'],
    none: ['discharge'],
    field: 'largestChargeA',
    usual: [5, 600],
    round: true,
    isDoubtful: true,
  },
  { unit: 'A', all: ['discharge'], field: 'continuousA', usual: [10, 1000], round: true },
  { unit: 'A', any: ['cranking'], field: 'crankingA', usual: [50, 3000], round: true },
  celsius(undefined, undefined, ['storage', 'ambient'], []),
  celsius('dischargeColdC', 'dischargeHotC', ['discharge'], ['charge']),
  celsius('coldLimitC', 'chargeHotC', ['charge'], ['discharge']),
  { unit: 'kg', bare: true, field: 'weightKg', usual: [0.5, 120] },
  { unit: '', all: ['cycles'], field: 'cycles', usual: [300, 15_000], round: true },
]

/** Plate values of each kind of part, and their fields. Kinds without rules have no plates that matter. */
export const labelRules: Readonly<Partial<Record<PartKindId, readonly LabelRule[]>>> = {
  candidate: battery,
  alternatives: battery,
  houseBank: [
    { unit: 'Ah', bare: true, field: 'ahEach', usual: [4, 3000] },
    { unit: 'kg', bare: true, field: 'weightEachKg', usual: [2, 120] },
  ],
  startingBatteries: [
    nothing('V', ['charge', 'float']),
    {
      unit: 'V',
      any: ['nominal', 'voltage'],
      bare: true,
      field: 'nominalV',
      usual: [12, 24],
      choices: leadV,
    },
    { unit: 'Ah', bare: true, field: 'ah', usual: [10, 300] },
    nothing('A', ['charge', 'discharge', 'float']),
    { unit: 'A', any: ['cranking'], bare: true, field: 'cca', usual: [100, 2000], round: true },
  ],
  chargers: [
    nothing('V', ['input']),
    nothing('A', ['input', 'fuse']),
    ...stages,
    {
      unit: 'V',
      any: ['output', 'nominal', 'voltage'],
      bare: true,
      field: 'nominalV',
      usual: [12, 48],
      choices: leadV,
    },
    {
      unit: 'A',
      any: ['output', 'charge', 'nominal', 'current'],
      bare: true,
      field: 'ratedA',
      usual: [1, 200],
      round: true,
    },
    { unit: '%', any: ['efficiency'], field: 'efficiency', usual: [60, 98] },
  ],
  links: [
    ...stages,
    { unit: 'V', all: ['input', 'pv'], field: 'solarMostV', usual: [20, 150] },
    { unit: 'W', any: ['pv', 'input'], field: 'solarMostW', usual: [50, 2000] },
    { unit: 'V', any: ['closes'], field: 'closesV', usual: [12.8, 14], scales: true },
    { unit: 'V', any: ['opens'], field: 'opensV', usual: [12.2, 13.4], scales: true },
    { unit: 'V', any: ['input'], field: 'inputV', usual: [12, 48], choices: leadV },
    { unit: 'V', any: ['output'], field: 'outputV', usual: [12, 48], choices: leadV },
    nothing('A', ['input', 'fuse']),
    {
      unit: 'A',
      any: ['output', 'charge', 'nominal', 'current'],
      bare: true,
      field: 'ratedA',
      usual: [4, 200],
      round: true,
    },
  ],
  solar: [
    nothing('V', ['system']),
    nothing('A', ['fuse']),
    ...stages,
    { unit: 'V', all: ['pv'], field: 'maxPvV', usual: [20, 300] },
    { unit: 'V', any: ['noLoad'], field: 'openCircuitV', usual: [5, 120] },
    { unit: 'V', any: ['mpp', 'power'], field: 'maxPowerV', usual: [4, 100] },
    { unit: 'A', any: ['short'], field: 'shortCircuitA', usual: [0.3, 25] },
    { unit: 'A', any: ['mpp', 'power'], field: 'maxPowerA', usual: [0.3, 25] },
    { unit: 'W', any: ['power', 'mpp', 'nominal', 'peak'], field: 'panelW', usual: [5, 800], round: true },
    {
      unit: 'A',
      any: ['charge', 'output', 'nominal', 'current'],
      field: 'ratedA',
      usual: [4, 120],
      round: true,
    },
  ],
  inverters: [
    nothing('V', ['output']),
    {
      unit: 'V',
      any: ['input', 'nominal', 'voltage'],
      bare: true,
      field: 'nominalV',
      usual: [12, 48],
      choices: leadV,
    },
    { unit: 'W', any: ['peak'], field: 'surgeW', usual: [100, 20_000], round: true },
    { unit: 'W', any: ['noLoad'], field: 'idleW', usual: [0.1, 80] },
    {
      unit: 'W',
      any: ['power', 'output', 'nominal'],
      bare: true,
      field: 'continuousW',
      usual: [50, 15_000],
      round: true,
    },
    { unit: '%', any: ['efficiency'], field: 'efficiency', usual: [70, 98] },
  ],
  alternators: [
    {
      unit: 'V',
      any: ['nominal', 'voltage', 'output'],
      bare: true,
      field: 'nominalV',
      usual: [12, 56],
      choices: alternatorV,
    },
    {
      unit: 'A',
      any: ['nominal', 'current', 'output', 'charge'],
      bare: true,
      field: 'ratedA',
      usual: [20, 500],
      round: true,
    },
  ],
}

/**
 * Sizes are made in steps: every one up to 20, fives up to 100, tens up to 1,000, fifties above; power in fives up to
 * 1,000.
 */
export function isRound(value: number, unit: Unit): boolean {
  if (!Number.isInteger(value)) return value < 20
  const step = value <= 20 ? 1 : value <= 100 || (unit === 'W' && value <= 1000) ? 5 : value <= 1000 ? 10 : 50
  return value % step === 0
}
