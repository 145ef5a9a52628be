import type { Sql } from 'postgres'
import type { RuleOverrides } from '#core/rules/rules'
import type { Verdict } from '#core/system/verdict'
import type { DisplayUnits } from '#core/units/display'
import type { Judge } from '../judging/judge'
import { Repository, type Actor } from './actor'
import { documentOf } from './kept-document'

/** What a shop has set. */
export interface ShopSettings {
  readonly name: string
  readonly rules: RuleOverrides
  readonly units: DisplayUnits
  readonly version: number
}

/** A job whose verdict other rules change. */
export interface VerdictChange {
  readonly id: string
  readonly number: string
  readonly name: string
  readonly before: Verdict
  readonly after: Verdict
}
export interface Rejudged {
  /** Open jobs of the shop, and how many of them, the newest, were judged. */
  readonly open: number
  readonly judged: number
  readonly changed: readonly VerdictChange[]
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
  version: number
  number: string
  name: string
  verdict: Verdict
  headline: string
  reason: string
  document: unknown
}

/** Jobs that are fetched at once to be judged. */
const batch = 5
/** Said by a writer whose judging no longer holds. */
export const judgeAgain = Symbol('judge again')
/** Rules seldom change while a job is judged, and never this often. */
const mostTries = 5

export class Shop extends Repository {
  constructor(
    sql: Sql,
    actor: Actor,
    private readonly judge: Judge,
  ) {
    super(sql, actor)
  }

  async read(): Promise<ShopSettings> {
    const [row] = await this.sql<
      ShopRow[]
    >`select name, rules, units, currency, version from workshop where workshop_id = ${this.actor.workshop}`
    const { name, rules, units, currency, version } = row!
    return { name, rules, version, units: { system: units, currency } }
  }

  /** Saves what a shop sets, if nobody else did meanwhile; otherwise null. */
  async save({ name, rules, units, version }: ShopSettings): Promise<ShopSettings | null> {
    const { sql } = this
    const [row] = await sql`
      update workshop set name = ${name}, rules = ${sql.json(rules as never)}, units = ${units.system}, currency = ${units.currency}, version = version + 1
      where workshop_id = ${this.actor.workshop} and version = ${version} returning workshop_id`
    return row ? this.read() : null
  }

  /**
   * Judges by what the shop has set, then writes what follows in a transaction in which that still stands;
   * where it changed in between, or the writer finds that something else did, it is judged again.
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

  /**
   * Judges the open jobs of a shop by rules and tells whose verdict changes.
   * @param keep writes the verdicts to the list, but never over a newer version of a job; otherwise nothing
   * is changed
   * @param most jobs looked at, the last changed first
   */
  async rejudge(
    rules: RuleOverrides,
    units: DisplayUnits,
    { keep, most = Infinity }: { keep: boolean; most?: number },
  ): Promise<Rejudged> {
    const {
      sql,
      actor: { workshop },
    } = this
    const changed: VerdictChange[] = []
    let done = 0
    const [{ open }] = await sql<
      [{ open: number }]
    >`select count(*)::int as open from job where workshop_id = ${workshop} and stage <> 'done'`
    const rows = sql<ListedJob[]>`
      select job_id as id, version, number, name, verdict, headline, reason, document from job
      where workshop_id = ${workshop} and stage <> 'done' order by updated_at desc, job_id limit ${most === Infinity ? null : most}`
    for await (const some of rows.cursor(batch)) {
      const verdicts = await Promise.all(
        some.map(({ document }) => this.judge.verdict({ document: documentOf(document), rules, units })),
      )
      for (const [i, { id, version, number, name, verdict, headline, reason }] of some.entries()) {
        const now = verdicts[i]!
        if (now.verdict !== verdict) changed.push({ id, number, name, before: verdict, after: now.verdict })
        if (!keep || (now.verdict === verdict && now.headline === headline && now.reason === reason)) continue
        await sql`update job set ${sql({ ...now })} where workshop_id = ${workshop} and job_id = ${id} and version = ${version}`
      }
      done += some.length
    }
    return { open, judged: done, changed }
  }
}
