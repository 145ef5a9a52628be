import type { Sql } from 'postgres'
import type { Change } from '#core/job/change'
import { changesBetween } from '#core/job/changes'
import type { JobDocument, Stage } from '#core/job/document'
import { isTemporaryNumber } from '#core/job/number'
import { atStage } from '#core/job/stage'
import { changeUpToDate } from '#core/job/migrations/index'
import { decide, type Decision, type SaveOrder } from '#core/sync/order'
import type { Verdict } from '#core/system/verdict'
import { isJudged } from '../judging/behind'
import type { ListVerdict } from '../judging/work'
import { Repository, type Actor, type Seen } from './actor'
import { first } from './first'
import { Belongings } from './belonging'
import { documentOf } from './kept-document'
import { pageEndOf, pageOf, type PageEnd } from './page'
import { allWords } from './search'

/** A job as lists show it. */
export interface JobRow {
  readonly id: string
  readonly number: string
  readonly name: string
  readonly customer: string
  readonly craft: string | null
  readonly craftId: string | null
  readonly stage: string
  readonly dueDate: string | null
  /** Null while it is being checked, and where it was too large for that. */
  readonly verdict: Verdict | null
  readonly headline: string
  readonly reason: string
  /** The same of the chosen answer; null if none is chosen. */
  readonly specifiedVerdict: Verdict | null
  readonly specifiedHeadline: string | null
  readonly updatedAt: string
  readonly updatedBy: string
}

/** Days that a deleted job is kept. */
export const keptDays = 30
/** Jobs a page of the list holds. */
export const jobsAPage = 100
/** Jobs of a list, and what to ask for the next of them; null at its end. */
export interface JobPage {
  readonly jobs: readonly JobRow[]
  readonly next: string | null
}

/** A job that a device should keep, and the version to keep. */
export interface RecentJob extends JobRow {
  readonly version: number
  readonly epoch: string
}
/** Days after its last change that a job is kept on devices. */
export const recentDays = 14
/** Jobs that a device keeps at most. */
const mostRecent = 300

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

/** What an order says of itself, next to its document. A program that sends each save once needs no id. */
export type Sending = Seen & Partial<Pick<SaveOrder, 'change' | 'unsure'>>

export interface HistoryEntry {
  readonly version: number
  readonly at: string
  readonly who: string
  /** Null if they were too many to keep. */
  readonly changes: readonly Change[] | null
}

/** What a list of jobs can be sorted by; the first is the usual. */
export const jobSorts = ['changed', 'due', 'number', 'name', 'customer'] as const
export type JobSort = (typeof jobSorts)[number]

export interface JobSearch {
  /** All must occur; empty finds all. */
  readonly words?: string
  readonly sort?: JobSort
  readonly stage?: string
  readonly verdict?: string
  /** Goes on behind this job: `next` of the page before. */
  readonly after?: string
  /** Those that were deleted, in place of those that were not. */
  readonly deleted?: boolean
}

