import type { Sql } from 'postgres'
import { identityOfJob, type CraftIdentity } from '#core/craft/craft'
import type { JobDocument } from '#core/job/document'
import type { Actor } from './actor'
import { first } from './first'

/** The craft and the customer of a job. */
interface Belonging {
  readonly craft_id: string
  readonly customer_id: string | null
}

export const customerSearch = (name: string, contact: string): string => `${name} ${contact}`.toLowerCase()
export const craftSearch = ({
  name,
  registration,
  location,
}: Pick<CraftIdentity, 'name' | 'registration' | 'location'>): string =>
  `${name} ${registration} ${location}`.toLowerCase()

/** Keeps jobs with their craft and their customer, inside the transaction that saves the job. */
export class Belongings {
  constructor(
    private readonly sql: Sql,
    private readonly actor: Actor,
  ) {}

  /** Craft and customer of a new job: those that its head names, or new ones. @param craft that it is made for */
  async ofNew(document: JobDocument, craft?: string): Promise<Belonging> {
    const identity = identityOfJob(document.job)
    const customer_id = await this.customerOf(identity)
    const craft_id =
      craft ?? (await this.findCraft(identity, customer_id)) ?? (await this.makeCraft(identity, customer_id))
    return { craft_id, customer_id }
  }

  /** The head of a job has changed: its customer follows, and its craft if no newer job says otherwise. */
  async follow(job: string, before: JobDocument, after: JobDocument): Promise<void> {
    const [was, is] = [identityOfJob(before.job), identityOfJob(after.job)]
    const changed = (Object.keys(is) as (keyof CraftIdentity)[]).filter((key) => is[key] !== was[key])
    if (changed.length === 0) return
    const { sql, actor } = this
    const [there] = await sql<{ craft: string; customer: string | null; newer: boolean }[]>`
      select craft_id as craft, customer_id as customer, exists (
        select 1 from job other
        where (other.workshop_id, other.craft_id) = (job.workshop_id, job.craft_id)
          and other.created_at > job.created_at and other.deleted_at is null) as newer
      from job where workshop_id = ${actor.workshop} and job_id = ${job}`
    if (!there?.craft) return
    const isOwner = changed.includes('customer') || changed.includes('contact')
    const customer = isOwner ? await this.otherCustomer(job, there, is) : there.customer
    if (!there.newer) await this.updateCraft(there.craft, is, changed, customer)
    if (there.customer && customer !== there.customer) await this.dropUnused(there.customer)
  }

  private async updateCraft(
    craft: string,
    is: CraftIdentity,
    changed: readonly (keyof CraftIdentity)[],
    customer: string | null,
  ): Promise<void> {
    const { sql, actor } = this
    const own = (['name', 'kind', 'registration', 'location'] as const).filter((key) => changed.includes(key))
    const values = {
      ...Object.fromEntries(own.map((key) => [key, is[key]])),
      customer_id: customer,
      updated_by: actor.person,
    }
    await sql`
      update craft set ${sql(values)}, version = version + 1, updated_at = now()
      where workshop_id = ${actor.workshop} and craft_id = ${craft}`
    await sql`
      update craft set search = lower(concat_ws(' ', name, registration, location))
      where workshop_id = ${actor.workshop} and craft_id = ${craft}`
  }

  /** The customer that the head of a job names now, noted on the job. */
  private async otherCustomer(
    job: string,
    there: { readonly customer: string | null; readonly craft: string },
    is: CraftIdentity,
  ): Promise<string | null> {
    const { sql, actor } = this
    const next = await this.renamed(job, there, is)
    await sql`
      update job set customer_id = ${next} where workshop_id = ${actor.workshop} and job_id = ${job}`
    return next
  }

