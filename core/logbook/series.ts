import type { ShopRules } from '#core/rules/rules'
import { standingEntries, type LogEntry } from './entry'
import { logQuantity, type LogQuantityId } from './quantities'
import { median, trendOf, type Trend } from './trend'

/** A reading that stands. */
interface LogReading {
  readonly entry: LogEntry
  /** ms since 1970. */
  readonly at: number
  readonly value: number
}

/** The shop’s limit for a series, in its unit. */
export interface SeriesLimit {
  readonly value: number
  readonly worse: 'lower' | 'higher'
  /** The value when new that it is a share of; null for a fixed limit. */
  readonly whenNew: number | null
}

/** All readings of one quantity at one place of a craft. */
export interface Series {
  /** `capacity|house bank`. */
  readonly id: string
  readonly quantity: LogQuantityId
  readonly subject: string
  /** Oldest first. */
  readonly readings: readonly LogReading[]
  readonly limit: SeriesLimit | null
  readonly trend: Trend
}

/** Readings that stand for a new part if no value is given for it. */
const firstReadings = 3

/** Readings since the part was last replaced: a new part starts a new series. */
function sinceReplaced(readings: readonly LogReading[], replaced: readonly LogEntry[]): LogReading[] {
  const last = replaced.at(-1)
  return last ? readings.filter(({ entry }) => entry.at >= last.at) : [...readings]
}

function limitOf(
  quantity: LogQuantityId,
  readings: readonly LogReading[],
  rules: ShopRules,
): SeriesLimit | null {
  const { limit } = logQuantity(quantity)
  if (!limit) return null
  if (limit.kind === 'fixed') return { value: limit.value, worse: limit.worse, whenNew: null }
  const given = readings
    .filter(({ entry }) => limit.whenNew === 'expected' || entry.source !== 'prove')
    .flatMap(({ entry }) => entry.expected ?? [])
  const whenNew = given[0] ?? median(readings.slice(0, firstReadings).map(({ value }) => value))
  return { value: (whenNew * (rules[limit.rule] as number)) / limit.per, worse: limit.worse, whenNew }
}

/** An entry that is a reading. */
type Read = LogEntry & { readonly quantity: LogQuantityId; readonly value: number }
const isReading = (entry: LogEntry): entry is Read =>
  entry.kind === 'reading' && entry.quantity !== null && entry.value !== null

/** Items by a key, in the order in which they come. */
function groupedBy<T>(items: readonly T[], keyOf: (item: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const item of items) {
    const key = keyOf(item)
    const group = groups.get(key)
    if (group) group.push(item)
    else groups.set(key, [item])
  }
  return groups
}

const placeOf = (subject: string): string => subject.trim().toLowerCase()

/**
 * Readings of a logbook by quantity and place, with limit and trend; the ones with a limit first. Corrected
 * entries, and readings of a part that was replaced later, are left out.
 */
export function seriesOf(entries: readonly LogEntry[], rules: ShopRules): Series[] {
  const standing = standingEntries(entries)
  const replaced = groupedBy(
    standing.filter(({ kind }) => kind === 'replaced'),
    ({ subject }) => placeOf(subject),
  )
  const readings = standing.filter(isReading)
  const groups = groupedBy(readings, ({ quantity, subject }) => `${quantity}|${placeOf(subject)}`)
  const all = [...groups].map(([id, group]): Series => {
    const [{ quantity, subject }] = group.slice(-1) as [Read]
    const own = sinceReplaced(
      group.map((entry) => ({ entry, at: Date.parse(entry.at), value: entry.value })),
      replaced.get(placeOf(subject)) ?? [],
    )
    const limit = own.length > 0 ? limitOf(quantity, own, rules) : null
    return { id, quantity, subject, readings: own, limit, trend: trendOf(own) }
  })
  return all.toSorted((a, b) => Number(b.limit !== null) - Number(a.limit !== null))
}
