import type { Change } from '#core/job/change'
import { changeUpToDate } from '#core/job/migrations/index'
import { Repository } from './actor'

export interface HistoryEntry {
  readonly version: number
  readonly at: string
  readonly who: string
  /** Null if they were too many to keep. */
  readonly changes: readonly Change[] | null
}

/** A history entry of more than this is kept without its changes, bytes. */
const largestEntryBytes = 256 * 1024
/** Size limit of a page of history, bytes. */
const historyPageBytes = 1024 * 1024
/** Changes of one value by one person within this are one entry: a burst of typing. */
const burst = '30 seconds'

/** Changes of each job, with time and person. */
export class JobHistory extends Repository {
  /** Appends to the history of a job; a burst of typing in one value is one entry. */
  async append(id: string, version: number, changes: readonly Change[]): Promise<void> {
    const { sql } = this
    const { workshop, person } = this.actor
    const kept = JSON.stringify(changes).length <= largestEntryBytes ? sql.json(changes as never) : null
    const [change] = changes
    if (changes.length === 1 && change) {
      const joined = await sql`
        update job_history set version = ${version}, at = now(),
          changes = jsonb_set(changes, '{0,after}', ${sql.json((change.after ?? null) as never)})
        where workshop_id = ${workshop} and job_id = ${id} and version = ${version - 1} and who = ${person}
          and at > now() - ${burst}::interval and jsonb_array_length(changes) = 1
          and changes->0->>'path' = ${change.path} and changes->0 ? 'after' and ${change.after !== undefined}
        returning version`
      if (joined.length > 0) return
    }
    const entry = { workshop_id: workshop, job_id: id, version, who: person, changes: kept }
    await sql`insert into job_history ${sql(entry)}`
  }

  /**
   * Changes of a job, newest first, under the names that values have now: as many as one answer should hold.
   * Where the changes of an entry were too many to keep, they are null.
   * @param before entries older than this version only
   */
  async of(id: string, before = Infinity): Promise<HistoryEntry[]> {
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
