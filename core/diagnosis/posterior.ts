import { elementAt } from '#core/collections/held'
import { Ahead } from './ahead'
import { scaled, strayShare, unscaled, type Cause, type Hypothesis } from './hypotheses'
import { riskOf, type Risk } from '#core/commissioning/harm'
import type { ProofTest } from '#core/commissioning/tests/test'
import { inCommon, Trail, withNoise } from './trail'

/** A reading of a test. */
export interface Taken {
  readonly test: ProofTest
  readonly value: number
}

/** The data of a job before any reading. */
export interface Knowledge {
  readonly tests: readonly ProofTest[]
  readonly causes: readonly Cause[]
  readonly hypotheses: readonly Hypothesis[]
  /** Tests that are usually read first, in this order. Results that depend only on that order are kept. */
  readonly routine: readonly ProofTest[]
}

/** One hypothesis given the readings, with their full covariance. */
interface Weighed {
  /** Logarithm of prior times likelihood. */
  readonly log: number
  /** By how much each reading is off, in deviations, given those before: along the root of their covariance. */
  readonly off: readonly number[]
}

/** A hypothesis is excluded if its log likelihood is lower than the best by this. */
const excludedBelow = 40
/** Densities are counted without the root of 2π, which all have in common. */
const rootOfTwoPi = Math.sqrt(2 * Math.PI)
const excluded: Weighed = { log: -Infinity, off: [] }

/** A cause with its probability. */
export interface Ranked {
  readonly cause: Cause
  readonly probability: number
  /** The likely size; null if it has none. */
  readonly size: number | null
}

/** The predicted reading of one hypothesis, given the readings so far. */
export interface Outlook {
  readonly cause: number
  readonly weight: number
  readonly mean: number
  readonly variance: number
}

/** The most likely hypotheses up to this share are used to choose the next measurement. */
const lookedAt = 0.995

/**
 * Probabilities of causes given readings: for each size of each cause the likelihood of all readings together, a
 * normal distribution with the full covariance that the common uncertainties and the size itself give; sizes are
 * integrated as a mixture. Readings are added one by one, by the triangular root (Cholesky) of the covariance.
 */
export class Posterior {
  private cachedWeights: readonly number[] | undefined
  private theLikely: readonly number[] | undefined

  /** Predictions of the likely hypotheses, calculated on demand: they may lag behind the readings. */
  private readonly knownAhead: Map<number, Ahead>

  private constructor(
    readonly known: Knowledge,
    readonly taken: readonly Taken[],
    private readonly weighed: readonly Weighed[],
    private readonly trail: Trail,
    before?: Posterior,
  ) {
    this.knownAhead = new Map(before?.knownAhead)
  }

  /** Before anything is read. */
  static of(known: Knowledge): Posterior {
    return new Posterior(
      known,
      [],
      known.hypotheses.map(({ prior }) => ({ log: Math.log(prior), off: [] })),
      Trail.along(known.routine.map((test) => known.tests.indexOf(test))),
    )
  }

  get causes(): readonly Cause[] {
    return this.known.causes
  }

  /** With one more reading. Hypotheses that are almost excluded are dropped. */
  with(taken: Taken): Posterior {
    const trail = this.trail.after(this.known.tests.indexOf(taken.test))
    const least = Math.max(...this.weighed.map(({ log }) => log)) - excludedBelow
    const weighed = this.weighed.map((one, h): Weighed => {
      if (one.log < least) return excluded
      const { mean, sd } = this.conditional(h, trail)
      const z = (taken.value - mean) / sd
      const { stray } = this.known.hypotheses[h]!
      if (!stray) return { log: one.log - Math.log(sd) - 0.5 * z * z, off: [...one.off, z] }
      const soundDensity = ((1 - strayShare) * Math.exp(-0.5 * z * z)) / sd
      const anything = strayShare * rootOfTwoPi * stray[trail.place]!
      // A reading that is wrong for a separate reason says nothing about the next one.
      return {
        log: one.log + Math.log(soundDensity + anything),
        off: [...one.off, soundDensity > anything ? z : 0],
      }
    })
    return new Posterior(this.known, [...this.taken, taken], weighed, trail, this)
  }

  /** The next reading by one hypothesis, given those before: its mean and standard deviation. */
  private conditional(h: number, next: Trail): { readonly mean: number; readonly sd: number } {
    const hypothesis = this.known.hypotheses[h]!
    const { off } = this.weighed[h]!
    const row = next.row(h, hypothesis)
    let mean = hypothesis.means[next.place]!
    for (let i = 0; i < off.length; i++) mean += row[i]! * off[i]!
    return { mean, sd: row[off.length]! }
  }

  /** The weight of each hypothesis, 0 to 1, in sum 1. */
  private get weights(): readonly number[] {
    if (this.cachedWeights) return this.cachedWeights
    const most = Math.max(...this.weighed.map(({ log }) => log))
    const raw = this.weighed.map(({ log }) => Math.exp(log - most))
    const sum = raw.reduce((total, weight) => total + weight, 0)
    return (this.cachedWeights = raw.map((weight) => weight / sum))
  }

