import { changeUpToDate, upToDate } from '#core/job/migrations/index'
import type { Sql } from 'postgres'
import type { Verdict } from '#core/system/verdict'
import type { Change } from '#core/job/change'
import { changesBetween } from '#core/job/changes'
import type { JobDocument } from '#core/job/document'
import { judged } from '../judging/verdict'
import { readShop } from './shop'

/** A job as lists show it. */
export interface JobRow {
  readonly id: string
  readonly number: string
  readonly name: string
  readonly customer: string
  readonly craft: string | null
  readonly stage: string
  readonly dueDate: string | null
  readonly verdict: Verdict
  readonly headline: string
  readonly reason: string
  readonly updatedAt: string
  readonly updatedBy: string
}

/** A job as the bench opens it. */
export interface StoredJob {
  readonly id: string
  readonly version: number
  readonly document: JobDocument
  readonly updatedAt: string
  readonly updatedBy: string
}

export type Saved =
  | { readonly saved: true; readonly job: StoredJob }
  | { readonly saved: false; readonly theirs: StoredJob }

export interface HistoryEntry {
  readonly version: number
  readonly at: string
  readonly who: string
  readonly changes: readonly Change[]
}

/** The columns that lists and searches need, from the document. */
async function columnsOf(sql: Sql, workshop: string, document: JobDocument) {
  const { number, name, customer = '', craft = null, stage, dueDate, registration = '', location = '', contact = '' } = document.job
  const { rules, units } = await readShop(sql, workshop)
  return {
    number, name, customer, craft, stage, due_date: dueDate || null, ...judged(document, rules, units),
    search: [number, name, customer, registration, location, contact, document.candidate.name ?? ''].join(' ').toLowerCase(),
  }
}

/** A row whose document may be of an older version of the format. */
const current = <T extends { readonly document: JobDocument }>(row: T): T => ({ ...row, document: upToDate(row.document as never) as unknown as JobDocument })

const storedColumns = (sql: Sql) => sql`job_id as id, version, document, updated_at as "updatedAt", updated_by as "updatedBy"`

/** All words, as pieces of the search text: one condition a word, so that the trigram index serves. */
export const allWords = (sql: Sql, words: string) => words.toLowerCase().split(/\s+/).filter(Boolean)
  .reduce((where, word) => sql`${where} and search like ${`%${word.replace(/[\\%_]/g, '\\$&')}%`}`, sql``)

/** Jobs of a workshop, last changed first. `words` must all occur; empty finds all. */
export function listJobs(sql: Sql, workshop: string, { words = '', stage, verdict, limit = 200 }: { words?: string; stage?: string; verdict?: string; limit?: number } = {}): Promise<JobRow[]> {
  return sql<JobRow[]>`
    select job_id as id, number, name, customer, craft, stage, due_date as "dueDate", verdict, headline, reason, updated_at as "updatedAt", updated_by as "updatedBy"
    from job
    where workshop_id = ${workshop}
      ${allWords(sql, words)}
      ${stage ? sql`and stage = ${stage}` : sql``}
      ${verdict ? sql`and verdict = ${verdict}` : sql``}
    order by updated_at desc, job_id
    limit ${limit}`
}

export async function readJob(sql: Sql, workshop: string, id: string): Promise<StoredJob | null> {
  const [job] = await sql<StoredJob[]>`select ${storedColumns(sql)} from job where workshop_id = ${workshop} and job_id = ${id}`
  return job ? current(job) : null
}

export async function createJob(sql: Sql, workshop: string, document: JobDocument, who: string): Promise<StoredJob> {
  const row = { workshop_id: workshop, document: sql.json(document as never), updated_by: who, ...(await columnsOf(sql, workshop, document)) }
  const [job] = await sql<StoredJob[]>`insert into job ${sql(row)} returning ${storedColumns(sql)}`
  return job!
}

/** The next free job number of a workshop: one more than the largest that is a plain number, four digits. */
export async function nextNumber(sql: Sql, workshop: string): Promise<string> {
  const [row] = await sql<{ most: number | null }[]>`select max(number::bigint)::int as most from job where workshop_id = ${workshop} and number ~ '^[0-9]{1,8}$'`
  return String((row?.most ?? 0) + 1).padStart(4, '0')
}

/**
 * Saves a job if it still has the version the change was made on, and appends to its history.
 * Otherwise nothing is saved and what stands there now is given. Null when there is no such job.
 */
export function saveJob(sql: Sql, workshop: string, id: string, version: number, document: JobDocument, who: string): Promise<Saved | null> {
  return sql.begin(async (transaction) => {
    const tx = transaction as unknown as Sql
    const [row] = await tx<StoredJob[]>`select ${storedColumns(tx)} from job where workshop_id = ${workshop} and job_id = ${id} for update`
    if (!row) return null
    const before = current(row)
    if (before.version !== version) return { saved: false, theirs: before } as const
    const changes = changesBetween(before.document, document)
    if (changes.length === 0) return { saved: true, job: before } as const
    const next = { document: tx.json(document as never), version: version + 1, updated_by: who, ...(await columnsOf(tx, workshop, document)) }
    const [job] = await tx<StoredJob[]>`
      update job set ${tx(next)}, updated_at = now()
      where workshop_id = ${workshop} and job_id = ${id}
      returning ${storedColumns(tx)}`
    await tx`insert into job_history ${tx({ workshop_id: workshop, job_id: id, version: version + 1, who, changes: tx.json(changes as never) })}`
    return { saved: true, job: job! } as const
  }) as Promise<Saved | null>
}

/** Changes of a job, newest first, under the names that values have now. */
export async function readHistory(sql: Sql, workshop: string, id: string, limit = 100): Promise<HistoryEntry[]> {
  const rows = await sql<HistoryEntry[]>`
    select version, at, who, changes from job_history
    where workshop_id = ${workshop} and job_id = ${id}
    order by version desc limit ${limit}`
  return rows.map((entry) => ({ ...entry, changes: entry.changes.map(changeUpToDate) }))
}
