import type { Hypothesis } from './hypotheses'

/**
 * A reading as one hypothesis sees it: its place among the tests, its row of the root of the readings’ covariance,
 * and how far it is off along it.
 */
export interface Seen {
  readonly place: number
  readonly row: Float64Array
  readonly off: number
}

/**
 * The predictions of one hypothesis for every test, given the readings so far. It is updated from reading to
 * reading: the rows of the Cholesky factor of the covariance are kept for all tests, so that a
 * further reading costs one pass over the tests and not a solution for each.
 */
export class Ahead {
  private constructor(
    /** For each test, in the unit of the reading. */
    readonly means: Float64Array,
    /** For each test, without the noise of its reading. */
    readonly variances: Float64Array,
    /** For each reading, its covariance with each test. */
    private readonly roots: readonly Float64Array[],
  ) {}

  /** Before anything is read. */
  static of({ means, covariance }: Hypothesis): Ahead {
    return new Ahead(means, covariance.variances, [])
  }

  /** How many readings are in it. */
  get count(): number {
    return this.roots.length
  }

  /** With one more reading. */
  after({ covariance }: Hypothesis, { place, row, off }: Seen): Ahead {
    const count = this.means.length
    const root = covariance.row(place).slice()
    this.roots.forEach((earlier, i) => {
      const by = row[i]!
      for (let t = 0; t < count; t++) root[t]! -= by * earlier[t]!
    })
    const [means, variances] = [this.means.slice(), this.variances.slice()]
    const sd = row[this.count]!
    for (let t = 0; t < count; t++) {
      const common = root[t]! / sd
      root[t] = common
      means[t]! += common * off
      variances[t]! -= common * common
    }
    return new Ahead(means, variances, [...this.roots, root])
  }
}
