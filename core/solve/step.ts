import type { ListedPart } from '#core/job/specified'
import { remedyOf, type RemedyRef } from '#core/remedies/catalogue'

/** One thing that is done: a remedy with the parts it takes. */
export interface AnswerStep {
  readonly ref: RemedyRef
  readonly label: string
  readonly on: string
  readonly parts: readonly ListedPart[]
  /** Data of its part for the part of the job. */
  readonly values: Readonly<Record<string, unknown>>
  readonly hours: number
  /** Ids of the checks it settles. */
  readonly settles: readonly string[]
  /** Shelf parts that could replace its part, including that one; empty if there is no choice. */
  readonly exchanges?: readonly ListedPart[]
}

/** Time for additional functions of a shunt monitor, h. */
const secondMonitorH = 0.25

/** Two devices replaced by a monitor take one monitor; one shunt is enough. */
export function withoutDoubles(steps: readonly AnswerStep[]): AnswerStep[] {
  let monitored = false
  return steps.map((step) => {
    if (!remedyOf(step.ref).monitors) return step
    const again = monitored
    monitored = true
    return again ? { ...step, parts: [], hours: secondMonitorH } : step
  })
}
