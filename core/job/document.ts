import { fieldOf } from '#core/collections/held'
import type { RuleOverrides } from '#core/rules/rules'
import { inSentence } from '#core/units/format'
import type { Proving } from './proving'
import type { PhotoChoices } from './paper-photos'
import type { QuotationDraft } from './quotation'
import type { Specified } from './specified'
import {
  partKinds,
  partKindIds,
  type Field,
  type FieldsOf,
  type Known,
  type ManyKindId,
  type OneKindId,
  type PartKind,
  type PartKindId,
  type Surveyed,
} from './fields'

export const jobFormat = 'jovial-anchor/job'
export const jobFormatVersion = 4
/** Parts of one kind that a job holds at most. */
export const mostParts = 100

export const crafts = {
  vessel: 'Vessel',
  vehicle: 'Road vehicle',
  trailer: 'Trailer',
  motorcycle: 'Motorcycle',
  cabin: 'Cabin',
} as const
export type CraftKind = keyof typeof crafts
export const usePatterns = {
  daily: 'Moves daily',
  stays: 'Stays put',
  plugged: 'Plugged in',
  laidUp: 'Laid up in winter',
} as const
export const stages = {
  enquiry: 'Enquiry',
  surveyed: 'Surveyed',
  specified: 'Specified',
  quoted: 'Quoted',
  accepted: 'Accepted',
  fitted: 'Fitted',
  signed: 'Signed',
  done: 'Handed over',
} as const
export type Stage = keyof typeof stages

/** Who the job is for and how it stands. Plain text; none of it is needed to save. */
export interface JobHead {
  readonly number: string
  readonly name: string
  readonly customer?: string
  readonly contact?: string
  readonly craft?: CraftKind
  readonly registration?: string
  readonly location?: string
  readonly usePattern?: keyof typeof usePatterns
  readonly wishes?: string
  readonly dueDate?: string
  readonly stage: Stage
}

/** Properties of every part besides its surveyed fields. */
interface PartExtras {
  readonly name?: string
  readonly notes?: string
  /** Serial number on its label. */
  readonly serial?: string
  /** Link or starting battery: the path of the alternator that feeds it. */
  readonly from?: string
  /** Cable: the path of the part whose current it carries. */
  readonly of?: string
  /** The shelf part its values were taken from, in the version that was used. */
  readonly shelf?: ShelfRef
}

/** One version of a part on the shop's shelf. */
interface ShelfRef {
  readonly code: string
  readonly version: number
}

export type Part<K extends PartKindId> = PartExtras & Surveyed<FieldsOf<K>>

/**
 * One customer job: the survey, the battery in question and the rules this job overrides. Plain, immutable
 * data. Parts that can be several are kept by id, so that every value has one stable path
 * (`chargers/charger-1/absorptionV`) however the rest changes.
 */
export type JobDocument = {
  readonly format: typeof jobFormat
  readonly version: typeof jobFormatVersion
  readonly job: JobHead
  readonly rules: RuleOverrides
  /** The installer's note at a station. */
  readonly notes: Readonly<Partial<Record<PartKindId, string>>>
  /** The answer that was chosen, next to the survey. */
  readonly specified?: Specified
  /** How it was fitted and proved. */
  readonly proving?: Proving
  /** The quotation that is being prepared. */
  readonly quotation?: QuotationDraft
  /** Photos that papers show. */
  readonly paperPhotos?: PhotoChoices
} & { readonly [K in OneKindId]: Part<K> } & { readonly [K in ManyKindId]: Readonly<Record<string, Part<K>>> }

/** A part seen without its kind: for code that walks over all of them. */
export type AnyPart = PartExtras & Readonly<Record<string, unknown>>

/** An empty job: nothing known, nothing counted, but for a starting battery to be looked for. */
export function emptyJob(number: string, name = ''): JobDocument {
  const parts = Object.fromEntries(partKindIds.map((kind) => [kind, {}]))
  return {
    format: jobFormat,
    version: jobFormatVersion,
    job: { number, name, stage: 'enquiry' },
    rules: {},
    notes: {},
    ...parts,
    startingBatteries: { 'starting-1': {} },
  } as unknown as JobDocument
}

