import { createHash } from 'node:crypto'
import pLimit, { type Limit } from 'p-limit'
import type { Sql } from 'postgres'
import { issuedPaper, type IssuedContent } from '#core/papers/issued'
import type { Signature } from '#core/papers/record'
import { sheetInputs } from '#core/papers/sheet'
import type { Judge } from '../judging/judge'
import { Repository, type Actor, type Seen } from './actor'
import type { Jobs, StoredJob } from './jobs'
import { judgeAgain, type Shop, type ShopSettings } from './shop'

/** A sheet as lists show it. */
export interface SheetRow {
  readonly count: number
  readonly number: string
  readonly kind: 'specification' | 'record'
  readonly name: string
  readonly issuedAt: string
  readonly issuedBy: string
  readonly digest: string
}

export type Issued =
  | { readonly kind: 'issued'; readonly row: SheetRow }
  | { readonly kind: 'no-job' | 'nothing-specified' }
  | { readonly kind: 'stale'; readonly theirs: StoredJob }
  /** A record is signed with a reason only, while something is missing of a full proof. */
  | { readonly kind: 'gaps'; readonly gaps: readonly string[] }

const columns = (sql: Sql) =>
  sql`count, number, kind, name, issued_at as "issuedAt", issued_by as "issuedBy", digest`

export const digestOf = (content: string): string => createHash('sha256').update(content).digest('hex')

/** Sheets of one job are issued one after another: each takes the next number. */
const queues = new Map<string, Limit>()
async function oneAtATime<T>(job: string, work: () => Promise<T>): Promise<T> {
  const queue = queues.get(job) ?? pLimit(1)
  queues.set(job, queue)
  try {
    return await queue(work)
  } finally {
    if (queue.activeCount + queue.pendingCount === 0) queues.delete(job)
  }
}

/** What was issued: it never changes. */
export class Sheets extends Repository {
  constructor(
    sql: Sql,
    actor: Actor,
    private readonly judge: Judge,
    private readonly jobs: Jobs,
    private readonly shop: Shop,
  ) {
    super(sql, actor)
  }

  list(job: string): Promise<SheetRow[]> {
    const { sql, actor } = this
    return sql<
      SheetRow[]
    >`select ${columns(sql)} from sheet where workshop_id = ${actor.workshop} and job_id = ${job} order by count desc`
  }

  /**
   * An issued sheet, to the letter. Null when there is none.
   * @throws when what is kept is not what was issued
   */
  async read(
    job: string,
    count: number,
  ): Promise<{ readonly row: SheetRow; readonly sheet: IssuedContent } | null> {
    const { sql, actor } = this
    const [found] = await sql<(SheetRow & { content: string })[]>`
      select ${columns(sql)}, content from sheet where workshop_id = ${actor.workshop} and job_id = ${job} and count = ${count}`
    if (!found) return null
    const { content, ...row } = found
    if (digestOf(content) !== row.digest)
      throw new Error(`Sheet ${row.number} has changed since it was issued`)
    return { row, sheet: JSON.parse(content) as IssuedContent }
  }

  /** An issued sheet as PDF: made once and kept, since what it is made from never changes. */
  async pdf(job: string, count: number, sheet: IssuedContent): Promise<Uint8Array> {
    const { workshop } = this.actor
    const [kept] = await this.sql<{ data: Uint8Array }[]>`
      select data from sheet_pdf where workshop_id = ${workshop} and job_id = ${job} and count = ${count}`
    if (kept) return kept.data
    const data = await this.judge.pdf(issuedPaper(sheet))
    const row = { workshop_id: workshop, job_id: job, count, data: Buffer.from(data) }
    await this.sql`insert into sheet_pdf ${this.sql(row)} on conflict do nothing`
    return data
  }

  /**
   * Freezes what is specified for a job as its next sheet, or, signed, how it was fitted and proved: inputs, rules,
   * parts and results as they stand.
   */
  issue(job: string, seen: Seen, now: Date, signature: Signature | null = null): Promise<Issued> {
    return oneAtATime(job, () => this.issueNow(job, seen, now, signature))
  }

  private issueNow(job: string, seen: Seen, now: Date, signature: Signature | null): Promise<Issued> {
    return this.shop.judging(
      (shop) => this.draw(job, seen, now, shop, signature),
      async (tx, drawn): Promise<Issued | typeof judgeAgain> => {
        if (drawn.kind !== 'drawn') return drawn
        const there = await this.jobs.readToChange(tx, job)
        if (!there) return { kind: 'no-job' }
        if (!this.isCurrent(seen, there.version)) return { kind: 'stale', theirs: there }
        if ((await this.nextCount(tx, job)) !== drawn.row.count) return judgeAgain
        const [row] = await tx<SheetRow[]>`insert into sheet ${tx(drawn.row)} returning ${columns(tx)}`
        return { kind: 'issued', row: row! }
      },
    )
  }

  /** The next sheet as a row, or why there is none. */
  private async draw(job: string, seen: Seen, now: Date, shop: ShopSettings, signature: Signature | null) {
    const stored = await this.jobs.read(job)
    if (!stored) return { kind: 'no-job' } as const
    if (!this.isCurrent(seen, stored.version)) return { kind: 'stale', theirs: stored } as const
    const { specified } = stored.document
    if (!specified && !signature) return { kind: 'nothing-specified' } as const
    const { workshop, person } = this.actor
    const count = await this.nextCount(this.sql, job)
    const number = `${stored.document.job.number}-${count}`
    const head = { number, issuedAt: now.toISOString(), issuedBy: person }
    const inputs = sheetInputs(stored.document, shop, head)
    const issued = signature
      ? await this.judge.record({ ...inputs, signature })
      : await this.judge.sheet(inputs)
    const gaps = issued.format === 'jovial-anchor/record' ? (issued.result.gaps ?? []) : []
    if (gaps.length > 0 && !signature?.reason) return { kind: 'gaps', gaps } as const
    const content = JSON.stringify(issued)
    const row = {
      workshop_id: workshop,
      job_id: job,
      count,
      number,
      kind: signature ? 'record' : 'specification',
      name: signature ? `Fitted and proved, signed by ${signature.name}` : specified!.name,
      issued_at: now,
      issued_by: person,
      content,
      digest: digestOf(content),
    }
    return { kind: 'drawn', row } as const
  }

  private async nextCount(sql: Sql, job: string): Promise<number> {
    const [last] = await sql<
      { most: number | null }[]
    >`select max(count)::int as most from sheet where workshop_id = ${this.actor.workshop} and job_id = ${job}`
    return (last?.most ?? 0) + 1
  }
}
