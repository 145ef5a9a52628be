import type { PartPath } from '#core/job/document'
import { partKinds, type PartKindId } from '#core/job/fields'
import { ruleIds, type RuleId } from '#core/rules/rules'

/** A number for everything of a job that can be read: each value, rule and kind of part, and the head. */
export type Slot = number

const ruleSlots = new Map<RuleId, Slot>(ruleIds.map((id, i) => [id, i]))
const kindIds = Object.keys(partKinds) as PartKindId[]
const kindSlots = new Map<PartKindId, Slot>(kindIds.map((kind, i) => [kind, ruleIds.length + i]))
const headSlot: Slot = ruleIds.length + kindIds.length

/**
 * Numbers what can be read of a job. Parts get theirs when they are first met, so that one numbering serves a
 * job from edit to edit.
 */
export class Slots {
  count = headSlot + 1
  /**
   * Who noted a slot last, so that one who notes it again and again keeps it once. Two who take turns keep it
   * more than once, which does no harm.
   */
  readonly lastNoted: number[] = []
  marks = 0
  private readonly firstOfPart = new Map<PartPath, Slot>()

  readonly head: Slot = headSlot
  rule(id: RuleId): Slot {
    return ruleSlots.get(id)!
  }
  /** Which parts of a kind there are, what they are called, and what they point at. */
  kind(kind: PartKindId): Slot {
    return kindSlots.get(kind)!
  }
  /** Slot of a part's first field; the others follow in the order of the catalogue. */
  part(path: PartPath, fields: number): Slot {
    const known = this.firstOfPart.get(path)
    if (known !== undefined) return known
    const first = this.count
    this.firstOfPart.set(path, first)
    this.count += fields
    return first
  }
  /** The same where the part was met before; undefined for one that never was, which nothing can have read. */
  knownPart(path: PartPath): Slot | undefined {
    return this.firstOfPart.get(path)
  }
}

/** What a piece of work has read of a job. */
export class Reads {
  readonly slots: Slot[] = []
  /** Its own mark in {@link Slots.lastNoted}. */
  private readonly mark: number
  constructor(private readonly of: Slots) {
    this.mark = ++of.marks
  }
  note(slot: Slot): void {
    const { lastNoted } = this.of
    if (lastNoted[slot] === this.mark) return
    lastNoted[slot] = this.mark
    this.slots.push(slot)
  }
  noteAll(slots: readonly Slot[]): void {
    for (const slot of slots) this.note(slot)
  }
}
