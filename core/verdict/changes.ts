import { isAccepted } from '#core/assessment/finding'
import type { Finding } from '#core/assessment/result'
import type { JobDocument } from '#core/job/document'
import { applyRemedy, canTry, joinRemedies, sameRemedy, type RemedyRef } from '#core/remedies/catalogue'

/** The changes that a job needs, each once, and whether it suits when they are made. */
export interface Settling {
  readonly changes: readonly RemedyRef[]
  readonly settles: boolean
}

/** One change can ask for another: so many rounds of that are followed. */
const mostRounds = 4

/**
 * The {@link firstRemedies} of a job, then what the changed job still asks for, until it suits.
 * @param findings of the job as it stands
 * @param judge gives the findings of the job once changed
 */
export function settlingOf(
  job: JobDocument,
  findings: readonly Finding[],
  judge: (job: JobDocument) => readonly Finding[],
): Settling {
  let changes = firstRemedies(findings)
  let changed = withChanges(job, changes)
  for (let round = 0; round < mostRounds; round++) {
    const left = judge(changed).filter((finding) => finding.verdict !== 'suits' && !isAccepted(finding))
    if (left.length === 0) return { changes, settles: true }
    const next = firstRemedies(left)
    if (left.some(({ verdict }) => verdict !== 'suits-once-changed') || next.length === 0) break
    changed = withChanges(changed, next)
    changes = joinRemedies([
      ...changes.filter((ref) => !next.some((other) => sameRemedy(ref, other))),
      ...next,
    ])
  }
  return { changes, settles: false }
}

/** The first remedy of every finding that suits after changes, each once, without those that another replaces. */
export const firstRemedies = (findings: readonly Finding[]): readonly RemedyRef[] =>
  joinRemedies(
    findings.flatMap(({ verdict, remedies }) =>
      verdict === 'suits-once-changed' && remedies[0] ? [remedies[0]] : [],
    ),
  )

/** The job with all changes made that a survey can show. */
export const withChanges = (job: JobDocument, changes: readonly RemedyRef[]): JobDocument =>
  changes.filter(canTry).reduce(applyRemedy, job)
