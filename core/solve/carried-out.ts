import { partAt, partName, withPart, type JobDocument, type PartPath } from '#core/job/document'
import { applyRemedy, remedyLabel, remedyOf, type RemedyRef } from '#core/remedies/catalogue'
import type { Supply } from '#core/remedies/remedy'
import type { Write } from '#core/units/format'
import type { AnswerStep } from './step'

/** A remedy carried out on a job: the job then, and the step, but for the checks that it settles. */
interface CarriedOut {
  readonly job: JobDocument
  readonly step: Omit<AnswerStep, 'settles'>
}

/**
 * Remedies applied to jobs. Combinations of one plan begin with the same steps: the same step on the same job gives
 * the same job again, so its cached parts stay valid.
 */
export class StepsCarriedOut {
  private readonly onJob = new WeakMap<JobDocument, Map<RemedyRef, CarriedOut[]>>()

  /** @param q how quantities are written in the shop */
  carryOut(job: JobDocument, asked: RemedyRef, supply: Supply, q: Write): CarriedOut {
    let byRemedy = this.onJob.get(job)
    if (!byRemedy) this.onJob.set(job, (byRemedy = new Map()))
    const before = byRemedy.get(asked) ?? []
    const known = before.find(({ step }) => step.parts === supply.parts && step.values === supply.values)
    if (known) return known
    const done = carryOut(job, asked, supply, q)
    byRemedy.set(asked, [...before, done])
    return done
  }
}

function carryOut(job: JobDocument, asked: RemedyRef, { parts, values }: Supply, q: Write): CarriedOut {
  const ref = withPartRating(asked, values)
  const at = partAt(job, ref.on)
  const on = at && at.kind !== 'use' && at.kind !== 'place' ? partName(job, ref.on) : ''
  const step = { ref, label: remedyLabel(ref, q), on, parts, values, hours: remedyOf(ref).hours }
  const applied = applyRemedy(job, ref)
  if (Object.keys(values).length === 0) return { job: applied, step }
  return { job: withPart(applied, takerOf(ref), (part) => ({ ...part, ...values })), step }
}

/** The part of the job that takes the values of the data sheet: a monitor is one for the whole job. */
const takerOf = (ref: RemedyRef): PartPath => (remedyOf(ref).monitors ? 'use' : ref.on)

/** A remedy with the rating of the part that was taken for it: no step of 25 A has a part of 20 A. */
function withPartRating(ref: RemedyRef, values: Supply['values']): RemedyRef {
  const ratedA = (values.ratedA as { readonly value?: unknown } | undefined)?.value
  return ref.value === undefined || typeof ratedA !== 'number' || ref.value === ratedA
    ? ref
    : { ...ref, value: ratedA }
}
