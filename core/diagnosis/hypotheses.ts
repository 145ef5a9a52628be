import { elementAt, entryOf, present } from '#core/collections/held'
import { otherId, soundId } from './cause-ids'
import { Covariance } from './covariance'
import { harmOf, type Fault } from './faults/fault'
import { allFaults } from './faults/index'
import type { Harm } from '#core/commissioning/harm'
import { deviationOf } from '#core/commissioning/meters'
import type { Proof } from '#core/commissioning/predict'
import type { Prediction } from '#core/commissioning/prediction'
import type { Rig } from '#core/commissioning/rig'
import { walkRoundId } from '#core/commissioning/tests/walk-round'
import type { ProofTest } from '#core/commissioning/tests/test'

/** A fault at a place, or that there is none. */
export interface Cause {
  readonly id: string
  /** Null if nothing is wrong, or something that is not on the list. */
  readonly fault: Fault | null
  readonly at: string | null
  readonly where: string
  /** Before anything is read, 0 to 1. */
  readonly prior: number
  /** Sizes it may have, one as likely as the other; 0 if it has none. */
  readonly sizes: readonly number[]
}

/** That nothing is wrong is twice as likely as that something is, before anything is read (engineering default). */
const soundPrior = 0.67
/** That something is wrong that is on no list, or with the meter, before anything is read (engineering default). */
const otherPrior = 0.01
/**
 * With the other cause, this share of readings is arbitrary; the rest is as in a sound system (engineering default).
 */
export const strayShare = 0.1

/** Every cause there may be of a job's readings. @param faults those of the catalogue that count */
export function causesOf({ bench }: Proof, faults: readonly Fault[] = allFaults): Cause[] {
  const found = faults.flatMap((fault) =>
    fault.places(bench).map((place) => ({ fault, place, weight: fault.prior * (place.times ?? 1) })),
  )
  const total = found.reduce((sum, { weight }) => sum + weight, 0)
  const sound: Cause = {
    id: soundId,
    fault: null,
    at: null,
    where: '',
    prior: found.length > 0 ? soundPrior : 1 - otherPrior,
    sizes: [0],
  }
  return [
    sound,
    { ...sound, id: otherId, prior: otherPrior },
    ...found.map(({ fault, place, weight }): Cause => ({
      id: `${fault.id}@${place.at}`,
      fault,
      at: place.at,
      where: place.where,
      prior: ((1 - soundPrior - otherPrior) * weight) / total,
      sizes: place.sizes ?? [0],
    })),
  ]
}

/** Width of each calculated size, as a share of the distance to the next: together they cover the gaps. */
const widthShare = 0.55

/** One size of a cause with all that it predicts: a normal distribution over all tests. */
export interface Hypothesis {
  readonly cause: number
  /** Prior of its cause and its share of it. */
  readonly prior: number
  readonly size: number
  /** How far it reaches to either side, as the logarithm of a multiple where its sizes are multiples. */
  readonly width: number
  /** By test: its reading, and the change of that over the width of the size. */
  readonly means: Float64Array
  readonly bySize: Float64Array
  /** Variance from instruments and nonlinear effects; covariance from common parameters. */
  readonly noise: Float64Array
  readonly covariance: Covariance
  /** Its possible effect; null if no fault is known. */
  readonly harm: Harm | null
  /** Where readings may be anything: how likely each value is of such a reading, per its unit, by test. */
  readonly stray: Float64Array | null
}

/** Calculates the predictions of each cause: yields after each. */
export function* hypothesesOf(
  proof: Proof,
  causes: readonly Cause[],
): Generator<void, readonly Hypothesis[], void> {
  const hypotheses: Hypothesis[] = []
  for (const [i, cause] of causes.entries()) {
    const predicted = predictionsBySize(proof, cause)
    predicted.forEach((predictions, part) => {
      const one = hypothesisOf(proof, cause, i, predicted, predictions, part)
      hypotheses.push(...asFoundOnRound(one, cause, proof.tests))
    })
    yield
  }
  return hypotheses
}

