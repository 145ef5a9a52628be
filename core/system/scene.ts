import { partAt, type AnyPart, type FieldPath, type JobDocument, type PartPath, type PartRef } from '#core/job/document'
import { howKnown, partKinds, type Field, type Fields, type FieldsOf, type How, type Known, type PartKind, type PartKindId, type QuantityField, type Range, type Resolved } from '#core/job/fields'
import { ruleCatalogue, type ShopRules } from '#core/rules/rules'
import { inSentence } from '#core/units/format'

/** Where a value or a limit comes from. */
export interface Origin {
  readonly kind: How | 'rule' | 'computed' | 'unknown' | 'physics'
  readonly text: string
}

/** A value a check has read, for its evidence. */
export interface Input {
  readonly path: FieldPath
  readonly label: string
  readonly part: string
  readonly value: unknown
  readonly origin: Origin
}

/**
 * A part as checks see it: each field reads as a plain value. What is known is given as it is; what
 * has a default gives that; what is not known gives the value the scene assumes, and is noted.
 */
export type View<K extends PartKindId> = PartView & Resolved<FieldsOf<K>>

abstract class PartView {
  /** Values that stay the same in every scene, by field, once read. */
  readonly $fixed: Record<string, unknown> = Object.create(null)
  /** Paths of the fields that turned out to be truly unknown. */
  readonly $open: Record<string, FieldPath> = Object.create(null)
  readonly $inputs: Record<string, Input> = Object.create(null)
  readonly $fields: Fields
  constructor(readonly $scene: Scene, readonly $ref: PartRef, readonly $name: string) {
    this.$fields = partKinds[$ref.kind].fields
  }
  get $path(): PartPath { return this.$ref.path }
  /** Where the value of a field comes from. */
  $origin(field: string): Origin { return this.$scene.originOf(this, field) }
  /** The range a field may lie in: its value twice when it is known or has a default. */
  $range(field: string): Range { return this.$scene.rangeOf(this, field) }
  /** Whether the field needs no range: it is known, or has a default. */
  $settled(field: string): boolean { return this.$scene.settledValue(this, field) !== undefined }
}

const viewClasses = Object.fromEntries((Object.keys(partKinds) as PartKindId[]).map((kind) => {
  class KindView extends PartView {}
  for (const name of Object.keys(partKinds[kind].fields)) {
    Object.defineProperty(KindView.prototype, name, {
      get(this: PartView) {
        const fixed = this.$fixed[name]
        return fixed !== undefined && this.$scene.inputs === null ? fixed : this.$scene.read(this, name)
      },
    })
  }
  return [kind, KindView]
})) as unknown as Record<PartKindId, new (scene: Scene, ref: PartRef, name: string) => PartView>

/**
 * One reading of a job in which every unknown has some assumed value. The engine judges a check in
 * many scenes, with other assumptions in each; `missing` tells which unknown was met first
 * without an assumption.
 */
export class Scene {
  /** Values assumed for unknowns. */
  assumed: ReadonlyMap<FieldPath, unknown> = new Map()
  /** First unknown read without an assumption since {@link begin}. */
  missing: FieldPath | null = null
  /** Everything read since {@link begin}, when evidence is wanted. */
  inputs: Set<Input> | null = null

  constructor(readonly job: JobDocument, readonly rules: ShopRules) {}

  begin(assumed: ReadonlyMap<FieldPath, unknown>, withEvidence = false): void {
    this.assumed = assumed
    this.missing = null
    this.inputs = withEvidence ? new Set() : null
  }

  /** Unknowns that were taken as usual in {@link asUsual}; null outside it. */
  private taken: Set<FieldPath> | null = null

  /**
   * Reads without asking: unknowns without an assumption are taken as usual and are neither missing nor evidence.
   * For a run, which needs all of a system while only some of it decides. Gives what was taken as usual, too.
   */
  asUsual<T>(work: () => T): { readonly value: T; readonly taken: ReadonlySet<FieldPath> } {
    const { inputs, taken: outer } = this
    const taken = (this.taken = new Set<FieldPath>())
    this.inputs = null
    try {
      return { value: work(), taken }
    } finally {
      this.inputs = inputs
      this.taken = outer
    }
  }

