/** Result of a search: the root, the remaining error, and the slope, below 0. */
export interface Root {
  readonly at: number
  readonly left: number
  readonly slope: number
}

/**
 * Accuracy of a search: for voltages at which currents sum to zero, or for currents at a given voltage.
 */
interface Accuracy {
  /** A value this near to zero is zero. */
  readonly value: number
  /** A bracket this narrow counts as its middle. */
  readonly bracket: number
  /** The flattest slope a step is taken with. */
  readonly flattest: number
}
/** Currents at a bus, A over V. */
export const busAccuracy: Accuracy = { value: 1e-4, bracket: 1e-9, flattest: -1e-4 }
/** Voltage of a battery, V over A. */
export const batteryAccuracy: Accuracy = { value: 1e-6, bracket: 1e-7, flattest: -1e-9 }

const mostIterations = 60
/** Number of iterations after which the bracket must have halved; otherwise it is halved. */
const stepsBetweenLooks = 3

/**
 * Weight of the value at the fixed end, after the other end has moved. Without it, a curved function is enclosed
 * from one side only. The weight of the regula falsi in BIT 13 (1973), p. 253.
 */
export const keptShare = (next: number, last: number): number => {
  const share = 1 - next / last
  return share > 0 && share < 1 ? share : 0.5
}

/**
 * Root of a falling function: steps along the line of the last two values (secant), kept inside a bracket
 * that every value narrows. Where a step would leave it, or a few steps have not halved it, it is halved: a
 * kink does not hold the search up (after Dekker). Never more than a fixed number of values.
 * @param guess where to begin
 * @param low below the root
 * @param high above the root
 * @param slope an estimate of the slope to begin with, below 0
 */
export function fallingRoot(
  f: (x: number) => number,
  guess: number,
  low: number,
  high: number,
  slope: number,
  accuracy: Accuracy = busAccuracy,
): Root {
  let a = low
  let b = high
  let x = guess < a ? a : guess > b ? b : guess
  let y = f(x)
  let found = slope
  let wide = Infinity
  for (let i = 1; i < mostIterations; i++) {
    if (y > accuracy.value) a = x
    else if (y < -accuracy.value) b = x
    else break
    if (b - a < accuracy.bracket) break
    let next = x - y / found
    if (i % stepsBetweenLooks === 0) {
      if (2 * (b - a) > wide) next = NaN
      wide = b - a
    }
    if (!(next > a && next < b)) next = (a + b) / 2
    const z = f(next)
    found = Math.min(accuracy.flattest, (z - y) / (next - x))
    x = next
    y = z
  }
  return { at: x, left: y, slope: found }
}
