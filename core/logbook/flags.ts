import type { ShopRules } from '#core/rules/rules'
import type { Write } from '#core/units/format'
import { standingEntries, type LogEntry } from './entry'
import { logQuantity } from './quantities'
import type { Series } from './series'

/** Something to look at when the craft comes back. */
export interface CheckNext {
  /** The series or the entry that it comes from. */
  readonly id: string
  readonly from: 'limit' | 'trend' | 'open'
  readonly words: string
  readonly why: string
}

const yearMs = 365.25 * 86_400_000
/** A date further ahead than this says “never” to a customer. */
const mostYears = 25

const yearOf = (ms: number): number => new Date(ms).getUTCFullYear()

/** The year of a crossing with its 90 % interval: `2028 (2027 to 2031)`, `2028 (2027 or later)`. */
export function crossingYears(at: number, earliest: number, latest: number | null, now: number): string {
  const far = now + mostYears * yearMs
  const year = yearOf(Math.min(at, far))
  const from = yearOf(Math.max(earliest, now))
  if (latest === null || latest > far) return `${year} (${from} or later)`
  const to = yearOf(latest)
  return from === to && to === year ? String(year) : `${year} (${Math.min(from, year)} to ${to})`
}

/** A sentence about the trend of a series, for people. */
export function trendWords(series: Series, q: Write, now: number): string {
  const { trend, quantity, limit, readings } = series
  const { unit } = logQuantity(quantity)
  if (trend.kind === 'too-few') return `Too few readings for a trend: ${trend.have} of ${trend.need}.`
  if (trend.kind === 'too-short') return `The readings span ${trend.days} days. A trend needs ${trend.need}.`
  const { interval, slope, isMoving } = trend
  if (!isMoving)
    return `No clear change: between ${q(interval.low, unit)} and ${q(interval.high, unit)} a year.`
  const [least, most] = [Math.abs(interval.low), Math.abs(interval.high)].toSorted((a, b) => a - b)
  const moves = `${slope < 0 ? 'Falls' : 'Rises'} by ${q(Math.abs(slope), unit)} a year (${q(least!, unit)} to ${q(most!, unit)}).`
  if (!limit || slope < 0 !== (limit.worse === 'lower')) return moves
  if (isBeyond(limit, trend.valueAt(now))) return `${moves} It is past the limit of ${q(limit.value, unit)}.`
  const crossing = trend.crossing(limit.value)
  if (!crossing || crossing.at > now + mostYears * yearMs || readings.length === 0)
    return `${moves} It does not reach ${q(limit.value, unit)} within ${mostYears} years.`
  return `${moves} It reaches ${q(limit.value, unit)} in ${crossingYears(crossing.at, crossing.earliest, crossing.latest, now)}.`
}

const isBeyond = ({ value, worse }: NonNullable<Series['limit']>, reading: number): boolean =>
  worse === 'lower' ? reading <= value : reading >= value

/** What the readings of one series say about the next visit. */
function ofSeries(series: Series, rules: ShopRules, q: Write, now: number): CheckNext[] {
  const { id, limit, trend, readings, quantity, subject } = series
  const last = readings.at(-1)
  if (!limit || !last) return []
  const { label, unit, remedy = 'Check it' } = logQuantity(quantity)
  const what = [label, subject].filter(Boolean).join(', ')
  if (isBeyond(limit, last.value))
    return [
      {
        id,
        from: 'limit',
        words: `${what}: ${remedy.charAt(0).toLowerCase()}${remedy.slice(1)}.`,
        why: `The last reading is ${q(last.value, unit)}. The limit is ${q(limit.value, unit)}.`,
      },
    ]
  if (trend.kind !== 'line' || !trend.isMoving || trend.slope < 0 !== (limit.worse === 'lower')) return []
  const crossing = trend.crossing(limit.value)
  if (!crossing || crossing.earliest > now + rules.checkAheadYears * yearMs) return []
  return [{ id, from: 'trend', words: `${what}: measure it again.`, why: trendWords(series, q, now) }]
}

/**
 * What to check next time: readings past a limit, trends that can meet one soon, and what was left open.
 * @param now ms since 1970
 */
export function checksNext(
  { entries, series }: { readonly entries: readonly LogEntry[]; readonly series: readonly Series[] },
  { rules, q, now }: { readonly rules: ShopRules; readonly q: Write; readonly now: number },
): CheckNext[] {
  const open = standingEntries(entries)
    .filter(({ kind }) => kind === 'deviation')
    .map(({ id, words, at }): CheckNext => ({
      id,
      from: 'open',
      words,
      why: `Left open on ${at.slice(0, 10)}.`,
    }))
  const found = series.flatMap((one) => ofSeries(one, rules, q, now))
  return [
    ...found.filter(({ from }) => from === 'limit'),
    ...found.filter(({ from }) => from === 'trend'),
    ...open,
  ]
}
