import { elementAt, fieldOf, withId } from '#core/collections/held'
import { withField, withPart, type FieldPath, type JobDocument } from '#core/job/document'
import { runOhm } from '#core/wiring/run-ohm'
import { deviationOf } from '#core/commissioning/meters'
import { choleskyOf, forwardSolve } from './cholesky'
import type { Taken } from './posterior'
import type { Parameter } from '#core/commissioning/parameters'
import type { Proof } from '#core/commissioning/predict'

/** The learnt value of an uncertain parameter. */
export interface Learnt {
  /** `main-lead`, `alternator-1`. */
  readonly of: string
  readonly what: 'resistance' | 'heat'
  /** As it was taken, and as the readings have it: mΩ of a run, K of a case’s rise. */
  readonly before: number
  readonly after: number
  /** Half width of its 95 % interval. */
  readonly within: number
}

/** A parameter counts as learnt if less than this share of its uncertainty remains. */
const largestRest = 0.7
/** Keeps readings without any variance solvable. */
const leastVariance = 1e-18

/**
 * Parameters of a sound system in the light of its readings: the conditional mean and deviation of each, by the same
 * slopes that give the tolerances. Readings of a system with a fault teach nothing: it is repaired first.
 */
export function learntFrom(proof: Proof, readings: readonly Taken[]): Learnt[] {
  if (readings.length === 0) return []
  const rows = readings.map(({ test, value }) => {
    const { value: expected, slopes, bent } = proof.expected(test)
    const by = new Float64Array(proof.parameters.length)
    slopes.at.forEach((at, i) => (by[at] = elementAt(slopes.by, i)))
    return { by, off: value - expected, noise: deviationOf(test.instrument, expected) ** 2 + bent }
  })
  const root = choleskyOf(
    rows.length,
    (i, k) =>
      elementAt(rows, i).by.reduce((sum, by, p) => sum + by * elementAt(elementAt(rows, k).by, p), 0) +
      (i === k ? elementAt(rows, i).noise : 0),
    () => leastVariance,
  )
  const off = forwardSolve(
    root,
    rows.map((row) => row.off),
  )
  return proof.parameters.flatMap((parameter, p): Learnt[] => {
    const part = forwardSolve(
      root,
      rows.map(({ by }) => elementAt(by, p)),
    )
    const mean = part.reduce((sum, entry, i) => sum + entry * elementAt(off, i), 0)
    const left = Math.sqrt(Math.max(0, 1 - part.reduce((sum, entry) => sum + entry * entry, 0)))
    if (left > largestRest) return []
    return learntOf(parameter, proof, { mean, left })
  })
}

/** The posterior of a parameter; nothing if no reading depends on it. Mean and rest are in its deviations. */
function learntOf(
  parameter: Parameter,
  { rig }: Proof,
  { mean, left }: { readonly mean: number; readonly left: number },
): Learnt[] {
  const { sd } = parameter
  if (parameter.kind === 'run') {
    const run = withId(rig.network.runs, parameter.run)
    const ohm = runOhm(run, rig.network.cableC)
    const after = Math.max(0, ohm + mean * sd)
    return [
      { of: run.id, what: 'resistance', before: 1000 * ohm, after: 1000 * after, within: 2000 * left * sd },
    ]
  }
  if (parameter.kind !== 'heat' || parameter.field !== 'riseK') return []
  const { riseK } = fieldOf(rig.heat, parameter.unit)
  return [
    { of: parameter.unit, what: 'heat', before: riseK, after: riseK + mean * sd, within: 2 * left * sd },
  ]
}

/** Less than this no conductor has, mΩ. */
const leastMilliohm = 0.001

/** Fields for learnt values: the rise of a case, K, and the resistance of a run, mΩ. */
export const fieldOfLearnt = ({ of, what }: Pick<Learnt, 'of' | 'what'>): FieldPath =>
  what === 'heat' ? `alternators/${of}/riseK` : `runs/${of}/milliohm`

/**
 * The job with its learnt values: the heat of its alternators, and the resistance of its runs with their joints. Its
 * verdict, its wiring verdict and its simulations use them.
 */
export const withLearnt = (job: JobDocument, learnt: readonly Learnt[]): JobDocument =>
  learnt.reduce((next, one) => {
    const path = fieldOfLearnt(one)
    // A run that nobody touched before has no part yet.
    const ready = withPart(next, path.slice(0, path.lastIndexOf('/')), (part) => part)
    return withField(ready, path, {
      value: Math.max(leastMilliohm, Number(one.after.toPrecision(3))),
      how: 'measured',
    })
  }, job)
