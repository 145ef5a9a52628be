import { fieldOf, firstOf } from '#core/collections/held'
import { parse, type ParseError } from 'jsonc-parser'
import { jobFormat, jobFormatVersion, listParts, partAt, partsOf, type JobDocument } from '#core/job/document'
import { partKinds, partKindIds, type Field, type PartKind } from '#core/job/fields'
import { upToDate } from '#core/job/migrations/index'
import { groupSchemas, inWords, jobSchema } from './job-schema'

/** Largest job file that is read, bytes. */
export const largestJobFileBytes = 2 * 1024 * 1024
const deepest = 24
/** Brackets within brackets in a text beyond which no reader of JSON should be asked where it is wrong. */
const deepestText = 500
const mostErrors = 50

export interface FileProblem {
  /** Where in the job: `chargers/charger-1/absorptionV`; empty for the file as a whole. */
  readonly path: string
  readonly message: string
  /** Line of the file, from 1, for text that cannot be read at all. */
  readonly line?: number
}

type ReadJob =
  | { readonly ok: true; readonly job: JobDocument }
  | { readonly ok: false; readonly problems: readonly FileProblem[] }

const refuse = (message: string, more: Partial<FileProblem> = {}): ReadJob => ({
  ok: false,
  problems: [{ path: '', message, ...more }],
})

/**
 * Reads the text of a job file. Either the whole job or all that is wrong with it, in words. Unknown
 * properties are kept; a file of an older version is brought up to date.
 */
export function readJobFile(text: string): ReadJob {
  if (text.trim() === '') return refuse('The file is empty')
  let data: unknown
  try {
    data = JSON.parse(text.replace(/^\uFEFF/, ''))
  } catch {
    const why = 'This is not a job file: the text is not valid JSON'
    return isDeep(text) ? refuse(why) : refuse(why, { line: lineOfFirstError(text) })
  }
  return checkJob(data)
}

/**
 * Checks data that should be a job document, from a file or a request.
 * @param sound groups of jobs that were checked before: they are not looked at again
 */
export function checkJob(data: unknown, sound: SoundGroups | null = null): ReadJob {
  if (typeof data !== 'object' || data === null || Array.isArray(data))
    return refuse('This is not a job file: it should hold one job { … }')
  const { format, version } = data as { format?: unknown; version?: unknown }
  if (format !== jobFormat)
    return refuse(format === undefined ? 'is missing' : `must be ${jobFormat}`, { path: 'format' })
  if (typeof version === 'number' && version > jobFormatVersion)
    return refuse(
      `This job was saved by a newer version (${version}); this one reads up to ${jobFormatVersion}`,
      { path: 'version' },
    )
  const current = typeof version === 'number' && version < jobFormatVersion ? upToDate(data as Group) : data
  const problems = sound?.hold(current as Group) ? [] : problemsIn(current)
  if (problems.length > 0) return { ok: false, problems }
  const job = current as JobDocument
  const dangling = danglingReferences(job)
  return dangling.length > 0 ? { ok: false, problems: dangling } : { ok: true, job }
}

function problemsIn(data: unknown): FileProblem[] {
  const unsafe = unsafeValue(data, '', 0)
  if (unsafe) return [unsafe]
  const { error } = jobSchema.validate(data)
  const details = error?.details.slice(0, mostErrors) ?? []
  return details.map(({ path, message }) => ({ path: fieldPathOf(path), message }))
}

/** Letters of groups that are kept at most. */
const mostKept = 8_000_000

/**
 * Groups of job documents that were accepted, by their text. Repeated saves of a job change few of them, and
 * checking all takes a quarter of the time of a save.
 */
export class SoundGroups {
  private readonly texts = new Set<string>()
  private kept = 0

  /** Letters that are kept now. */
  get letters(): number {
    return this.kept
  }

  /** Whether each group is sound alone. The check of the whole document reports the errors. */
  hold(data: Group): boolean {
    return (
      Object.keys(groupSchemas).every((name) => data[name] !== undefined || isOptional(name)) &&
      Object.entries(data).every(([name, value]) => this.holdOne(name, value))
    )
  }

  private holdOne(name: string, value: unknown): boolean {
    const text = `${name} ${JSON.stringify(value)}`
    if (this.texts.has(text)) return true
    if (unsafeValue({ [name]: value }, '', 0)) return false
    if (Object.hasOwn(groupSchemas, name) && fieldOf(groupSchemas, name).validate(value, inWords).error)
      return false
    this.keep(text)
    return true
  }

  private keep(text: string): void {
    this.texts.add(text)
    this.kept += text.length
    for (const oldest of this.texts) {
      if (this.kept <= mostKept) return
      this.texts.delete(oldest)
      this.kept -= oldest.length
    }
  }
}

