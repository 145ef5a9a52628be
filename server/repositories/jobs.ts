import type { Sql } from 'postgres'
import type { Change } from '#core/job/change'
import { changesBetween } from '#core/job/changes'
import type { JobDocument } from '#core/job/document'
import { changeUpToDate } from '#core/job/migrations/index'
import type { Verdict } from '#core/system/verdict'
import type { Judge } from '../judging/judge'
import type { ListVerdict } from '../judging/work'
import { Repository, type Actor } from './actor'
import { documentOf } from './kept-document'
import { allWords } from './search'
import type { judgeAgain, Shop } from './shop'

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
  { readonly saved: true; readonly job: StoredJob } | { readonly saved: false; readonly theirs: StoredJob }

export interface HistoryEntry {
  readonly version: number
  readonly at: string
  readonly who: string
  readonly changes: readonly Change[]
}

export interface JobSearch {
  /** All must occur; empty finds all. */
  readonly words?: string
  readonly stage?: string
  readonly verdict?: string
  readonly limit?: number
}

/** The columns that lists and searches need, from the document. */
const columnsOf = ({ job, candidate }: JobDocument) => {
  const {
    number,
    name,
    customer = '',
    craft = null,
    stage,
    dueDate,
    registration = '',
    location = '',
    contact = '',
  } = job
  const search = [number, name, customer, registration, location, contact, candidate.name ?? '']
    .join(' ')
    .toLowerCase()
  return { number, name, customer, craft, stage, due_date: dueDate || null, search }
}

const current = (row: StoredJob): StoredJob => ({ ...row, document: documentOf(row.document) })

const storedColumns = (sql: Sql) =>
  sql`job_id as id, version, document, updated_at as "updatedAt", updated_by as "updatedBy"`

/** What a document changes of the job as it stands; or the answer where there is nothing to save. */
function changesOn(
  before: StoredJob | null,
  version: number,
  document: JobDocument,
): { changes: readonly Change[]; answer?: undefined } | { changes: null; answer: Saved | null } {
  if (!before) return { changes: null, answer: null }
  if (before.version !== version) return { changes: null, answer: { saved: false, theirs: before } }
  const changes = changesBetween(before.document, document)
  return changes.length > 0 ? { changes } : { changes: null, answer: { saved: true, job: before } }
}

export class Jobs extends Repository {
  constructor(
    sql: Sql,
    actor: Actor,
    private readonly judge: Judge,
    private readonly shop: Shop,
  ) {
    super(sql, actor)
  }

  /** Jobs, last changed first. */
  list({ words = '', stage, verdict, limit = 200 }: JobSearch = {}): Promise<JobRow[]> {
    const { sql, actor } = this
    return sql<JobRow[]>`
      select job_id as id, number, name, customer, craft, stage, due_date as "dueDate", verdict, headline, reason, updated_at as "updatedAt", updated_by as "updatedBy"
      from job
      where workshop_id = ${actor.workshop}
        ${allWords(sql, words)}
        ${stage ? sql`and stage = ${stage}` : sql``}
        ${verdict ? sql`and verdict = ${verdict}` : sql``}
      order by updated_at desc, job_id
      limit ${limit}`
  }

  read(id: string): Promise<StoredJob | null> {
    return this.find(this.sql, id, this.sql``)
  }

  /** The same inside a transaction, until whose end nobody else changes it. */
  readToChange(tx: Sql, id: string): Promise<StoredJob | null> {
    return this.find(tx, id, tx`for update`)
  }

  private async find(sql: Sql, id: string, lock: ReturnType<Sql>): Promise<StoredJob | null> {
    const [job] = await sql<StoredJob[]>`
      select ${storedColumns(sql)} from job where workshop_id = ${this.actor.workshop} and job_id = ${id} ${lock}`
    return job ? current(job) : null
  }

  create(document: JobDocument): Promise<StoredJob> {
    return this.judging(document, (tx, judged) => this.insert(tx, document, judged))
  }

  private judging<T>(
    document: JobDocument,
    write: (tx: Sql, judged: ListVerdict) => Promise<T | typeof judgeAgain>,
  ): Promise<T> {
    return this.shop.judging(({ rules, units }) => this.judge.verdict({ document, rules, units }), write)
  }

  /** Puts a job that was judged into its table. */
  async insert(tx: Sql, document: JobDocument, judged: ListVerdict): Promise<StoredJob> {
    const { workshop, person } = this.actor
    const row = {
      workshop_id: workshop,
      document: tx.json(document as never),
      updated_by: person,
      ...columnsOf(document),
      ...judged,
    }
    const [job] = await tx<StoredJob[]>`insert into job ${tx(row)} returning ${storedColumns(tx)}`
    return job!
  }

  /** The next free job number: one more than the largest that is a plain number, four digits. */
  async nextNumber(): Promise<string> {
    const [row] = await this.sql<{ most: number | null }[]>`
      select max(number::bigint)::int as most from job where workshop_id = ${this.actor.workshop} and number ~ '^[0-9]{1,8}$'`
    return String((row?.most ?? 0) + 1).padStart(4, '0')
  }

  /**
   * Saves a job if it still has the version the change was made on, and appends to its history.
   * Otherwise nothing is saved and what stands there now is given. Null when there is no such job.
   */
  async save(id: string, version: number, document: JobDocument): Promise<Saved | null> {
    // What cannot be saved is not even judged.
    const standing = changesOn(await this.read(id), version, document)
    if (!standing.changes) return standing.answer
    return this.judging(document, async (tx, judged): Promise<Saved | null> => {
      const { changes, answer } = changesOn(await this.readToChange(tx, id), version, document)
      if (!changes) return answer
      const { workshop, person } = this.actor
      const next = {
        document: tx.json(document as never),
        version: version + 1,
        updated_by: person,
        ...columnsOf(document),
        ...judged,
      }
      const [job] = await tx<StoredJob[]>`
        update job set ${tx(next)}, updated_at = now()
        where workshop_id = ${workshop} and job_id = ${id}
        returning ${storedColumns(tx)}`
      const entry = { workshop_id: workshop, job_id: id, version: version + 1, who: person }
      await tx`insert into job_history ${tx({ ...entry, changes: tx.json(changes as never) })}`
      return { saved: true, job: job! }
    })
  }

  /** Changes of a job, newest first, under the names that values have now. */
  async history(id: string, limit = 100): Promise<HistoryEntry[]> {
    const rows = await this.sql<HistoryEntry[]>`
      select version, at, who, changes from job_history
      where workshop_id = ${this.actor.workshop} and job_id = ${id}
      order by version desc limit ${limit}`
    return rows.map((entry) => ({ ...entry, changes: entry.changes.map(changeUpToDate) }))
  }
}
