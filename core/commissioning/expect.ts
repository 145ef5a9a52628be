import { deviationOf } from './meters'
import type { Proof } from './predict'
import type { ProofTest } from './tests/test'

/** The expected reading of a test. */
export interface Expected {
  readonly test: ProofTest
  readonly value: number
  /** Twice the standard deviation of the reading in a sound system, with its instrument. */
  readonly tolerance: number
}

/** Tolerance in standard deviations. */
const deviations = 2

/** A current with a tolerance above this, A, and above twice its value shows no fault (engineering default). */
const widestA = 5

/** Whether a test can show a fault: not if its tolerance is wider than its value. */
export const isTelling = ({ test, value, tolerance }: Expected): boolean =>
  test.quantity !== 'amps' || tolerance <= Math.max(widestA, 2 * Math.abs(value))

/** The expected reading of a test in a sound system, with its tolerance. */
export function expectationOf(proof: Proof, test: ProofTest): Expected {
  const { value, slopes, bent } = proof.expected(test)
  const deviation = Math.hypot(deviationOf(test.instrument, value), Math.sqrt(bent), ...slopes.by)
  return { test, value, tolerance: deviations * deviation }
}
