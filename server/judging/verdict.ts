import { assess } from '#core/assessment/assess'
import type { JobDocument } from '#core/job/document'
import type { RuleOverrides } from '#core/rules/rules'
import type { Verdict } from '#core/system/verdict'
import type { DisplayUnits } from '#core/units/display'

/** What lists show of a judging. */
export interface ListVerdict {
  readonly verdict: Verdict
  readonly headline: string
  readonly reason: string
}

/** The verdict of a job as lists show it, by the rules and in the units of the shop. */
export function judged(document: JobDocument, rules: RuleOverrides, units: DisplayUnits): ListVerdict {
  const { verdict, headline, reason } = assess(document, { rules, units })
  return { verdict, headline, reason }
}
