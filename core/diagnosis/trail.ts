import type { Hypothesis } from './hypotheses'

/**
 * Covariance of a column over all tests with each of some readings: forward substitution by the triangular root of
 * their covariance. It leaves room for one more entry at its end.
 *
 * @param steps the read tests, in their order
 * @param h number of the hypothesis
 * @param column its covariance with each test
 */
export function inCommon(
  steps: readonly Trail[],
  [h, hypothesis]: readonly [number, Hypothesis],
  column: (place: number) => number,
): Float64Array {
  const row = new Float64Array(steps.length + 1)
  for (let i = 0; i < steps.length; i++) {
    const step = steps[i]!
    const own = step.row(h, hypothesis)
    let left = column(step.place)
    for (let k = 0; k < i; k++) left -= row[k]! * own[k]!
    row[i] = left / own[i]!
  }
  return row
}

/** Share of its noise that the variance of a reading never falls below. */
export const leastNoiseShare = 0.25
/** The variance of a reading from remaining unknowns and its noise. */
export const withNoise = (variance: number, noise: number): number =>
  Math.max(variance + noise, leastNoiseShare * noise)

/**
 * The read tests in their order, with the parts that do not depend on the readings: for each hypothesis the rows of
 * the triangular root (Cholesky) of their covariance, calculated on demand. The tests of the routine are cached,
 * because each search begins with them. Other tests are dropped after the search.
 */
export class Trail {
  private readonly rows: (Float64Array | undefined)[] = []
  private onwards: Trail | null = null
  /** Every step up to this one, itself last. */
  readonly steps: readonly Trail[]

  private constructor(
    /** Of the test, among all. */
    readonly place: number,
    private readonly before: readonly Trail[],
    /** Places of the tests of the routine, while this follows it. */
    private readonly routine: readonly number[] | null,
  ) {
    this.steps = place < 0 ? [] : [...before, this]
  }

  /** Before anything is read. */
  static along(routine: readonly number[]): Trail {
    return new Trail(-1, [], routine)
  }

  /** With one more test. */
  after(place: number): Trail {
    const follows = this.routine !== null && this.routine[this.steps.length] === place
    if (!follows) return new Trail(place, this.steps, null)
    return (this.onwards ??= new Trail(place, this.steps, this.routine))
  }

  /**
   * The Cholesky row of the last reading for a hypothesis: covariances with earlier readings, its own deviation last.
   */
  row(h: number, hypothesis: Hypothesis): Float64Array {
    return (this.rows[h] ??= this.rowOf(h, hypothesis))
  }

  private rowOf(h: number, hypothesis: Hypothesis): Float64Array {
    const { covariance, noise } = hypothesis
    const { place, before } = this
    const row = inCommon(before, [h, hypothesis], (other) => covariance.between(place, other))
    let variance = covariance.variances[place]!
    for (let i = 0; i < before.length; i++) variance -= row[i]! * row[i]!
    row[before.length] = Math.sqrt(withNoise(variance, noise[place]!))
    return row
  }
}
