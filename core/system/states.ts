import type { AnyPart } from '#core/job/document'
import { partKindIds } from '#core/job/fields'
import { ruleIds, type ShopRules } from '#core/rules/rules'
import { fieldsOfKind, type Facts, type PartFacts } from './facts'
import type { Slot } from './reads'

/** The state of each slot of a job, as a number. Two jobs with the same number in a slot hold the same there. */
export type SlotStates = Int32Array

/** Numbers the states of the slots of many similar jobs. Parts that jobs share are numbered once. */
export class StateNumbers {
  private readonly numbers = new Map<unknown, number>()
  private readonly ofParts = new WeakMap<AnyPart, Int32Array>()
  private last: { readonly rules: ShopRules; readonly states: Int32Array } | null = null
  private readonly ofValues = new WeakMap<object, number>()

  /** The states of the slots. Slots of parts that the job does not have are 0. */
  of(facts: Facts): SlotStates {
    const { slots, rules, job } = facts
    // Asking for the parts numbers their slots.
    const kinds = partKindIds.map((kind) => ({ kind, parts: facts.partsOf(kind) }))
    const states = new Int32Array(slots.count)
    states.set(this.ofRules(rules))
    states[slots.head] = this.numberOf(job.job)
    for (const { kind, parts } of kinds) {
      states[slots.kind(kind)] = this.numberOf(parts.map(outlineOf))
      for (const part of parts) states.set(this.ofPart(part), part.firstSlot)
    }
    return states
  }

  /** The rules have the first slots. They hardly ever differ from one job of a search to the next. */
  private ofRules(rules: ShopRules): Int32Array {
    const { last } = this
    if (last && ruleIds.every((id) => rules[id] === last.rules[id])) return last.states
    const states = Int32Array.from(ruleIds, (id) => this.numberOf(rules[id]))
    this.last = { rules, states }
    return states
  }

  private ofPart({ ref: { kind, part } }: PartFacts): Int32Array {
    const known = this.ofParts.get(part)
    if (known) return known
    const values = part as Readonly<Record<string, unknown>>
    const states = Int32Array.from(fieldsOfKind(kind), ([name]) => this.numberOfField(values[name]))
    this.ofParts.set(part, states)
    return states
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

/** What a verdict may depend on besides the fields of a part: its id and the parts that it points at, not its name. */
const outlineOf = ({ ref: { id, part } }: PartFacts): unknown => [id, part.from, part.of]

/** Whether some slots have the states they had. */
export function areInStates(slots: readonly Slot[], wanted: readonly number[], states: SlotStates): boolean {
  for (let i = 0; i < slots.length; i++) if (states[slots[i]!] !== wanted[i]) return false
  return true
}
