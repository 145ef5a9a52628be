import type { Sql } from 'postgres'
import { stages, type Stage } from '#core/job/document'
import { checksNext, type CheckNext } from '#core/logbook/flags'
import { standingEntries } from '#core/logbook/entry'
import { logQuantity } from '#core/logbook/quantities'
import { seriesOf } from '#core/logbook/series'
import { dayOfMoment } from '#core/reminders/day'
import { resolveRules } from '#core/rules/rules'
import { writerIn } from '#core/units/format'
import { Repository, type Actor } from './actor'
import type { Logbooks } from './logbooks'
import type { Shop } from './shop'

/** A job that is due, or that a customer is asked about. */
export interface DueJob {
  readonly id: string
  readonly number: string
  readonly name: string
  readonly customer: string
  readonly stage: Stage
  readonly dueDate: string
}

/** A quotation that no customer has answered yet. */
export interface WaitingQuotation {
  readonly job: string
  readonly count: number
  readonly number: string
  /** `Total €4,210.00`. */
  readonly name: string
  readonly jobName: string
  readonly customer: string
  readonly issuedAt: string
  readonly until: string
}

/** Flags of a craft's logbook for its next visit. */
export interface FlaggedCraft {
  readonly craft: string
  readonly name: string
  readonly customer: string
  readonly checks: readonly CheckNext[]
}

/** Days ahead that count as due. */
const dueDays = 14
const mostListed = 100
/** Craft whose logbook is read for one answer. */
const workedOutAtOnce = 100

/** Items that need a shop's attention: for its start page. */
export class Today extends Repository {
  constructor(
    sql: Sql,
    actor: Actor,
    private readonly of: { readonly shop: Shop; readonly logbooks: Logbooks },
  ) {
    super(sql, actor)
  }

  /** How many jobs stand at each stage. */
  async stages(): Promise<Readonly<Record<Stage, number>>> {
    const rows = await this.sql<{ stage: Stage; count: number }[]>`
      select stage, count(*)::int as count from job
      where workshop_id = ${this.actor.workshop} and deleted_at is null group by stage`
    const counts = new Map(rows.map(({ stage, count }) => [stage, count]))
    return Object.fromEntries(
      (Object.keys(stages) as Stage[]).map((stage) => [stage, counts.get(stage) ?? 0]),
    ) as Record<Stage, number>
  }

  /** Open jobs whose day is past or within two weeks, by their day. */
  due(): Promise<DueJob[]> {
    return this.sql<DueJob[]>`
      select job_id as id, number, name, customer, stage, to_char(due_date, 'YYYY-MM-DD') as "dueDate" from job
      where workshop_id = ${this.actor.workshop} and deleted_at is null and stage <> 'done'
        and due_date <= current_date + ${dueDays}::int
      order by due_date, job_id limit ${mostListed}`
  }

  /** The newest quotation of each job, if it can still be accepted; the one that ends first comes first. */
  async waiting(): Promise<WaitingQuotation[]> {
    return this.sql<WaitingQuotation[]>`
      select job, count, number, name, "jobName", customer, "issuedAt", until from (
        select distinct on (job_id) job_id as job, count, sheet.number, sheet.name, job.name as "jobName", customer,
          issued_at as "issuedAt", content::json->'result'->>'until' as until,
          exists (select 1 from quotation_answer a
            where (a.workshop_id, a.job_id, a.count) = (sheet.workshop_id, sheet.job_id, sheet.count)) as answered
        from sheet join job using (workshop_id, job_id)
        where workshop_id = ${this.actor.workshop} and kind = 'quotation' and deleted_at is null
        order by job_id, count desc) as newest
      where not answered and until::timestamptz > now()
      order by until limit ${mostListed}`
  }

  /** Craft whose logbook flags something for the next visit, by name. */
  async flagged(): Promise<FlaggedCraft[]> {
    const shop = await this.of.shop.read()
    const today = dayOfMoment(new Date())
    await this.workOut(shop, today)
    return this.sql<FlaggedCraft[]>`
      select craft_id as craft, craft.name, coalesce(customer.name, '') as customer, checks
      from craft left join customer using (workshop_id, customer_id)
      where craft.workshop_id = ${this.actor.workshop} and jsonb_array_length(coalesce(checks, '[]')) > 0
      order by lower(craft.name), craft_id limit ${mostListed}`
  }

  /** Calculates the missing flags: after new entries, other rules, or a new month. */
  private async workOut(shop: Awaited<ReturnType<Shop['read']>>, today: string): Promise<void> {
    const { sql, actor } = this
    const behind = await sql<{ craft: string }[]>`
      select craft_id as craft from craft
      where workshop_id = ${actor.workshop}
        and (checks is null or checks_shop is distinct from ${shop.version} or checks_day < ${today}::date - 30)
        and exists (select 1 from log_entry e where (e.workshop_id, e.craft_id) = (craft.workshop_id, craft.craft_id))
      limit ${workedOutAtOnce}`
    const rules = resolveRules(shop.rules)
    const q = writerIn(shop.units)
    for (const { craft } of behind) {
      // Readings without a limit flag nothing.
      const entries = standingEntries(await this.of.logbooks.list(craft)).filter(
        ({ quantity }) => quantity === null || logQuantity(quantity).limit,
      )
      const series = seriesOf(entries, rules)
      const checks = checksNext({ entries, series }, { rules, q, now: Date.now() })
      await sql`
        update craft set checks = ${sql.json(checks as never)}, checks_shop = ${shop.version}, checks_day = ${today}
        where workshop_id = ${actor.workshop} and craft_id = ${craft}`
    }
  }
}
