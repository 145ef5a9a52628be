import { elementAt, entryOf } from '#core/collections/held'
import { isEntered } from '#core/job/beginning'
import type { FieldPath, JobDocument, PartPath } from '#core/job/document'
import {
  partKindIds,
  type FieldsOf,
  type PartKindId,
  type QuantityField,
  type Range,
  type Resolved,
} from '#core/job/fields'
import { ruleIds, type ShopRules } from '#core/rules/rules'
import { fieldsOfKind, type Facts, type Input, type Origin, type PartFacts } from './facts'
import { Reads } from './reads'

export type { Input, Origin } from './facts'

/** Values assumed for unknowns. */
export type Assumed = ReadonlyMap<FieldPath, unknown>
export const nothingAssumed: Assumed = new Map()

/**
 * A part as checks see it: each field reads as a plain value. A known value is itself, a field with a
 * default gives that, and an unknown gives the value that the scene assumes, which is recorded.
 */
export type View<K extends PartKindId> = PartView & Resolved<FieldsOf<K>>

abstract class PartView {
  declare readonly $scene: Scene
  declare readonly $facts: PartFacts
  constructor(scene: Scene, facts: PartFacts) {
    this.$scene = scene
    this.$facts = facts
    scene.reads.note(facts.kindSlot)
  }
  get $path(): PartPath {
    return this.$facts.ref.path
  }
  /** Its name in a sentence. */
  get $name(): string {
    return this.$facts.name
  }
  /** The name someone gave it; undefined if nobody did. */
  get $ownName(): string | undefined {
    return this.$facts.ref.part.name
  }
  /** Whether anything of it was entered. */
  get $isEntered(): boolean {
    return isEntered(this.$facts.ref.part)
  }
  /** Path of the part it is fed by or serves. */
  get $of(): PartPath | undefined {
    return this.$facts.ref.part.from ?? this.$facts.ref.part.of
  }
  /** Where the value of a field comes from. */
  $origin(field: string): Origin {
    return this.$scene.facts.origin(this.$facts, this.$index(field), this.$scene.reads)
  }
  /** The range a field may lie in: its value twice when it is known or has a default. */
  $range(field: string): Range {
    return this.$scene.rangeOf(this.$facts, this.$index(field))
  }
  /** Whether the field needs no range: it is known, or has a default. */
  $settled(field: string): boolean {
    return this.$scene.settled(this.$facts, this.$index(field)) !== undefined
  }
  /** The value someone entered; null if there is none. Never asked for as an unknown. */
  $entered(field: string): unknown {
    return this.$scene.facts.entered(this.$facts, field, this.$scene.reads)
  }
  /** The entered value, or the middle of the plausible range. It never counts as an unknown. */
  $usual(field: string): unknown {
    return (
      this.$entered(field) ?? this.$scene.facts.typical(this.$facts, this.$index(field), this.$scene.reads)
    )
  }
  private $index(field: string): number {
    return this.$facts.indexOf.get(field)!
  }
}

const viewClasses = Object.fromEntries(
  partKindIds.map((kind) => {
    class KindView extends PartView {}
    fieldsOfKind(kind).forEach(([name], index) => {
      Object.defineProperty(KindView.prototype, name, {
        get(this: PartView) {
          return this.$scene.read(this.$facts, index)
        },
      })
    })
    return [kind, KindView]
  }),
) as unknown as Record<PartKindId, new (scene: Scene, facts: PartFacts) => PartView>

/** The rules in force as checks see them: each that is read is noted. */
class NotedRules {
  constructor(
    readonly $facts: Facts,
    readonly $reads: Reads,
  ) {}
}
for (const id of ruleIds) {
  Object.defineProperty(NotedRules.prototype, id, {
    get(this: NotedRules) {
      this.$reads.note(this.$facts.slots.rule(id))
      return this.$facts.rules[id]
    },
  })
}

