import { chanceOf, normal } from './chance'
import { deviationOf } from './meters'
import { movedRig, type Parameter } from './parameters'
import type { Prediction } from './prediction'
import type { Rig } from './rig'
import type { ProofTest } from './tests/test'

/** What is needed of a job to see which of its tests are steady. */
interface Tried {
  readonly rig: Rig
  readonly parameters: readonly Parameter[]
  readonly expected: (test: ProofTest) => Prediction
  readonly readings: (rig: Rig, tests: readonly ProofTest[]) => ReadonlyMap<string, number>
}

/** Sound rigs that are tried, and how far one reading of them may lie from what its slopes say, in deviations. */
const tries = 40
const mostAstray = 3

/**
 * The tests that read one thing in a sound system. Where a regulator just reaches its limit or just does not, the
 * voltage jumps between the two: either reading is right then, and the test says nothing.
 */
export function steadyOf(tests: readonly ProofTest[], of: Tried): ProofTest[] {
  const unsteady = new Set<string>()
  for (let seed = 1; seed <= tries; seed++) {
    const chance = chanceOf(seed)
    const moves = of.parameters.map(() => normal(chance))
    const rig = of.parameters.reduce((moved, parameter, i) => movedRig(moved, parameter, moves[i]!), of.rig)
    const readings = of.readings(rig, tests)
    for (const test of tests) {
      const { value, slopes, bent } = of.expected(test)
      const straight = slopes.at.reduce((sum, at, i) => sum + slopes.by[i]! * moves[at]!, value)
      const deviation = Math.hypot(deviationOf(test.instrument, value), Math.sqrt(bent), ...slopes.by)
      if (Math.abs(readings.get(test.id)! - straight) > mostAstray * deviation) unsteady.add(test.id)
    }
  }
  return tests.filter(({ id }) => !unsteady.has(id))
}