  /** Probability of each cause, in their order. */
  probabilities(): number[] {
    const sums = this.causes.map(() => 0)
    this.weights.forEach((weight, h) => {
      sums[elementAt(this.known.hypotheses, h).cause]! += weight
    })
    return sums
  }

  /** How likely it is that a fault of the list is there, and that one is that can cause a fire. */
  risk(): Risk {
    const { weights } = this
    return riskOf(this.known.hypotheses, (_, h) => elementAt(weights, h))
  }

  /** The likeliest cause. */
  top(): Ranked {
    return elementAt(this.ranking(), 0)
  }

  /** Causes, the likeliest first. */
  ranking(): Ranked[] {
    const sizes = this.sizes()
    return this.probabilities()
      .map((probability, i) => ({ cause: elementAt(this.causes, i), probability, size: elementAt(sizes, i) }))
      .sort((a, b) => b.probability - a.probability)
  }

  /** The likely size of each cause: the mean of its hypotheses, each shifted by the readings. */
  private sizes(): (number | null)[] {
    const { weights } = this
    const sums = this.causes.map(() => ({ weight: 0, sum: 0 }))
    this.known.hypotheses.forEach(({ cause, size, width }, h) => {
      const weight = elementAt(weights, h)
      if (weight < 1e-12) return
      const into = elementAt(sums, cause)
      into.weight += weight
      into.sum += weight * (scaled(elementAt(this.causes, cause), size) + width * this.moved(h))
    })
    return sums.map(({ weight, sum }, i) => {
      const cause = elementAt(this.causes, i)
      if (!cause.fault || cause.fault.unit === '') return null
      return weight === 0 ? elementAt(cause.sizes, 0) : unscaled(cause, sum / weight)
    })
  }

  /** By how many of its widths the readings move a size. */
  private moved(h: number): number {
    const hypothesis = elementAt(this.known.hypotheses, h)
    if (hypothesis.width === 0) return 0
    const { off } = elementAt(this.weighed, h)
    const row = inCommon(this.trail.steps.slice(0, off.length), [h, hypothesis], (place) =>
      elementAt(hypothesis.bySize, place),
    )
    return off.reduce((sum, z, i) => sum + elementAt(row, i) * z, 0)
  }

  /** The likeliest hypotheses, by their places. */
  private get likely(): readonly number[] {
    if (this.theLikely) return this.theLikely
    const order = this.weights.map((weight, h) => ({ h, weight })).sort((a, b) => b.weight - a.weight)
    let sum = 0
    const end = order.findIndex(({ weight }) => (sum += weight) >= lookedAt)
    return (this.theLikely = order.slice(0, end < 0 ? order.length : end + 1).map(({ h }) => h))
  }

  /** The predicted reading of a test, by each likely hypothesis. */
  outlook(test: ProofTest): Outlook[] {
    const at = this.known.tests.indexOf(test)
    const { weights } = this
    return this.likely.map((h) => {
      const { cause, noise } = this.known.hypotheses[h]!
      const { means, variances } = this.aheadOf(h)
      const variance = withNoise(variances[at]!, noise[at]!)
      return { cause, weight: weights[h]!, mean: means[at]!, variance }
    })
  }

  /** The prediction of a hypothesis, updated to all readings. */
  private aheadOf(h: number): Ahead {
    const hypothesis = this.known.hypotheses[h]!
    const { off } = this.weighed[h]!
    let ahead = this.knownAhead.get(h) ?? Ahead.of(hypothesis)
    for (let i = ahead.count; i < off.length; i++) {
      const step = elementAt(this.trail.steps, i)
      ahead = ahead.after(hypothesis, {
        place: step.place,
        row: step.row(h, hypothesis),
        off: off[i]!,
      })
    }
    this.knownAhead.set(h, ahead)
    return ahead
  }

  /** Log likelihood of one reading alone with the most likely size of a cause. */
  fits(cause: Cause, { test, value }: Taken): number {
    const at = this.known.tests.indexOf(test)
    const of = this.causes.indexOf(cause)
    const own = this.known.hypotheses.flatMap((hypothesis, h) => (hypothesis.cause === of ? [h] : []))
    const best = own.reduce((a, b) =>
      elementAt(this.weighed, b).log > elementAt(this.weighed, a).log ? b : a,
    )
    const { means, noise, covariance } = elementAt(this.known.hypotheses, best)
    const variance = elementAt(covariance.variances, at) + elementAt(noise, at)
    return -0.5 * (Math.log(variance) + (value - elementAt(means, at)) ** 2 / variance)
  }

  /**
   * Mean square distance of the readings from the best prediction of a cause, in deviations: about 1 if it explains
   * them.
   */
  misfit(cause: Cause): number {
    const of = this.causes.indexOf(cause)
    const all = this.weighed.filter((_, h) => elementAt(this.known.hypotheses, h).cause === of)
    const best = all.reduce((a, b) => (b.log > a.log ? b : a))
    return best.off.length === 0 ? 0 : best.off.reduce((sum, z) => sum + z * z, 0) / best.off.length
  }
}
