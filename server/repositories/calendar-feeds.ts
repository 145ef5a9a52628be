import type { Sql } from 'postgres'
import { hashOfToken, newToken } from '../people/secrets'
import { Repository, type Actor } from './actor'
import { Tries } from './tries'

/** The address at which calendars read the reminders, as the shop sees it. */
interface CalendarFeedRow {
  readonly createdAt: string
  readonly createdBy: string
  readonly readAt: string | null
}

export class CalendarFeeds extends Repository {
  /** The address in force; null if there is none. */
  async current(): Promise<CalendarFeedRow | null> {
    const [row] = await this.sql<CalendarFeedRow[]>`
      select created_at as "createdAt", created_by as "createdBy", read_at as "readAt" from calendar_feed
      where workshop_id = ${this.actor.workshop}`
    return row ?? null
  }

  /** Makes an address, which ends the one before. Its secret is returned once. */
  async make(): Promise<{ readonly token: string }> {
    const token = newToken()
    const { workshop, person } = this.actor
    await this.together(async (sql) => {
      await sql`delete from calendar_feed where workshop_id = ${workshop}`
      await sql`
        insert into calendar_feed (token_hash, workshop_id, created_by)
        values (${hashOfToken(token)}, ${workshop}, ${person})`
    })
    return { token }
  }

  /** Ends the address. False if there is none. */
  async revoke(): Promise<boolean> {
    const ended = await this.sql`
      delete from calendar_feed where workshop_id = ${this.actor.workshop} returning 1`
    return ended.length > 0
  }
}

/** Wrong addresses from one place before it waits. */
const mostForAddress = 20

/** The door for calendars: an address leads to the reminders of one workshop, and to nothing else. */
export class CalendarDoor {
  constructor(private readonly sql: Sql) {}

  /** Who reads with an address: null if it is of no workshop; minutes to wait after too many wrong ones. */
  async enter(token: string, address: string): Promise<Actor | { readonly minutes: number } | null> {
    const tries = new Tries(this.sql)
    const limits = [{ key: `calendar ${address}`, most: mostForAddress }]
    const minutes = await tries.minutesToWait(limits)
    if (minutes > 0) return { minutes }
    const [found] = await this.sql<{ workshop: string; epoch: string }[]>`
      update calendar_feed set read_at = now() from workshop
      where token_hash = ${hashOfToken(token)} and workshop.workshop_id = calendar_feed.workshop_id
      returning workshop.workshop_id as workshop, epoch`
    if (!found) {
      await tries.note(limits)
      return null
    }
    return { workshop: found.workshop, person: 'calendar', role: 'apprentice', epoch: found.epoch }
  }
}
