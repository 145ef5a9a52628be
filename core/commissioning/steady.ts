import { elementAt, entryOf } from '#core/collections/held'
import { chanceOf, normal } from './chance'
import { deviationOf } from './meters'
import { movedRig, type Parameter } from './parameters'
import type { Prediction } from './prediction'
import type { Rig } from './rig'
import type { ProofTest } from './tests/test'

/** Inputs for finding the steady tests of a job. */
interface Tried {
  readonly rig: Rig
  readonly parameters: readonly Parameter[]
  readonly expected: (test: ProofTest) => Prediction
  readonly readings: (rig: Rig, tests: readonly ProofTest[]) => ReadonlyMap<string, number>
}

/**
 * Number of sound rigs that are tried, and the largest deviation of a reading from its linear prediction, in
 * standard deviations.
 */
const tries = 100
const largestDeviation = 3
/** Parameters are moved this many times their standard deviation, so that few tries show rare effects. */
const farOut = 1.6

/** Results of the sound systems that are tried. */
export interface Steady {
  /** The tests that read one thing. */
  readonly tests: readonly ProofTest[]
  /** By test: variance of the readings of usual systems about the linear prediction. */
  readonly astray: ReadonlyMap<string, number>
}

/**
 * The tests with one reading in a sound system. If a regulator is just at its limit, the voltage jumps between two
 * values: both are right, and the test proves nothing. If it only bends, the readings deviate further from the
 * linear prediction than each parameter alone shows.
 */
export function steadyOf(tests: readonly ProofTest[], of: Tried): Steady {
  const unsteady = new Set<string>()
  const squares = new Map<string, number>(tests.map(({ id }) => [id, 0]))
  for (let seed = 1; seed <= tries; seed++) {
    const chance = chanceOf(seed)
    // A test for every job is dropped only if it fails with typical parameters.
    const isFarOut = seed % 2 === 0
    const moves = of.parameters.map(() => (isFarOut ? farOut : 1) * normal(chance))
    const rig = of.parameters.reduce(
      (moved, parameter, i) => movedRig(moved, parameter, elementAt(moves, i)),
      of.rig,
    )
    const readings = of.readings(rig, tests)
    for (const test of tests) {
      if (isFarOut && test.always) continue
      const { value, slopes, bent } = of.expected(test)
      const straight = slopes.at.reduce(
        (sum, at, i) => sum + elementAt(slopes.by, i) * elementAt(moves, at),
        value,
      )
      const deviation = Math.hypot(deviationOf(test.instrument, value), Math.sqrt(bent), ...slopes.by)
      const astray = entryOf(readings, test.id) - straight
      if (!isFarOut) squares.set(test.id, entryOf(squares, test.id) + astray ** 2)
      if (Math.abs(astray) > largestDeviation * deviation) unsteady.add(test.id)
    }
  }
  return {
    tests: tests.filter(({ id }) => !unsteady.has(id)),
    astray: new Map([...squares].map(([id, sum]) => [id, sum / (tries / 2)])),
  }
}
