import type { Sql } from 'postgres'
import { hashOfToken, newToken } from '../people/secrets'
import { Repository, type Actor } from './actor'
import { Tries } from './tries'

/** The link of a job, as the workshop sees it. */
export interface CustomerLinkRow {
  readonly createdAt: string
  readonly createdBy: string
  readonly endsAt: string
  readonly openings: number
  readonly openedAt: string | null
}

/** Links with which customers see the papers of their job. */
export class CustomerLinks extends Repository {
  /** The link of a job that is in force; null if there is none. */
  async of(job: string): Promise<CustomerLinkRow | null> {
    const [row] = await this.sql<CustomerLinkRow[]>`
      select created_at as "createdAt", created_by as "createdBy", ends_at as "endsAt", openings,
        opened_at as "openedAt"
      from customer_link
      where workshop_id = ${this.actor.workshop} and job_id = ${job} and ends_at > now()`
    return row ?? null
  }

  /** Makes a link, which ends the one before. The secret is returned once. @param days how long it works */
  async make(job: string, days: number): Promise<{ readonly token: string; readonly days: number }> {
    const token = newToken()
    const { workshop, person } = this.actor
    await this.together(async (sql) => {
      await sql`delete from customer_link where workshop_id = ${workshop} and job_id = ${job}`
      await sql`
        insert into customer_link (link_hash, workshop_id, job_id, created_by, ends_at)
        values (${hashOfToken(token)}, ${workshop}, ${job}, ${person}, now() + make_interval(days => ${days}))`
    })
    return { token, days }
  }

  /** Ends the link of a job. False if there is none. */
  async revoke(job: string): Promise<boolean> {
    const ended = await this.sql`
      delete from customer_link where workshop_id = ${this.actor.workshop} and job_id = ${job} returning 1`
    return ended.length > 0
  }
}

/** Wrong links from one address before it waits. */
const mostForAddress = 20

export type Opened =
  | { readonly kind: 'open'; readonly job: string; readonly actor: Actor }
  | { readonly kind: 'unknown' }
  | { readonly kind: 'wait'; readonly minutes: number }

/** The door for customers: a link leads to one job, and to nothing else. */
export class CustomerDoor {
  constructor(private readonly sql: Sql) {}

  /**
   * The job of a link.
   * @param isOpening whether somebody opens the page: that is counted
   */
  async enter(token: string, address: string, isOpening: boolean): Promise<Opened> {
    const tries = new Tries(this.sql)
    const limits = [{ key: `customer ${address}`, most: mostForAddress }]
    const minutes = await tries.minutesToWait(limits)
    if (minutes > 0) return { kind: 'wait', minutes }
    const [found] = await this.sql<{ workshop: string; job: string; epoch: string }[]>`
      select l.workshop_id as workshop, l.job_id as job, w.epoch
      from customer_link l join workshop w using (workshop_id) join job j using (workshop_id, job_id)
      where l.link_hash = ${hashOfToken(token)} and l.ends_at > now() and j.deleted_at is null`
    if (!found) {
      await tries.note(limits)
      return { kind: 'unknown' }
    }
    if (isOpening)
      await this.sql`
        update customer_link set openings = openings + 1, opened_at = now() where link_hash = ${hashOfToken(token)}`
    const { job, workshop, epoch } = found
    return { kind: 'open', job, actor: { workshop, epoch, person: 'Customer page', role: 'apprentice' } }
  }
}
