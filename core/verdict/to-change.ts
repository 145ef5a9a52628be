import type { CheckResult } from '#core/assessment/result'
import { partName, type JobDocument } from '#core/job/document'
import { remedyEffort, remedyLabel, remedyOf, sameRemedy, type RemedyRef } from '#core/remedies/catalogue'
import type { Write } from '#core/units/format'
import type { Judgement } from './judgement'

/** A change to make, in words, with the checks that it brings inside their limits. */
interface ToChange {
  readonly remedy: RemedyRef
  /** The changed part; empty for the whole job. */
  readonly part: string
  readonly label: string
  /** Parts and usual time. */
  readonly effort: string
  /** Keys of the checks that it is for. */
  readonly settles: readonly string[]
}

/** Whether one change serves a check that asks for another one: the merged monitor, or the DC-DC of the same link. */
const servesToo = (change: RemedyRef, asked: RemedyRef): boolean =>
  (change.on === asked.on && change.id !== asked.id) ||
  (remedyOf(change).monitors === true && remedyOf(asked).monitors === true)

/** The change for a check: the requested one, or one that replaced it. */
function changeFor(changes: readonly RemedyRef[], { remedies }: CheckResult): RemedyRef | null {
  const [asked] = remedies
  if (!asked) return null
  return (
    changes.find((change) => sameRemedy(change, asked)) ??
    changes.find((change) => servesToo(change, asked)) ??
    changes.find((change) => remedies.some((other) => sameRemedy(change, other))) ??
    null
  )
}

/** The changes of a judgement in words, each once, in the order in which they are named. */
export function changesToMake(
  { changes }: Pick<Judgement, 'changes'>,
  checks: readonly CheckResult[],
  job: JobDocument,
  q: Write,
): ToChange[] {
  const amber = checks.filter(({ verdict }) => verdict === 'suits-once-changed')
  const served = amber.map((check) => ({ check, change: changeFor(changes, check) }))
  return changes.map((remedy) => {
    const own = served.filter(({ change }) => change === remedy).map(({ check }) => check)
    return {
      remedy,
      part: remedy.on.includes('/') ? (own[0]?.subject ?? partName(job, remedy.on)) : '',
      label: remedyLabel(remedy, q),
      effort: remedyEffort(remedy, q),
      settles: own.map(({ key }) => key),
    }
  })
}
