import type { Sql } from 'postgres'
import { nextDue, type DueReminder, type ReminderKind } from '#core/reminders/reminders'
import { Repository } from './actor'

/** A reminder with the craft it is about. */
export interface ReminderRow {
  readonly id: string
  readonly craft: string
  readonly craftName: string
  readonly customer: string
  readonly kind: ReminderKind
  readonly due: string
  readonly words: string
  readonly doneAt: string | null
  readonly doneBy: string | null
}

const mostListed = 1000

const columns = (sql: Sql) => sql`
  reminder_id as id, reminder.craft_id as craft, craft.name as "craftName", coalesce(customer.name, '') as customer,
  reminder.kind, to_char(due, 'YYYY-MM-DD') as due, words, done_at as "doneAt", done_by as "doneBy"`
const tables = (sql: Sql) => sql`
  reminder join craft on (craft.workshop_id, craft.craft_id) = (reminder.workshop_id, reminder.craft_id)
  left join customer on (customer.workshop_id, customer.customer_id) = (craft.workshop_id, craft.customer_id)`

/** Work due on craft, with its date. */
export class Reminders extends Repository {
  /** Reminders that are not done, by their day. @param before only those due before this day */
  open(before?: string): Promise<ReminderRow[]> {
    const { sql, actor } = this
    return sql<ReminderRow[]>`
      select ${columns(sql)} from ${tables(sql)}
      where reminder.workshop_id = ${actor.workshop} and done_at is null
        ${before ? sql`and due < ${before}` : sql``}
      order by due, reminder_id limit ${mostListed}`
  }

  /** All reminders of a craft: those to be done by their day, then those done, the last one first. */
  of(craft: string): Promise<ReminderRow[]> {
    const { sql, actor } = this
    return sql<ReminderRow[]>`
      select ${columns(sql)} from ${tables(sql)}
      where reminder.workshop_id = ${actor.workshop} and reminder.craft_id = ${craft}
      order by (done_at is not null), case when done_at is null then due end, done_at desc limit ${mostListed}`
  }

  /** Adds a reminder that a person made. Null if there is no such craft. */
  async add(craft: string, due: string, words: string): Promise<ReminderRow | null> {
    const { sql, actor } = this
    const [made] = await sql<{ id: string }[]>`
      insert into reminder (workshop_id, craft_id, kind, due, words, created_by)
      select workshop_id, craft_id, 'hand', ${due}::date, ${words}, ${actor.person} from craft
      where workshop_id = ${actor.workshop} and craft_id = ${craft} returning reminder_id as id`
    return made ? this.read(sql, made.id) : null
  }

  /** Adds reminders that work made, those that are not there yet. */
  async addDue(tx: Sql, craft: string, reminders: readonly DueReminder[]): Promise<void> {
    if (reminders.length === 0) return
    const rows = reminders.map((reminder) => ({
      workshop_id: this.actor.workshop,
      craft_id: craft,
      created_by: this.actor.person,
      ...reminder,
    }))
    await tx`insert into reminder ${tx(rows)} on conflict do nothing`
  }

  /** Marks a reminder as done, and makes the next one where it comes again. Null if it is not there. */
  done(id: string, today: string): Promise<ReminderRow | null> {
    return this.together(async (tx) => {
      const [done] = await tx<{ craft: string; kind: ReminderKind; due: string; words: string }[]>`
        update reminder set done_at = now(), done_by = ${this.actor.person}
        where workshop_id = ${this.actor.workshop} and reminder_id = ${id} and done_at is null
        returning craft_id as craft, kind, to_char(due, 'YYYY-MM-DD') as due, words`
      const next = done && nextDue(done.kind, done.due, today)
      if (next)
        await this.addDue(tx, done.craft, [{ kind: done.kind, source: id, due: next, words: done.words }])
      return this.read(tx, id)
    })
  }

  /** Takes “done” back, and the next one that it made. Null if it is not there. */
  reopen(id: string): Promise<ReminderRow | null> {
    return this.together(async (tx) => {
      await tx`
        update reminder set done_at = null, done_by = null
        where workshop_id = ${this.actor.workshop} and reminder_id = ${id}`
      await tx`
        delete from reminder
        where workshop_id = ${this.actor.workshop} and source = ${id} and kind <> 'warranty' and done_at is null`
      return this.read(tx, id)
    })
  }

  /** Moves a reminder to another day. Null if it is not there, or done. */
  async move(id: string, due: string): Promise<ReminderRow | null> {
    const moved = await this.sql`
      update reminder set due = ${due}
      where workshop_id = ${this.actor.workshop} and reminder_id = ${id} and done_at is null returning 1`
    return moved.length > 0 ? this.read(this.sql, id) : null
  }

  private async read(sql: Sql, id: string): Promise<ReminderRow | null> {
    const [row] = await sql<ReminderRow[]>`
      select ${columns(sql)} from ${tables(sql)}
      where reminder.workshop_id = ${this.actor.workshop} and reminder_id = ${id}`
    return row ?? null
  }
}
