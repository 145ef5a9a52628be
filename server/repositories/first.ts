/** The row of a statement that always gives one. @throws if it gave none */
export function first<T>(rows: readonly T[]): T {
  const [row] = rows
  if (row === undefined) throw new Error('The database gave no row')
  return row
}
