import type { Sql } from 'postgres'
import type { RuleOverrides } from '#core/rules/rules'
import type { Verdict } from '#core/system/verdict'
import type { DisplayUnits } from '#core/units/display'
import { isJudged } from '../judging/behind'
import type { Judge } from '../judging/judge'
import { Repository, type Actor } from './actor'
import { first } from './first'
import { documentOf } from './kept-document'

/** A shop's settings. */
export interface ShopSettings {
  readonly name: string
  readonly rules: RuleOverrides
  readonly units: DisplayUnits
  readonly version: number
  /**
   * Of the data: a version of another epoch is another version. Left out by a program that does not outlive a
   * restore.
   */
  readonly epoch?: string | undefined
}

/** A job whose verdict other rules change. */
export interface VerdictChange {
  readonly id: string
  readonly number: string
  readonly name: string
  readonly before: Verdict
  readonly after: Verdict
}
export interface Preview {
  /** Open jobs of the shop, and how many of them were checked here. */
  readonly open: number
  readonly judged: number
  /** Jobs whose check failed: nothing is known of them. */
  readonly unchecked: number
  readonly changed: readonly VerdictChange[]
  /** The query for the next ones; null at the end. */
  readonly next: string | null
}

interface ShopRow {
  name: string
  rules: RuleOverrides
  units: 'metric' | 'imperial'
  currency: string
  version: number
}
interface ListedJob {
  id: string
  number: string
  name: string
  verdict: Verdict | null
  document: unknown
}

/** Jobs that one answer checks by other rules: a second's work or so. */
const previewedAtOnce = 20
/** Said by a writer whose checking no longer holds. */
export const judgeAgain = Symbol('judge again')
/** Rules seldom change while a job is checked, and never this often. */
const mostTries = 5

export class Shop extends Repository {
  constructor(
    sql: Sql,
    actor: Actor,
    private readonly judge: Judge,
    /** Told that the jobs of the shop are to be checked. */
    private readonly changed: () => void,
  ) {
    super(sql, actor)
  }

  async read(): Promise<ShopSettings> {
    const rows = await this.sql<
      ShopRow[]
    >`select name, rules, units, currency, version from workshop where workshop_id = ${this.actor.workshop}`
    const { name, rules, units, currency, version } = first(rows)
    return { name, rules, version, epoch: this.actor.epoch, units: { system: units, currency } }
  }

  /** Saves a shop's settings, unless someone else did meanwhile; then null. */
  async save({
    name,
    rules,
    units,
    version,
    epoch = this.actor.epoch,
  }: ShopSettings): Promise<ShopSettings | null> {
    const { sql } = this
    const [row] = await sql`
      update workshop set name = ${name}, rules = ${sql.json(rules as never)}, units = ${units.system}, currency = ${units.currency}, version = version + 1
      where workshop_id = ${this.actor.workshop} and version = ${version} and epoch = ${epoch} returning workshop_id`
    if (!row) return null
    this.changed()
    return this.read()
  }

  /**
   * Checks with the shop's settings, then writes the result in a transaction in which they still hold. If they
   * changed in between, or the writer finds another change, it checks again.
   */
  async judging<J, T>(
    judge: (shop: ShopSettings) => Promise<J>,
    write: (tx: Sql, judged: J) => Promise<T | typeof judgeAgain>,
  ): Promise<T> {
    for (let tries = 0; tries < mostTries; tries++) {
      const shop = await this.read()
      const judged = await judge(shop)
      const written = await this.together(async (tx) => {
        const [now] = await tx<{ version: number }[]>`
          select version from workshop where workshop_id = ${this.actor.workshop} for share`
        return now?.version === shop.version ? write(tx, judged) : judgeAgain
      })
      if (written !== judgeAgain) return written as T
    }
    throw new Error('What a judging rests on changed again and again while it was under way')
  }

  /** Number of open jobs that are not checked yet with the shop's settings. */
  async waiting(): Promise<number> {
    const { sql, actor } = this
    const rows = await sql<{ waiting: number }[]>`
      select count(*)::int as waiting from job join workshop using (workshop_id)
      where workshop_id = ${actor.workshop} and deleted_at is null and not ${isJudged(sql)}`
    return first(rows).waiting
  }

  /**
   * Checks some open jobs by other rules and tells whose verdict they change; nothing is written.
   * @param after goes on behind this job: `next` of the answer before
   */
  async preview(rules: RuleOverrides, after: string | null): Promise<Preview> {
    const {
      sql,
      actor: { workshop },
    } = this
    const { units } = await this.read()
    const [{ open }] = await sql<
      [{ open: number }]
    >`select count(*)::int as open from job where workshop_id = ${workshop} and stage <> 'done' and deleted_at is null`
    const rows = await sql<ListedJob[]>`
      select job_id as id, number, name, verdict, document from job
      where workshop_id = ${workshop} and stage <> 'done' and deleted_at is null ${after ? sql`and job_id > ${after}` : sql``}
      order by job_id limit ${previewedAtOnce}`
    const changed = await Promise.all(
      rows.map(async ({ document, id, number, name, verdict: before }): Promise<VerdictChange[] | null> => {
        const job = { document: documentOf(document), rules, units }
        const judged = await this.judge.verdict(job).catch(() => null)
        if (judged === null) return null
        const { verdict: after } = judged
        return before === null || after === before ? [] : [{ id, number, name, before, after }]
      }),
    )
    const known = changed.filter((one) => one !== null)
    return {
      open,
      judged: known.length,
      unchecked: changed.length - known.length,
      changed: known.flat(),
      next: rows.length === previewedAtOnce ? rows.at(-1)!.id : null,
    }
  }
}
