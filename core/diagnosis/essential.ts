import { elementAt, entryOf } from '#core/collections/held'
import { harms, riskOf, type Risk } from '#core/commissioning/harm'
import type { Hypothesis } from './hypotheses'
import { chanceWithin, riskWithin, type Band } from './risk'
import type { TestState } from '#core/commissioning/states'
import type { Bench } from '#core/commissioning/tests/make'
import type { ProofTest } from '#core/commissioning/tests/test'

/** The tests that an installer makes on every job: few, and those that matter. */
export interface Essential {
  /** In the order in which they are made. */
  readonly tests: readonly ProofTest[]
  /** Minutes of work for the readings with setup, without the walk-round and waiting. */
  readonly minutes: number
  /** The risk that stays hidden if all of them read as expected. */
  readonly risk: Risk
}

/**
 * Nobody makes more readings, or works longer on them (engineering defaults). The walk round is a tick, not a
 * reading.
 */
export const mostReadings = 15
export const mostMinutes = 30
/** Minutes of work to set a state up (engineering default). */
const setUpMinutes = 1
/** The drop over a run is essential where more flows, A. */
const heavyA = 50

/** The data of a job: the possible tests, their bands, and the predictions of its causes. */
interface Known {
  readonly bench: Bench
  readonly hypotheses: readonly Hypothesis[]
  readonly bandOf: (test: ProofTest) => Band
  readonly offered: readonly ProofTest[]
  /** No more is added once less than this stays hidden. */
  readonly enough: Risk
}

export const isReading = ({ list }: ProofTest): boolean => list === undefined

/** Minutes of work for the readings among tests, with setting up each state once. */
export function minutesOf(tests: readonly ProofTest[]): number {
  const readings = tests.filter(isReading)
  const states = new Set(readings.map(({ state }) => state.id).filter((id) => id !== restId))
  return readings.reduce((sum, { minutes }) => sum + minutes, setUpMinutes * states.size)
}
/** The state of a job before anything is switched on. */
const restId = 'rest'

/**
 * Chooses the essential tests: those for every job, the fewest that include the drop over every run
 * with a large current, and then, one after another, whichever takes away most risk for each minute of work. Risk is
 * the prior of a fault times its harm times the chance that no test so far shows it.
 */
export function essentialOf(known: Known): Essential {
  const { hypotheses, bandOf, offered, enough } = known
  const chosen = new Set([...offered.filter(({ always }) => always), ...heavyDrops(known)])
  const missed = hypotheses.map(({ prior, harm }) => (harm === null ? 0 : prior * harms[harm].weight))
  const passes = new Map<ProofTest, Float64Array>()
  const passesOf = (test: ProofTest): Float64Array => {
    const known = passes.get(test)
    if (known) return known
    const band = bandOf(test)
    const own = Float64Array.from(hypotheses, (one) => chanceWithin(one, band))
    passes.set(test, own)
    return own
  }
  const take = (test: ProofTest): void => {
    chosen.add(test)
    passesOf(test).forEach((share, h) => (missed[h]! *= share))
  }
  for (const test of chosen) take(test)
  while (!isEnough(hypotheses, missed, enough) && count(chosen) < mostReadings) {
    const best = bestOf(
      offered,
      chosen,
      (test) =>
        passesOf(test).reduce((sum, share, h) => sum + elementAt(missed, h) * (1 - share), 0) / total(missed),
    )
    if (!best) break
    take(best)
  }
  const tests = offered.filter((test) => chosen.has(test))
  return { tests, minutes: minutesOf(tests), risk: riskWithin(hypotheses, tests.map(bandOf)) }
}

const total = (all: readonly number[]): number => all.reduce((sum, one) => sum + one, 0)
/** Least share of the remaining risk that a reading must remove per minute (engineering default). */
const leastShare = 0.005
const count = (tests: ReadonlySet<ProofTest>): number => [...tests].filter(isReading).length

/**
 * Whether the remaining risk is small enough, from the miss probability of each test alone, which is close enough.
 */
function isEnough(hypotheses: readonly Hypothesis[], missed: readonly number[], enough: Risk): boolean {
  const { hidden, dangerous } = riskOf(hypotheses, ({ harm }, h) => elementAt(missed, h) / harms[harm].weight)
  return hidden <= enough.hidden && dangerous <= enough.dangerous
}

/** The test that takes away most for each minute that it adds; null if none fits in any more. */
function bestOf(
  offered: readonly ProofTest[],
  chosen: ReadonlySet<ProofTest>,
  takesAway: (test: ProofTest) => number,
): ProofTest | null {
  const now = minutesOf([...chosen])
  let [best, most]: [ProofTest | null, number] = [null, leastShare]
  for (const test of offered) {
    if (chosen.has(test)) continue
    const added = minutesOf([...chosen, test]) - now
    if (now + added > mostMinutes) continue
    const share = takesAway(test) / added
    if (share > most) [best, most] = [test, share]
  }
  return best
}

/**
 * The fewest tests that hold the drop over every run in which much flows, each in a state in which most of it does.
 */
function heavyDrops({ bench, offered }: Known): ProofTest[] {
  const flows = (state: TestState, run: string): number => Math.abs(bench.solved(state).amps.get(run) ?? 0)
  const steady = bench.states.filter(({ at, doing }) => at.kind !== 'cranking' && doing.kind === 'nothing')
  const open = new Map<string, number>(
    bench.rig.network.runs
      .map(({ id }) => [id, Math.max(...steady.map((state) => flows(state, id)))] as const)
      .filter(([, amps]) => amps > heavyA),
  )
  const chosen: ProofTest[] = []
  const heldBy = ({ covers, state }: ProofTest): string[] =>
    covers.filter((run) => open.has(run) && flows(state, run) >= leastShareOfLargest * entryOf(open, run))
  while (open.size > 0) {
    const [best] = offered
      .map((test) => ({ test, held: heldBy(test) }))
      .filter(({ held }) => held.length > 0)
      .sort((a, b) => b.held.length - a.held.length || a.test.minutes - b.test.minutes)
    if (!best) break
    chosen.push(best.test)
    for (const run of best.held) open.delete(run)
  }
  return chosen
}
/** Least share of the largest current for reading a drop. */
const leastShareOfLargest = 0.7
