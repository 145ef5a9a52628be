import { firstOf, present } from '#core/collections/held'
import { sureFrom, type Diagnosis } from './diagnosis'
import { soundId } from './cause-ids'
import type { StandIn } from './instruments'
import type { Posterior, Taken } from './posterior'
import type { ProofTest } from '#core/commissioning/tests/test'

/** How a search for a fault went. */
export interface Course {
  readonly posterior: Posterior
  /** The readings, in the order in which they were taken. */
  readonly tests: readonly ProofTest[]
  /** Readings from the one that was out of its band until one cause was sure; null if none became so. */
  readonly untilSure: number | null
  /** The readings from the first one outside its band on; empty if all were within. */
  readonly sinceAlarm: readonly ProofTest[]
}

/** A search without result ends after this many readings. */
const mostAsked = 25

/** The step after a reading. */
type Next = (posterior: Posterior, taken: ReadonlySet<ProofTest>) => ProofTest | null

/** A search up to its first reading that is out of its band. */
interface Begun {
  readonly posterior: Posterior
  readonly tests: readonly ProofTest[]
  /** Whether a reading was outside its band. */
  readonly isAlarmed: boolean
}

/** The reading of a test, and of each item that the walk-round finds different. */
function readingsOf(diagnosis: Diagnosis, standIn: StandIn, test: ProofTest): Taken[] {
  const own = { test, value: standIn.read(test) }
  if (!test.list || diagnosis.isWithin(own)) return [own]
  const differs = test.list
    .flatMap(({ tests }) => tests)
    .map((id) => present(diagnosis.proof.test(id)))
    .map((single) => ({ test: single, value: standIn.read(single) }))
    .filter((reading) => !diagnosis.isWithin(reading))
  return [own, ...differs]
}

/** The essential tests in their order until a reading is out of its band. */
export function begun(diagnosis: Diagnosis, standIn: StandIn): Begun {
  let posterior = diagnosis.given([])
  const tests: ProofTest[] = []
  for (const test of diagnosis.essential.tests) {
    const readings = readingsOf(diagnosis, standIn, test)
    posterior = readings.reduce((so, reading) => so.with(reading), posterior)
    tests.push(...readings.map((reading) => reading.test))
    if (!diagnosis.isWithin(firstOf(readings))) return { posterior, tests, isAlarmed: true }
  }
  return { posterior, tests, isAlarmed: false }
}

/**
 * An efficient search: the essential tests in order until a reading is outside its band; from
 * then on the most informative measurement per minute, until one cause is certain. If that cause is none, the order
 * continues, and after it any measurement still worth taking.
 */
export const economical = (
  diagnosis: Diagnosis,
  standIn: StandIn,
  from = begun(diagnosis, standIn),
): Course => searched(diagnosis, standIn, from, (posterior) => diagnosis.worthNext(posterior)?.test ?? null)

/** The same in a fixed order that the readings do not change. */
export const inOrder = (diagnosis: Diagnosis, standIn: StandIn, from = begun(diagnosis, standIn)): Course =>
  searched(diagnosis, standIn, from, (_, taken) => nextInOrder(diagnosis, taken))

/** The next steps in order: the essential tests, then all others. */
const nextInOrder = ({ essential, expected }: Diagnosis, taken: ReadonlySet<ProofTest>): ProofTest | null =>
  essential.tests.find((test) => !taken.has(test)) ??
  expected.find(({ test }) => !taken.has(test))?.test ??
  null

function searched(diagnosis: Diagnosis, standIn: StandIn, from: Begun, next: Next): Course {
  let { posterior, isAlarmed } = from
  const taken = new Set(from.tests)
  const read = (test: ProofTest): void => {
    const readings = readingsOf(diagnosis, standIn, test)
    posterior = readings.reduce((so, reading) => so.with(reading), posterior)
    for (const reading of readings) taken.add(reading.test)
    isAlarmed = !diagnosis.isWithin(firstOf(readings))
  }
  let alarmed = 0
  const ended = (untilSure: number | null): Course => {
    const tests = [...taken]
    return { posterior, tests, untilSure, sinceAlarm: alarmed > 0 ? tests.slice(alarmed - 1) : [] }
  }
  for (let quiet = 0; ;) {
    if (isAlarmed) {
      alarmed = taken.size
      const asked = readingsUntilSure()
      if (asked !== null) return ended(asked)
    }
    const isOver = diagnosis.essential.tests.every((test) => taken.has(test))
    const test = isOver && quiet++ >= mostAsked ? null : next(posterior, taken)
    if (!test) return ended(null)
    read(test)
  }

  /** Readings from the alarm until a fault is sure; null if it comes to nothing, or to nothing being wrong. */
  function readingsUntilSure(): number | null {
    for (let asked = 1; asked <= mostAsked; asked++) {
      const top = firstOf(diagnosis.named(posterior))
      const isSure = top.probability >= sureFrom
      if (isSure) return firstOf(top.causes).id === soundId ? null : asked
      const more = next(posterior, taken)
      if (!more) return null
      read(more)
    }
    return null
  }
}
