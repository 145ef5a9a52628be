import { partAt, partName, withPart, type JobDocument, type PartPath } from '#core/job/document'
import type { ListedPart } from '#core/job/specified'
import { applyRemedy, remedyLabel, remedyOf, sameRemedy, type RemedyRef } from '#core/remedies/catalogue'
import type { Supply } from '#core/remedies/remedy'
import { suppliesFor } from '#core/remedies/supply'
import { candidateFromShelf, type ShelfPart } from '#core/shelf/kinds'
import type { System } from '#core/system/system'
import type { Battery } from './option'

/** One thing that is done: a remedy with the parts it takes. */
export interface AnswerStep {
  readonly ref: RemedyRef
  readonly label: string
  readonly on: string
  readonly parts: readonly ListedPart[]
  /** What the data sheet of its part then says of the part of the job. */
  readonly values: Readonly<Record<string, unknown>>
  readonly hours: number
  /** Ids of the checks it settles. */
  readonly settles: readonly string[]
  /** Shelf parts that could replace its part, including that one; empty if there is no choice. */
  readonly exchanges?: readonly ListedPart[]
}

/** Applies remedies to a job one by one, and collects their parts. */
export class AnswerDraft {
  readonly steps: AnswerStep[] = []
  constructor(
    public job: JobDocument,
    private readonly shelf: readonly ShelfPart[],
  ) {}

  /** @param given the parts for it; null for the first offer of the shelf */
  take(asked: RemedyRef, settles: readonly string[], given: Supply | null, system: System): void {
    const { parts, values } = given ?? suppliesFor(asked, this.job, system, this.shelf)[0]!
    const ref = asRated(asked, values)
    const at = partAt(this.job, ref.on)
    const on = at && at.kind !== 'use' && at.kind !== 'place' ? partName(this.job, ref.on) : ''
    this.job = applyRemedy(this.job, ref)
    if (Object.keys(values).length > 0)
      this.job = withPart(this.job, takerOf(ref), (part) => ({ ...part, ...values }))
    this.note({
      ref,
      label: remedyLabel(ref, system.q),
      on,
      parts,
      values,
      hours: remedyOf(ref).hours,
      settles,
    })
  }

  /** The second time a thing is done replaces the first: it is the same part, set or chosen better. */
  private note(step: AnswerStep): void {
    const known = this.steps.findIndex(({ ref }) => sameRemedy(ref, step.ref))
    if (known < 0) this.steps.push(step)
    else
      this.steps[known] = { ...step, settles: [...new Set([...this.steps[known]!.settles, ...step.settles])] }
  }

  /** Another battery of the shelf in place of the candidate. */
  swap({ part, parallel }: Battery): void {
    this.job = withPart(this.job, 'candidate', () => candidateFromShelf(part, parallel))
  }
}

/** The part of the job that takes the values of the data sheet: a monitor is one for the whole job. */
const takerOf = (ref: RemedyRef): PartPath => (remedyOf(ref).monitors ? 'use' : ref.on)

/** A remedy with the rating of the part that was taken for it: no step of 25 A has a part of 20 A. */
function asRated(ref: RemedyRef, values: Supply['values']): RemedyRef {
  const ratedA = (values.ratedA as { readonly value?: unknown } | undefined)?.value
  return ref.value !== undefined && typeof ratedA === 'number' ? { ...ref, value: ratedA } : ref
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
