import type { Sql } from 'postgres'
import { changesBetween } from '#core/job/changes'
import type { JobDocument, Stage } from '#core/job/document'
import { isTemporaryNumber } from '#core/job/number'
import { atStage } from '#core/job/stage'
import { decide, type Decision, type SaveOrder } from '#core/sync/order'
import type { ListVerdict } from '../judging/work'
import { Repository, type Actor, type Seen } from './actor'
import { first } from './first'
import { Belongings } from './belonging'
import { JobHistory } from './job-history'
import { JobNumbers, orTaken } from './job-numbers'
import { documentOf } from './kept-document'

/** Days that a deleted job is kept. */
export const keptDays = 30
/** A job as the bench opens it. */
export interface StoredJob {
  readonly id: string
  readonly version: number
  /** Of the data: a version of another epoch is another version. */
  readonly epoch: string
  /** The craft that it belongs to. Jobs that a device kept before craft were known have none. */
  readonly craftId?: string
  readonly document: JobDocument
  readonly updatedAt: string
  readonly updatedBy: string
}

export type Saved =
  | { readonly saved: true; readonly job: StoredJob }
  | {
      readonly saved: false
      readonly theirs: StoredJob
      /** The newest order of this device that was carried out before. */
      readonly arrived: string | null
    }

/** An order's own data, besides its document. A program that sends each save once needs no id. */
export type Sending = Seen & Partial<Pick<SaveOrder, 'change' | 'unsure'>>

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

export class Jobs extends Repository {
  constructor(
    sql: Sql,
    actor: Actor,
    /** Told that a job is to be checked. */
    private readonly changed: () => void,
  ) {
    super(sql, actor)
  }

  private savedColumns(sql: Sql) {
    return sql`job_id as id, version, craft_id as "craftId", ${this.actor.epoch} as epoch, updated_at as "updatedAt", updated_by as "updatedBy"`
  }

