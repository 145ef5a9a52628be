import { assess, type Assessment } from '#core/assessment/assess'
import { wiringVerdictOf, type WiringVerdict } from '#core/assessment/wired'
import { asSpecified } from '#core/job/as-specified'
import type { JobDocument } from '#core/job/document'
import { isWired } from '#core/job/wired'
import { factsOf, type ShopSettings } from '#core/system/system'
import { judgementOf, type Judgement } from './judgement'

/** The judgement of a job: as surveyed and, once an answer is chosen, as specified. */
export interface JobJudgement {
  readonly found: Judgement
  /** Null while no answer is chosen. */
  readonly specified: Judgement | null
}

/** A job checked on all sides, with the checks behind it. */
export interface WholeJudgement extends JobJudgement {
  readonly assessment: Assessment
  /** Checks of the job as specified; null while no answer is chosen. */
  readonly specifiedAssessment: Assessment | null
  /** Null while no wiring was decided. */
  readonly wiring: WiringVerdict | null
}

/** The judgement of the planned job: as specified if an answer is chosen, otherwise as found. */
export const intended = ({ found, specified }: JobJudgement): Judgement => specified ?? found

/**
 * Checks a job on all sides: survey, runs and wiring together.
 * @param assessment of the survey, if already calculated
 */
export function judgeJob(
  job: JobDocument,
  shop: ShopSettings = {},
  assessment = assess(job, shop),
): WholeJudgement {
  const wiring = isWired(job) ? wiringVerdictOf(job, shop) : null
  const found = judgementOf({
    facts: factsOf(job, shop),
    checks: assessment.checks,
    // The wiring is that of the answer once one is chosen.
    wiring: job.specified ? null : wiring,
    shop,
  })
  if (!job.specified) return { found, specified: null, assessment, specifiedAssessment: null, wiring }
  const after = asSpecified(job)
  const specifiedAssessment = assess(after, shop)
  const specified = judgementOf({
    facts: factsOf(after, shop),
    checks: specifiedAssessment.checks,
    wiring,
    isSpecified: true,
    shop,
  })
  return { found, specified, assessment, specifiedAssessment, wiring }
}

/** Checks a job as it was fitted: everything of it is decided, its wiring too. */
export function judgeFitted(
  job: JobDocument,
  shop: ShopSettings = {},
): {
  readonly judgement: Judgement
  readonly wiring: WiringVerdict
} {
  const wiring = wiringVerdictOf(job, shop)
  const { checks } = assess(job, shop)
  return {
    judgement: judgementOf({ facts: factsOf(job, shop), checks, wiring, isSpecified: true, shop }),
    wiring,
  }
}