/** How a list is sorted: by a column, and what a page goes on behind in it. Jobs without a due date come last. */
function orderOf(sql: Sql, sort: JobSort) {
  if (sort === 'changed')
    return {
      column: sql`updated_at`,
      key: sql`to_char(updated_at at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')`,
      type: sql`timestamptz`,
      direction: sql`desc`,
      behind: sql`<`,
    }
  const column = {
    due: sql`coalesce(due_date - date '2000-01-01', 2147483647)`,
    number: sql`number`,
    name: sql`lower(job.name)`,
    customer: sql`lower(customer)`,
  }[sort]
  const type = sort === 'due' ? sql`integer` : sql`text`
  return { column, key: sql`${column}::text`, type, direction: sql`asc`, behind: sql`>` }
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

/** Number taken by another job: a save that would give it twice. */
export class NumberTaken extends Error {
  constructor(readonly number: string) {
    super(`Another job has the number ${number}`)
  }
}

/** What is done where the number of a job is taken. */
const orTaken = <T>(work: Promise<T>, { job: { number } }: JobDocument): Promise<T> =>
  work.catch((cause: unknown) => {
    if ((cause as { constraint_name?: string }).constraint_name === 'job_number')
      throw new NumberTaken(number)
    throw cause
  })

/** Most numbers that were given by hand ahead of the counter and are passed over at once. */
const mostPassedOver = 10_000

/** A history entry of more than this is kept without its changes, bytes. */
const largestEntryBytes = 256 * 1024
/** What the entries of a page of history come to at most, bytes. */
const historyPageBytes = 1024 * 1024
/** Changes of one value by one person within this are one entry: a burst of typing. */
const burst = '30 seconds'

export class Jobs extends Repository {
  constructor(
    sql: Sql,
    actor: Actor,
    /** Told that a job is to be checked. */
    private readonly changed: () => void,
  ) {
    super(sql, actor)
  }

  private rowColumns(sql: Sql) {
    const judged = isJudged(sql)
    return sql`
        job_id as id, number, job.name, customer, craft, craft_id as "craftId", stage, due_date as "dueDate",
        case when ${judged} then verdict end as verdict,
        case when ${judged} then headline else 'Being checked' end as headline,
        case when ${judged} then reason else '' end as reason,
        case when ${judged} then specified_verdict end as "specifiedVerdict",
        case when ${judged} then specified_headline end as "specifiedHeadline",
        updated_at as "updatedAt", updated_by as "updatedBy"`
  }

  private savedColumns(sql: Sql) {
    return sql`job_id as id, version, craft_id as "craftId", ${this.actor.epoch} as epoch, updated_at as "updatedAt", updated_by as "updatedBy"`
  }

  private storedColumns(sql: Sql) {
    return sql`${this.savedColumns(sql)}, document`
  }

  /** Jobs, last changed first unless asked otherwise, a page at a time. */
  async list(search: JobSearch = {}): Promise<JobPage> {
    const { words = '', stage, verdict, after, deleted = false, sort = 'changed' } = search
    const { sql, actor } = this
    const judged = isJudged(sql)
    const order = orderOf(sql, sort)
    const end = pageEndOf(after)
    const found = await sql<(JobRow & PageEnd)[]>`
      select ${this.rowColumns(sql)}, ${order.key} as key
      from job join workshop using (workshop_id)
      where workshop_id = ${actor.workshop} and deleted_at is ${deleted ? sql`not null` : sql`null`}
        ${allWords(sql, words)}
        ${stage ? sql`and stage = ${stage}` : sql``}
        ${verdict ? sql`and verdict = ${verdict} and ${judged}` : sql``}
        ${
          end
            ? sql`and (${order.column}, job_id) ${order.behind} (${end.key}::text::${order.type}, ${end.id}::uuid)`
            : sql``
        }
      order by ${order.column} ${order.direction}, job_id ${order.direction}
      limit ${jobsAPage + 1}`
    const { rows, next } = pageOf(found, jobsAPage)
    return { jobs: rows, next }
  }

  /**
   * Jobs that a device should keep for work without signal: those that changed in the last {@link recentDays} days,
   * newest first, and those it asks for.
   */
  recent(also: readonly string[] = []): Promise<RecentJob[]> {
    const { sql, actor } = this
    return sql<RecentJob[]>`
      select ${this.rowColumns(sql)}, job.version, epoch
      from job join workshop using (workshop_id)
      where workshop_id = ${actor.workshop} and deleted_at is null
        and (updated_at > now() - make_interval(days => ${recentDays})
          or job_id in ${also.length > 0 ? sql(also) : sql`(null)`})
      order by updated_at desc, job_id limit ${mostRecent}`
  }

  /** Jobs of a craft, newest first. */
  ofCraft(craft: string): Promise<JobRow[]> {
    const { sql, actor } = this
    return sql<JobRow[]>`
      select ${this.rowColumns(sql)} from job join workshop using (workshop_id)
      where workshop_id = ${actor.workshop} and craft_id = ${craft} and deleted_at is null
      order by job.created_at desc, job_id limit 200`
  }

  /** The id of the newest job of a craft; null if it has none. */
  async newestOf(craft: string): Promise<string | null> {
    const [row] = await this.sql<{ id: string }[]>`
      select job_id as id from job
      where workshop_id = ${this.actor.workshop} and craft_id = ${craft} and deleted_at is null
      order by created_at desc, job_id limit 1`
    return row?.id ?? null
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
          ? await this.nextNumber(tx)
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
      this.insert(tx, documentOf(await this.nextNumber(tx)), craft ? { craft } : {}),
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
    await this.countUpTo(tx, document.job.number)
    return job
  }

  /** The workshop counts on from a number that was given by hand. */
  private async countUpTo(tx: Sql, number: string): Promise<void> {
    if (!/^\d{1,8}$/.test(number)) return
    await tx`
      update workshop set last_number = ${Number(number)}
      where workshop_id = ${this.actor.workshop} and last_number < ${Number(number)}`
  }

  /** The next number of the workshop that no job has, four digits at least. */
  private async nextNumber(tx: Sql): Promise<string> {
    const { workshop } = this.actor
    for (let tries = 0; tries < mostPassedOver; tries++) {
      const [row] = await tx<{ number: number }[]>`
        update workshop set last_number = last_number + 1 where workshop_id = ${workshop} returning last_number as number`
      const number = String(row!.number).padStart(4, '0')
      const [taken] = await tx`select 1 from job where workshop_id = ${workshop} and number = ${number}`
      if (!taken) return number
    }
    throw new Error('There is no free number')
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
    if (changes.some(({ path }) => path === 'job/number')) await this.countUpTo(tx, document.job.number)
    await this.carriedOut(tx, id, version, sending.change)
    await this.note(tx, id, version, changes)
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

  /** What becomes of an order on a job as it stands. */
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

  /** Appends to the history of a job; a burst of typing in one value is one entry. */
  private async note(tx: Sql, id: string, version: number, changes: readonly Change[]): Promise<void> {
    const { workshop, person } = this.actor
    const kept = JSON.stringify(changes).length <= largestEntryBytes ? tx.json(changes as never) : null
    const [change] = changes
    if (changes.length === 1 && change) {
      const joined = await tx`
        update job_history set version = ${version}, at = now(),
          changes = jsonb_set(changes, '{0,after}', ${tx.json((change.after ?? null) as never)})
        where workshop_id = ${workshop} and job_id = ${id} and version = ${version - 1} and who = ${person}
          and at > now() - ${burst}::interval and jsonb_array_length(changes) = 1
          and changes->0->>'path' = ${change.path} and changes->0 ? 'after' and ${change.after !== undefined}
        returning version`
      if (joined.length > 0) return
    }
    const entry = { workshop_id: workshop, job_id: id, version, who: person, changes: kept }
    await tx`insert into job_history ${tx(entry)}`
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

  /**
   * Changes of a job, newest first, under the names that values have now: as many as one answer should hold.
   * Where the changes of an entry were too many to keep, they are null.
   * @param before entries older than this version only
   */
  async history(id: string, before = Infinity): Promise<HistoryEntry[]> {
    const rows = await this.sql<HistoryEntry[]>`
      select version, at, who, changes from (
        select version, at, who, changes, sum(length(changes::text)) over (order by version desc) as bytes
        from (
          select * from job_history
          where workshop_id = ${this.actor.workshop} and job_id = ${id}
            and version < ${Number.isFinite(before) ? before : 2_147_483_647}
          order by version desc limit 100) as newest) as counted
      where bytes <= ${historyPageBytes} or bytes is null
      order by version desc`
    return rows.map((entry) => ({ ...entry, changes: entry.changes?.map(changeUpToDate) ?? null }))
  }
}
