import { elementAt, firstOf } from '#core/collections/held'
import { withPart, type JobDocument } from '#core/job/document'
import { sameRemedy, type RemedyRef } from '#core/remedies/catalogue'
import type { Supply } from '#core/remedies/remedy'
import { suppliesFor } from '#core/remedies/supply'
import { candidateFromShelf, type ShelfPart } from '#core/shelf/kinds'
import type { System } from '#core/system/system'
import { StepsCarriedOut } from './carried-out'
import type { Battery } from './option'
import type { AnswerStep } from './step'

/** Applies remedies to a job one by one, and collects their parts. */
export class AnswerDraft {
  readonly steps: AnswerStep[] = []
  /** @param done steps that other drafts of the plan have applied */
  constructor(
    public job: JobDocument,
    private readonly shelf: readonly ShelfPart[],
    private readonly done = new StepsCarriedOut(),
  ) {}

  /** @param given the parts for it; null for the first offer of the shelf */
  take(asked: RemedyRef, settles: readonly string[], given: Supply | null, system: System): void {
    const supply = given ?? firstOf(suppliesFor(asked, this.job, system, this.shelf))
    const { job, step } = this.done.carryOut(this.job, asked, supply, system.q)
    this.job = job
    this.note({ ...step, settles })
  }

  /** The second time a thing is done replaces the first: it is the same part, set or chosen better. */
  private note(step: AnswerStep): void {
    const known = this.steps.findIndex(({ ref }) => sameRemedy(ref, step.ref))
    if (known < 0) this.steps.push(step)
    else
      this.steps[known] = {
        ...step,
        settles: [...new Set([...elementAt(this.steps, known).settles, ...step.settles])],
      }
  }
}

/** A job with another battery of the shelf in place of the candidate; null leaves it as it is. */
export const withBattery = (job: JobDocument, battery: Battery | null): JobDocument =>
  battery ? withPart(job, 'candidate', () => candidateFromShelf(battery.part, battery.parallel)) : job
