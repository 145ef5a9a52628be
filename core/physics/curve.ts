import { elementAt } from '#core/collections/held'

/** Points of a curve, rising in x: straight lines between them, level outside. */
export type Curve = readonly (readonly [x: number, y: number])[]

/** The value at x of a curve of two points or more. */
export function along(curve: Curve, x: number): number {
  const last = curve.length - 1
  let i = 1
  while (i < last && x > elementAt(curve, i)[0]) i++
  const low = elementAt(curve, i - 1)
  const high = elementAt(curve, i)
  if (x <= low[0]) return low[1]
  if (x >= high[0]) return high[1]
  return low[1] + ((high[1] - low[1]) * (x - low[0])) / (high[0] - low[0])
}
