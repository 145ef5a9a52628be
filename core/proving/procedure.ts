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

/** A search up to its first reading that is out of its band. */
export interface Begun {
  readonly posterior: Posterior
  readonly tests: readonly ProofTest[]
  /** Whether there was one: else all are within. */
  readonly isAlarmed: boolean
}

/** The tests in their order until a reading is out of its band. */
export function begun(diagnosis: Diagnosis, standIn: StandIn): Begun {
  let posterior = diagnosis.given([])
  const tests: ProofTest[] = []
  for (const test of routineOf(diagnosis.proof.tests)) {
    const reading = { test, value: standIn.read(test) }
    posterior = posterior.with(reading)
    tests.push(test)
    if (!diagnosis.isWithin(reading)) return { posterior, tests, isAlarmed: true }
  }
  return { posterior, tests, isAlarmed: false }
}

/**
 * How an economical hand goes about it: the tests in their order until a reading is out of its band; from then on
 * what tells most for its trouble, until one cause is sure. Where that is that nothing is wrong, the order goes on.
 */
export const economical = (
  diagnosis: Diagnosis,
  standIn: StandIn,
  from = begun(diagnosis, standIn),
): Course => searched(diagnosis, standIn, from, (posterior) => diagnosis.worthNext(posterior)?.test ?? null)

/** The same by the order alone, whatever is read. */
export const inOrder = (diagnosis: Diagnosis, standIn: StandIn, from = begun(diagnosis, standIn)): Course =>
  searched(diagnosis, standIn, from, (_, taken) => nextInOrder(diagnosis, taken))

const nextInOrder = ({ proof }: Diagnosis, taken: ReadonlySet<ProofTest>): ProofTest | null =>
  routineOf(proof.tests).find((test) => !taken.has(test)) ?? null

function searched(diagnosis: Diagnosis, standIn: StandIn, from: Begun, next: Next): Course {
  let { posterior, isAlarmed } = from
  const taken = new Set(from.tests)
  const read = (test: ProofTest): void => {
    const reading = { test, value: standIn.read(test) }
    posterior = posterior.with(reading)
    taken.add(test)
    isAlarmed = !diagnosis.isWithin(reading)
  }
  let alarmed = 0
  const ended = (untilSure: number | null): Course => {
    const tests = [...taken]
    return { posterior, tests, untilSure, sinceAlarm: alarmed > 0 ? tests.slice(alarmed - 1) : [] }
  }
  for (;;) {
    if (isAlarmed) {
      alarmed = taken.size
      const asked = askedUntilSure()
      if (asked !== null) return ended(asked)
    }
    const test = nextInOrder(diagnosis, taken)
    if (!test) return ended(null)
    read(test)
  }

  /** Readings from the alarm until a fault is sure; null where it comes to nothing, or to nothing being wrong. */
  function askedUntilSure(): number | null {
    for (let asked = 1; asked <= mostAsked; asked++) {
      const [top] = diagnosis.named(posterior)
      const isSure = top!.probability >= sureFrom
      if (isSure) return top!.causes[0]!.id === soundId ? null : asked
      const more = next(posterior, taken)
      if (!more) return null
      read(more)
    }
    return null
  }
}
