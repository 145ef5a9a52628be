import type { Slopes } from '#core/commissioning/prediction'

/**
 * Covariance of the readings of one hypothesis, without the noise of each: from the parameters that move several of
 * them, and from the size of the fault. Calculated per test on demand, because few tests are ever read.
 */
export class Covariance {
  /** For each test alone. */
  readonly variances: Float64Array
  private readonly rows: (Float64Array | undefined)[] = []

  /**
   * @param slopes by test, over the parameters
   * @param bySize by test, how far it moves over the width of the size
   * @param parameters how many there are
   */
  constructor(
    private readonly slopes: readonly Slopes[],
    private readonly bySize: Float64Array,
    private readonly parameters: number,
  ) {
    this.variances = Float64Array.from(slopes, ({ by }, t) =>
      by.reduce((sum, slope) => sum + slope * slope, bySize[t]! ** 2),
    )
  }

  /** The covariance of one test with each other test. */
  row(place: number): Float64Array {
    return (this.rows[place] ??= this.rowOf(place))
  }

  /** The covariance of two tests. */
  between(one: number, other: number): number {
    const known = this.rows[one]?.[other] ?? this.rows[other]?.[one]
    if (known !== undefined) return known
    const [a, b] = [this.slopes[one]!, this.slopes[other]!]
    let sum = this.bySize[one]! * this.bySize[other]!
    for (let i = 0, k = 0; i < a.at.length && k < b.at.length;) {
      if (a.at[i] === b.at[k]) sum += a.by[i++]! * b.by[k++]!
      else if (a.at[i]! < b.at[k]!) i++
      else k++
    }
    return sum
  }

  private rowOf(place: number): Float64Array {
    const own = new Float64Array(this.parameters)
    const { at, by } = this.slopes[place]!
    for (let i = 0; i < at.length; i++) own[at[i]!] = by[i]!
    const size = this.bySize[place]!
    return Float64Array.from(this.slopes, (other, t) => {
      let sum = size * this.bySize[t]!
      for (let i = 0; i < other.at.length; i++) sum += own[other.at[i]!]! * other.by[i]!
      return sum
    })
  }
}