export interface SceneOptions {
  readonly reads?: Reads
  /** Keeps every value that is read, for evidence. */
  readonly evidence?: boolean
  /** Unknowns without an assumption get typical values, and are neither missing nor evidence. */
  readonly asUsual?: boolean
  /** Collects the defaults that are read, and lets each be assumed to be another value. */
  readonly doubted?: Set<FieldPath>
}

/**
 * One view of a job with assumed values for the unknowns: `missing` lists the unknowns that the work
 * in it met without an assumption, `reads` everything it read.
 */
export class Scene {
  readonly reads: Reads
  /**
   * Unknowns read without an assumption that got typical values; null in a scene that asks for them instead.
   */
  readonly taken: Set<FieldPath> | null
  readonly inputs: Set<Input> | null
  private readonly doubted: Set<FieldPath> | null
  readonly rules: ShopRules
  private theMissing: FieldPath[] = []
  private readonly isMissing = new Set<FieldPath>()

  constructor(
    readonly facts: Facts,
    private theAssumed: Assumed,
    { reads = new Reads(facts.slots), evidence = false, asUsual = false, doubted }: SceneOptions = {},
  ) {
    this.reads = reads
    this.inputs = evidence ? new Set() : null
    this.taken = asUsual ? new Set() : null
    this.doubted = doubted ?? null
    this.rules = new NotedRules(facts, reads) as unknown as ShopRules
  }

  get assumed(): Assumed {
    return this.theAssumed
  }
  /** Unknowns that were met without an assumption, in the order met. */
  get missing(): readonly FieldPath[] {
    return this.theMissing
  }

  /** Replaces this scene by another: all views now show that one. */
  assume(assumed: Assumed): void {
    this.theAssumed = assumed
    this.theMissing = []
    this.isMissing.clear()
  }

  /** The kind of vessel or vehicle; undefined while unknown. */
  get craft(): JobDocument['job']['craft'] {
    this.reads.note(this.facts.slots.head)
    return this.facts.job.job.craft
  }

  view<K extends PartKindId>(kind: K, facts: PartFacts): View<K> {
    return new viewClasses[kind](this, facts) as View<K>
  }

  read(part: PartFacts, index: number): unknown {
    const settled = this.settled(part, index)
    const value = settled === undefined ? this.assumption(part, index) : settled
    if (this.inputs) this.inputs.add(this.facts.input(part, index, value, this.reads))
    return value
  }

  /** The known value, or the default; undefined when the field is truly unknown. */
  settled(part: PartFacts, index: number): unknown {
    const value = this.facts.settled(part, index, this.reads)
    if (value !== undefined) return this.orAssumed(part, index, value)
    const [, field] = elementAt(part.fields, index)
    return field.type === 'quantity' && typeof field.otherwise === 'function'
      ? this.orAssumed(part, index, this.workedOut(part, field.otherwise))
      : undefined
  }

  /** A settled value, or the assumed one if nothing is entered. */
  private orAssumed(part: PartFacts, index: number, value: unknown): unknown {
    if (!this.doubted || !this.facts.isDoubtful(part, index)) return value
    const path = elementAt(part.paths, index)
    this.doubted.add(path)
    return this.theAssumed.get(path) ?? value
  }

  /** A default that is calculated from other values of the part, known or assumed. */
  private workedOut(
    part: PartFacts,
    otherwise: Extract<QuantityField['otherwise'], (...args: never) => number>,
  ): number {
    return otherwise({
      value: (sibling) => Number(this.read(part, entryOf(part.indexOf, sibling))),
      rules: this.rules,
    })
  }

  private assumption(part: PartFacts, index: number): unknown {
    const path = elementAt(part.paths, index)
    const value = this.theAssumed.get(path)
    if (value !== undefined) return value
    if (this.taken) this.taken.add(path)
    else if (!this.isMissing.has(path)) {
      this.isMissing.add(path)
      this.theMissing.push(path)
    }
    return this.facts.typical(part, index, this.reads)
  }

  rangeOf(part: PartFacts, index: number): Range {
    const value = this.settled(part, index)
    return value === undefined
      ? this.facts.plausible(part, index, this.reads)
      : [Number(value), Number(value)]
  }
}