  /** A customer of one job is renamed with it; one of several jobs stays, and the job gets another. */
  private async renamed(
    job: string,
    { customer, craft }: { readonly customer: string | null; readonly craft: string },
    is: CraftIdentity,
  ): Promise<string | null> {
    const { sql, actor } = this
    if (is.customer.trim() === '') return null
    const known = await this.findCustomer(is)
    if (known && known !== customer) return known
    if (!customer) return this.makeCustomer(is)
    const [shared] = await sql`
      select 1 from job where workshop_id = ${actor.workshop} and customer_id = ${customer} and job_id <> ${job}
      union all
      select 1 from craft where workshop_id = ${actor.workshop} and customer_id = ${customer} and craft_id <> ${craft}
      limit 1`
    const isSame = known === customer
    if (shared && !isSame) return this.makeCustomer(is)
    const { name, contact } = { name: is.customer.trim(), contact: is.contact.trim() }
    const values = { name, contact, search: customerSearch(name, contact), updated_by: actor.person }
    await sql`
      update customer set ${sql(values)}, updated_at = now()
      where workshop_id = ${actor.workshop} and customer_id = ${customer}`
    return customer
  }

  private async customerOf(identity: CraftIdentity): Promise<string | null> {
    if (identity.customer.trim() === '') return null
    return (await this.findCustomer(identity)) ?? this.makeCustomer(identity)
  }

  /** A customer of this name whose contact does not say otherwise. */
  private async findCustomer({ customer, contact }: CraftIdentity): Promise<string | null> {
    const { sql, actor } = this
    const given = contact.trim().toLowerCase()
    const [found] = await sql<{ id: string }[]>`
      select customer_id as id from customer
      where workshop_id = ${actor.workshop} and lower(name) = ${customer.trim().toLowerCase()} and erased_at is null
        and (contact = '' or ${given} = '' or lower(contact) = ${given})
      order by (lower(contact) = ${given}) desc, created_at limit 1`
    return found?.id ?? null
  }

  private async makeCustomer(identity: CraftIdentity): Promise<string> {
    const { sql, actor } = this
    const { name, contact } = { name: identity.customer.trim(), contact: identity.contact.trim() }
    const row = {
      workshop_id: actor.workshop,
      name,
      contact,
      search: customerSearch(name, contact),
      updated_by: actor.person,
    }
    const made = await sql<{ id: string }[]>`insert into customer ${sql(row)} returning customer_id as id`
    return first(made).id
  }

  /** The craft with this registration, or else this name, of the same customer. */
  private async findCraft(identity: CraftIdentity, customer: string | null): Promise<string | null> {
    const { sql, actor } = this
    const { registration, name } = identity
    if (registration === '' && (customer === null || name.trim() === '')) return null
    const same =
      registration === ''
        ? sql`registration = '' and lower(trim(name)) = ${name.trim().toLowerCase()}`
        : sql`lower(registration) = ${registration.toLowerCase()}`
    const [found] = await sql<{ id: string }[]>`
      select craft_id as id from craft
      where workshop_id = ${actor.workshop} and customer_id is not distinct from ${customer}::uuid and ${same}
      order by created_at desc limit 1`
    return found?.id ?? null
  }

  private async makeCraft(identity: CraftIdentity, customer: string | null): Promise<string> {
    const { sql, actor } = this
    const { name, kind, registration, location } = identity
    const row = {
      workshop_id: actor.workshop,
      customer_id: customer,
      name,
      kind,
      registration,
      location,
      search: craftSearch(identity),
      updated_by: actor.person,
    }
    const made = await sql<{ id: string }[]>`insert into craft ${sql(row)} returning craft_id as id`
    return first(made).id
  }

  /** Removes a customer that nothing belongs to and nobody wrote about. */
  private async dropUnused(customer: string): Promise<void> {
    const { sql, actor } = this
    await sql`
      delete from customer c where workshop_id = ${actor.workshop} and customer_id = ${customer} and notes = ''
        and not exists (select 1 from job where (job.workshop_id, job.customer_id) = (c.workshop_id, c.customer_id))
        and not exists (select 1 from craft where (craft.workshop_id, craft.customer_id) = (c.workshop_id, c.customer_id))`
  }
}
