import type { JobDocument, PartPath } from '#core/job/document'
import type { Facts } from '#core/system/facts'
import type { Slot } from '#core/system/reads'
import { areInStates, StateNumbers, type SlotStates } from '#core/system/states'
import { factsOf, type ShopSettings } from '#core/system/system'
import { notedQuestionsOf, type Question } from './assess'
import type { AnyCheck } from './checks/index'
import { findingOf, type Finding } from './result'

/** What some work came to, with the slots that it read and their states. */
interface Remembered<T> {
  readonly result: T
  readonly slots: readonly Slot[]
  readonly states: readonly number[]
}

/** The results of work whose reads were the same slots, by a hash of their states. */
interface OfReads<T> {
  readonly slots: readonly Slot[]
  readonly byHash: Map<number, Remembered<T>[]>
}

function hashOf(slots: readonly Slot[], states: SlotStates): number {
  let hash = 0
  for (const slot of slots) hash = (Math.imul(hash, 31) + (states[slot] ?? 0)) | 0
  return hash
}

/** What one piece of work came to, in all jobs so far. */
class Memory<T> {
  /** Those that found something last come first. */
  private readonly ofReads: OfReads<T>[] = []
  private readonly bySlots = new Map<string, OfReads<T>>()
  /** Neighbours are similar: most differ in nothing that this work reads. */
  private last: Remembered<T> | undefined

  /** What it came to in a job that has the same states; undefined if there was none. */
  find(states: SlotStates): Remembered<T> | undefined {
    if (this.last && areInStates(this.last.slots, this.last.states, states)) return this.last
    for (const [place, { slots, byHash }] of this.ofReads.entries()) {
      const found = byHash
        .get(hashOf(slots, states))
        ?.find((remembered) => areInStates(slots, remembered.states, states))
      if (!found) continue
      if (place > 0) this.ofReads.unshift(...this.ofReads.splice(place, 1))
      return (this.last = found)
    }
    return undefined
  }

  add(result: T, read: readonly Slot[], states: SlotStates): void {
    const slots = Int32Array.from(read).sort()
    const key = slots.join()
    let like = this.bySlots.get(key)
    if (!like) {
      like = { slots: [...slots], byHash: new Map() }
      this.bySlots.set(key, like)
      this.ofReads.push(like)
    }
    const hash = hashOf(like.slots, states)
    this.last = { result, slots: like.slots, states: like.slots.map((slot) => states[slot] ?? 0) }
    like.byHash.set(hash, [...(like.byHash.get(hash) ?? []), this.last])
  }
}

/** A check about one subject, with what it found in all jobs so far. */
interface Asked extends Question {
  readonly memory: Memory<Finding | null>
}

/** Findings remembered at most; then all are forgotten. */
const mostRemembered = 200_000

/**
 * Findings of many similar jobs. A check is done again only if something that it read has a state it never had
 * together with the rest.
 */
export class FindingMemo {
  private readonly numbers = new StateNumbers()
  private questions = new Memory<readonly Asked[]>()
  private readonly memories = new Map<AnyCheck, Map<PartPath, Asked['memory']>>()
  private remembered = 0

  /** The verdicts of every check that needs no run. */
  of(job: JobDocument, shop: ShopSettings): { readonly facts: Facts; readonly findings: readonly Finding[] } {
    const facts = factsOf(job, shop, this.numbers.slots)
    const states = this.numbers.of(facts)
    const findings: Finding[] = []
    for (const asked of this.questionsOf(facts, states)) {
      const finding = this.findingOf(asked, facts, states)
      if (finding) findings.push(finding)
    }
    if (this.remembered > mostRemembered) this.forget()
    return { facts, findings }
  }

  private questionsOf(facts: Facts, states: SlotStates): readonly Asked[] {
    const known = this.questions.find(states)
    if (known) return known.result
    const { questions, reads } = notedQuestionsOf(facts)
    const asked = questions
      .filter(({ check }) => !check.takesTime)
      .map((question) => ({ ...question, memory: this.memoryOf(question) }))
    this.questions.add(asked, reads.slots, states)
    return asked
  }

  private findingOf({ check, place, memory }: Asked, facts: Facts, states: SlotStates): Finding | null {
    const known = memory.find(states)
    if (known) return known.result
    const { result, reads } = findingOf(check, place, facts)
    memory.add(result, reads.slots, states)
    this.remembered++
    return result
  }

  private memoryOf({ check, on }: Question): Asked['memory'] {
    let ofCheck = this.memories.get(check)
    if (!ofCheck) this.memories.set(check, (ofCheck = new Map()))
    let memory = ofCheck.get(on)
    if (!memory) ofCheck.set(on, (memory = new Memory()))
    return memory
  }

  private forget(): void {
    this.questions = new Memory()
    this.memories.clear()
    this.remembered = 0
  }
}
