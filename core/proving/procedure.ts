import { sureFrom, type Diagnosis } from './diagnosis'
import type { StandIn } from './instruments'
import { soundId } from './hypotheses'
import type { Posterior } from './posterior'
import type { ProofTest } from './tests/test'

/** How a search for a fault went. */
export interface Course {
  readonly posterior: Posterior
  /** The readings, in the order in which they were taken. */
  readonly tests: readonly string[]
  /** Readings in their fixed order until one was out of its band; null where none was. */
  readonly untilAlarm: number | null
  /** Readings from that on until one cause was sure; null where none became so. */
  readonly untilSure: number | null
}

/** A search that comes to nothing ends after so many readings. */
const mostAsked = 25

/**
 * How an economical hand goes about it: the tests in their order until a reading is out of its band; from then on
 * what tells most for its trouble, until one cause is sure. Where that is that nothing is wrong, the order goes on.
 */
export function economical(diagnosis: Diagnosis, standIn: StandIn): Course {
  let posterior = diagnosis.given([])
  const tests: string[] = []
  const taken = new Set<string>()
  const read = (test: ProofTest): boolean => {
    const reading = { test, value: standIn.read(test) }
    posterior = posterior.with(reading)
    tests.push(test.id)
    taken.add(test.id)
    return diagnosis.isWithin(reading)
  }
  for (const test of diagnosis.proof.tests) {
    if (taken.has(test.id) || read(test)) continue
    const untilAlarm = tests.length
    for (let asked = 1; asked <= mostAsked; asked++) {
      const top = posterior.top()
      if (top.probability >= sureFrom) {
        if (top.cause.id === soundId) break
        return { posterior, tests, untilAlarm, untilSure: asked }
      }
      const [next] = diagnosis.next(posterior)
      if (!next || next.bits < leastBits) break
      read(next.test)
    }
  }
  const top = posterior.top()
  const sure = top.cause.id !== soundId && top.probability >= sureFrom
  return { posterior, tests, untilAlarm: null, untilSure: sure ? tests.length : null }
}

/** A reading that is expected to tell less is not worth taking, bits. */
const leastBits = 0.005
