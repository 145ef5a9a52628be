import { elementAt, entryOf } from '#core/collections/held'

/**
 * Sparse linear equations, as in a network: the elimination order and the entries
 * it touches are calculated once for a pattern. Solving with numbers then takes as many steps as there are
 * entries. Order by least degree; no pivoting, since every row has its own conductance on the diagonal.
 * Dense elimination of a network of 120 posts takes some hundred times as long.
 */
export class SparseEquations {
  /** Index of each entry in `values`, by row and column. */
  private readonly places: Map<number, number>[]
  /** The unknown of each elimination, and the index of its pivot. */
  private readonly order: Int32Array
  private readonly pivots: Int32Array
  /** Where the unknowns that each elimination touches begin in the lists of them. */
  private readonly starts: Int32Array
  private readonly columns: Int32Array
  /** Indexes of the entries in the row and column of the pivot, for each touched unknown. */
  private readonly pivotRow: Int32Array
  private readonly pivotColumn: Int32Array
  /** Indexes of the changed entries: for each touched row, one in each touched column. */
  private readonly targets: Int32Array
  readonly values: Float64Array

  /**
   * @param size number of unknowns
   * @param pattern pairs of unknowns that share an equation, in either order
   */
  constructor(
    private readonly size: number,
    pattern: Iterable<readonly [number, number]>,
  ) {
    const joined = joinedBy(pattern, size)
    this.places = Array.from({ length: size }, () => new Map<number, number>())
    let count = 0
    const placeAt = (row: number, column: number): number => {
      const known = elementAt(this.places, row).get(column)
      if (known !== undefined) return known
      elementAt(this.places, row).set(column, count)
      return count++
    }
    for (let i = 0; i < size; i++) {
      placeAt(i, i)
      for (const k of elementAt(joined, i)) placeAt(i, k)
    }
    const { order, starts, columns, pivotRow, pivotColumn, targets } = eliminated(joined, placeAt)
    this.order = Int32Array.from(order)
    this.pivots = Int32Array.from(order, (pivot) => placeAt(pivot, pivot))
    this.starts = Int32Array.from(starts)
    this.columns = Int32Array.from(columns)
    this.pivotRow = Int32Array.from(pivotRow)
    this.pivotColumn = Int32Array.from(pivotColumn)
    this.targets = Int32Array.from(targets)
    this.values = new Float64Array(count)
  }

  /** Index of the entry of a row and column in `values`; it must be in the pattern. */
  at(row: number, column: number): number {
    return entryOf(elementAt(this.places, row), column)
  }

  /**
   * Solves for a right side. It overwrites the values; {@link solveAgain} uses the result.
   * @returns the right side, overwritten with the unknowns; not finite if there is no unique solution
   */
  solve(right: Float64Array): Float64Array {
    const { values, pivots, starts, pivotRow, pivotColumn, targets } = this
    let target = 0
    for (let k = 0; k < this.size; k++) {
      const head = values[pivots[k]!]!
      const [first, end] = [starts[k]!, starts[k + 1]!]
      for (let row = first; row < end; row++) {
        const share = values[pivotColumn[row]!]! / head
        values[pivotColumn[row]!] = share
        for (let column = first; column < end; column++)
          values[targets[target++]!]! -= share * values[pivotRow[column]!]!
      }
    }
    return this.solveAgain(right)
  }

  /** Solves the same equations for another right side, in its place. */
  solveAgain(rest: Float64Array): Float64Array {
    const { values, order, pivots, starts, columns, pivotRow, pivotColumn } = this
    for (let k = 0; k < this.size; k++) {
      const known = rest[order[k]!]!
      if (known === 0) continue
      for (let i = starts[k]!; i < starts[k + 1]!; i++) rest[columns[i]!]! -= values[pivotColumn[i]!]! * known
    }
    for (let k = this.size - 1; k >= 0; k--) {
      let sum = rest[order[k]!]!
      for (let i = starts[k]!; i < starts[k + 1]!; i++) sum -= values[pivotRow[i]!]! * rest[columns[i]!]!
      rest[order[k]!] = sum / values[pivots[k]!]!
    }
    return rest
  }
}

function leastJoined(left: ReadonlySet<number>, joined: readonly ReadonlySet<number>[]): number {
  let best = -1
  for (const i of left) if (best < 0 || elementAt(joined, i).size < elementAt(joined, best).size) best = i
  return best
}

/** The unknowns that share an equation with each. */
function joinedBy(pattern: Iterable<readonly [number, number]>, size: number): Set<number>[] {
  const joined = Array.from({ length: size }, () => new Set<number>())
  for (const [a, b] of pattern) {
    if (a !== b) join(joined, a, b)
  }
  return joined
}

/**
 * Eliminates one unknown after another, that with the fewest neighbours first, and notes the entries that each
 * touches.
 * @param joined the neighbours of each unknown; changed on the way
 * @param placeAt the index of an entry, which is made where there is none
 */
function eliminated(
  joined: readonly Set<number>[],
  placeAt: (row: number, column: number) => number,
): Readonly<Record<'order' | 'starts' | 'columns' | 'pivotRow' | 'pivotColumn' | 'targets', number[]>> {
  const order: number[] = []
  const starts = [0]
  const columns: number[] = []
  const pivotRow: number[] = []
  const pivotColumn: number[] = []
  const targets: number[] = []
  const left = new Set(joined.keys())
  while (left.size > 0) {
    const pivot = leastJoined(left, joined)
    left.delete(pivot)
    order.push(pivot)
    const beside = [...elementAt(joined, pivot)].sort((a, b) => a - b)
    for (const row of beside) {
      elementAt(joined, row).delete(pivot)
      columns.push(row)
      pivotRow.push(placeAt(pivot, row))
      pivotColumn.push(placeAt(row, pivot))
      for (const column of beside) {
        if (row !== column) join(joined, row, column)
        targets.push(placeAt(row, column))
      }
    }
    starts.push(columns.length)
  }
  return { order, starts, columns, pivotRow, pivotColumn, targets }
}

function join(joined: readonly Set<number>[], a: number, b: number): void {
  elementAt(joined, a).add(b)
  elementAt(joined, b).add(a)
}