  private readonly views = new Map<PartPath, PartView>()
  private readonly ranges = new Map<FieldPath, Range>()

  view<K extends PartKindId>(ref: PartRef & { kind: K }, name: string): View<K> {
    const view = new viewClasses[ref.kind](this, ref, name)
    this.views.set(ref.path, view)
    return view as View<K>
  }

  read(view: PartView, name: string): unknown {
    const open = view.$open[name]
    const value = open === undefined ? view.$fixed[name] ?? this.readFirst(view, name) : this.assumption(open, view, name)
    if (this.inputs) this.note(view, name, value)
    return value
  }

  private readFirst(view: PartView, name: string): unknown {
    const value = this.settledValue(view, name)
    if (value === undefined) return this.assumption((view.$open[name] = `${view.$path}/${name}`), view, name)
    if (!isComputed(fieldOf(view, name))) view.$fixed[name] = value
    return value
  }

  private assumption(path: FieldPath, view: PartView, name: string): unknown {
    const value = this.assumed.get(path)
    if (value !== undefined) return value
    if (this.taken) this.taken.add(path)
    else this.missing ??= path
    return this.typical(view, name)
  }

  /** The known value or the default; undefined when the field is truly not known. */
  settledValue(view: PartView, name: string): unknown {
    const field = fieldOf(view, name)
    const known = trustedValue(view.$ref.part, field, name)
    if (known !== null) return known
    if (field.type === 'rows') return null
    if (field.otherwise === undefined) return undefined
    return field.type === 'choice' ? field.otherwise : this.defaultNumber(view, field)
  }

  private defaultNumber(view: PartView, field: QuantityField): number {
    if (typeof field.otherwise === 'function') {
      return field.otherwise({ value: (name) => Number(this.read(view, name)), rules: this.rules })
    }
    const base = typeof field.otherwise === 'number' ? field.otherwise : Number(this.rules[field.otherwise!])
    return field.scales ? base * scaleOf(this.job, view.$ref, field) : base
  }

  rangeOf(view: PartView, name: string): Range {
    const value = this.settledValue(view, name)
    if (value !== undefined) return [Number(value), Number(value)]
    return this.plausible(view, name)
  }

  /** Values to try for an unknown: ends and points between, or every option. */
  samples(path: FieldPath, count: number): readonly unknown[] {
    const cut = path.lastIndexOf('/')
    const view = this.views.get(path.slice(0, cut))!
    const field = fieldOf(view, path.slice(cut + 1))
    if (field.type === 'choice') return Object.keys(field.options)
    const [low, high] = this.plausible(view, path.slice(cut + 1))
    return Array.from({ length: count }, (_, i) => low + ((high - low) * i) / (count - 1))
  }

  private readonly typicals = new Map<FieldPath, unknown>()

  private typical(view: PartView, name: string): unknown {
    const path = view.$open[name]!
    let value = this.typicals.get(path)
    if (value === undefined) this.typicals.set(path, (value = this.middle(view, name)))
    return value
  }

  private middle(view: PartView, name: string): unknown {
    const field = fieldOf(view, name)
    if (field.type === 'choice') return Object.keys(field.options)[0]
    const [low, high] = this.plausible(view, name)
    return (low + high) / 2
  }

  private plausible(view: PartView, name: string): Range {
    const path = `${view.$path}/${name}`
    let range = this.ranges.get(path)
    if (!range) this.ranges.set(path, (range = plausibleRange(this.job, view.$ref, name)))
    return range
  }

