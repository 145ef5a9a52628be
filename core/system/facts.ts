import { elementAt, entryOf } from '#core/collections/held'
import {
  knownOf,
  partName,
  partsOf,
  valueOf,
  type FieldPath,
  type JobDocument,
  type PartRef,
} from '#core/job/document'
import {
  howKnown,
  partKindIds,
  partKinds,
  type Field,
  type How,
  type PartKind,
  type PartKindId,
  type Range,
} from '#core/job/fields'
import { ruleCatalogue, type ShopRules } from '#core/rules/rules'
import { inSentence, type Write } from '#core/units/format'
import { plausibleRange, scaleOf, type Look } from './plausible'
import { Slots, type Reads, type Slot } from './reads'

/** Where a value or a limit comes from. */
export interface Origin {
  readonly kind: How | 'rule' | 'computed' | 'unknown' | 'physics'
  readonly text: string
  /** Nothing is entered, and a default stands in for it. */
  readonly isDefault?: true
}

/** A value a check has read, for its evidence. */
export interface Input {
  readonly path: FieldPath
  readonly label: string
  readonly part: string
  readonly value: unknown
  readonly origin: Origin
}

/** A value calculated once, with its inputs. */
interface Derived<T> {
  readonly value: T
  readonly from: readonly Slot[]
  /** Who noted its inputs last: most values are read again and again by the same. */
  notedBy?: Reads
}

/** The value of something derived, its inputs noted. */
function valueIn<T>(derived: Derived<T>, reads: Reads): T {
  if (derived.notedBy !== reads) {
    reads.noteAll(derived.from)
    derived.notedBy = reads
  }
  return derived.value
}

/** A part of the job with everything that is the same in every scene. */
export interface PartFacts {
  readonly ref: PartRef
  /** Its name in a sentence: the entered name, or `The alternator 2`. */
  readonly name: string
  readonly fields: readonly (readonly [name: string, field: Field])[]
  readonly indexOf: ReadonlyMap<string, number>
  readonly firstSlot: Slot
  readonly kindSlot: Slot
  /** Paths of the fields. */
  readonly paths: readonly FieldPath[]
  /** Values that are settled, by field, once read; a value that is undefined is truly unknown. */
  readonly settled: (Derived<unknown> | undefined)[]
  readonly ranges: (Derived<Range> | undefined)[]
  readonly inputs: (Input | undefined)[]
}

interface KindFields {
  readonly list: PartFacts['fields']
  /** The options of each field that is a choice, in the order of the catalogue. */
  readonly options: readonly (readonly string[])[]
  readonly indexOf: ReadonlyMap<string, number>
}
const kindFields = Object.fromEntries(
  partKindIds.map((kind): [PartKindId, KindFields] => {
    const list = Object.entries((partKinds[kind] as PartKind).fields)
    const options = list.map(([, field]) => (field.type === 'choice' ? Object.keys(field.options) : []))
    return [kind, { list, options, indexOf: new Map(list.map(([name], i) => [name, i])) }]
  }),
) as Record<PartKindId, KindFields>

/** The fields of a kind by their place. */
export const fieldsOfKind = (kind: PartKindId): PartFacts['fields'] => kindFields[kind].list

/**
 * The facts of a job under the rules in force: the value of each field or its default, the
 * range if there is neither, and the origin of each. Every read is recorded for the reader. The
 * job and the rules never change under it. Calculated values are kept with their inputs.
 */
export class Facts {
  private readonly kinds = new Map<PartKindId, readonly PartFacts[]>()
  private readonly byPath = new Map<string, PartFacts>()
  private readonly workedOut = new Map<string, unknown>()

  /**
   * @param job every alternator in it has a link
   * @param q how quantities are written in the shop
   * @param slots of the same job before an edit, to compare earlier reads with the change
   */
  constructor(
    readonly job: JobDocument,
    readonly rules: ShopRules,
    readonly q: Write,
    readonly slots = new Slots(),
  ) {}

