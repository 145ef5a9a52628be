import { crafts, type CraftKind } from '#core/job/document'
import type { RuleId, ShopRules } from '#core/rules/rules'
import { ruleCatalogue } from '#core/rules/rules'
import type { LogQuantityId } from './quantities'
import { median } from './trend'

/** A reading with its prediction. */
export interface PredictedReading {
  readonly quantity: LogQuantityId
  readonly craft: string
  readonly kind: CraftKind | null
  readonly value: number
  readonly expected: number
  /** Years since the first reading of the same part. */
  readonly ageYears: number
}

/** A quantity that a shop compares, by the difference or the ratio. */
const topics = {
  caseTemperature: { title: 'Case temperature of alternators', by: 'difference', unit: 'Δ°C' },
  jointResistance: { title: 'Resistance of cables with their joints', by: 'ratio', unit: '%' },
  hoursToFull: { title: 'Time to full', by: 'ratio', unit: '%' },
  capacity: { title: 'Capacity', by: 'ratio', unit: '%' },
} as const satisfies Readonly<
  Partial<
    Record<
      LogQuantityId,
      { readonly title: string; readonly by: 'difference' | 'ratio'; readonly unit: 'Δ°C' | '%' }
    >
  >
>
type LearntTopic = keyof typeof topics
export const learntTopics = Object.keys(topics) as LearntTopic[]

/** Measured against predicted, for one kind of craft or one age. */
export interface LearntRow {
  /** `Vessel`, `2 to 5 years`. */
  readonly group: string
  readonly readings: number
  readonly crafts: number
  /** Middle of measured less predicted: in per cent of the prediction, or in kelvin. */
  readonly bias: number
  /** Half of the readings lie within this of the middle, in the same unit. */
  readonly spread: number
}

/** A default that the readings speak for: the value it has, and the one that fits them. */
interface LearntOffer {
  readonly rule: RuleId
  readonly now: number
  readonly fits: number
  readonly why: string
}

export interface Lesson {
  readonly topic: LearntTopic
  readonly title: string
  readonly unit: 'Δ°C' | '%'
  readonly all: LearntRow
  readonly rows: readonly LearntRow[]
  readonly offer: LearntOffer | null
  /** Why no default is offered. */
  readonly noOffer: string
}

/** Fewer readings, or of fewer craft, change no default. */
const leastReadings = 12
const leastCrafts = 3
/** Copper: change of resistance by temperature, 1/K at 20 °C (IEC 60228). */
const copperPerK = 0.00393
const ages = [
  ['up to 2 years', 0, 2],
  ['2 to 5 years', 2, 5],
  ['over 5 years', 5, Infinity],
] as const

function rowOf(group: string, readings: readonly PredictedReading[], by: 'difference' | 'ratio'): LearntRow {
  const off = readings.map(({ value, expected }) =>
    by === 'difference' ? value - expected : 100 * (value / expected - 1),
  )
  const bias = median(off)
  return {
    group,
    readings: readings.length,
    crafts: new Set(readings.map(({ craft }) => craft)).size,
    bias,
    spread: median(off.map((one) => Math.abs(one - bias))),
  }
}

function groupsOf(topic: LearntTopic, readings: readonly PredictedReading[]) {
  if (topic === 'capacity')
    return ages.map(([name, from, to]) => ({
      name,
      readings: readings.filter(({ ageYears }) => ageYears >= from && ageYears < to),
    }))
  const kinds = [...new Set(readings.map(({ kind }) => kind))]
  return kinds.map((kind) => ({
    name: kind ? crafts[kind] : 'Kind not entered',
    readings: readings.filter((one) => one.kind === kind),
  }))
}

/** Cables that read more than predicted are warmer than the rule says, and the rule decides their resistance. */
function cableOffer(all: LearntRow, rules: ShopRules): LearntOffer | null {
  const [least, most] = ruleCatalogue.cableC.limits
  const now = rules.cableC
  const atNow = 1 + copperPerK * (now - 20)
  const fits = Math.round((atNow * (1 + all.bias / 100) - 1) / copperPerK + 20)
  const within = Math.min(most, Math.max(least, fits))
  // A bias inside the scatter of the readings says nothing.
  if (Math.abs(all.bias) < (2 * all.spread) / Math.sqrt(all.readings) || within === now) return null
  return {
    rule: 'cableC',
    now,
    fits: within,
    why: 'Copper has 0.39 % more resistance for each degree, so the readings fit cables of this temperature.',
  }
}

const noDefault: Readonly<Record<Exclude<LearntTopic, 'jointResistance'>, string>> = {
  caseTemperature: 'This has no default. Until you measure a case, each check covers all plausible heat.',
  hoursToFull: 'This has no single default. It follows from the sources and settings of each job.',
  capacity: 'This has no default. A new lithium battery counts with its rated capacity.',
}

/**
 * Comparison of a shop's own readings with their predictions, by topic and kind, with the default that they
 * support. It changes nothing.
 */
export function lessonsOf(readings: readonly PredictedReading[], rules: ShopRules): Lesson[] {
  return learntTopics.flatMap((topic): Lesson[] => {
    const { title, by, unit } = topics[topic]
    const own = readings.filter(
      ({ quantity, expected }) => quantity === topic && (by === 'difference' || expected > 0),
    )
    if (own.length === 0) return []
    const all = rowOf('All', own, by)
    const rows = groupsOf(topic, own)
      .filter((group) => group.readings.length > 0)
      .map((group) => rowOf(group.name, group.readings, by))
    const isEnough = all.readings >= leastReadings && all.crafts >= leastCrafts
    const offer = topic === 'jointResistance' && isEnough ? cableOffer(all, rules) : null
    const noOffer =
      topic !== 'jointResistance'
        ? noDefault[topic]
        : isEnough
          ? 'The readings fit the rule in force.'
          : `A change needs ${leastReadings} readings of ${leastCrafts} craft.`
    return [{ topic, title, unit, all, rows, offer, noOffer }]
  })
}
