import { elementAt } from '#core/collections/held'
import { riskOf, type Risk } from '#core/commissioning/harm'
import type { Hypothesis } from './hypotheses'
import { choleskyOf } from './cholesky'
import { leastNoiseShare, withNoise } from './trail'

/**
 * Coefficients of the complementary error function by a Chebyshev fit: W. H. Press et al., Numerical Recipes, 6.2.2.
 */
const chebyshev = [
  -1.26551223, 1.00002368, 0.37409196, 0.09678418, -0.18628806, 0.27886807, -1.13520398, 1.48851587,
  -0.82215223, 0.17087277,
] as const

/** The normal distribution’s probability below z deviations, to 1.2e-7 of itself. */
export function below(z: number): number {
  const x = Math.abs(z) / Math.SQRT2
  const t = 1 / (1 + 0.5 * x)
  let sum = 0
  for (let i = chebyshev.length - 1; i >= 0; i--) sum = sum * t + chebyshev[i]!
  const half = 0.5 * t * Math.exp(-x * x + sum)
  return z > 0 ? 1 - half : half
}

/** The deviations below which a share p of the normal distribution lies: P. J. Acklam’s rational fit, to 1e-9. */
export function deviationsBelow(p: number): number {
  const [a, b] = [centre.above, centre.under]
  const [c, d] = [tail.above, tail.under]
  const along = (coefficients: readonly number[], x: number): number =>
    coefficients.reduce((sum, one) => sum * x + one, 0)
  if (p < tailShare) {
    const q = Math.sqrt(-2 * Math.log(Math.max(p, Number.MIN_VALUE)))
    return along(c, q) / along(d, q)
  }
  if (p > 1 - tailShare) return -deviationsBelow(1 - p)
  const q = p - 0.5
  return (q * along(a, q * q)) / along(b, q * q)
}
const tailShare = 0.02425
const centre = {
  above: [
    -3.969683028665376e1, 2.209460984245205e2, -2.759285104469687e2, 1.38357751867269e2, -3.066479806614716e1,
    2.506628277459239,
  ],
  under: [
    -5.447609879822406e1, 1.615858368580409e2, -1.556989798598866e2, 6.680131188771972e1,
    -1.328068155288572e1, 1,
  ],
} as const
const tail = {
  above: [
    -7.784894002430293e-3, -3.223964580411365e-1, -2.400758277161838, -2.549732539343734, 4.374664141464968,
    2.938163982698783,
  ],
  under: [7.784695709041462e-3, 3.224671290700398e-1, 2.445134137142996, 3.754408661907416, 1],
} as const

/** Places at which a probability over several readings is looked at. */
const looks = 24
/** Roots of primes: their multiples fill a unit cube evenly (R. D. Richtmyer). */
const steps = [2, 3, 5, 7, 11, 13, 17, 19, 23, 29, 31, 37, 41, 43, 47, 53, 59, 61, 67, 71].map(Math.sqrt)

/** A band in which a reading is as it should be: its middle, and how far it reaches to either side. */
export interface Band {
  /** Place of the test among all. */
  readonly at: number
  readonly middle: number
  readonly half: number
}

/** The probability that one reading of a hypothesis lies in its band. */
export function chanceWithin({ means, covariance, noise }: Hypothesis, { at, middle, half }: Band): number {
  const sd = Math.sqrt(withNoise(covariance.variances[at]!, noise[at]!))
  const off = middle - means[at]!
  return below((off + half) / sd) - below((off - half) / sd)
}

/**
 * The probability that all readings of a hypothesis lie in their bands, with all that they have in common: A. Genz,
 * Numerical computation of multivariate normal probabilities (1992).
 * @returns 0 to 1, to about 0.01
 */
export function chanceAllWithin(hypothesis: Hypothesis, bands: readonly Band[]): number {
  const { means, covariance, noise } = hypothesis
  const noiseOf = (i: number): number => noise[bands[i]!.at]!
  const root = choleskyOf(
    bands.length,
    (i, k) => covariance.between(bands[i]!.at, bands[k]!.at) + (i === k ? noiseOf(i) : 0),
    (i) => leastNoiseShare * noiseOf(i),
  )
  const low = bands.map(({ at, middle, half }) => middle - half - means[at]!)
  const high = bands.map(({ at, middle, half }) => middle + half - means[at]!)
  let sum = 0
  for (let look = 1; look <= looks; look++) {
    const drawn: number[] = []
    let product = 1
    for (let i = 0; i < bands.length && product > 1e-9; i++) {
      const row = root[i]!
      let shift = 0
      for (let k = 0; k < i; k++) shift += row[k]! * drawn[k]!
      const from = below((low[i]! - shift) / row[i]!)
      const to = below((high[i]! - shift) / row[i]!)
      product *= to - from
      // A triangle wave of the multiples makes the sum smooth at the edges.
      const share = Math.abs(2 * ((look * steps[i % steps.length]!) % 1) - 1)
      drawn.push(deviationsBelow(from + share * (to - from)))
    }
    sum += product > 1e-9 ? product : 0
  }
  return sum / looks
}

/**
 * The risk that stays if all these readings are within their bands: from the priors and the pass probability of each
 * hypothesis.
 */
export function riskWithin(hypotheses: readonly Hypothesis[], bands: readonly Band[]): Risk {
  const passes = hypotheses.map((one) => one.prior * chanceAllWithin(one, bands))
  const all = passes.reduce((sum, chance) => sum + chance, 0)
  const { hidden, dangerous } = riskOf(hypotheses, (_, h) => elementAt(passes, h))
  return { hidden: hidden / all, dangerous: dangerous / all }
}
