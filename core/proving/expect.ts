import { deviationOf } from './meters'
import type { Proof } from './predict'
import type { ProofTest } from './tests/test'

/** What a test must read. */
export interface Expected {
  readonly test: ProofTest
  readonly value: number
  /** Twice the standard deviation of the reading in a sound system, with its instrument. */
  readonly tolerance: number
}

/** Tolerances are so many standard deviations. */
const deviations = 2

/** What a test must read in a sound system, with its tolerance. */
export function expectationOf(proof: Proof, test: ProofTest): Expected {
  const { value, slopes, bent } = proof.expected(test)
  const deviation = Math.hypot(deviationOf(test.instrument, value), Math.sqrt(bent), ...slopes.by)
  return { test, value, tolerance: deviations * deviation }
}
