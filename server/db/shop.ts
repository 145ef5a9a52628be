import { upToDate } from '#core/job/migrations/index'
import type { Sql } from 'postgres'
import type { Verdict } from '#core/system/verdict'
import type { RuleOverrides } from '#core/rules/rules'
import type { DisplayUnits } from '#core/units/display'
import type { JobDocument } from '#core/job/document'
import { judged } from '../judging/verdict'

/** What a shop has set. */
export interface Shop {
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

interface ShopRow { name: string; rules: RuleOverrides; units: 'metric' | 'imperial'; currency: string; version: number }

export async function readShop(sql: Sql, workshop: string): Promise<Shop> {
  const [row] = await sql<ShopRow[]>`select name, rules, units, currency, version from workshop where workshop_id = ${workshop}`
  const { name, rules, units, currency, version } = row!
  return { name, rules, version, units: { system: units, currency } }
}

/** Saves what a shop sets, if nobody else did meanwhile; otherwise null. */
export async function saveShop(sql: Sql, workshop: string, { name, rules, units, version }: Shop): Promise<Shop | null> {
  const [row] = await sql`
    update workshop set name = ${name}, rules = ${sql.json(rules as never)}, units = ${units.system}, currency = ${units.currency}, version = version + 1
    where workshop_id = ${workshop} and version = ${version} returning workshop_id`
  return row ? readShop(sql, workshop) : null
}

const batch = 5

/**
 * Judges the open jobs of a shop by rules and tells whose verdict changes.
 * @param keep writes the verdicts to the list; otherwise nothing is changed
 * @param most jobs looked at, the last changed first
 */
export async function rejudge(sql: Sql, workshop: string, rules: RuleOverrides, units: DisplayUnits, { keep, most = Infinity }: { keep: boolean; most?: number }): Promise<Rejudged> {
  const changed: VerdictChange[] = []
  let done = 0
  const [{ open }] = await sql<[{ open: number }]>`select count(*)::int as open from job where workshop_id = ${workshop} and stage <> 'done'`
  const rows = sql<{ id: string; number: string; name: string; verdict: Verdict; headline: string; reason: string; document: JobDocument }[]>`
    select job_id as id, number, name, verdict, headline, reason, document from job
    where workshop_id = ${workshop} and stage <> 'done' order by updated_at desc, job_id limit ${most === Infinity ? null : most}`
  for await (const some of rows.cursor(batch)) {
    for (const row of some) {
      const now = judged(upToDate(row.document as never) as unknown as JobDocument, rules, units)
      if (now.verdict !== row.verdict) changed.push({ id: row.id, number: row.number, name: row.name, before: row.verdict, after: now.verdict })
      if (keep && (now.verdict !== row.verdict || now.headline !== row.headline || now.reason !== row.reason)) {
        await sql`update job set ${sql(now)} where workshop_id = ${workshop} and job_id = ${row.id}`
      }
    }
    done += some.length
    // Other requests have their turn between batches: a job with its runs takes some tens of milliseconds.
    await new Promise((resolve) => setImmediate(resolve))
  }
  return { open, judged: done, changed }
}
