import { elementAt, present } from '#core/collections/held'
import { essentialOf, type Essential } from './essential'
import { otherId, soundId } from './cause-ids'
import type { Fault } from './faults/fault'
import { causesOf, hypothesesOf, type Cause } from './hypotheses'
import { Posterior, type Ranked, type Taken } from './posterior'
import { expectationOf, isTelling, type Expected } from '#core/commissioning/expect'
import { bestOf, type Worth } from './next'
import { togetherOf } from './together'
import { Proof } from '#core/commissioning/predict'
import type { Band } from './risk'
import type { ProofTest } from '#core/commissioning/tests/test'
import type { JobDocument } from '#core/job/document'
import type { ShopSettings } from '#core/system/system'

/** A cause with those that no test can separate from it, and their joint probability. */
export interface Named {
  readonly causes: readonly Cause[]
  readonly probability: number
}

/** A job to prove: the expected readings, and the meaning of wrong ones. */
export class Diagnosis {
  readonly proof: Proof
  readonly causes: readonly Cause[]
  private theTogether: readonly (readonly Cause[])[] | undefined
  private theGroups: readonly (readonly number[])[] | undefined
  private begin: Posterior | null = null
  private theEssential: Essential | null = null
  private theExpected: readonly Expected[] | undefined
  private preparing: Generator<void, void, void> | null = null

  /** @param faults those looked for, if not all of the catalogue */
  constructor(job: JobDocument, shop: ShopSettings = {}, faults?: readonly Fault[]) {
    this.proof = new Proof(job, shop)
    this.causes = causesOf(this.proof, faults)
  }

  /**
   * Next measurements: the next essential test while all readings are as expected, otherwise the most informative one
   * for its trouble.
   * @returns null if no measurement adds information
   */
  worthNext(posterior: Posterior): Worth | null {
    const taken = new Set(posterior.taken.map(({ test }) => test.id))
    const state = posterior.taken.at(-1)?.test.state.id ?? null
    const essential = this.looksWrong(posterior)
      ? undefined
      : this.essential.tests.find(({ id }) => !taken.has(id))
    const offered = essential ? [essential] : this.expected.map(({ test }) => test)
    const best = bestOf(posterior, offered, { taken, state })
    return best && (essential || best.bits >= leastBits) ? best : null
  }

  /** Whether a reading is out of its band, and it is not sure all the same that nothing is wrong. */
  looksWrong(posterior: Posterior): boolean {
    if (posterior.taken.every((taken) => this.isWithin(taken))) return false
    const sound = this.causes.findIndex(({ id }) => id === soundId)
    return elementAt(posterior.probabilities(), sound) < sureFrom
  }

  /** The tests that are made on every job like this one. */
  get essential(): Essential {
    this.prepareWholly()
    return present(this.theEssential)
  }

  /**
   * Calculates the predictions of every cause once: this takes seconds for a large job. Yields on the way, so that
   * the caller can do something else; {@link given} completes the rest.
   */
  prepare(): Generator<void, void, void> {
    return (this.preparing ??= this.prepared())
  }
  private *prepared(): Generator<void, void, void> {
    const { proof, causes } = this
    const hypotheses = yield* hypothesesOf(proof, causes)
    const bandOf = (test: ProofTest): Band => {
      const { value, tolerance } = this.expect(test)
      return { at: proof.tests.indexOf(test), middle: value, half: tolerance }
    }
    const offered = this.expected.map(({ test }) => test)
    this.theEssential = essentialOf({
      bench: proof.bench,
      offered,
      hypotheses,
      bandOf,
      enough: proof.rig.enough,
    })
    const routine = this.theEssential.tests
    this.begin = Posterior.of({ tests: proof.tests, causes, hypotheses, routine })
  }

  /** The expected reading of each offered test. */
  get expected(): readonly Expected[] {
    return (this.theExpected ??= this.proof.tests.map((test) => this.expect(test)).filter(isTelling))
  }
  expect(test: ProofTest): Expected {
    return expectationOf(this.proof, test)
  }
  /** Whether a reading lies in its band. */
  isWithin({ test, value }: Taken): boolean {
    const { value: expected, tolerance } = this.expect(test)
    return Math.abs(value - expected) <= tolerance
  }

  /** The causes, weighed by the readings. */
  given(readings: readonly Taken[]): Posterior {
    return readings.reduce((posterior, taken) => posterior.with(taken), this.prepareWholly())
  }
  private prepareWholly(): Posterior {
    const preparing = this.prepare()
    while (!this.begin) preparing.next()
    return this.begin
  }

  /** Groups of causes that no test can separate, whatever the readings. */
  get together(): readonly (readonly Cause[])[] {
    return (this.theTogether ??= togetherOf(this.given([]).known))
  }

  /** Causes grouped if no test can separate them, with their joint probability, the most likely first. */
  named(posterior: Posterior): Named[] {
    this.theGroups ??= groupsOf(this.causes, this.together)
    const probabilities = posterior.probabilities()
    return this.theGroups
      .map((members) => ({
        causes: members.map((i) => elementAt(this.causes, i)),
        probability: members.reduce((sum, i) => sum + elementAt(probabilities, i), 0),
      }))
      .sort((a, b) => b.probability - a.probability)
  }
}

/** The places of causes, those of a group as one. */
function groupsOf(causes: readonly Cause[], together: readonly (readonly Cause[])[]): number[][] {
  const groups = new Map<unknown, number[]>()
  causes.forEach((cause, i) => {
    const group = together.find((members) => members.includes(cause)) ?? cause
    groups.set(group, [...(groups.get(group) ?? []), i])
  })
  return [...groups.values()]
}

/** Least expected information of a reading worth taking, bits. */
const leastBits = 0.005

/** Probability from which a cause counts as certain. */
export const sureFrom = 0.9

/** Readings that are further off than this, as a mean square in deviations, no cause explains. */
const largestMisfit = 4

/** Whether the readings are explained by something that is known to go wrong, or by nothing being wrong. */
export function isExplained(posterior: Posterior): boolean {
  if (posterior.taken.length === 0) return true
  const { cause } = posterior.top()
  return cause.id !== otherId && posterior.misfit(cause) <= largestMisfit
}

export type { Ranked, Taken, Worth }
