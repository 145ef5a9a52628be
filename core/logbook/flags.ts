import type { ShopRules } from '#core/rules/rules'
import { inSentence, type Write, joinText } from '#core/units/format'
import { standingEntries, type LogEntry } from './entry'
import { logQuantity, readingName } from './quantities'
import { dayOf } from '#core/papers/blocks'
import type { Series, SeriesLimit } from './series'
import { yearMs, type Crossing } from './trend'

/** Something to look at when the craft comes back. */
export interface CheckNext {
  /** The series or the entry that it comes from. */
  readonly id: string
  readonly from: 'limit' | 'trend' | 'open'
  readonly words: string
  readonly why: string
}

/** A date further ahead than this says “never” to a customer. */
const mostYears = 25

const yearOf = (ms: number): number => new Date(ms).getUTCFullYear()
const monthFormat = new Intl.DateTimeFormat('en-GB', { month: 'long', timeZone: 'UTC' })
const monthOf = (ms: number): string => monthFormat.format(new Date(ms))

/**
 * The year of a crossing with its 90 % interval: `2028 (2027 to 2031)`, `2028 (2027 or later)`, `2028 (March to
 * May)`.
 */
function crossingYears({ at, earliest, latest }: Crossing, now: number): string {
  const far = now + mostYears * yearMs
  const from = Math.max(earliest, now)
  const year = yearOf(Math.min(at, far))
  if (latest === null || latest > far) return `${year} (${Math.min(yearOf(from), year)} or later)`
  if (yearOf(from) !== yearOf(latest)) return `${year} (${yearOf(from)} to ${yearOf(latest)})`
  const [first, last] = [monthOf(from), monthOf(latest)]
  return `${year} (${first === last ? first : `${first} to ${last}`})`
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
  const [one, other] = [Math.abs(interval.low), Math.abs(interval.high)]
  const moves = joinText(
    `${slope < 0 ? 'Falls' : 'Rises'} by ${q(Math.abs(slope), unit)} a year `,
    `(${q(Math.min(one, other), unit)} to ${q(Math.max(one, other), unit)}).`,
  )
  if (!limit || !isTowards(limit, slope)) return moves
  if (isBeyond(limit, trend.valueAt(now))) return `${moves} It is past the limit of ${q(limit.value, unit)}.`
  const crossing = trend.crossing(limit.value)
  if (!crossing || crossing.at > now + mostYears * yearMs || readings.length === 0)
    return `${moves} It does not reach ${q(limit.value, unit)} within ${mostYears} years.`
  return `${moves} It reaches ${q(limit.value, unit)} in ${crossingYears(crossing, now)}.`
}

const isBeyond = ({ value, worse }: SeriesLimit, reading: number): boolean =>
  worse === 'lower' ? reading <= value : reading >= value
/** Whether a change goes the way that gets worse. */
const isTowards = ({ worse }: SeriesLimit, slope: number): boolean => slope < 0 === (worse === 'lower')

/** The flags of one series for the next visit. */
function ofSeries(series: Series, rules: ShopRules, q: Write, now: number): CheckNext[] {
  const { id, limit, trend, readings, quantity, subject } = series
  const last = readings.at(-1)
  if (!limit || !last) return []
  const { unit, remedy = 'Check it' } = logQuantity(quantity)
  const what = readingName(quantity, subject)
  if (isBeyond(limit, last.value))
    return [
      {
        id,
        from: 'limit',
        words: `${what}: ${inSentence(remedy)}.`,
        why: `The last reading is ${q(last.value, unit)}. The limit is ${q(limit.value, unit)}.`,
      },
    ]
  if (trend.kind !== 'line' || !trend.isMoving || !isTowards(limit, trend.slope)) return []
  const crossing = trend.crossing(limit.value)
  if (!crossing || crossing.earliest > now + rules.checkAheadYears * yearMs) return []
  return [{ id, from: 'trend', words: `${what}: measure it again.`, why: trendWords(series, q, now) }]
}

/**
 * Flags for the next visit: readings past a limit, trends that may meet one soon, and open items.
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
      why: `Left open on ${dayOf(at)}.`,
    }))
  const found = series.flatMap((one) => ofSeries(one, rules, q, now))
  return [
    ...found.filter(({ from }) => from === 'limit'),
    ...found.filter(({ from }) => from === 'trend'),
    ...open,
  ]
}
