import { completeJob } from '#core/job/complete'
import type { JobDocument } from '#core/job/document'
import { applyRemedy, canTry, joinRemedies, sameRemedy, type RemedyRef } from '#core/remedies/catalogue'
import { Facts } from '#core/system/facts'
import { isAccepted } from './finding'
import type { Finding } from './result'

/** The changes that a job asks for, each once, and whether it suits when they are made. */
export interface Settling {
  readonly changes: readonly RemedyRef[]
  readonly settles: boolean
}

/** Changes that other changes bring with them are followed so far. */
const mostRounds = 4

/**
 * The {@link firstRemedies} of a job, then what the job with these changes still asks for, until it suits.
 * @param findings of the job as it stands
 * @param judge the findings of the job once changed, those that need a run left out
 */
export function settlingOf(
  { job, rules, q }: Facts,
  findings: readonly Finding[],
  judge: (facts: Facts) => readonly Finding[],
): Settling {
  let changes = firstRemedies(findings)
  let changed = withChanges(job, changes)
  for (let round = 0; round < mostRounds; round++) {
    const left = judge(new Facts(completeJob(changed), rules, q)).filter(
      (finding) => finding.verdict !== 'suits' && !isAccepted(finding),
    )
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

/** The first remedy of every Suits once changed, each once, without those that another makes needless. */
export const firstRemedies = (findings: readonly Finding[]): readonly RemedyRef[] =>
  joinRemedies(
    findings.flatMap(({ verdict, remedies }) =>
      verdict === 'suits-once-changed' && remedies[0] ? [remedies[0]] : [],
    ),
  )

const withChanges = (job: JobDocument, changes: readonly RemedyRef[]): JobDocument =>
  changes.filter(canTry).reduce(applyRemedy, job)