  /** The parts of a kind in walking order. */
  partsOf(kind: PartKindId): readonly PartFacts[] {
    let parts = this.kinds.get(kind)
    if (!parts) this.kinds.set(kind, (parts = partsOf(this.job, kind).map((ref) => this.factsOf(ref))))
    return parts
  }

  private factsOf(ref: PartRef): PartFacts {
    const { list, indexOf } = kindFields[ref.kind]
    const facts: PartFacts = {
      ref,
      name: ref.part.name || `The ${partName(this.job, ref.path).toLowerCase()}`,
      fields: list,
      paths: list.map(([name]) => `${ref.path}/${name}`),
      indexOf,
      firstSlot: this.slots.part(ref.path, list.length),
      kindSlot: this.slots.kind(ref.kind),
      settled: new Array<Derived<unknown> | undefined>(list.length),
      ranges: new Array<Derived<Range> | undefined>(list.length),
      inputs: new Array<Input | undefined>(list.length),
    }
    this.byPath.set(ref.path, facts)
    return facts
  }

  /** The part and the place of a field by its path. */
  at(path: FieldPath): { readonly part: PartFacts; readonly index: number } {
    const cut = path.lastIndexOf('/')
    const part = entryOf(this.byPath, path.slice(0, cut))
    return { part, index: entryOf(part.indexOf, path.slice(cut + 1)) }
  }

  /**
   * The known value or the default, which may be null for a limit that is absent; undefined when the field is
   * truly unknown.
   */
  settled(part: PartFacts, index: number, reads: Reads): unknown {
    let known = part.settled[index]
    if (!known) {
      const from: Slot[] = []
      part.settled[index] = known = { value: this.findSettled(part, index, from), from }
    }
    return valueIn(known, reads)
  }

  private findSettled(part: PartFacts, index: number, from: Slot[]): unknown {
    const [name, field] = elementAt(part.fields, index)
    const known = this.trusted(part, index, from)
    if (known !== null) return known
    if (field.type === 'rows') return null
    if (field.otherwise === undefined) return undefined
    if (field.type === 'choice' || field.otherwise === null) return field.otherwise
    // A calculated value may depend on assumptions of a scene: the scene calculates it.
    if (typeof field.otherwise === 'function') return undefined
    const base = typeof field.otherwise === 'number' ? field.otherwise : Number(this.rules[field.otherwise])
    if (typeof field.otherwise === 'string') from.push(this.slots.rule(field.otherwise))
    return field.scales ? base * this.scaleOf(part, name, from) : base
  }

  /**
   * Whether a settled value is a default for a missing fact, and not a decision of the plan or a
   * rule of the shop.
   */
  isDoubtful(part: PartFacts, index: number): boolean {
    const [, field] = elementAt(part.fields, index)
    if (field.type === 'rows' || field.isDecision) return false
    const isFact =
      field.type === 'choice'
        ? field.otherwise !== undefined
        : typeof field.otherwise === 'number' || field.isLeast === true
    return isFact && this.trusted(part, index, []) === null
  }

  /** The value entered, or null if there is none that counts. */
  private trusted(part: PartFacts, index: number, from: Slot[]): unknown {
    const [name, field] = elementAt(part.fields, index)
    from.push(part.firstSlot + index)
    const known = knownOf(part.ref.part, name)
    if (known?.value == null) return null
    if (field.type === 'quantity' && field.onlyMeasuredWhen && known.how !== 'measured') {
      const { field: sibling, is } = field.onlyMeasuredWhen
      const decided = this.lookInto(from)(part.ref, sibling)
      if (decided != null && is.includes(String(decided))) return null
    }
    return known.value
  }

  /** The entered value, even if it does not count as known; null if there is none. */
  entered(part: PartFacts, name: string, reads: Reads): unknown {
    reads.note(part.firstSlot + part.indexOf.get(name)!)
    return valueOf(part.ref.part, name)
  }

  /** Range an unknown quantity may lie in. */
  plausible(part: PartFacts, index: number, reads: Reads): Range {
    let range = part.ranges[index]
    if (!range) {
      const from = this.scaledBy(part)
      const value = plausibleRange(this.job, part.ref, elementAt(part.fields, index)[0], this.lookInto(from))
      part.ranges[index] = range = { value, from }
    }
    return valueIn(range, reads)
  }