  originOf(view: PartView, name: string): Origin {
    const field = fieldOf(view, name)
    if (trustedValue(view.$ref.part, field, name) !== null) {
      const how = (view.$ref.part[name] as Known<unknown>).how ?? 'assumed'
      return { kind: how, text: howKnown[how] }
    }
    if (field.type === 'rows' || field.otherwise === undefined) return { kind: 'unknown', text: 'not known' }
    if (field.type === 'quantity' && typeof field.otherwise === 'string') {
      return { kind: 'rule', text: `shop rule: ${inSentence(ruleCatalogue[field.otherwise].label)}` }
    }
    return field.type === 'quantity' && typeof field.otherwise === 'function'
      ? { kind: 'computed', text: 'worked out, the data give none' }
      : { kind: 'assumed', text: 'usual value, none entered' }
  }

  /** Notes what was read. Evidence is taken in the scene without assumptions, so an input is the same for every check. */
  private note(view: PartView, name: string, value: unknown): void {
    const input = (view.$inputs[name] ??= {
      path: `${view.$path}/${name}`, label: fieldOf(view, name).label, part: view.$name, value, origin: this.originOf(view, name),
    })
    this.inputs!.add(input)
  }
}

/** Whether a default is worked out from values that may themselves be assumed. */
const isComputed = (field: Field): boolean => field.type === 'quantity' && typeof field.otherwise === 'function'

const fieldOf = (view: PartView, name: string): Field => view.$fields[name]!

/** The known value, or null where there is none that counts. */
function trustedValue(part: AnyPart, field: Field, name: string): unknown {
  const known = part[name] as Known<unknown> | undefined
  if (known?.value == null) return null
  if (field.type === 'quantity' && field.onlyMeasuredWhen && known.how !== 'measured') {
    const { field: sibling, is } = field.onlyMeasuredWhen
    const decided = (part[sibling] as Known<string> | undefined)?.value
    if (decided != null && is.includes(decided)) return null
  }
  return known.value
}

/**
 * Range an unknown quantity may lie in for this kind of part, in the field's unit. Voltages of
 * 12 V systems are scaled to the part's own nominal voltage.
 */
export function plausibleRange(job: JobDocument, ref: PartRef, name: string): Range {
  const field = (partKinds[ref.kind] as PartKind).fields[name]
  if (field?.type !== 'quantity') return [0, 0]
  const scale = field.scales ? scaleOf(job, ref, field) : 1
  if (typeof field.plausible !== 'function') return [field.plausible[0] * scale, field.plausible[1] * scale]
  const known = (sibling: string): unknown => (ref.part[sibling] as Known<unknown> | undefined)?.value ?? null
  const [low, high] = field.plausible({
    number: (sibling) => (typeof known(sibling) === 'number' ? Number(known(sibling)) / scale : null),
    choice: (sibling) => known(sibling) as string | null,
  })
  return [low * scale, Math.max(low, high) * scale]
}

/** Nominal voltage of what a part belongs to, ÷ 12. */
function scaleOf(job: JobDocument, ref: PartRef, field: QuantityField): number {
  const nominal = (part: object | undefined, name = 'nominalV'): number | null => {
    const value = (part as AnyPart | undefined)?.[name] && ((part as AnyPart)[name] as Known<string>).value
    return value == null ? null : Number(value)
  }
  const house = nominal(job.houseBank) ?? nominal(job.candidate) ?? 12
  switch (ref.kind) {
    case 'alternators': return (nominal(ref.part) ?? house) / 12
    // One battery by itself: its default is 12 V, however many the house puts in series.
    case 'candidate':
    case 'alternatives': return (nominal(ref.part) ?? 12) / 12
    case 'startingBattery': return (nominal(Object.values(job.alternators)[0]) ?? house) / 12
    case 'links': {
      const senses = ['closesV', 'opensV', 'dropV', 'lowestInputV'].some((name) => partKinds.links.fields[name as 'closesV'] === field)
      return senses ? (nominal(partAt(job, ref.part.from ?? '')?.part) ?? house) / 12 : (nominal(ref.part, 'outputV') ?? house) / 12
    }
    default: return house / 12
  }
}