/** The survey unchanged, without answer, quotation and proof, and without photos of papers. */
export function surveyOf({
  specified: _specified,
  proving: _proving,
  quotation: _quotation,
  paperPhotos: _photos,
  ...survey
}: JobDocument): JobDocument {
  return survey
}

/**
 * A copy under a new number, as an enquiry without a due date: the survey unchanged, without answer, quotation and
 * proof.
 */
export function copyOfJob(job: JobDocument, number: string): JobDocument {
  const { dueDate: _due, ...head } = job.job
  return {
    ...surveyOf(job),
    job: { ...head, number, name: `Copy of ${head.name || head.number}`.slice(0, 200), stage: 'enquiry' },
  }
}

/** Where a part is: `place`, or `chargers/charger-1`. */
export type PartPath = string
/** Where a value is: `place/coldestC`, or `chargers/charger-1/absorptionV`. */
export type FieldPath = string

export interface PartRef {
  readonly kind: PartKindId
  readonly id: string | null
  readonly path: PartPath
  readonly part: AnyPart
}

/** Every part of the job in walking order; parts of a collection by their id, counted naturally. */
export function listParts(job: JobDocument): PartRef[] {
  return partKindIds.flatMap((kind) => partsOf(job, kind))
}

/** The parts of one kind: one, or those of its collection in natural order of id. */
export function partsOf(job: JobDocument, kind: PartKindId): PartRef[] {
  if (!partKinds[kind].many) return [theOne(job, kind)]
  return Object.entries(job[kind] as Record<string, AnyPart>)
    .map(([id, part]) => ({ id, part, number: numberIn(id) }))
    .sort((a, b) => a.number - b.number || (a.id < b.id ? -1 : 1))
    .map(({ id, part }) => ({ kind, id, path: `${kind}/${id}`, part }))
}

const theOne = (job: JobDocument, kind: PartKindId): PartRef => ({
  kind,
  id: null,
  path: kind,
  part: job[kind] as AnyPart,
})
const numberIn = (id: string): number => Number(/(\d+)$/.exec(id)?.[1] ?? 0)

/** The part at a path, or null when there is none. */
export function partAt(job: JobDocument, path: PartPath): PartRef | null {
  const [kind, id] = path.split('/') as [PartKindId, string | undefined]
  if (!Object.hasOwn(partKinds, kind)) return null
  if (!partKinds[kind].many) return id === undefined ? theOne(job, kind) : null
  const held = job[kind] as Record<string, AnyPart>
  return id !== undefined && Object.hasOwn(held, id)
    ? { kind, id, path: `${kind}/${id}`, part: fieldOf(held, id) }
    : null
}

/** Splits a field path into its part and field name; null when the catalogue has no such field. */
export function fieldAt(path: FieldPath): {
  readonly partPath: PartPath
  readonly name: string
  readonly kind: PartKindId
  readonly field: Field
} | null {
  const cut = path.lastIndexOf('/')
  const partPath = path.slice(0, cut)
  const name = path.slice(cut + 1)
  const kind = partPath.split('/')[0] as PartKindId
  if (cut < 0 || !Object.hasOwn(partKinds, kind)) return null
  const fields: PartKind['fields'] = partKinds[kind].fields
  return Object.hasOwn(fields, name) ? { partPath, name, kind, field: fieldOf(fields, name) } : null
}

/**
 * The surveyed value of a part's field; undefined if it was never entered.
 * @typeParam T the type of the field in the catalogue
 */
export const knownOf = <T = unknown>(part: AnyPart, name: string): Known<T> | undefined =>
  part[name] as Known<T> | undefined
/**
 * The value of a field of a part; null while it is unknown.
 * @typeParam T the type of the field in the catalogue
 */
export const valueOf = <T = unknown>(part: AnyPart, name: string): T | null =>
  knownOf<T>(part, name)?.value ?? null

/** The surveyed value at a field path; undefined when nothing was ever entered there. */
export function knownAt(job: JobDocument, path: FieldPath): Known<unknown> | undefined {
  const at = fieldAt(path)
  const part = at && partAt(job, at.partPath)?.part
  return part ? knownOf(part, at.name) : undefined
}

