/** Points of a curve, rising in x: straight lines between them, level outside. */
export type Curve = readonly (readonly [x: number, y: number])[]

/** What a curve of two points or more comes to at x. */
export function along(curve: Curve, x: number): number {
  const last = curve.length - 1
  let i = 1
  while (i < last && x > curve[i]![0]) i++
  const low = curve[i - 1]!
  const high = curve[i]!
  if (x <= low[0]) return low[1]
  if (x >= high[0]) return high[1]
  return low[1] + ((high[1] - low[1]) * (x - low[0])) / (high[0] - low[0])
}
