import { withField, withPart, type FieldPath, type JobDocument } from '#core/job/document'
import { runOhm } from '#core/wiring/run-ohm'
import { deviationOf } from '#core/commissioning/meters'
import type { Taken } from './posterior'
import type { Proof } from '#core/commissioning/predict'

/** What readings teach of something nobody knew exactly. */
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
const leftAtMost = 0.7

/**
 * Parameters of a sound system in the light of its readings: the conditional mean and deviation of each, by the same
 * slopes that give the tolerances. Readings of a system with a fault teach nothing: it is repaired first.
 */
export function learntFrom(proof: Proof, readings: readonly Taken[]): Learnt[] {
  if (readings.length === 0) return []
  const rows = readings.map(({ test, value }) => {
    const { value: expected, slopes, bent } = proof.expected(test)
    const by = new Float64Array(proof.parameters.length)
    slopes.at.forEach((at, i) => (by[at] = slopes.by[i]!))
    return { by, off: value - expected, noise: deviationOf(test.instrument, expected) ** 2 + bent }
  })
  const root = rootOf(
    rows.map((one, i) =>
      rows.map(
        (other, k) => one.by.reduce((sum, by, p) => sum + by * other.by[p]!, 0) + (i === k ? one.noise : 0),
      ),
    ),
  )
  const off = forward(
    root,
    rows.map((row) => row.off),
  )
  return proof.parameters.flatMap((parameter, p): Learnt[] => {
    const part = forward(
      root,
      rows.map(({ by }) => by[p]!),
    )
    const mean = part.reduce((sum, entry, i) => sum + entry * off[i]!, 0)
    const left = Math.sqrt(Math.max(0, 1 - part.reduce((sum, entry) => sum + entry * entry, 0)))
    if (left > leftAtMost) return []
    const { sd } = parameter
    if (parameter.kind === 'run') {
      const run = proof.rig.network.runs.find(({ id }) => id === parameter.run)!
      const ohm = runOhm(run, proof.rig.network.cableC)
      const after = Math.max(0, ohm + mean * sd)
      return [
        {
          of: run.id,
          what: 'resistance',
          before: 1000 * ohm,
          after: 1000 * after,
          within: 2000 * left * sd,
        },
      ]
    }
    if (parameter.kind === 'heat' && parameter.field === 'riseK') {
      const { riseK } = proof.rig.heat[parameter.unit]!
      return [
        { of: parameter.unit, what: 'heat', before: riseK, after: riseK + mean * sd, within: 2 * left * sd },
      ]
    }
    return []
  })
}

/** Less than this no conductor has, mΩ. */
const leastMilliohm = 0.001

/** Fields for learnt values: the rise of a case, K, and the resistance of a run, mΩ. */
const fieldOf = ({ of, what }: Learnt): FieldPath =>
  what === 'heat' ? `alternators/${of}/riseK` : `runs/${of}/milliohm`

/**
 * The job with what was learnt of it: of the heat of its alternators, and of the resistance of its runs with their
 * joints. Its verdict, that of its wiring and its runs go by that.
 */
export const withLearnt = (job: JobDocument, learnt: readonly Learnt[]): JobDocument =>
  learnt.reduce((next, one) => {
    const path = fieldOf(one)
    // A run that nobody touched before has no part yet.
    const ready = withPart(next, path.slice(0, path.lastIndexOf('/')), (part) => part)
    return withField(ready, path, {
      value: Math.max(leastMilliohm, Number(one.after.toPrecision(3))),
      how: 'measured',
    })
  }, job)

/** The triangular root of a symmetric positive matrix (Cholesky). */
function rootOf(matrix: readonly (readonly number[])[]): number[][] {
  const root: number[][] = []
  matrix.forEach((line, i) => {
    const row: number[] = []
    for (let k = 0; k <= i; k++) {
      let left = line[k]!
      for (let m = 0; m < k; m++) left -= row[m]! * (k === i ? row[m]! : root[k]![m]!)
      row.push(k === i ? Math.sqrt(Math.max(left, 1e-18)) : left / root[k]![k]!)
    }
    root.push(row)
  })
  return root
}

/** Solves the root for a right side. */
function forward(root: readonly (readonly number[])[], right: readonly number[]): number[] {
  const found: number[] = []
  right.forEach((value, i) => {
    let left = value
    for (let k = 0; k < i; k++) left -= root[i]![k]! * found[k]!
    found.push(left / root[i]![i]!)
  })
  return found
}
