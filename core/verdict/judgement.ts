import { isAccepted } from '#core/assessment/finding'
import { FindingMemo } from '#core/assessment/memo'
import type { CheckResult, Finding } from '#core/assessment/result'
import { wiringFindingsOf, type WiringVerdict } from '#core/assessment/wired'
import { openQuestions, type BeginningQuestion } from '#core/job/beginning'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { Facts } from '#core/system/facts'
import { usualSystem, type ShopSettings } from '#core/system/system'
import { verdictWords, worst, type Verdict } from '#core/system/verdict'
import { firstRemedies, settlingOf } from './changes'
import { measureNext, type Measurement } from './measure-next'

/** The joint result of all checks of a job in one state. Every screen, list, paper and command shows this. */
export interface Judgement {
  readonly verdict: Verdict
  /** The verdict in words, with the number of changes for Suits after changes. */
  readonly headline: string
  /** Key of the check that decides the verdict; null if none does. */
  readonly decidedBy: string | null
  /** The deciding reason, in a sentence or two. */
  readonly reason: string
  /** The changes that bring all amber checks inside their limits, each once. */
  readonly changes: readonly RemedyRef[]
  /** Next measurements: most verdicts settled first. */
  readonly measureNext: readonly Measurement[]
}

/** The checks that form one judgement: those of the survey and, once it is decided, of the wiring. */
interface JudgedTogether {
  readonly facts: Facts
  readonly checks: readonly CheckResult[]
  /** Null if no wiring was decided. */
  readonly wiring: WiringVerdict | null
  /** True once an answer is chosen. Accepted findings then no longer count as changes. */
  readonly isSpecified?: boolean
  readonly shop: ShopSettings
}

/** Joins the survey, its runs and the wiring to one judgement. */
export function judgementOf({ facts, checks, wiring, isSpecified, shop }: JudgedTogether): Judgement {
  const all = [...checks, ...(wiring?.checks ?? [])]
  const counted = isSpecified ? all.filter((check) => !isAccepted(check)) : all
  const { verdict, headline, changes } = overallOf(facts, counted, wiring !== null, shop)
  const deciding = counted.filter((check) => check.verdict === verdict)
  const [question] = verdict === 'measure-first' ? openQuestions(facts.job) : []
  const isOnlyAccepted = verdict === 'suits' && counted.length < all.length
  return {
    verdict,
    headline: question
      ? enterFirst[question].headline
      : isOnlyAccepted
        ? 'Suits, with a note for the customer'
        : headline,
    decidedBy: verdict === 'suits' ? null : (deciding[0]?.key ?? null),
    reason: question ? enterFirst[question].reason : reasonOf(verdict, deciding),
    changes,
    measureNext: measureNext(facts.job, all),
  }
}

/**
 * The verdict of some findings, its words and its changes.
 * @param isWired whether findings of the wiring are among them
 * @param memo cached findings of similar jobs: the job is checked again with its changes, one after the other
 */
export function overallOf(
  facts: Facts,
  findings: readonly Finding[],
  isWired: boolean,
  shop: ShopSettings,
  memo = new FindingMemo(),
): Pick<Judgement, 'verdict' | 'headline' | 'changes'> {
  const all = findings.map(({ verdict }) => verdict)
  // A job that nothing charges has something left to find out.
  const verdict = worst(usualSystem(facts).lanes.length === 0 ? ['measure-first', ...all] : all)
  // Only a job that suits after changes is checked again with them.
  if (verdict !== 'suits-once-changed')
    return { verdict, changes: firstRemedies(findings), headline: verdictWords[verdict] }
  const { changes, settles } = settlingOf(facts.job, findings, {
    survey: (job) => memo.of(job, shop).all(),
    wiring: isWired ? (job) => wiringFindingsOf(job, shop) : null,
  })
  return { verdict, changes, headline: headlineOf(settles ? changes.length : 0) }
}

/** @param changes the number of changes until it suits; 0 if unknown */
function headlineOf(changes: number): string {
  if (changes === 0) return verdictWords['suits-once-changed']
  return `Suits after ${changes} ${changes === 1 ? 'change' : 'changes'}`
}

/** The words in place of a verdict for a job that has just begun. */
const enterFirst: Readonly<
  Record<BeginningQuestion, { readonly headline: string; readonly reason: string }>
> = {
  sources: {
    headline: 'Enter what charges the house bank',
    reason: 'No charging source is entered yet.',
  },
  bank: {
    headline: 'Enter the house bank',
    reason: 'The batteries on board are unknown.',
  },
  battery: {
    headline: 'Choose the new battery',
    reason: 'Until then the charging sources are checked against typical figures of an LFP battery.',
  },
}

function reasonOf(verdict: Verdict, deciding: readonly CheckResult[]): string {
  if (verdict === 'suits') return 'Every source stays inside the battery’s limits.'
  const sentences = new Map(deciding.map((c) => [c.id, c.summary]))
  return [...sentences.values()].slice(0, 2).join(' ')
}
