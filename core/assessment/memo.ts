import type { JobDocument, PartPath } from '#core/job/document'
import type { Facts } from '#core/system/facts'
import type { Slot } from '#core/system/reads'
import { areInStates, StateNumbers, type SlotStates } from '#core/system/states'
import { factsOf, type ShopSettings } from '#core/system/system'
import { questionsOf } from './assess'
import type { AnyCheck } from './checks/index'
import { findingOf, type Finding } from './result'

/** A finding with the states of the slots that it read. */
interface Remembered {
  readonly finding: Finding | null
  readonly states: readonly number[]
}

/** The findings of one check about one subject whose reads were the same slots, by a hash of their states. */
interface OfReads {
  readonly slots: readonly Slot[]
  readonly byHash: Map<number, Remembered[]>
}

function hashOf(slots: readonly Slot[], states: SlotStates): number {
  let hash = 0
  for (const slot of slots) hash = (Math.imul(hash, 31) + (states[slot] ?? 0)) | 0
  return hash
}

/** What one check said about one subject, in all jobs so far. */
class Memory {
  /** Those that found something last come first. */
  private readonly ofReads: OfReads[] = []
  private readonly bySlots = new Map<string, OfReads>()

  /** The finding in a job that has the same states; undefined if there was none. */
  find(states: SlotStates): Finding | null | undefined {
    for (const [place, { slots, byHash }] of this.ofReads.entries()) {
      const found = byHash
        .get(hashOf(slots, states))
        ?.find((remembered) => areInStates(slots, remembered.states, states))
      if (!found) continue
      if (place > 0) this.ofReads.unshift(...this.ofReads.splice(place, 1))
      return found.finding
    }
    return undefined
  }

  add(finding: Finding | null, read: readonly Slot[], states: SlotStates): void {
    const slots = Int32Array.from(read).sort()
    const key = slots.join()
    let like = this.bySlots.get(key)
    if (!like) {
      like = { slots: [...slots], byHash: new Map() }
      this.bySlots.set(key, like)
      this.ofReads.push(like)
    }
    const hash = hashOf(like.slots, states)
    const remembered = { finding, states: like.slots.map((slot) => states[slot]!) }
    like.byHash.set(hash, [...(like.byHash.get(hash) ?? []), remembered])
  }
}

/** Findings remembered at most; then all are forgotten. */
const mostRemembered = 200_000

/**
 * Findings of many similar jobs. A check is done again only if something that it read has a state it never had
 * together with the rest.
 */
export class FindingMemo {
  private readonly numbers = new StateNumbers()
  private readonly memories = new Map<AnyCheck, Map<PartPath, Memory>>()
  private remembered = 0
  private facts: Facts | null = null

  /** The verdicts of every check that needs no run. */
  of(job: JobDocument, shop: ShopSettings): { readonly facts: Facts; readonly findings: readonly Finding[] } {
    const facts = factsOf(job, shop, this.facts?.slots)
    this.facts = facts
    const states = this.numbers.of(facts)
    const questions = questionsOf(facts).filter(({ check }) => !check.takesTime)
    const findings = questions.flatMap(({ check, place, on }): readonly Finding[] | Finding => {
      const memory = this.memoryOf(check, on)
      const known = memory.find(states)
      if (known !== undefined) return known ?? []
      const { result, reads } = findingOf(check, place, facts)
      memory.add(result, reads.slots, states)
      this.remembered++
      return result ?? []
    })
    if (this.remembered > mostRemembered) this.forget()
    return { facts, findings }
  }

  private memoryOf(check: AnyCheck, on: PartPath): Memory {
    let ofCheck = this.memories.get(check)
    if (!ofCheck) this.memories.set(check, (ofCheck = new Map()))
    let memory = ofCheck.get(on)
    if (!memory) ofCheck.set(on, (memory = new Memory()))
    return memory
  }

  private forget(): void {
    this.memories.clear()
    this.remembered = 0
  }
}