  /** The parts that can give the nominal voltage of a part. */
  private scaledBy({ kindSlot }: PartFacts): Slot[] {
    return [kindSlot, this.slots.kind('alternators'), this.slots.kind('startingBatteries')]
  }

  /** Nominal voltage of the part's system, ÷ 12. */
  private scaleOf(part: PartFacts, name: string, from: Slot[]): number {
    from.push(...this.scaledBy(part))
    return scaleOf(this.job, part.ref, name, this.lookInto(from))
  }

  /** Looks values up and records each read. */
  private lookInto(from: Slot[]): Look {
    return ({ kind, path, part }, name) => {
      const { list, indexOf } = kindFields[kind]
      from.push(this.slots.kind(kind), this.slots.part(path, list.length) + entryOf(indexOf, name))
      return valueOf(part, name)
    }
  }

  /** Where the value of a field comes from. */
  origin(part: PartFacts, index: number, reads: Reads): Origin {
    const from: Slot[] = []
    const [name, field] = elementAt(part.fields, index)
    const trusted = this.trusted(part, index, from)
    reads.noteAll(from)
    if (trusted !== null) {
      const { how = 'assumed', from } = knownOf(part.ref.part, name) ?? {}
      return { kind: how, text: from ? `${howKnown[how]}, ${from}` : howKnown[how] }
    }
    if (field.type === 'rows' || field.otherwise === undefined) return { kind: 'unknown', text: 'unknown' }
    if (field.otherwise === null) return { kind: 'assumed', text: 'none entered', isDefault: true }
    if (typeof field.otherwise === 'string' && field.type === 'quantity') {
      return { kind: 'rule', text: `shop rule: ${inSentence(ruleCatalogue[field.otherwise].label)}` }
    }
    return typeof field.otherwise === 'function'
      ? { kind: 'computed', text: 'calculated' }
      : { kind: 'assumed', text: 'typical value, none entered', isDefault: true }
  }

  /**
   * The values read, as evidence. They come from the scene without assumptions, so they are the same for each
   * check.
   */
  input(part: PartFacts, index: number, value: unknown, reads: Reads): Input {
    const known = part.inputs[index]
    if (known) return known
    const [, field] = elementAt(part.fields, index)
    return (part.inputs[index] = {
      path: elementAt(part.paths, index),
      label: field.label,
      part: part.name,
      value,
      origin: this.origin(part, index, reads),
    })
  }

  /**
   * Something calculated of plain data, once for all who ask on these facts.
   * @param from all that it is calculated of: two that differ in nothing come to the same
   */
  once<T>(from: unknown, work: () => T): T {
    const key = JSON.stringify(from)
    if (!this.workedOut.has(key)) this.workedOut.set(key, work())
    return this.workedOut.get(key) as T
  }

  /** A number for plain data: equal data gets the same number. */
  numberOf(data: unknown): number {
    return this.once(['number', data], () => this.workedOut.size)
  }

  /** The value of an unknown without an assumption: the first option, the middle of its range. */
  typical(part: PartFacts, index: number, reads: Reads): unknown {
    const [, field] = elementAt(part.fields, index)
    if (field.type === 'choice') return elementAt(kindFields[part.ref.kind].options, index)[0]
    return along(this.plausible(part, index, reads), 0.5)
  }

  /** Values to try for an unknown: ends and points between, or every option. */
  samples(path: FieldPath, count: number, reads: Reads): readonly unknown[] {
    const { part, index } = this.at(path)
    const [, field] = elementAt(part.fields, index)
    if (field.type === 'choice') return elementAt(kindFields[part.ref.kind].options, index)
    const range = this.plausible(part, index, reads)
    const points: number[] = []
    for (let i = 0; i < count; i++) points.push(along(range, i / (count - 1)))
    return points
  }
}

/** A point of a range. @param share 0 to 1; the same share gives the same number to the last bit */
const along = ([low, high]: Range, share: number): number => low + (high - low) * share
