/**
 * Linear equations whose matrix is nearly empty, as those of a network are: what is eliminated in which order, and
 * what that touches, is worked out once for a pattern; solving with numbers then takes as many steps as there are
 * entries. Order by least degree; no pivoting, since every row has its own conductance on the diagonal.
 * Dense elimination of a network of 120 posts takes some hundred times as long.
 */
export class SparseEquations {
  /** Where each entry stands in `values`, by row and column. */
  private readonly places: Map<number, number>[]
  private readonly steps: readonly Step[]
  private readonly order: readonly number[]
  readonly values: Float64Array

  /**
   * @param size number of unknowns
   * @param pattern pairs of unknowns that share an equation, in either order
   */
  constructor(
    private readonly size: number,
    pattern: Iterable<readonly [number, number]>,
  ) {
    const joined = Array.from({ length: size }, () => new Set<number>())
    for (const [a, b] of pattern) {
      if (a === b) continue
      joined[a]!.add(b)
      joined[b]!.add(a)
    }
    this.places = Array.from({ length: size }, () => new Map<number, number>())
    let count = 0
    const placeAt = (row: number, column: number): number => {
      const known = this.places[row]!.get(column)
      if (known !== undefined) return known
      this.places[row]!.set(column, count)
      return count++
    }
    for (let i = 0; i < size; i++) {
      placeAt(i, i)
      for (const k of joined[i]!) placeAt(i, k)
    }
    const order: number[] = []
    const steps: Step[] = []
    const left = new Set(joined.keys())
    while (left.size > 0) {
      const pivot = leastJoined(left, joined)
      left.delete(pivot)
      order.push(pivot)
      const beside = [...joined[pivot]!].sort((a, b) => a - b)
      for (const row of beside) joined[row]!.delete(pivot)
      steps.push({
        pivot: placeAt(pivot, pivot),
        beside: beside.map((column) => ({ column, place: placeAt(pivot, column) })),
        rows: beside.map((row) => ({
          row,
          factor: placeAt(row, pivot),
          targets: beside.map((column) => {
            if (row !== column) {
              joined[row]!.add(column)
              joined[column]!.add(row)
            }
            return placeAt(row, column)
          }),
        })),
      })
    }
    this.order = order
    this.steps = steps
    this.values = new Float64Array(count)
  }

  /** Where the entry of a row and a column stands in `values`; it must be of the pattern. */
  at(row: number, column: number): number {
    return this.places[row]!.get(column)!
  }

  /**
   * Solves for a right side. The values are used up: what is left of them serves {@link solveAgain}.
   * @returns the unknowns; not finite where there is no single solution
   */
  solve(right: Float64Array): Float64Array {
    const { values, steps } = this
    for (let k = 0; k < this.size; k++) {
      const { pivot, beside, rows } = steps[k]!
      const head = values[pivot]!
      for (const { factor, targets } of rows) {
        const share = values[factor]! / head
        values[factor] = share
        if (share === 0) continue
        for (let i = 0; i < targets.length; i++) values[targets[i]!]! -= share * values[beside[i]!.place]!
      }
    }
    return this.solveAgain(right)
  }

  /** Solves the same equations for another right side. */
  solveAgain(right: Float64Array): Float64Array {
    const { values, order, steps } = this
    const rest = Float64Array.from(right)
    for (let k = 0; k < this.size; k++)
      for (const { row, factor } of steps[k]!.rows) rest[row]! -= values[factor]! * rest[order[k]!]!
    const found = new Float64Array(this.size)
    for (let k = this.size - 1; k >= 0; k--) {
      const { pivot, beside } = steps[k]!
      let sum = rest[order[k]!]!
      for (const { column, place } of beside) sum -= values[place]! * found[column]!
      found[order[k]!] = sum / values[pivot]!
    }
    return found
  }
}

/** One elimination: the pivot, the entries beside it in its row, and the rows that it is taken out of. */
interface Step {
  readonly pivot: number
  readonly beside: readonly { readonly column: number; readonly place: number }[]
  readonly rows: readonly {
    readonly row: number
    readonly factor: number
    readonly targets: readonly number[]
  }[]
}

function leastJoined(left: ReadonlySet<number>, joined: readonly ReadonlySet<number>[]): number {
  let best = -1
  for (const i of left) if (best < 0 || joined[i]!.size < joined[best]!.size) best = i
  return best
}
