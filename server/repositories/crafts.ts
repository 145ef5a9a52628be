import type { Sql } from 'postgres'
import type { CraftIdentity } from '#core/craft/craft'
import type { CraftKind } from '#core/job/document'
import { Repository } from './actor'
import { craftSearch } from './belonging'
import { first } from './first'
import { pageEndOf, pageOf, type PageEnd } from './page'
import { allWords } from './search'

/** A craft as lists show it. */
export interface CraftRow {
  readonly id: string
  readonly version: number
  readonly name: string
  readonly kind: CraftKind | null
  readonly registration: string
  readonly location: string
  readonly notes: string
  readonly type: string
  readonly customerId: string | null
  readonly customer: string
  readonly contact: string
  readonly jobs: number
  /** When a job of it was changed or its logbook was written last. */
  readonly lastAt: string
}

/** A craft that shares its type with another of the same customer. */
export interface FleetRow {
  readonly id: string
  readonly name: string
  readonly registration: string
}

/** A person's entries about a craft. */
export type CraftEntry = Pick<CraftIdentity, 'name' | 'kind' | 'registration' | 'location'> & {
  readonly notes: string
  readonly type: string
  readonly customerId: string | null
}

const craftsAPage = 100

export interface CraftPage {
  readonly crafts: readonly CraftRow[]
  readonly next: string | null
}

interface CraftSearch {
  readonly words?: string
  readonly customer?: string
  /** Goes on behind this craft: `next` of the page before. */
  readonly after?: string
}

export type SavedCraft =
  | { readonly kind: 'saved'; readonly craft: CraftRow }
  | { readonly kind: 'stale'; readonly craft: CraftRow }
  | { readonly kind: 'gone' | 'no-customer' }

/** Vessels, vehicles, trailers and cabins that the shop looks after. */
export class Crafts extends Repository {
  private columns(sql: Sql) {
    return sql`
      craft_id as id, craft.version, craft.name, craft.kind, craft.registration, craft.location, craft.notes, craft.type,
      craft.customer_id as "customerId", coalesce(customer.name, '') as customer,
      coalesce(customer.contact, '') as contact,
      (select count(*)::int from job
        where (job.workshop_id, job.craft_id) = (craft.workshop_id, craft.craft_id) and deleted_at is null) as jobs,
      greatest(craft.updated_at,
        (select max(updated_at) from job where (job.workshop_id, job.craft_id) = (craft.workshop_id, craft.craft_id))
      ) as "lastAt"`
  }

  private tables(sql: Sql) {
    return sql`
      from craft left join customer using (workshop_id, customer_id)
      where craft.workshop_id = ${this.actor.workshop}`
  }

  /** Craft by name, a page at a time. All words must occur in name, registration, place or customer. */
  async list({ words = '', customer, after }: CraftSearch = {}): Promise<CraftPage> {
    const { sql } = this
    const end = pageEndOf(after)
    const found = await sql<(CraftRow & PageEnd)[]>`
      select ${this.columns(sql)}, lower(craft.name) as key ${this.tables(sql)}
        ${allWords(sql, words, sql`concat_ws(' ', craft.search, customer.search)`)}
        ${customer ? sql`and craft.customer_id = ${customer}` : sql``}
        ${end ? sql`and (lower(craft.name), craft_id) > (${end.key}, ${end.id}::uuid)` : sql``}
      order by lower(craft.name), craft_id limit ${craftsAPage + 1}`
    const { rows, next } = pageOf(found, craftsAPage)
    return { crafts: rows, next }
  }

  async read(id: string): Promise<CraftRow | null> {
    const { sql } = this
    const [row] = await sql<CraftRow[]>`select ${this.columns(sql)} ${this.tables(sql)} and craft_id = ${id}`
    return row ?? null
  }

  async create(entry: CraftEntry): Promise<SavedCraft> {
    if (!(await this.isCustomer(entry.customerId))) return { kind: 'no-customer' }
    const row = { workshop_id: this.actor.workshop, ...this.entered(entry) }
    const made = await this.sql<{ id: string }[]>`
      insert into craft ${this.sql(row)} returning craft_id as id`
    const craft = await this.read(first(made).id)
    return craft ? { kind: 'saved', craft } : { kind: 'gone' }
  }

  /** Saves a person's entries about a craft, unless someone saved it since they read it. */
  async update(id: string, version: number, entry: CraftEntry): Promise<SavedCraft> {
    if (!(await this.isCustomer(entry.customerId))) return { kind: 'no-customer' }
    const saved = await this.sql`
      update craft set ${this.sql(this.entered(entry))}, version = version + 1, updated_at = now()
      where workshop_id = ${this.actor.workshop} and craft_id = ${id} and version = ${version} returning 1`
    const craft = await this.read(id)
    if (!craft) return { kind: 'gone' }
    return { kind: saved.length > 0 ? 'saved' : 'stale', craft }
  }

  private entered({ name, kind, registration, location, notes, type, customerId }: CraftEntry) {
    return {
      name,
      kind,
      registration,
      location,
      notes,
      type,
      customer_id: customerId,
      search: craftSearch({ name, registration, location }),
      updated_by: this.actor.person,
    }
  }

  private async isCustomer(id: string | null): Promise<boolean> {
    if (id === null) return true
    const found = await this.sql`
      select 1 from customer where workshop_id = ${this.actor.workshop} and customer_id = ${id} and erased_at is null`
    return found.length > 0
  }

  /** Other craft of the same customer and type. */
  fleet({ id, customerId, type }: Pick<CraftRow, 'id' | 'customerId' | 'type'>): Promise<FleetRow[]> {
    if (!customerId || type === '') return Promise.resolve([])
    return this.sql<FleetRow[]>`
      select craft_id as id, name, registration from craft
      where workshop_id = ${this.actor.workshop} and customer_id = ${customerId} and craft_id <> ${id}
        and lower(type) = ${type.toLowerCase()}
      order by lower(name), craft_id limit 200`
  }

  /** Moves a job to another craft. A craft that is left with nothing goes. False if there is no such job or craft. */
  moveJob(job: string, craft: string): Promise<boolean> {
    const { workshop } = this.actor
    return this.together(async (tx) => {
      const [before] = await tx<{ craft: string | null }[]>`
        select craft_id as craft from job
        where workshop_id = ${workshop} and job_id = ${job} and deleted_at is null for update`
      const [there] = await tx`select 1 from craft where workshop_id = ${workshop} and craft_id = ${craft}`
      if (!before || !there) return false
      await tx`update job set craft_id = ${craft} where workshop_id = ${workshop} and job_id = ${job}`
      await tx`
        delete from craft c where workshop_id = ${workshop} and craft_id = ${before.craft} and notes = ''
          and not exists (select 1 from job where (job.workshop_id, job.craft_id) = (c.workshop_id, c.craft_id))
          and not exists (select 1 from log_entry e where (e.workshop_id, e.craft_id) = (c.workshop_id, c.craft_id))
          and not exists (select 1 from reminder r where (r.workshop_id, r.craft_id) = (c.workshop_id, c.craft_id))`
      return true
    })
  }
}