  private storedColumns(sql: Sql) {
    return sql`${this.savedColumns(sql)}, document`
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
      select ${this.storedColumns(sql)} from job
      where workshop_id = ${this.actor.workshop} and job_id = ${id} and deleted_at is null ${lock}`
    return job ? current(job) : null
  }

  /**
   * Makes a job that a device has made without the server, under the device's id. It gets the next number of the
   * workshop in place of a temporary one. Sent again, it is that job.
   */
  async createFrom(id: string, sending: Sending, document: JobDocument): Promise<Saved | null> {
    const saved = await orTaken(
      this.together(async (tx) => {
        // Two that are sent at once take turns.
        await tx`select pg_advisory_xact_lock(hashtextextended(${`job ${id}`}, 0))`
        const [there] = await tx`
          select 1 from job where workshop_id = ${this.actor.workshop} and job_id = ${id}`
        if (there) return this.write(tx, id, sending, document)
        const number = isTemporaryNumber(document.job.number)
          ? await new JobNumbers(tx, this.actor).next()
          : document.job.number
        const numbered = { ...document, job: { ...document.job, number } }
        const job = await this.insert(tx, numbered, { id })
        await this.carriedOut(tx, id, job.version, sending.change)
        return { saved: true as const, job }
      }),
      document,
    )
    if (saved?.saved) this.changed()
    return saved
  }

  /** Makes a job; it is checked a moment later. */
  async create(document: JobDocument): Promise<StoredJob> {
    const job = await orTaken(
      this.together((tx) => this.insert(tx, document)),
      document,
    )
    this.changed()
    return job
  }

  /** Makes a job under the next number of the workshop. @param craft that it is for; left out for the one it names */
  async createNumbered(documentOf: (number: string) => JobDocument, craft?: string): Promise<StoredJob> {
    const job = await this.together(async (tx) =>
      this.insert(tx, documentOf(await new JobNumbers(tx, this.actor).next()), craft ? { craft } : {}),
    )
    this.changed()
    return job
  }

  /** Puts a job into its table, under an id that a device gave it, checked where that has been done already. */
  async insert(
    tx: Sql,
    document: JobDocument,
    {
      id,
      judged,
      craft,
    }: { readonly id?: string; readonly judged?: ListVerdict; readonly craft?: string } = {},
  ): Promise<StoredJob> {
    const { workshop, person } = this.actor
    const row = {
      workshop_id: workshop,
      ...(id ? { job_id: id } : {}),
      document: tx.json(document as never),
      updated_by: person,
      ...columnsOf(document),
      ...(await new Belongings(tx, this.actor).ofNew(document, craft)),
      ...(judged ? { ...judged, judged_version: 1, judged_shop: 1 } : {}),
    }
    const job = first(await tx<StoredJob[]>`insert into job ${tx(row)} returning ${this.storedColumns(tx)}`)
    await new JobNumbers(tx, this.actor).countUpTo(document.job.number)
    return job
  }

  /**
   * Saves a job if it still has the version the change was made on, and appends to its history.
   * Otherwise nothing is saved, and the answer holds the job as it is. An order that is sent again is carried out
   * once. Null when there is no such job.
   */
  async save(id: string, sending: Sending, document: JobDocument): Promise<Saved | null> {
    const saved = await orTaken(
      this.together((tx) => this.write(tx, id, sending, document)),
      document,
    )
    if (saved?.saved) this.changed()
    return saved
  }

  private async write(tx: Sql, id: string, sending: Sending, document: JobDocument): Promise<Saved | null> {
    const before = await this.readToChange(tx, id)
    if (!before) return null
    const decision = await this.decide(tx, before, sending)
    if (decision.kind === 'repeated') return { saved: true, job: before }
    if (decision.kind === 'overtaken') return { saved: false, theirs: before, arrived: decision.arrived }
    const changes = changesBetween(before.document, document)
    if (changes.length === 0) return { saved: true, job: before }
    const version = before.version + 1
    const next = {
      document: tx.json(document as never),
      version,
      updated_by: this.actor.person,
      ...columnsOf(document),
    }
    const [saved] = await tx<Omit<StoredJob, 'document'>[]>`
      update job set ${tx(next)}, updated_at = now()
      where workshop_id = ${this.actor.workshop} and job_id = ${id}
      returning ${this.savedColumns(tx)}`
    await new Belongings(tx, this.actor).follow(id, before.document, document)
    if (changes.some(({ path }) => path === 'job/number'))
      await new JobNumbers(tx, this.actor).countUpTo(document.job.number)
    await this.carriedOut(tx, id, version, sending.change)
    await new JobHistory(tx, this.actor).append(id, version, changes)
    return { saved: true, job: { ...saved!, document } }
  }

  /** The work on a job has reached a stage, inside a transaction: the job moves on, and never back. */
  async reach(tx: Sql, id: string, stage: Stage): Promise<void> {
    const there = await this.readToChange(tx, id)
    if (!there) return
    const { version, epoch, document } = there
    await this.write(tx, id, { version, epoch }, atStage(document, stage))
    this.changed()
  }

  /** The result of an order on the current job. */
  private async decide(tx: Sql, { id, version, epoch }: StoredJob, sending: Sending): Promise<Decision> {
    const { change = '', unsure = [] } = sending
    const asked = [...unsure, ...(change ? [change] : [])]
    const known = asked.length
      ? await tx<{ change: string; version: number }[]>`
          select change_id as change, version from job_change
          where workshop_id = ${this.actor.workshop} and job_id = ${id} and change_id in ${tx(asked)}`
      : []
    return decide(
      { ...sending, change, unsure },
      { version, epoch },
      (one) => known.find((row) => row.change === one)?.version,
    )
  }

  private async carriedOut(tx: Sql, id: string, version: number, change: string | undefined): Promise<void> {
    if (!change) return
    const row = { workshop_id: this.actor.workshop, job_id: id, change_id: change, version }
    await tx`insert into job_change ${tx(row)}`
  }

  /** Deletes a job: it is kept for {@link keptDays} days, to be brought back. False where there is no such job. */
  async remove(id: string): Promise<boolean> {
    const { workshop, person } = this.actor
    const rows = await this.sql`
      update job set deleted_at = now(), deleted_by = ${person}
      where workshop_id = ${workshop} and job_id = ${id} and deleted_at is null returning job_id`
    return rows.length > 0
  }

  /** Brings a deleted job back. False if there is none such. */
  async bringBack(id: string): Promise<boolean> {
    const rows = await this.sql`
      update job set deleted_at = null, deleted_by = null
      where workshop_id = ${this.actor.workshop} and job_id = ${id} and deleted_at is not null returning job_id`
    if (rows.length > 0) this.changed()
    return rows.length > 0
  }
}
