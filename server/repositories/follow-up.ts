import type { Sql } from 'postgres'
import type { EntryBody } from '#core/logbook/entry'
import { entriesOfRecord } from '#core/logbook/from-record'
import type { FittingRecord } from '#core/papers/record'
import { dayOfMoment } from '#core/reminders/day'
import { reminderOfWarranty, remindersOfRecord } from '#core/reminders/reminders'
import { Repository, type Actor } from './actor'
import type { Logbooks } from './logbooks'
import type { Reminders } from './reminders'

/** Results of work for its craft: entries in the logbook, and reminders. */
export class FollowUp extends Repository {
  constructor(
    sql: Sql,
    actor: Actor,
    private readonly to: { readonly logbooks: Logbooks; readonly reminders: Reminders },
  ) {
    super(sql, actor)
  }

  /** Adds entries to the logbook of a craft; a part with a warranty gets its reminder. Gives how many were added. */
  addEntries(craft: string, entries: readonly EntryBody[], job: string | null = null): Promise<number> {
    return this.together(async (tx) => {
      const added = await this.to.logbooks.addIn(tx, craft, entries, job)
      const due = entries.flatMap(({ kind, subject, warrantyEnd }) =>
        kind === 'replaced' && warrantyEnd
          ? [reminderOfWarranty(subject, `${subject} ${warrantyEnd}`, warrantyEnd)]
          : [],
      )
      await this.to.reminders.addDue(tx, craft, due)
      return added.length
    })
  }

  /** Takes over a record in the transaction that issues it. */
  async ofRecord(tx: Sql, job: string, record: FittingRecord): Promise<void> {
    const [belongs] = await tx<{ craft: string | null }[]>`
      select craft_id as craft from job where workshop_id = ${this.actor.workshop} and job_id = ${job}`
    if (!belongs?.craft) return
    const { job: document, number, issuedAt } = record.inputs
    await this.to.logbooks.addIn(tx, belongs.craft, entriesOfRecord(record), job)
    const due = remindersOfRecord(document, number, dayOfMoment(new Date(issuedAt)))
    await this.to.reminders.addDue(tx, belongs.craft, due)
  }
}
