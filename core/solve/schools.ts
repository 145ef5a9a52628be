import { fieldOf } from '#core/collections/held'
import type { CheckResult } from '#core/assessment/assess'
import { KeptAssessment } from '#core/assessment/kept'
import { FindingMemo } from '#core/assessment/memo'
import type { JobDocument } from '#core/job/document'
import { remedyLabel } from '#core/remedies/catalogue'
import { resolveRules, ruleCatalogue, ruleIds, type RuleId } from '#core/rules/rules'
import { factsOf, type ShopSettings } from '#core/system/system'
import type { Verdict } from '#core/system/verdict'
import { metric } from '#core/units/display'
import { inSentence, writerIn, type Write } from '#core/units/format'
import { overallOf } from '#core/verdict/judgement'

interface OtherSchool {
  readonly option: string
  readonly words: string
  readonly verdict: Verdict
  readonly headline: string
  /** The different findings, check by check. */
  readonly differs: readonly string[]
}

/** The result of the job under the other school of a question. */
export interface SchoolView {
  readonly rule: RuleId
  readonly question: string
  readonly chosen: string
  readonly own: boolean
  readonly others: readonly OtherSchool[]
}

/**
 * Every question on which workshops differ, the current school, and the result of each other one for this job.
 * Without runs.
 */
export function schoolsOf(job: JobDocument, shop: ShopSettings): SchoolView[] {
  const rules = resolveRules(shop.rules ?? {}, job.rules)
  const q = writerIn(shop.units ?? metric)
  // From one school to the next only the checks that read its rule are asked again.
  const kept = new KeptAssessment()
  const memo = new FindingMemo()
  const checksOf = (of: JobDocument): readonly CheckResult[] => kept.take(of, shop).assessment.checks
  const now = new Map(checksOf(job).map((check) => [check.key, check]))
  return ruleIds.flatMap((rule) => {
    const catalogued = ruleCatalogue[rule]
    if (catalogued.kind !== 'school') return []
    const options = catalogued.options as Readonly<Record<string, string>>
    const others = Object.keys(options).filter((option) => option !== rules[rule])
    return [
      {
        rule,
        question: catalogued.label,
        chosen: fieldOf(options, rules[rule] as string),
        own: Object.hasOwn(job.rules, rule),
        others: others.map((option) => {
          const other = { ...job, rules: { ...job.rules, [rule]: option } }
          const checks = checksOf(other)
          const { verdict, headline } = overallOf(factsOf(other, shop), checks, false, shop, memo)
          return {
            option,
            words: fieldOf(options, option),
            verdict,
            headline,
            differs: differing(checks, now, q),
          }
        }),
      },
    ]
  })
}

/** Findings that differ from the current ones, a sentence each. */
function differing(
  checks: readonly CheckResult[],
  now: ReadonlyMap<string, CheckResult>,
  q: Write,
): readonly string[] {
  return checks.flatMap((check) => {
    const was = now.get(check.key)
    if (was === undefined) return check.verdict === 'suits' ? [] : [check.summary]
    if (was.verdict !== check.verdict) return [check.summary]
    const [remedy] = check.remedies
    if (was.remedies[0]?.id === remedy?.id) return []
    return [remedy ? `${check.title}: ${inSentence(remedyLabel(remedy, q))} first` : check.summary]
  })
}
