import type { Fault } from './faults/fault'
import { allFaults } from './faults/index'
import { deviationOf } from './meters'
import type { Proof } from './predict'
import type { Prediction, Slopes } from './prediction'
import type { Rig } from './rig'
import type { ProofTest } from './tests/test'

/** A fault at a place, or that there is none. */
export interface Cause {
  readonly id: string
  /** Null where nothing is wrong. */
  readonly fault: Fault | null
  readonly at: string | null
  readonly where: string
  /** Before anything is read, 0 to 1. */
  readonly prior: number
  /** Sizes it may have, one as likely as the other; 0 where it has none. */
  readonly sizes: readonly number[]
}

/** That nothing is wrong is twice as likely as that something is, before anything is read (engineering default). */
const soundPrior = 0.67
export const soundId = 'none'

/** Every cause there may be of a job's readings. */
export function causesOf({ bench }: Proof): Cause[] {
  const found = allFaults.flatMap((fault) =>
    fault.places(bench).map((place) => ({ fault, place, weight: fault.prior * (place.times ?? 1) })),
  )
  const total = found.reduce((sum, { weight }) => sum + weight, 0)
  const sound: Cause = {
    id: soundId,
    fault: null,
    at: null,
    where: '',
    prior: found.length > 0 ? soundPrior : 1,
    sizes: [0],
  }
  return [
    sound,
    ...found.map(({ fault, place, weight }): Cause => ({
      id: `${fault.id}@${place.at}`,
      fault,
      at: place.at,
      where: place.where,
      prior: ((1 - soundPrior) * weight) / total,
      sizes: place.sizes ?? [0],
    })),
  ]
}

/** Sizes are this wide around each that is worked out, as a share of the distance to the next: they fill what lies between. */
const widthShare = 0.55

/** One size of a cause with all that it predicts: a normal distribution over all tests. */
export interface Hypothesis {
  readonly cause: number
  /** Prior of its cause and its share of it. */
  readonly prior: number
  readonly size: number
  /** How far it reaches to either side, as the logarithm of a multiple where its sizes are multiples. */
  readonly width: number
  /** By test, in their order: what it reads, and by how much that moves over the width of the size. */
  readonly means: Float64Array
  readonly bySize: Float64Array
  /** Variance by instrument and by what is not straight; covariance by all that is common, test by test. */
  readonly noise: Float64Array
  readonly covariance: Float64Array
}

/** Works out what every cause predicts, cause by cause: yields after each. */
export function* hypothesesOf(
  proof: Proof,
  causes: readonly Cause[],
): Generator<void, readonly Hypothesis[], void> {
  const hypotheses: Hypothesis[] = []
  for (const [i, cause] of causes.entries()) {
    const predicted = cause.sizes.map((size) => predictionsOf(proof, rigWith(proof, cause, size)))
    predicted.forEach((predictions, part) => {
      hypotheses.push(hypothesisOf(proof.tests, cause, i, predicted, predictions, part))
    })
    yield
  }
  return hypotheses
}

/** The rig as a cause of a size makes it. */
export const rigWith = ({ rig }: Proof, { fault, at }: Cause, size: number): Rig =>
  fault ? fault.change(rig, at!, size) : rig

function predictionsOf(proof: Proof, rig: Rig): readonly Prediction[] {
  const inStates = new Map(proof.states.map((state) => [state.id, proof.inState(rig, state)]))
  return proof.tests.map(({ id, state }) => inStates.get(state.id)!.predictions.get(id)!)
}

/** A size on the scale on which it is even: as it is, or as a logarithm. */
export const scaled = ({ fault }: Cause, size: number): number =>
  fault?.scale === 'times' ? Math.log(size) : size
export const unscaled = ({ fault }: Cause, size: number): number =>
  fault?.scale === 'times' ? Math.exp(size) : size

function hypothesisOf(
  tests: readonly ProofTest[],
  cause: Cause,
  index: number,
  predicted: readonly (readonly Prediction[])[],
  predictions: readonly Prediction[],
  part: number,
): Hypothesis {
  const { sizes, fault, prior } = cause
  const [low, high] = [Math.max(0, part - 1), Math.min(sizes.length - 1, part + 1)]
  const ranged = fault !== null && fault.scale !== 'each' && sizes.length > 1
  const share = ranged ? widthShare / (high - low) : 0
  const bySize = Float64Array.from(tests, (_, t) =>
    ranged ? share * (predicted[high]![t]!.value - predicted[low]![t]!.value) : 0,
  )
  const count = tests.length
  const covariance = new Float64Array(count * count)
  for (let a = 0; a < count; a++)
    for (let b = 0; b <= a; b++) {
      const common = shared(predictions[a]!.slopes, predictions[b]!.slopes) + bySize[a]! * bySize[b]!
      covariance[a * count + b] = common
      covariance[b * count + a] = common
    }
  return {
    cause: index,
    prior: prior / sizes.length,
    size: sizes[part]!,
    width: ranged ? share * (scaled(cause, sizes[high]!) - scaled(cause, sizes[low]!)) : 0,
    means: Float64Array.from(predictions, ({ value }) => value),
    bySize,
    noise: Float64Array.from(
      predictions,
      ({ value, bent }, t) => deviationOf(tests[t]!.instrument, value) ** 2 + bent,
    ),
    covariance,
  }
}

/** What two readings have in common by the parameters that move both. */
function shared(one: Slopes, other: Slopes): number {
  let sum = 0
  for (let i = 0, k = 0; i < one.at.length && k < other.at.length;) {
    const [a, b] = [one.at[i]!, other.at[k]!]
    if (a === b) sum += one.by[i++]! * other.by[k++]!
    else if (a < b) i++
    else k++
  }
  return sum
}
