import { sureFrom, type Diagnosis } from './diagnosis'
import { soundId } from './hypotheses'
import type { StandIn } from './instruments'
import type { Posterior } from './posterior'
import { routineOf } from './tests/index'
import type { ProofTest } from './tests/test'

/** How a search for a fault went. */
export interface Course {
  readonly posterior: Posterior
  /** The readings, in the order in which they were taken. */
  readonly tests: readonly ProofTest[]
  /** Readings from the one that was out of its band until one cause was sure; null where none became so. */
  readonly untilSure: number | null
  /** The readings from the last one that was out of its band on, itself included; none where all were within. */
  readonly sinceAlarm: readonly ProofTest[]
}

/** A search that comes to nothing ends after so many readings. */
const mostAsked = 25

/** What comes after a reading that is out of its band. */
type Next = (posterior: Posterior, taken: ReadonlySet<ProofTest>) => ProofTest | null

/**
 * How an economical hand goes about it: the tests in their order until a reading is out of its band; from then on
 * what tells most for its trouble, until one cause is sure. Where that is that nothing is wrong, the order goes on.
 */
export const economical = (diagnosis: Diagnosis, standIn: StandIn): Course =>
  searched(diagnosis, standIn, (posterior) => diagnosis.worthNext(posterior)?.test ?? null)

/** The same by the order alone, whatever is read. */
export const inOrder = (diagnosis: Diagnosis, standIn: StandIn): Course =>
  searched(
    diagnosis,
    standIn,
    (_, taken) => routineOf(diagnosis.proof.tests).find((test) => !taken.has(test)) ?? null,
  )

function searched(diagnosis: Diagnosis, standIn: StandIn, next: Next): Course {
  let posterior = diagnosis.given([])
  const taken = new Set<ProofTest>()
  const read = (test: ProofTest): boolean => {
    const reading = { test, value: standIn.read(test) }
    posterior = posterior.with(reading)
    taken.add(test)
    return diagnosis.isWithin(reading)
  }
  let alarmed = 0
  const ended = (untilSure: number | null): Course => {
    const tests = [...taken]
    return { posterior, tests, untilSure, sinceAlarm: alarmed > 0 ? tests.slice(alarmed - 1) : [] }
  }
  for (const test of routineOf(diagnosis.proof.tests)) {
    if (taken.has(test) || read(test)) continue
    alarmed = taken.size
    for (let asked = 1; asked <= mostAsked; asked++) {
      const [top] = diagnosis.named(posterior)
      const isSure = top!.probability >= sureFrom
      if (isSure && top!.causes[0]!.id !== soundId) return ended(asked)
      const more = isSure ? null : next(posterior, taken)
      if (!more) break
      read(more)
    }
  }
  return ended(null)
}
