import { questionsOf } from '#core/assessment/assess'
import { missingValues } from '#core/assessment/finding-words'
import { findingsIn, keyOf } from '#core/assessment/result'
import type { Facts } from '#core/system/facts'
import type { ShopSettings } from '#core/system/system'
import type { Verdict } from '#core/system/verdict'
import { overallOf, type Judgement } from '#core/verdict/judgement'

/** A check that is worse than Suits, in a sentence. */
export interface Shortcoming {
  readonly key: string
  readonly verdict: Verdict
  readonly words: string
}

/**
 * The verdict of a job, and each check worse than Suits in a sentence: the same as a whole assessment, in half the
 * time.
 */
export function shortcomingsOf(
  facts: Facts,
  shop: ShopSettings,
): Pick<Judgement, 'verdict' | 'headline'> & { readonly against: readonly Shortcoming[] } {
  const { find, say } = findingsIn(facts)
  const judged = questionsOf(facts).flatMap((question) => {
    const finding = find(question.check, question.place)
    return finding ? [{ question, finding }] : []
  })
  const { verdict, headline } = overallOf(
    facts,
    judged.map(({ finding }) => finding),
    false,
    shop,
  )
  const against = judged.filter(({ finding }) => finding.verdict !== 'suits')
  return {
    verdict,
    headline,
    against: against.map(({ question: { check, place }, finding }) => ({
      key: keyOf(finding.id, finding.on),
      verdict: finding.verdict,
      words:
        finding.deciding.length > 0 ? missingValues(check.title, finding.deciding.length) : say(check, place),
    })),
  }
}
