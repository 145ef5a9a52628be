import { withId } from '#core/collections/held'
import { isExplained, type Diagnosis } from './diagnosis'
import { nodesOfProbes } from '#core/drawing/drawing'
import { soundId } from './cause-ids'
import type { Cause } from './hypotheses'
import { instrumentName } from '#core/commissioning/meters'
import type { Posterior, Taken } from './posterior'
import { causeWords } from './rows'
import { isReading } from './essential'
import type { Risk } from '#core/commissioning/harm'
import type { KeptAs, ProofTest, WalkItem } from '#core/commissioning/tests/test'

/** A test for a page: plain data with its expected reading. */
export interface ShownTest {
  readonly id: string
  readonly title: string
  readonly group: ProofTest['group']
  readonly state: { readonly id: string; readonly name: string }
  readonly quantity: ProofTest['quantity']
  readonly unit: ProofTest['unit']
  readonly instrument: string
  readonly how: string
  readonly minutes: number
  /** Waiting time after that, minutes. */
  readonly waits: number
  /** Items of a walk-round; empty for a single test. */
  readonly list: readonly WalkItem[]
  /** The run it is about, and the posts of its probes, red first. */
  readonly run: string | null
  readonly from: string | null
  readonly to: string | null
  /** The nodes of the drawing on which those posts are. */
  readonly red: string | null
  readonly black: string | null
  readonly expected: number
  readonly tolerance: number
  /** The logbook's quantity for its reading; null if the logbook stores it under its title. */
  readonly keptAs: KeptAs | null
}

export function shownTests(diagnosis: Diagnosis): ShownTest[] {
  const nodes = nodesOfProbes(diagnosis.proof.rig.network)
  return diagnosis.expected.map(({ test, value, tolerance }) => {
    const [probe] = test.probes
    const posts = probe?.kind === 'volts' ? { from: probe.from, to: probe.to } : { from: null, to: null }
    return {
      id: test.id,
      title: test.title,
      group: test.group,
      state: { id: test.state.id, name: test.state.name },
      quantity: test.quantity,
      unit: test.unit,
      instrument: instrumentName(test.instrument),
      how: test.how,
      minutes: test.minutes,
      waits: test.waits,
      list: test.list ?? [],
      run: test.run ?? (probe?.kind === 'amps' ? probe.run : null),
      ...posts,
      red: nodes.get(posts.from ?? '') ?? null,
      black: nodes.get(posts.to ?? '') ?? null,
      expected: value,
      tolerance,
      keptAs: test.keptAs ?? null,
    }
  })
}

/** The essential tests for a page: their ids in order, and their worth if all readings are as expected. */
export interface ShownEssential {
  readonly tests: readonly string[]
  readonly readings: number
  readonly minutes: number
  readonly risk: Risk
}

export const shownEssential = ({ essential: { tests, minutes, risk } }: Diagnosis): ShownEssential => ({
  tests: tests.map(({ id }) => id),
  readings: tests.filter(isReading).length,
  minutes,
  risk,
})

/** A reading that speaks for or against a cause. */
interface Speaks {
  readonly test: string
  readonly title: string
}

/** A cause as a page shows it. */
export interface ShownCause {
  readonly id: string
  readonly words: string
  readonly mend: string
  readonly probability: number
  readonly size: number | null
  readonly unit: string
  readonly for: readonly Speaks[]
  readonly against: readonly Speaks[]
  /** Others that no test can separate from it, in words. */
  readonly together: readonly string[]
}

/** The meaning of the readings, as a page shows it. */
export interface ShownDiagnosis {
  readonly causes: readonly ShownCause[]
  /** Whether a cause of the list explains the readings at all. */
  readonly explained: boolean
  /** Whether a reading is out of its band and not settled. */
  readonly looksWrong: boolean
  /** The risk that is still hidden after these readings. */
  readonly risk: Risk
  /** The most informative measurement per minute, and its expected information, bits. */
  readonly next: { readonly test: string; readonly bits: number; readonly minutes: number } | null
}

const mostShown = 6
const leastShown = 0.01
/** A reading is evidence for a cause that makes it this much more likely, as a log ratio. */
const speaksFrom = 1

export function shownDiagnosis(diagnosis: Diagnosis, posterior: Posterior): ShownDiagnosis {
  const { together } = diagnosis
  const ranking = posterior.ranking()
  const next = diagnosis.worthNext(posterior)
  const sound = withId(posterior.causes, soundId)
  return {
    causes: ranking
      .filter(({ probability }, i) => i === 0 || probability >= leastShown)
      .slice(0, mostShown)
      .map(({ cause, probability, size }) => {
        const other = cause === sound ? (ranking.find((one) => one.cause !== sound)?.cause ?? sound) : sound
        const speaks = posterior.taken.map((taken) => ({
          taken,
          by: posterior.fits(cause, taken) - posterior.fits(other, taken),
        }))
        const of = (which: (by: number) => boolean): Speaks[] =>
          speaks
            .filter(({ by }) => which(by))
            .sort((a, b) => Math.abs(b.by) - Math.abs(a.by))
            .map(({ taken: { test } }) => ({ test: test.id, title: test.title }))
        return {
          id: cause.id,
          words: causeWords(cause),
          mend: cause.fault?.mend ?? '',
          probability,
          size,
          unit: cause.fault?.unit ?? '',
          for: of((by) => by > speaksFrom),
          against: of((by) => by < -speaksFrom),
          together: othersOf(cause, together),
        }
      }),
    explained: isExplained(posterior),
    looksWrong: diagnosis.looksWrong(posterior),
    risk: posterior.risk(),
    next: next ? { test: next.test.id, bits: next.bits, minutes: next.minutes } : null,
  }
}

const othersOf = (cause: Cause, groups: readonly (readonly Cause[])[]): string[] =>
  (groups.find((members) => members.includes(cause)) ?? [])
    .filter((member) => member !== cause)
    .map((member) => causeWords(member))

/** Readings by the ids of their tests, for those that the job still has. */
export const takenOf = (
  { proof }: Diagnosis,
  readings: readonly { readonly test: string; readonly value: number }[],
): Taken[] =>
  readings.flatMap(({ test: id, value }) => {
    const test = proof.test(id)
    return test ? [{ test, value }] : []
  })

/** How likely something is, in a word. */
export const likelihoodWord = (probability: number): string =>
  probability >= 0.9
    ? 'almost certain'
    : probability >= 0.6
      ? 'likely'
      : probability >= 0.25
        ? 'may be'
        : probability >= 0.05
          ? 'less likely'
          : 'hardly'
