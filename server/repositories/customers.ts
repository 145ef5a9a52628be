import type { Sql } from 'postgres'
import type { PaperKind } from '#core/papers/kinds'
import { Repository } from './actor'
import { customerSearch } from './belonging'
import { first } from './first'
import { pageEndOf, pageOf, type PageEnd } from './page'
import { allWords } from './search'

/** A customer as lists show it. */
export interface CustomerRow {
  readonly id: string
  readonly name: string
  readonly contact: string
  readonly notes: string
  readonly crafts: number
  readonly jobs: number
  readonly erasedAt: string | null
}

export interface CustomerPage {
  readonly customers: readonly CustomerRow[]
  readonly next: string | null
}

export type CustomerEntry = Pick<CustomerRow, 'name' | 'contact' | 'notes'>

/** A paper that was issued for a job of a customer. */
export interface CustomerPaper {
  readonly job: string
  readonly count: number
  readonly number: string
  readonly kind: PaperKind
  readonly name: string
  readonly issuedAt: string
}

const customersAPage = 100

/** The customers of the shop. */
export class Customers extends Repository {
  private columns(sql: Sql) {
    return sql`
      customer_id as id, name, contact, notes, erased_at as "erasedAt",
      (select count(*)::int from craft
        where (craft.workshop_id, craft.customer_id) = (customer.workshop_id, customer.customer_id)) as crafts,
      (select count(*)::int from job
        where (job.workshop_id, job.customer_id) = (customer.workshop_id, customer.customer_id)
          and deleted_at is null) as jobs`
  }

  /** Customers by name, a page at a time, without those that were erased. */
  async list({
    words = '',
    after,
  }: { readonly words?: string; readonly after?: string } = {}): Promise<CustomerPage> {
    const { sql, actor } = this
    const end = pageEndOf(after)
    const found = await sql<(CustomerRow & PageEnd)[]>`
      select ${this.columns(sql)}, lower(name) as key from customer
      where workshop_id = ${actor.workshop} and erased_at is null ${allWords(sql, words)}
        ${end ? sql`and (lower(name), customer_id) > (${end.key}, ${end.id}::uuid)` : sql``}
      order by lower(name), customer_id limit ${customersAPage + 1}`
    const { rows, next } = pageOf(found, customersAPage)
    return { customers: rows, next }
  }

  async read(id: string): Promise<CustomerRow | null> {
    const { sql, actor } = this
    const [row] = await sql<CustomerRow[]>`
      select ${this.columns(sql)} from customer where workshop_id = ${actor.workshop} and customer_id = ${id}`
    return row ?? null
  }

  async create({ name, contact, notes }: CustomerEntry): Promise<CustomerRow> {
    const { workshop, person } = this.actor
    const row = {
      workshop_id: workshop,
      name,
      contact,
      notes,
      search: customerSearch(name, contact),
      updated_by: person,
    }
    const made = await this.sql<
      { id: string }[]
    >`insert into customer ${this.sql(row)} returning customer_id as id`
    const { id } = first(made)
    return { id, name, contact, notes, crafts: 0, jobs: 0, erasedAt: null }
  }

  /** Saves a customer; null if there is none, or it was erased. */
  async update(id: string, { name, contact, notes }: CustomerEntry): Promise<CustomerRow | null> {
    const { workshop, person } = this.actor
    const values = { name, contact, notes, search: customerSearch(name, contact), updated_by: person }
    const saved = await this.sql`
      update customer set ${this.sql(values)}, updated_at = now()
      where workshop_id = ${workshop} and customer_id = ${id} and erased_at is null returning 1`
    return saved.length > 0 ? this.read(id) : null
  }

  /** Papers of all jobs of a customer, newest first. */
  papers(id: string): Promise<CustomerPaper[]> {
    return this.sql<CustomerPaper[]>`
      select job_id as job, count, sheet.number, kind, sheet.name, issued_at as "issuedAt"
      from sheet join job using (workshop_id, job_id)
      where workshop_id = ${this.actor.workshop} and customer_id = ${id} and deleted_at is null
      order by issued_at desc limit 200`
  }
}