/** A copy of the job with one part changed. A part that is not there is put there. */
export function withPart(job: JobDocument, path: PartPath, change: (part: AnyPart) => AnyPart): JobDocument {
  const [kind, id] = path.split('/') as [PartKindId, string | undefined]
  if (id === undefined) return { ...job, [kind]: change(job[kind] as AnyPart) }
  const held = job[kind] as Record<string, AnyPart>
  return { ...job, [kind]: { ...held, [id]: change(held[id] ?? {}) } }
}

/** Values that nobody has looked at yet, by field. */
export const asAssumed = <T>(values: Readonly<Record<string, T>>): Record<string, Known<T>> =>
  Object.fromEntries(Object.entries(values).map(([name, value]) => [name, { value, how: 'assumed' }]))

/**
 * A copy of the job with some values of one part assumed.
 * @throws where the catalogue has no such field
 */
export function withAssumed(
  job: JobDocument,
  path: PartPath,
  values: Readonly<Record<string, unknown>>,
): JobDocument {
  const [kind] = path.split('/') as [PartKindId]
  const wrong = Object.keys(values).find((name) => !Object.hasOwn(partKinds[kind].fields, name))
  if (wrong !== undefined) throw new Error(`No such field: ${path}/${wrong}`)
  return withPart(job, path, (part) => ({ ...part, ...asAssumed(values) }))
}

/** A copy of the job with one surveyed value set; `undefined` takes it out. */
export function withField(job: JobDocument, path: FieldPath, known: Known<unknown> | undefined): JobDocument {
  const at = fieldAt(path)
  if (!at) throw new Error(`No such field: ${path}`)
  return withPart(job, at.partPath, ({ [at.name]: _old, ...rest }) =>
    known === undefined ? rest : { ...rest, [at.name]: known },
  )
}

/** A copy of the job with one more part of a kind, and the path it got. */
export function withNewPart(
  job: JobDocument,
  kind: ManyKindId,
  part: AnyPart = {},
): { readonly job: JobDocument; readonly path: PartPath } {
  const next = Math.max(0, ...Object.keys(job[kind]).map(numberIn)) + 1
  const path = `${kind}/${partKinds[kind].stem}-${next}`
  return { job: withPart(job, path, () => part), path }
}

/**
 * A copy of the job without the part; cables and links that pointed at it go with it, a starting battery it
 * fed stays by itself.
 */
export function withoutPart(job: JobDocument, path: PartPath): JobDocument {
  const [kind, id] = path.split('/') as [ManyKindId, string]
  const { [id]: _gone, ...rest } = job[kind] as Record<string, AnyPart>
  let next: JobDocument = { ...job, [kind]: rest }
  for (const ref of [...partsOf(next, 'links'), ...partsOf(next, 'conductors')]) {
    if ((ref.part.from ?? ref.part.of) === path) next = withoutPart(next, ref.path)
  }
  for (const ref of partsOf(next, 'startingBatteries')) {
    if (ref.part.from === path) next = withPart(next, ref.path, ({ from: _gone, ...part }) => part)
  }
  return next
}

/** The part of a path behind its kind: `charger-1`. */
export const partId = (path: PartPath): string => path.slice(path.indexOf('/') + 1)

/** The name of the part: its own, else its kind, numbered if there are several. */
export function partName(job: JobDocument, path: PartPath): string {
  const ref = partAt(job, path)
  if (!ref) return path
  if (ref.part.name) return ref.part.name
  const one = partKinds[ref.kind].one
  return ref.id && Object.keys(job[ref.kind]).length > 1 ? `${one} ${numberIn(ref.id)}` : one
}

/** Whether values of a kind are of the job as a whole: their label alone names them. */
export const isOfWholeJob = (kind: string): boolean => kind === 'use' || kind === 'place'

/** A part in a sentence: a name of its own as it is, else `the alternator`. */
export const partInSentence = (job: JobDocument, path: PartPath): string =>
  partAt(job, path)?.part.name ?? `the ${inSentence(partName(job, path))}`

/** Whether the field is asked at all: its condition holds, or the deciding value is still unknown. */
export function isAsked(part: AnyPart, field: Field): boolean {
  return (field.when ?? []).every(({ field: sibling, is }) => {
    const decided = valueOf<string>(part, sibling)
    return decided === null || is.includes(decided)
  })
}