const isOptional = (name: string): boolean =>
  fieldOf(groupSchemas, name).validate(undefined).error === undefined

/** `chargers/charger-1/absorptionV` for an error inside its value; the plain path otherwise. */
const fieldPathOf = (path: readonly (string | number)[]): string =>
  (path.at(-1) === 'value' ? path.slice(0, -1) : path).join('/')

/**
 * First value that could not be stored or would not survive: numbers that are not finite, broken text, names
 * that are not safe, endless nesting.
 */
function unsafeValue(value: unknown, path: string, depth: number): FileProblem | null {
  if (depth > deepest) return { path, message: 'is nested too deeply' }
  if (typeof value === 'number')
    return Number.isFinite(value) ? null : { path, message: 'is too large a number' }
  if (typeof value === 'string')
    return isStorable(value) ? null : { path, message: 'holds characters that cannot be stored' }
  if (typeof value !== 'object' || value === null) return null
  for (const [name, inner] of Object.entries(value)) {
    const at = path === '' ? name : `${path}/${name}`
    if (!isStorable(name) || name === '__proto__' || name === 'constructor' || name === 'prototype')
      return { path: at, message: 'is not a usable name' }
    const problem = unsafeValue(inner, name === 'value' ? path : at, depth + 1)
    if (problem) return problem
  }
  return null
}

/** Whether the database can hold the text: no NUL, no half of a surrogate pair. */
const isStorable = (text: string): boolean =>
  !text.includes('\u0000') &&
  !/[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/.test(text)

function danglingReferences(job: JobDocument): FileProblem[] {
  return listParts(job).flatMap(({ kind, path, part }) => {
    const refers = (partKinds[kind] as PartKind).refers
    const target = refers && part[refers.field]
    if (!refers || !target) return []
    const known = partAt(job, target) !== null && refers.to.includes(firstOf(target.split('/')))
    return known
      ? []
      : [{ path: `${path}/${refers.field}`, message: `points at ${target}, which is not in this job` }]
  })
}

/** Whether a text opens more brackets within brackets than a reader that goes into each can bear. */
function isDeep(text: string): boolean {
  let depth = 0
  for (const letter of text) {
    if (letter === '[' || letter === '{') depth++
    else if (letter === ']' || letter === '}') depth--
    if (depth > deepestText) return true
  }
  return false
}

function lineOfFirstError(text: string): number {
  const errors: ParseError[] = []
  parse(text, errors, { disallowComments: true })
  return text.slice(0, errors[0]?.offset ?? text.length).split('\n').length
}

type Group = Readonly<Record<string, unknown>>

/** The same properties, those named first in that order, the others after them. */
const inOrder = (group: Group, names: readonly string[]): Group =>
  Object.fromEntries(
    [
      ...names.filter((name) => name in group),
      ...Object.keys(group).filter((name) => !names.includes(name)),
    ].map((name) => [name, group[name]]),
  )

const headOrder = [
  'number',
  'name',
  'customer',
  'contact',
  'craft',
  'registration',
  'location',
  'usePattern',
  'wishes',
  'dueDate',
  'stage',
]
const knownOrder = ['value', 'how', 'when', 'by']

function orderedKnown(known: Group, field: Field): Group {
  const rows =
    field.type === 'rows' && Array.isArray(known.value)
      ? {
          value: known.value.map((row: Group) =>
            inOrder(
              row,
              field.columns.map((column) => column.name),
            ),
          ),
        }
      : {}
  return inOrder({ ...known, ...rows }, knownOrder)
}

function orderedPart(part: Group, kind: PartKind): Group {
  const known = Object.entries(part).map(([name, value]) => [
    name,
    Object.hasOwn(kind.fields, name) ? orderedKnown(value as Group, fieldOf(kind.fields, name)) : value,
  ])
  return inOrder(Object.fromEntries(known) as Group, [
    'name',
    'shelf',
    'from',
    'of',
    ...Object.keys(kind.fields),
    'notes',
  ])
}

/**
 * The text of a job file: properties in the order of the survey, whatever order they were stored in; two
 * spaces, a line end at the end.
 */
export function writeJobFile(job: JobDocument): string {
  const ordered: Record<string, unknown> = {
    ...inOrder(job as unknown as Group, ['format', 'version', 'job', 'rules', ...partKindIds, 'notes']),
  }
  ordered.notes = inOrder(job.notes, partKindIds)
  ordered.job = inOrder(job.job as unknown as Group, headOrder)
  for (const kind of partKindIds) {
    const parts = partsOf(job, kind).map(({ id, part }) => [id, orderedPart(part, partKinds[kind])] as const)
    ordered[kind] = partKinds[kind].many ? Object.fromEntries(parts) : firstOf(parts)[1]
  }
  return `${JSON.stringify(ordered, null, 2)}\n`
}
