import type { Sql } from 'postgres'
import { blanked, blanksOf, erasedName } from '#core/craft/blank'
import type { LogEntry } from '#core/logbook/entry'
import type { JobDocument } from '#core/job/document'
import { Repository, type Actor } from './actor'
import { craftSearch } from './belonging'
import type { Crafts, CraftRow } from './crafts'
import type { CustomerRow, Customers } from './customers'
import type { Logbooks } from './logbooks'
import type { ReminderRow, Reminders } from './reminders'
import { digestOf } from './sheets'

/** Everything that the shop keeps of one customer. */
interface CustomerData {
  readonly format: 'jovial-anchor/customer'
  readonly version: 1
  readonly customer: CustomerRow
  readonly crafts: readonly (CraftRow & {
    readonly logbook: readonly LogEntry[]
    readonly reminders: readonly ReminderRow[]
  })[]
  readonly jobs: readonly { readonly id: string; readonly document: unknown }[]
  readonly papers: readonly {
    readonly number: string
    readonly issuedAt: string
    readonly content: unknown
  }[]
  readonly messages: readonly { readonly name: string; readonly words: string; readonly at: string }[]
  readonly answers: readonly { readonly answer: string; readonly name: string; readonly note: string }[]
}

interface OwnJob {
  readonly id: string
  readonly document: JobDocument
}
interface OwnSheet {
  readonly job: string
  readonly count: number
  readonly name: string
  readonly content: string
}

/** The data of a customer: taken out as a whole, or erased. */
export class CustomerDataStore extends Repository {
  constructor(
    sql: Sql,
    actor: Actor,
    private readonly of: {
      readonly customers: Customers
      readonly crafts: Crafts
      readonly logbooks: Logbooks
      readonly reminders: Reminders
    },
  ) {
    super(sql, actor)
  }

  /** Everything of a customer; null if there is none. Photos are left out: the archive of the shop has them. */
  async all(id: string): Promise<CustomerData | null> {
    const { sql } = this
    const { workshop } = this.actor
    const customer = await this.of.customers.read(id)
    if (!customer) return null
    const own = sql`(workshop_id, job_id) in (
      select workshop_id, job_id from job where workshop_id = ${workshop} and customer_id = ${id})`
    const { crafts } = await this.of.crafts.list({ customer: id })
    const [jobs, papers, messages, answers] = await Promise.all([
      sql<{ id: string; document: unknown }[]>`
        select job_id as id, document from job where ${own} order by created_at`,
      sql<{ number: string; issuedAt: string; content: string }[]>`
        select number, issued_at as "issuedAt", content from sheet where ${own} order by issued_at`,
      sql<{ name: string; words: string; at: string }[]>`
        select name, words, at from customer_message where ${own} order by at`,
      sql<{ answer: string; name: string; note: string }[]>`
        select answer, name, note from quotation_answer where ${own} order by at`,
    ])
    const withLogs = await Promise.all(
      crafts.map(async (craft) => ({
        ...craft,
        logbook: await this.of.logbooks.list(craft.id),
        reminders: await this.of.reminders.of(craft.id),
      })),
    )
    return {
      format: 'jovial-anchor/customer',
      version: 1,
      customer,
      crafts: withLogs,
      jobs,
      papers: papers.map(({ content, ...paper }) => ({ ...paper, content: JSON.parse(content) as unknown })),
      messages,
      answers,
    }
  }

  /**
   * Erases a customer: name and contact are blanked everywhere, registrations and messages go. Papers stay, with the
   * name blanked and a new digest. False if there is no such customer, or it is erased already.
   */
  erase(id: string): Promise<boolean> {
    const { workshop, person } = this.actor
    return this.together(async (tx) => {
      const [customer] = await tx<{ name: string; contact: string }[]>`
        select name, contact from customer
        where workshop_id = ${workshop} and customer_id = ${id} and erased_at is null for update`
      if (!customer) return false
      const jobs = await tx<OwnJob[]>`
        select job_id as id, document from job where workshop_id = ${workshop} and customer_id = ${id} for update`
      const said = jobs.flatMap(({ document: { job } }) => [job.contact ?? '', job.registration ?? ''])
      const blank = blanksOf(customer.name, [...new Set([customer.contact, ...said])])
      for (const job of jobs) await this.eraseJob(tx, job, blank)
      await this.eraseCraft(tx, id, blank)
      const row = { name: erasedName, contact: '', notes: '', search: '', updated_by: person }
      await tx`
        update customer set ${tx(row)}, updated_at = now(), erased_at = now()
        where workshop_id = ${workshop} and customer_id = ${id}`
      return true
    })
  }

  private async eraseJob(tx: Sql, { id, document }: OwnJob, blank: (text: string) => string): Promise<void> {
    const { workshop, person } = this.actor
    const {
      wishes: _wishes,
      registration: _registration,
      contact: _contact,
      ...head
    } = blanked(document.job, blank)
    const next = { ...blanked(document, blank), job: { ...head, customer: erasedName } }
    const search = [head.number, head.name, head.location ?? ''].join(' ').toLowerCase()
    await tx`
      update job set document = ${tx.json(next as never)}, customer = ${erasedName}, search = ${search},
        version = version + 1, updated_by = ${person}, updated_at = now()
      where workshop_id = ${workshop} and job_id = ${id}`
    // Older changes name the customer letter by letter.
    await tx`update job_history set changes = null where workshop_id = ${workshop} and job_id = ${id}`
    const sheets = await tx<OwnSheet[]>`
      select job_id as job, count, name, content from sheet where workshop_id = ${workshop} and job_id = ${id}`
    for (const { job, count, name, content } of sheets) {
      const words = JSON.stringify(blanked(JSON.parse(content) as unknown, blank))
      await tx`select erase_paper(${workshop}, ${job}, ${count}, ${blank(name)}, ${words}, ${digestOf(words)})`
    }
    await tx`select erase_messages(${workshop}, ${id})`
  }

  private async eraseCraft(tx: Sql, id: string, blank: (text: string) => string): Promise<void> {
    const { workshop } = this.actor
    const crafts = await tx<{ craft: string; name: string; location: string; notes: string }[]>`
      select craft_id as craft, name, location, notes from craft
      where workshop_id = ${workshop} and customer_id = ${id} for update`
    for (const { craft, name, location, notes } of crafts) {
      const row = { name: blank(name), location: blank(location), notes: blank(notes), registration: '' }
      await tx`
        update craft set ${tx({ ...row, search: craftSearch(row) })}, checks = null, version = version + 1
        where workshop_id = ${workshop} and craft_id = ${craft}`
      const entries = await tx<{ id: string; words: string }[]>`
        select entry_id as id, words from log_entry
        where workshop_id = ${workshop} and craft_id = ${craft} and words <> ''`
      for (const entry of entries) {
        const words = blank(entry.words)
        if (words !== entry.words) await tx`select erase_entry(${workshop}, ${entry.id}, ${words})`
      }
      const reminders = await tx<{ id: string; words: string }[]>`
        select reminder_id as id, words from reminder where workshop_id = ${workshop} and craft_id = ${craft}`
      for (const reminder of reminders)
        await tx`
          update reminder set words = ${blank(reminder.words)}
          where workshop_id = ${workshop} and reminder_id = ${reminder.id}`
    }
  }
}
