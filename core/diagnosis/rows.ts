import { isExplained, type Diagnosis } from './diagnosis'
import { otherId } from './cause-ids'
import type { Posterior, Ranked } from './posterior'
import { isReading } from './essential'
import type { Risk } from '#core/commissioning/harm'
import { provedCase } from '#core/commissioning/states'
import type { ProofTest } from '#core/commissioning/tests/test'

/** The expected reading of a test, as the command line prints it. */
interface ExpectedRow {
  readonly test: string
  readonly title: string
  readonly case: string
  readonly quantity: string
  /** Posts of the probes, red first; null if it is no voltage. */
  readonly from: string | null
  readonly to: string | null
  readonly run: string | null
  readonly value: number
  readonly tolerance: number
  readonly unit: string
  readonly minutes: number
  /** Minutes of waiting after that. */
  readonly waits: number
  /** Whether it is made on every job like this one. */
  readonly essential: boolean
}

/** The tests of a job for the command line: each with its expected reading, and the worth of the essential ones. */
interface ExpectedRows {
  readonly tests: readonly ExpectedRow[]
  /** Readings and minutes of work of the essential tests; the walk round is no reading. */
  readonly essential: { readonly readings: number; readonly minutes: number }
  /**
   * Chance that a fault of the list is hidden once they all read as they must, and that one is that can cause a fire.
   */
  readonly risk: Risk
}

const rounded = (value: number): number => Number(value.toPrecision(6))

/** Every test of a job with its expected reading, in order of work. */
export function expectedRows(diagnosis: Diagnosis): ExpectedRows {
  const { tests, minutes, risk } = diagnosis.essential
  const rows = diagnosis.expected.map(({ test, value, tolerance }) => ({
    test: test.id,
    title: test.title,
    case: provedCase(test.state),
    quantity: test.quantity,
    ...postsOf(test),
    run: test.run,
    value: rounded(value),
    tolerance: rounded(tolerance),
    unit: test.unit,
    minutes: test.minutes,
    waits: test.waits,
    essential: tests.includes(test),
  }))
  return {
    tests: rows,
    essential: { readings: tests.filter(isReading).length, minutes },
    risk: { hidden: rounded(risk.hidden), dangerous: rounded(risk.dangerous) },
  }
}

function postsOf({ probes: [probe] }: ProofTest): {
  readonly from: string | null
  readonly to: string | null
} {
  return probe?.kind === 'volts' ? { from: probe.from, to: probe.to } : { from: null, to: null }
}

/** A cause with its probability, as the command line prints it. */
interface RankingRow {
  /** `resistance`; `none` if nothing is wrong. */
  readonly fault: string
  readonly at: string | null
  readonly probability: number
  readonly size: number | null
  readonly unit: string | null
  readonly words: string
  /** Other causes that no test can separate from it: `open-run@main-feed-1`. */
  readonly together: readonly string[]
}

/** The result of a diagnosis, as the command line prints it. */
interface DiagnosisRows {
  readonly ranking: readonly RankingRow[]
  /** False if the readings fit no known cause. */
  readonly explained: boolean
  readonly next: {
    readonly test: string
    readonly title: string
    readonly how: string
    readonly case: string
    readonly bits: number
    readonly minutes: number
  } | null
}

/** Less probable causes are not listed. */
const leastListed = 1e-4

/** Causes in order of their probability, and the next measurement. */
export function rankingRows(diagnosis: Diagnosis, posterior: Posterior): DiagnosisRows {
  const { together } = diagnosis
  const ranking = posterior.ranking()
  const next = diagnosis.worthNext(posterior)
  return {
    ranking: ranking
      .filter(({ probability }, i) => probability >= leastListed || i === 0)
      .map((ranked) => rowOf(ranked, together)),
    explained: isExplained(posterior),
    next: next
      ? {
          test: next.test.id,
          title: next.test.title,
          how: next.test.how,
          case: provedCase(next.test.state),
          bits: rounded(next.bits),
          minutes: next.minutes,
        }
      : null,
  }
}

function rowOf(
  { cause, probability, size }: Ranked,
  groups: readonly (readonly { readonly id: string }[])[],
): RankingRow {
  const { fault, at, id } = cause
  const group = groups.find((members) => members.some((member) => member.id === id)) ?? []
  return {
    fault: fault?.id ?? id,
    at,
    probability: rounded(probability),
    size: size === null ? null : rounded(size),
    unit: fault && fault.unit !== '' ? fault.unit : null,
    words: causeWords(cause),
    together: group.filter((member) => member.id !== id).map((member) => member.id),
  }
}

/** A cause in words: `Poor joint in W3, the main fuse to the main switch`. */
export const causeWords = ({ id, fault, where }: Ranked['cause']): string =>
  fault ? `${fault.title} ${where}` : id === otherId ? 'A fault that is not listed' : 'No fault'
