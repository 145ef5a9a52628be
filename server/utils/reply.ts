import { getRouterParam, setResponseHeaders, type H3Event } from 'h3'
import type Joi from 'joi'
import type { FileProblem } from '#core/formats/job-file'
import { logProblem, logRequest } from '../running/log'
import { countRequest } from '../running/metrics'
import { Refusal } from './refusal'

/** Fields of the head of a job, as they are labelled. */
const headWords: Readonly<Record<string, string>> = {
  'job/number': 'Job number:',
  'job/name': 'Name of the job:',
  'job/customer': 'Customer:',
  'job/dueDate': 'Due date:',
}

/** The reader's name of a field. */
const fieldWords = (path: string): string => headWords[path] ?? path

/** A refusal that names each field and its error. */
export const refuseFields = (problems: readonly FileProblem[]): Refusal => {
  const first = problems[0]!
  const where = first.line ? `Line ${first.line}: ` : first.path ? `${fieldWords(first.path)} ` : ''
  const others = problems.length > 1 ? ` (and ${problems.length - 1} more)` : ''
  return new Refusal(422, `${where}${first.message}${others}`, {
    fields: Object.fromEntries(problems.map((p) => [p.path, p.message])),
  })
}

/** Words for a failure of the database, by its code: it is known, and nothing was saved. */
const failures: Readonly<Record<string, { readonly status: number; readonly words: string }>> = {
  '53100': { status: 507, words: 'The disk of the server is full.' },
  '55P03': { status: 503, words: 'Someone else is changing this now. Try again in a moment.' },
  '57014': { status: 503, words: 'The database took too long.' },
  POOL_BUSY: { status: 503, words: 'The server is busy. Try again in a moment.' },
  '25P03': { status: 503, words: 'The server took too long.' },
}
const unreachable = new Set([
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ETIMEDOUT',
  'CONNECT_TIMEOUT',
  'CONNECTION_CLOSED',
  'CONNECTION_ENDED',
  'CONNECTION_DESTROYED',
  '57P01',
  '57P02',
  '57P03',
  '53300',
])

/** How often a database that cannot be reached is logged, ms: not for each request that meets it. */
const outageLogMs = 10_000
let outageLoggedAt = -Infinity

/** The answer to a failure that is no refusal; it is logged. */
export function failureOf(
  event: H3Event,
  cause: unknown,
): { readonly status: number; readonly words: string } {
  const code = String((cause as { code?: unknown }).code)
  if (!unreachable.has(code)) {
    logProblem(`${event.method} ${routeOf(event)}:`, cause)
    return failures[code] ?? { status: 500, words: 'Something went wrong on the server.' }
  }
  if (performance.now() - outageLoggedAt > outageLogMs) {
    outageLoggedAt = performance.now()
    logProblem(`Cannot reach the database (${code}).`)
  }
  return { status: 503, words: 'Cannot reach the database at the moment.' }
}

/** The route of a request with its parameters by name: an address would tell which job it was. */
const routeOf = ({ context }: H3Event): string =>
  (context.matchedRoute as { readonly path?: string } | undefined)?.path ?? 'other'

/** Counts and logs a request. A stream is not one answer, and lasts as long as somebody listens. */
export function noteAnswer(event: H3Event, seconds: number): void {
  if (String(event.node.res.getHeader('content-type') ?? '').startsWith('text/event-stream')) return
  const answered = {
    method: event.method,
    route: routeOf(event),
    status: event.node.res.statusCode,
    seconds,
  }
  countRequest(answered)
  logRequest(answered)
}

const uuid = /^[0-9a-f]{8}-([0-9a-f]{4}-){3}[0-9a-f]{12}$/i

/** An id of the address by its name; null if it is no id. @throws the result of `refusal` */
export function idOf(event: H3Event, name: string, refusal: () => Refusal): string {
  const id = getRouterParam(event, name) ?? ''
  if (!uuid.test(id)) throw refusal()
  return id
}
export const jobId = (event: H3Event): string => idOf(event, 'id', noSuchJob)
export const photoId = (event: H3Event): string => idOf(event, 'photo', noSuchPhoto)

export const noSuchPhoto = (): Refusal => new Refusal(404, 'There is no such photo')

export const nothingSpecified = (): Refusal =>
  new Refusal(422, 'This job has no specification yet. Choose an answer first')

export const noSuchJob = (): Refusal => new Refusal(404, 'There is no such job')

/** Data that matches a schema, or 422 naming the fields. */
export function validated<T>(schema: Joi.ObjectSchema<T>, data: unknown): T {
  const { value, error } = schema.validate(data, { abortEarly: false, errors: { label: false } })
  if (error) throw refuseFields(error.details.map(({ path, message }) => ({ path: path.join('/'), message })))
  return value as T
}

/** A PDF to be opened where it is, under a name that any system can keep. */
export function sendPdf(event: H3Event, name: string, data: Uint8Array): Buffer {
  setResponseHeaders(event, {
    'content-type': 'application/pdf',
    'content-disposition': `inline; filename="${name.replace(/[^\w-]/g, '_')}.pdf"`,
  })
  return Buffer.from(data)
}
