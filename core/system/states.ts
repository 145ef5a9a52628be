import { entryOf } from '#core/collections/held'
import { isEntered } from '#core/job/beginning'
import { partsOf, type AnyPart, type JobDocument, type PartRef } from '#core/job/document'
import { partKindIds, type PartKindId } from '#core/job/fields'
import { ruleIds, type ShopRules } from '#core/rules/rules'
import { fieldsOfKind, type Facts } from './facts'
import { Slots, type Slot } from './reads'

/** The state of each slot of a job, as a number. Two jobs with the same number in a slot hold the same there. */
export type SlotStates = Int32Array

/** The states of the parts of one kind, and where they go. */
interface KindStates {
  readonly outline: number
  readonly parts: readonly { readonly first: Slot; readonly states: Int32Array }[]
}

/**
 * Numbers the states of the slots of many similar jobs. Parts and collections that jobs share are numbered once.
 */
export class StateNumbers {
  /** The numbering that facts of these jobs have to be made with. */
  readonly slots = new Slots()
  private readonly numbers = new Map<unknown, number>()
  private readonly known = new Map(
    partKindIds.map((kind) => [
      kind,
      { ofHeld: new WeakMap<object, KindStates>(), ofParts: new WeakMap<AnyPart, Int32Array>() },
    ]),
  )
  private readonly ofValues = new WeakMap<object, number>()
  private last: { readonly rules: ShopRules; readonly job: JobDocument; readonly states: Int32Array } | null =
    null

  /** The states of the slots. Slots of parts that the job does not have are 0. */
  of({ rules, job }: Facts): SlotStates {
    const { last, slots } = this
    const kinds = partKindIds
      .filter((kind) => job[kind] !== last?.job[kind])
      .map((kind) => ({ kind, own: this.ofKind(job, kind), before: last && this.ofKind(last.job, kind) }))
    const states = new Int32Array(slots.count)
    if (last) states.set(last.states)
    // The rules have the first slots. They hardly ever differ from one job of a search to the next.
    if (rules !== last?.rules)
      ruleIds.forEach((id, slot) => {
        if (rules[id] !== last?.rules[id]) states[slot] = this.numberOf(rules[id])
      })
    if (job.job !== last?.job.job) states[slots.head] = this.numberOf(job.job)
    for (const { kind, own, before } of kinds) {
      states[slots.kind(kind)] = own.outline
      for (const { first, states: gone } of before?.parts ?? []) states.fill(0, first, first + gone.length)
      for (const { first, states: here } of own.parts) states.set(here, first)
    }
    this.last = { rules, job, states }
    return states
  }

  private ofKind(job: JobDocument, kind: PartKindId): KindStates {
    const { ofHeld, ofParts } = entryOf(this.known, kind)
    const known = ofHeld.get(job[kind])
    if (known) return known
    const parts = partsOf(job, kind)
    const states: KindStates = {
      outline: this.numberOf(parts.map(outlineOf)),
      parts: parts.map(({ path, part }) => {
        const own = ofParts.get(part) ?? this.ofFields(kind, part)
        ofParts.set(part, own)
        return { first: this.slots.part(path, own.length), states: own }
      }),
    }
    ofHeld.set(job[kind], states)
    return states
  }

  private ofFields(kind: PartKindId, part: AnyPart): Int32Array {
    return Int32Array.from(fieldsOfKind(kind), ([name]) => this.numberOfField(part[name]))
  }

  /** Most fields are absent. Parts of many jobs hold the same value objects. */
  private numberOfField(known: unknown): number {
    if (typeof known !== 'object' || known === null) return this.numberOf(known)
    const before = this.ofValues.get(known)
    if (before !== undefined) return before
    const number = this.numberOf(known)
    this.ofValues.set(known, number)
    return number
  }

  /** A number for plain data, 1 or more: the same for equal data. */
  private numberOf(data: unknown): number {
    const key = typeof data === 'object' || typeof data === 'string' ? JSON.stringify(data) : data
    const known = this.numbers.get(key)
    if (known !== undefined) return known
    const number = this.numbers.size + 1
    this.numbers.set(key, number)
    return number
  }
}

/**
 * Inputs of a verdict besides the fields of a part: its id, its references, and whether any of it was entered; not
 * its name.
 */
const outlineOf = ({ id, part }: PartRef): unknown => [id, part.from, part.of, isEntered(part)]

/** The slots whose states differ between two jobs. */
export function changedBetween(before: SlotStates, after: SlotStates): Slot[] {
  const changed: Slot[] = []
  for (let slot = 0; slot < after.length; slot++) if ((before[slot] ?? 0) !== after[slot]) changed.push(slot)
  return changed
}

/** Whether some slots have the states they had. */
export function areInStates(slots: readonly Slot[], wanted: readonly number[], states: SlotStates): boolean {
  for (let i = 0; i < slots.length; i++) if (states[slots[i]!] !== wanted[i]) return false
  return true
}
