import { caseLimitC } from '#core/physics/alternator'
import type { RuleId } from '#core/rules/rules'
import type { Unit } from '#core/units/units'

/** The shop’s limit of a reading: a rule against the value when new, or a fixed figure. */
export type Limit =
  | {
      readonly kind: 'share'
      readonly rule: RuleId
      readonly per: number
      /**
       * Where the value when new comes from: the label that a reading is expected to reach; or the first reading,
       * unless a person entered it, since a prediction is no value when new.
       */
      readonly whenNew: 'expected' | 'first'
      readonly worse: 'lower' | 'higher'
    }
  | { readonly kind: 'fixed'; readonly value: number; readonly worse: 'lower' | 'higher' }

interface LogQuantity {
  readonly label: string
  readonly unit: Unit
  readonly range: readonly [least: number, most: number]
  /** The place of its reading, for the entry form. */
  readonly at: string
  /** Whether its subject alone names the reading: a test by its title. */
  readonly isPlain?: true
  readonly limit?: Limit
  /** The remedy when the trend meets the limit. */
  readonly remedy?: string
}

/** The quantities that a logbook stores. Values are in the unit given here. */
export const logQuantities = {
  restingVoltage: { label: 'Resting voltage', unit: 'V', range: [0, 1000], at: 'Battery' },
  capacity: {
    label: 'Capacity',
    unit: 'Ah',
    range: [0, 20_000],
    at: 'Battery',
    limit: { kind: 'share', rule: 'capacityLeftShare', per: 100, whenNew: 'expected', worse: 'lower' },
    remedy: 'Offer a replacement',
  },
  jointResistance: {
    label: 'Joint resistance',
    unit: 'mΩ',
    range: [0, 10_000],
    at: 'Cable or joint',
    limit: { kind: 'share', rule: 'jointGrowth', per: 1, whenNew: 'first', worse: 'higher' },
    remedy: 'Remake the joint',
  },
  caseTemperature: {
    label: 'Alternator case',
    unit: '°C',
    range: [-50, 250],
    at: 'Alternator',
    limit: { kind: 'fixed', value: caseLimitC, worse: 'higher' },
    remedy: 'Reduce the load on the alternator or improve its cooling',
  },
  tailCurrent: { label: 'Tail current', unit: 'A', range: [0, 1000], at: 'Battery' },
  crankingVoltage: { label: 'Cranking voltage', unit: 'V', range: [0, 100], at: 'Starting battery' },
  crankingResistance: {
    label: 'Cranking resistance',
    unit: 'mΩ',
    range: [0, 1000],
    at: 'Starting battery',
    limit: { kind: 'share', rule: 'crankGrowth', per: 1, whenNew: 'first', worse: 'higher' },
    remedy: 'Replace the starting battery',
  },
  deepestDischarge: { label: 'Deepest discharge', unit: 'Ah', range: [0, 20_000], at: 'Monitor' },
  cycles: { label: 'Charge cycles', unit: '', range: [0, 100_000], at: 'Monitor' },
  hoursToFull: { label: 'Time to full', unit: 'h', range: [0, 1000], at: 'Charger or engine' },
  torque: { label: 'Lugs found loose', unit: '', range: [0, 1000], at: 'Torque check' },
  voltage: { label: 'Voltage', unit: 'V', range: [-1000, 1000], at: 'Test', isPlain: true },
  current: { label: 'Current', unit: 'A', range: [-5000, 5000], at: 'Test', isPlain: true },
  charge: { label: 'Charge', unit: 'Ah', range: [-20_000, 20_000], at: 'Test', isPlain: true },
} as const satisfies Readonly<Record<string, LogQuantity>>

export type LogQuantityId = keyof typeof logQuantities
export const logQuantityIds = Object.keys(logQuantities) as LogQuantityId[]

export const logQuantity = (id: LogQuantityId): LogQuantity => logQuantities[id]

/** The name of a reading: `Capacity, House bank`; a test by its title. */
export function readingName(id: LogQuantityId, subject: string): string {
  const { label, isPlain } = logQuantity(id)
  return isPlain && subject ? subject : [label, subject].filter(Boolean).join(', ')
}
