import type { Sql } from 'postgres'
import type { Verdict } from '#core/system/verdict'
import { isJudged } from '../judging/behind'
import { Repository } from './actor'
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

/** Jobs a page of the list holds. */
export const jobsAPage = 100
/** Jobs of a list, and the query for the next ones; null at the end. */
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
const recentDays = 14
/** Jobs that a device keeps at most. */
const mostRecent = 300

/** Sort orders of a list of jobs; the first is the usual one. */
export const jobSorts = ['changed', 'due', 'number', 'name', 'customer'] as const
export type JobSort = (typeof jobSorts)[number]

interface JobSearch {
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

/**
 * A sort order of a list: its column, and the key after which a page continues. Jobs without a due date come last.
 */
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

/** The jobs of a workshop as lists show them. */
export class JobList extends Repository {
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

  /** Jobs, last changed first unless asked otherwise, a page at a time. */
  async page(search: JobSearch = {}): Promise<JobPage> {
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
}
