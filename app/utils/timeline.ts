/**
 * A line of a timeline: time and value of each point, one after the other, which the chart reads fastest.
 */
export function pairs(t: readonly number[], values: readonly number[]): Float64Array {
  const flat = new Float64Array(2 * t.length)
  for (let n = 0; n < t.length; n++) {
    flat[2 * n] = t[n]!
    flat[2 * n + 1] = Number.isFinite(values[n]!) ? Math.round(values[n]! * 100) / 100 : NaN
  }
  return flat
}
/**
 * One value for each day of a run, in its middle; a day begins with the run. Values that are no number are left
 * out.
 * @param t seconds since the start, rising
 * @param endS length of the run, s: the latest place of a last, incomplete day
 */
export function daily(
  t: readonly number[],
  values: readonly number[],
  choose: (a: number, b: number) => number,
  endS: number,
): Float64Array {
  const days = new Map<number, number>()
  for (let n = 0; n < t.length; n++) {
    if (!Number.isFinite(values[n]!)) continue
    // The last point of a day stands at its very end.
    const day = Math.max(0, Math.ceil(t[n]! / 86_400) - 1)
    days.set(day, days.has(day) ? choose(days.get(day)!, values[n]!) : values[n]!)
  }
  return pairs(
    [...days.keys()].map((day) => Math.min((day + 0.5) * 86_400, endS)),
    [...days.values()],
  )
}

/** How far a line lies above another at the same times. */
export function above(line: Float64Array, base: Float64Array): Float64Array {
  const flat = Float64Array.from(line)
  for (let n = 1; n < flat.length; n += 2) flat[n] = line[n]! - base[n]!
  return flat
}

/** Value of a line at the point nearest to a time. */
export function valueAt(data: Float64Array, t: number): number {
  let [low, high] = [0, data.length / 2 - 1]
  while (high - low > 1) {
    const middle = (low + high) >> 1
    if (data[2 * middle]! <= t) low = middle
    else high = middle
  }
  return data[2 * (high >= 0 && t - data[2 * low]! > data[2 * high]! - t ? high : low) + 1] ?? NaN
}

/** Stretches of time from and until, in order and where they touch or overlap made one. */
export function stretchesOf(
  spans: readonly (readonly [number, number])[],
): readonly (readonly [number, number])[] {
  const merged: [number, number][] = []
  for (const [from, until] of spans.toSorted((a, b) => a[0] - b[0])) {
    const last = merged.at(-1)
    if (last && from <= last[1]) last[1] = Math.max(last[1], until)
    else merged.push([from, until])
  }
  return merged
}
