/** A lower triangular matrix, row by row. */
type Triangle = readonly (readonly number[])[]

/**
 * The Cholesky factor of a symmetric positive matrix.
 * @param size rows
 * @param entry the entry of a row and a column, column ≤ row
 * @param least least square of a pivot: keeps a nearly singular matrix solvable
 */
export function choleskyOf(
  size: number,
  entry: (row: number, column: number) => number,
  least: (row: number) => number,
): Triangle {
  const root: number[][] = []
  for (let i = 0; i < size; i++) {
    const row: number[] = []
    for (let k = 0; k <= i; k++) {
      let left = entry(i, k)
      for (let m = 0; m < k; m++) left -= row[m]! * (k === i ? row[m]! : root[k]![m]!)
      row.push(k === i ? Math.sqrt(Math.max(left, least(i))) : left / root[k]![k]!)
    }
    root.push(row)
  }
  return root
}

/** Solves a triangle for a right side, from the first row down. */
export function forwardSolve(root: Triangle, right: readonly number[]): number[] {
  const found: number[] = []
  right.forEach((value, i) => {
    let left = value
    for (let k = 0; k < i; k++) left -= root[i]![k]! * found[k]!
    found.push(left / root[i]![i]!)
  })
  return found
}
