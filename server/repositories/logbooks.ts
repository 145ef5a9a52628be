import type { Sql } from 'postgres'
import type { EntryBody, LogEntry } from '#core/logbook/entry'
import { learntTopics, type PredictedReading } from '#core/logbook/learnt'
import { Repository } from './actor'

/** Entries of one craft that are shown at most: 20 years of weekly readings, and more. */
const mostEntries = 20_000
/** Rows of one statement. */
const rowsAtOnce = 1000

const columns = (sql: Sql) => sql`
  entry_id as id, job_id as job, at, added_at as "addedAt", added_by as by, kind, quantity, subject, value, expected,
  tolerance, words, serial, to_char(warranty_end, 'YYYY-MM-DD') as "warrantyEnd", corrects, source`

/** Logbooks of craft: they are only added to. */
export class Logbooks extends Repository {
  /** Entries of a craft, oldest first. */
  async list(craft: string): Promise<LogEntry[]> {
    const rows = await this.sql<(Omit<LogEntry, 'at' | 'addedAt'> & { at: Date; addedAt: Date })[]>`
      select ${columns(this.sql)} from (
        select * from log_entry where workshop_id = ${this.actor.workshop} and craft_id = ${craft}
        order by at desc, place desc limit ${mostEntries}) as newest
      order by at, place`
    return rows.map((row) => ({ ...row, at: row.at.toISOString(), addedAt: row.addedAt.toISOString() }))
  }

  /** Readings of all craft that were predicted, without those that were corrected. */
  predicted(): Promise<PredictedReading[]> {
    return this.sql<PredictedReading[]>`
      select e.quantity, e.craft_id as craft, craft.kind, e.value, e.expected,
        extract(epoch from e.at - min(e.at) over (partition by e.craft_id, e.quantity, lower(e.subject)))::float8
          / 31557600 as "ageYears"
      from log_entry e join craft using (workshop_id, craft_id)
      where e.workshop_id = ${this.actor.workshop} and e.quantity in ${this.sql(learntTopics)}
        and e.expected is not null and e.value is not null
        and not exists (select 1 from log_entry c where (c.workshop_id, c.corrects) = (e.workshop_id, e.entry_id))`
  }

  /**
   * Adds entries to the logbook of a craft, inside a transaction. Gives their ids.
   * @param job in which they were made
   * @throws if an entry corrects one that the craft does not have
   */
  async addIn(
    tx: Sql,
    craft: string,
    entries: readonly EntryBody[],
    job: string | null = null,
  ): Promise<string[]> {
    const { workshop, person } = this.actor
    const corrected = entries.flatMap(({ corrects }) => corrects ?? [])
    if (corrected.length > 0) {
      const known = await tx`
        select entry_id from log_entry
        where workshop_id = ${workshop} and craft_id = ${craft} and entry_id in ${tx(corrected)}`
      if (known.length < new Set(corrected).size) throw new UnknownEntry()
    }
    const rows = entries.map(({ warrantyEnd, ...entry }) => ({
      workshop_id: workshop,
      craft_id: craft,
      job_id: job,
      added_by: person,
      ...entry,
      warranty_end: warrantyEnd,
    }))
    const ids: string[] = []
    for (let from = 0; from < rows.length; from += rowsAtOnce) {
      const added = await tx<{ id: string }[]>`
        insert into log_entry ${tx(rows.slice(from, from + rowsAtOnce))} returning entry_id as id`
      ids.push(...added.map(({ id }) => id))
    }
    await tx`
      update craft set checks = null, updated_at = now() where workshop_id = ${workshop} and craft_id = ${craft}`
    return ids
  }
}

/** A correction of an entry that is not in the logbook. */
export class UnknownEntry extends Error {
  constructor() {
    super('The corrected entry is not in this logbook')
  }
}
