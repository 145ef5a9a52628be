/** A reading in time: ms since 1970, and its value. */
export interface TimedValue {
  readonly at: number
  readonly value: number
}

interface Interval {
  readonly low: number
  readonly high: number
}

/** Where a trend meets a limit: ms since 1970. Null where it is not before that bound. */
export interface Crossing {
  readonly at: number
  readonly earliest: number
  /** Null if the readings do not bound it. */
  readonly latest: number | null
}

export type Trend =
  | { readonly kind: 'too-few'; readonly have: number; readonly need: number }
  | { readonly kind: 'too-short'; readonly days: number; readonly need: number }
  | {
      readonly kind: 'line'
      /** Change a year, and its 90 % interval. */
      readonly slope: number
      readonly interval: Interval
      /** Whether the interval leaves out “no change”. */
      readonly isMoving: boolean
      /** Standard deviation of a reading about the line. */
      readonly deviation: number
      /** The value of the line at a time, ms. */
      readonly valueAt: (at: number) => number
      /**
       * The time, ms, at which the line meets a value, with its 90 % interval; null if it moves away from it or not
       * at all.
       */
      readonly crossing: (limit: number) => Crossing | null
    }

/** Readings that a trend needs, and the days they must span. */
export const leastReadings = 5
const leastDays = 180
const dayMs = 86_400_000
export const yearMs = 365.25 * dayMs
/** Two-sided 90 % of the normal distribution. */
const normal90 = 1.644854
/** The middle difference of two normal readings, in standard deviations, inverted. */
const perMiddleDifference = 1.0483
/** Efficiency of the middle slope against least squares where errors are normal. */
const efficiency = 0.955
/** Nothing scatters less than this share of its size: instruments show a few digits. */
const leastScatter = 1e-6

/** The middle of some values; NaN of none. */
export function median(values: ArrayLike<number>): number {
  // Sorted as numbers of one type: many times faster than with a comparison of its own.
  const sorted = Float64Array.from(values).sort()
  const half = sorted.length >> 1
  const middle = sorted[half] ?? NaN
  return sorted.length % 2 === 1 ? middle : ((sorted[half - 1] ?? NaN) + middle) / 2
}

/** Two-sided 90 % of Student’s distribution, by its expansion in 1/freedom (Abramowitz and Stegun 26.7.5). */
function student90(freedom: number): number {
  const z = normal90
  return (
    z +
    (z ** 3 + z) / (4 * freedom) +
    (5 * z ** 5 + 16 * z ** 3 + 3 * z) / (96 * freedom ** 2) +
    (3 * z ** 7 + 19 * z ** 5 + 17 * z ** 3 - 15 * z) / (384 * freedom ** 3)
  )
}

/** A value of each pair of items, each pair once. */
function ofPairs<T>(items: readonly T[], valueOf: (a: T, b: T) => number): Float64Array {
  const values = new Float64Array((items.length * (items.length - 1)) / 2)
  let count = 0
  items.forEach((a, i) => {
    for (const b of items.slice(i + 1)) values[count++] = valueOf(a, b)
  })
  return values
}

/**
 * The robust trend of readings: the middle of the slopes between every two of them (Theil–Sen), through the middle of
 * their means (Hodges–Lehmann). Its intervals take the scatter from the middle difference of the residuals, so that
 * one wrong reading in five moves neither the line nor its interval much.
 * @param readings in any order; those of the same time are kept apart
 */
export function trendOf(readings: readonly TimedValue[]): Trend {
  const have = readings.length
  if (have < leastReadings) return { kind: 'too-few', have, need: leastReadings }
  const times = readings.map(({ at }) => at / yearMs)
  const spanDays = ((Math.max(...times) - Math.min(...times)) * yearMs) / dayMs
  if (spanDays < leastDays) return { kind: 'too-short', days: Math.round(spanDays), need: leastDays }
  const centre = times.reduce((sum, t) => sum + t, 0) / have
  const points = readings.map(({ at, value }) => ({ t: at / yearMs - centre, value }))
  // Readings of one day say nothing about a slope.
  const slopes = ofPairs(points, (a, b) =>
    Math.abs(b.t - a.t) * yearMs < dayMs ? NaN : (b.value - a.value) / (b.t - a.t),
  )
  const slope = median(slopes.filter((one) => !Number.isNaN(one)))
  const level = points.map(({ t, value }) => value - slope * t)
  const middle = median([...level, ...ofPairs(level, (a, b) => (a + b) / 2)])
  const scatter =
    perMiddleDifference * median(ofPairs(level, (a, b) => Math.abs(a - b))) * Math.sqrt(have / (have - 2))
  const deviation = Math.max(scatter, leastScatter * Math.abs(middle))
  const spread = points.reduce((sum, { t }) => sum + t * t, 0)
  const width = (student90(have - 2) * deviation) / Math.sqrt(efficiency)
  const half = width / Math.sqrt(spread)
  const isMoving = Math.abs(slope) > half
  return {
    kind: 'line',
    slope,
    interval: { low: slope - half, high: slope + half },
    isMoving,
    deviation,
    valueAt: (at) => middle + slope * (at / yearMs - centre),
    crossing: (limit) => crossingOf({ slope, toGo: limit - middle, width, spread, count: have }, centre),
  }
}

/** When a line meets a value, with its bounds; null where it is level. `centre` is the time of its level, years. */
function crossingOf(line: Parameters<typeof boundsOf>[0], centre: number): Crossing | null {
  const { slope, toGo } = line
  if (slope === 0) return null
  const { earliest, latest } = boundsOf(line)
  const toMs = (t: number): number => (t + centre) * yearMs
  return {
    at: toMs(toGo / slope),
    earliest: toMs(earliest),
    latest: latest === null ? null : toMs(latest),
  }
}

/**
 * Where a line with uncertain level and slope can meet a value (Fieller’s interval): all t with
 * |slope t − toGo| ≤ width √(1/count + t²/spread). Years from the middle of the readings.
 */
function boundsOf({
  slope,
  toGo,
  width,
  spread,
  count,
}: {
  readonly slope: number
  readonly toGo: number
  readonly width: number
  readonly spread: number
  readonly count: number
}): { readonly earliest: number; readonly latest: number | null } {
  const a = slope ** 2 - width ** 2 / spread
  const b = -2 * slope * toGo
  const c = toGo ** 2 - width ** 2 / count
  const root = Math.sqrt(Math.max(0, b * b - 4 * a * c))
  if (a > 0) return { earliest: (-b - root) / (2 * a), latest: (-b + root) / (2 * a) }
  // The slope may be zero: the line can meet the value at any time after the earliest, or never.
  const ahead = [(-b - root) / (2 * a), (-b + root) / (2 * a)].filter((t) => t > 0)
  return { earliest: ahead.length > 0 ? Math.min(...ahead) : 0, latest: null }
}
