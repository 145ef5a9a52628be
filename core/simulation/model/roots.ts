/** Where a search ended: the voltage, what is left there, A, and the slope it found, A/V, below 0. */
export interface Root {
  readonly v: number
  readonly leftA: number
  readonly slope: number
}

/** Currents at a bus sum to nought within this, A. */
const toleranceA = 1e-4
/** A bracket this narrow cannot be told from a voltage, V. */
const narrowestV = 1e-9
const mostIterations = 60
/** After so many steps without an end the function has a kink here: it is halved from then on. */
const stepsBeforeHalving = 12
/** The flattest slope a step is taken with, A/V. */
const flattest = -1e-4

/**
 * Root of a falling function of a voltage: Newton steps with the slope found on the way (secant), kept inside a bracket
 * that every evaluation narrows; where a step would leave it, the bracket is halved. Never more than a fixed number.
 * @param guess where to begin, V
 * @param slope an estimate of the slope to begin with, A/V, below 0
 */
export function fallingRoot(
  f: (v: number) => number,
  guess: number,
  low: number,
  high: number,
  slope: number,
): Root {
  let [a, b] = [low, high]
  let v = guess < a ? a : guess > b ? b : guess
  let y = f(v)
  let found = slope
  for (let i = 0; i < mostIterations; i++) {
    if (y > toleranceA) a = v
    else if (y < -toleranceA) b = v
    else break
    if (b - a < narrowestV) break
    const step = v - y / found
    const next = i <= stepsBeforeHalving && step > a && step < b ? step : (a + b) / 2
    const z = f(next)
    found = Math.min(flattest, (z - y) / (next - v))
    v = next
    y = z
  }
  return { v, leftA: y, slope: found }
}
