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
 * Numbers the readable values of a job. Parts get numbers when they first occur, so that one numbering serves a job
 * through all edits.
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
  /** The parts of a kind, with their names and their references. */
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

/** A list of this many slots is noted as a whole: values derived from half the job are requested often. */
const longList = 32

/** The values that a piece of work has read of a job. */
export class Reads {
  private readonly single: Slot[] = []
  private readonly lists = new Set<readonly Slot[]>()
  /** Its own mark in {@link Slots.lastNoted}. */
  private readonly mark: number
  constructor(private readonly of: Slots) {
    this.mark = ++of.marks
  }
  note(slot: Slot): void {
    const { lastNoted } = this.of
    if (lastNoted[slot] === this.mark) return
    lastNoted[slot] = this.mark
    this.single.push(slot)
  }
  noteAll(slots: readonly Slot[]): void {
    if (slots.length >= longList) this.lists.add(slots)
    else for (const slot of slots) this.note(slot)
  }

  /** All that was read, each once. */
  get slots(): readonly Slot[] {
    return this.lists.size === 0 ? this.single : [...new Set([...this.single, ...[...this.lists].flat()])]
  }
  /** Whether anything of it has changed. */
  touchedBy(changes: Changes): boolean {
    if (this.single.some((slot) => changes.has(slot))) return true
    for (const list of this.lists) if (changes.anyIn(list)) return true
    return false
  }
}

/** Slots that have changed, for many who ask: a list that they share is looked through once. */
export class Changes {
  private readonly isChanged: Uint8Array
  private readonly lists = new Map<readonly Slot[], boolean>()
  constructor(changed: Iterable<Slot>, { count }: Slots) {
    this.isChanged = new Uint8Array(count)
    for (const slot of changed) this.isChanged[slot] = 1
  }
  has(slot: Slot): boolean {
    return this.isChanged[slot] === 1
  }
  anyIn(list: readonly Slot[]): boolean {
    let any = this.lists.get(list)
    if (any === undefined) this.lists.set(list, (any = list.some((slot) => this.has(slot))))
    return any
  }
}