/** A hypothesis, or two of them if the walk-round finds a share of its faults. */
function asFoundOnRound(one: Hypothesis, { fault, at }: Cause, tests: readonly ProofTest[]): Hypothesis[] {
  const onRound = fault?.onRound
  if (!onRound) return [one]
  const finds = [walkRoundId, onRound.test(present(at))].map((id) =>
    tests.findIndex((test) => test.id === id),
  )
  if (finds.includes(-1)) return [one]
  const means = one.means.slice()
  for (const place of finds) means[place] = 0
  return [
    { ...one, prior: one.prior * (1 - onRound.share) },
    { ...one, prior: one.prior * onRound.share, means },
  ]
}

/** The rig as a cause of a size makes it. */
export const rigWith = ({ rig }: Proof, { fault, at }: Cause, size: number): Rig =>
  fault ? fault.change(rig, present(at), size) : rig

/** The slopes of readings are calculated for every nth size of a cause. */
const slopesEvery = 3

/** Predictions for each size of a cause: values for each, slopes from the nearest size with calculated slopes. */
function predictionsBySize(proof: Proof, cause: Cause): (readonly Prediction[])[] {
  const { sizes, fault } = cause
  const isRanged = fault !== null && fault.scale !== 'each'
  const last = sizes.length - 1
  const nearest = (part: number): number => Math.min(last, slopesEvery * Math.round(part / slopesEvery))
  const worked = new Map<number, readonly Prediction[]>()
  const workedAt = (part: number): readonly Prediction[] => {
    const known = worked.get(part) ?? predictionsOf(proof, rigWith(proof, cause, elementAt(sizes, part)))
    worked.set(part, known)
    return known
  }
  return sizes.map((size, part) => {
    const from = isRanged ? nearest(part) : part
    if (from === part) return workedAt(part)
    const values = proof.readings(rigWith(proof, cause, size), proof.tests)
    return workedAt(from).map((prediction, t) => ({
      ...prediction,
      value: entryOf(values, elementAt(proof.tests, t).id),
    }))
  })
}

function predictionsOf(proof: Proof, rig: Rig): readonly Prediction[] {
  const inStates = new Map(proof.states.map((state) => [state.id, proof.inState(rig, state)]))
  return proof.tests.map(({ id, state }) => entryOf(entryOf(inStates, state.id).predictions, id))
}

/** A size on its even scale: linear or logarithmic. */
export const scaled = ({ fault }: Cause, size: number): number =>
  fault?.scale === 'times' ? Math.log(size) : size
export const unscaled = ({ fault }: Cause, size: number): number =>
  fault?.scale === 'times' ? Math.exp(size) : size

function hypothesisOf(
  { tests, bench, parameters }: Proof,
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
    ranged
      ? share *
        (elementAt(elementAt(predicted, high), t).value - elementAt(elementAt(predicted, low), t).value)
      : 0,
  )
  return {
    cause: index,
    prior: prior / sizes.length,
    size: elementAt(sizes, part),
    width: ranged
      ? share * (scaled(cause, elementAt(sizes, high)) - scaled(cause, elementAt(sizes, low)))
      : 0,
    means: Float64Array.from(predictions, ({ value }) => value),
    bySize,
    noise: Float64Array.from(
      predictions,
      ({ value, bent }, t) => deviationOf(elementAt(tests, t).instrument, value) ** 2 + bent,
    ),
    covariance: new Covariance(
      predictions.map(({ slopes }) => slopes),
      bySize,
      parameters.length,
    ),
    harm: fault && harmOf(fault, bench, present(cause.at), elementAt(sizes, part)),
    stray: cause.id === otherId ? strayIn(tests, predictions, bench.rig.nominalV) : null,
  }
}

/** How likely a reading is, per its unit, that may be anything in the range of its test. */
const strayIn = (
  tests: readonly ProofTest[],
  predictions: readonly Prediction[],
  nominalV: number,
): Float64Array =>
  Float64Array.from(tests, (test, t) => 1 / rangeOf(test, elementAt(predictions, t).value, nominalV))

/** The range of an instrument, from end to end, in its unit. */
function rangeOf({ quantity }: ProofTest, expected: number, nominalV: number): number {
  switch (quantity) {
    case 'volts':
      return 3 * nominalV
    case 'answer':
      return 2
    case 'celsius':
      return 200
    default:
      return 4 * Math.max(10, Math.abs(expected))
  }
}
