import { createHash } from 'node:crypto'
import pLimit, { type Limit } from 'p-limit'
import type { Sql } from 'postgres'
import { issuedPaper, kindOfIssued, type IssuedContent } from '#core/papers/issued'
import { quotedLines } from '#core/papers/offers'
import type { Learnt } from '#core/diagnosis/learnt'
import type { FittingRecord, Signature } from '#core/papers/record'
import { unpricedNames } from '#core/quotation/lines'
import { formatMoney } from '#core/quotation/money'
import type { QuotationAnswer } from '#core/quotation/state'
import { plainInputs, type PlainChoices } from '#core/papers/inputs'
import { answerKinds, type PaperKind, type PlainKind } from '#core/papers/kinds'
import type { QuotationInputs } from '#core/papers/quotation'
import { sheetInputs } from '#core/papers/sheet'
import { photosOfPaper } from '../papers/photos'
import type { Judge } from '../judging/judge'
import { Repository, type Actor, type Seen } from './actor'
import { first } from './first'
import type { FollowUp } from './follow-up'
import type { Jobs, StoredJob } from './jobs'
import type { Letterheads } from './letterheads'
import type { Photos } from './photos'
import { judgeAgain, type Shop, type ShopSettings } from './shop'

/** A sheet as lists show it. */
export interface SheetRow {
  readonly count: number
  readonly number: string
  readonly kind: PaperKind
  readonly name: string
  readonly issuedAt: string
  readonly issuedBy: string
  readonly digest: string
  /** The last moment at which a quotation can be accepted; null for other sheets. */
  readonly until: string | null
  /** The customer's answer to a quotation; null before. */
  readonly answer: QuotationAnswer | null
}

/** The kind of document to issue. */
export type Issuing =
  | { readonly kind: 'specification' | 'quotation' }
  | { readonly kind: PlainKind; readonly choices: PlainChoices }
  | { readonly kind: 'record'; readonly signature: Signature }

export type Issued =
  | { readonly kind: 'issued'; readonly row: SheetRow }
  | { readonly kind: 'no-job' | 'nothing-specified' }
  | { readonly kind: 'stale'; readonly theirs: StoredJob }
  /** A record is signed with a reason only, while something is missing of a full proof. */
  | { readonly kind: 'gaps'; readonly gaps: readonly string[] }
  /** A quotation in which prices are missing, by name of their lines. */
  | { readonly kind: 'unpriced'; readonly names: readonly string[] }

const columns = (sql: Sql) => sql`
  count, number, kind, name, issued_at as "issuedAt", issued_by as "issuedBy", digest,
  case when kind = 'quotation' then content::json->'result'->>'until' end as until,
  (select json_build_object('answer', a.answer, 'name', a.name, 'note', a.note, 'options', a.options, 'alternative', a.alternative,
      'at', a.at, 'by', a.by)
    from quotation_answer a
    where (a.workshop_id, a.job_id, a.count) = (sheet.workshop_id, sheet.job_id, sheet.count)) as answer`

export const digestOf = (content: string): string => createHash('sha256').update(content).digest('hex')

/** The name of a sheet in a list. */
function nameOf(issued: IssuedContent): string {
  switch (issued.format) {
    case 'jovial-anchor/record':
      return `Fitted and proved, signed by ${issued.inputs.signature.name}`
    case 'jovial-anchor/quotation': {
      const { letterhead } = issued.inputs
      return `Total ${formatMoney(issued.result.totals.total, letterhead.currency, letterhead.locale)}`
    }
    case 'jovial-anchor/specification':
      return issued.result.name
    default:
      return issued.result.paper.title
  }
}

/** An issued document as stored: to the letter, with its digest. */
export function rowOfSheet(
  { workshop, job, count }: { readonly workshop: string; readonly job: string; readonly count: number },
  issued: IssuedContent,
) {
  const { number, issuedAt, issuedBy } = issued.inputs
  const content = JSON.stringify(issued)
  return {
    workshop_id: workshop,
    job_id: job,
    count,
    number,
    kind: kindOfIssued(issued),
    name: nameOf(issued),
    issued_at: issuedAt,
    issued_by: issuedBy,
    content,
    digest: digestOf(content),
  }
}

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

/** Issued documents: they never change. */
export class Sheets extends Repository {
  constructor(
    sql: Sql,
    actor: Actor,
    private readonly judge: Judge,
    private readonly of: {
      readonly jobs: Jobs
      readonly shop: Shop
      readonly letterheads: Letterheads
      readonly photos: Photos
      readonly followUp: FollowUp
    },
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
   * @throws if the stored document differs from its digest
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

  /**
   * Values that the newest record of a job learnt from its readings; nothing if there is none, or it has no
   * numbers.
   */
  async learntOf(job: string): Promise<Learnt[]> {
    const [newest] = await this.sql<{ content: string }[]>`
      select content from sheet
      where workshop_id = ${this.actor.workshop} and job_id = ${job} and kind = 'record' order by count desc limit 1`
    if (!newest) return []
    const { result } = JSON.parse(newest.content) as FittingRecord
    return result.learnt.flatMap(({ of, what, before, after, within }) =>
      before === undefined || after === undefined || within === undefined
        ? []
        : [{ of, what, before, after, within }],
    )
  }

  /** An issued sheet as PDF: made once and stored, since its inputs never change. */
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
   * Freezes the specification of a job as its next sheet, or its quotation, or its signed record: inputs, rules,
   * parts and results as they are.
   */
  issue(job: string, seen: Seen, now: Date, what: Issuing = { kind: 'specification' }): Promise<Issued> {
    return oneAtATime(job, () => this.issueNow(job, seen, now, what))
  }

  private issueNow(job: string, seen: Seen, now: Date, what: Issuing): Promise<Issued> {
    return this.of.shop.judging(
      (shop) => this.draw(job, seen, now, shop, what),
      async (tx, drawn): Promise<Issued | typeof judgeAgain> => {
        if (drawn.kind !== 'drawn') return drawn
        const there = await this.of.jobs.readToChange(tx, job)
        if (!there) return { kind: 'no-job' }
        if (!this.isCurrent(seen, there.version)) return { kind: 'stale', theirs: there }
        if ((await this.nextCount(tx, job)) !== drawn.row.count) return judgeAgain
        const issued = await tx<SheetRow[]>`insert into sheet ${tx(drawn.row)} returning ${columns(tx)}`
        if (drawn.issued.format === 'jovial-anchor/record')
          await this.of.followUp.ofRecord(tx, job, drawn.issued)
        return { kind: 'issued', row: first(issued) }
      },
    )
  }

  /** The next sheet as a row, or why there is none. */
  private async draw(job: string, seen: Seen, now: Date, shop: ShopSettings, what: Issuing) {
    const stored = await this.of.jobs.read(job)
    if (!stored) return { kind: 'no-job' } as const
    if (!this.isCurrent(seen, stored.version)) return { kind: 'stale', theirs: stored } as const
    const { specified } = stored.document
    if (!specified && answerKinds.has(what.kind)) return { kind: 'nothing-specified' } as const
    const { workshop, person } = this.actor
    const count = await this.nextCount(this.sql, job)
    const number = `${stored.document.job.number}-${count}`
    const head = { number, issuedAt: now.toISOString(), issuedBy: person }
    const { letterhead } = await this.of.letterheads.read()
    const photos = await photosOfPaper(this.of.photos, stored, what.kind)
    const inputs = {
      ...sheetInputs(stored.document, { ...shop, letterhead }, head),
      ...(photos.length > 0 ? { photos } : {}),
    }
    const issued = await this.content(inputs, what)
    if (issued.format === 'jovial-anchor/record') {
      const { gaps = [] } = issued.result
      if (gaps.length > 0 && !issued.inputs.signature.reason) return { kind: 'gaps', gaps } as const
    }
    if (issued.format === 'jovial-anchor/quotation') {
      const names = [...new Set(unpricedNames(quotedLines(issued)))]
      if (names.length > 0) return { kind: 'unpriced', names } as const
    }
    return { kind: 'drawn', row: rowOfSheet({ workshop, job, count }, issued), issued } as const
  }

  private content(inputs: QuotationInputs, what: Issuing): Promise<IssuedContent> {
    switch (what.kind) {
      case 'record':
        return this.judge.record({ ...inputs, signature: what.signature })
      case 'quotation':
        return this.judge.quotation(inputs)
      case 'specification':
        return this.judge.sheet(inputs)
      default:
        return this.judge.plain({ kind: what.kind, inputs: plainInputs(inputs, what.choices) })
    }
  }

  /** Notes the customer's answer to a quotation; or says why it cannot be noted. */
  async answer(
    job: string,
    count: number,
    { answer, name, note, options, alternative }: Omit<QuotationAnswer, 'at' | 'by'>,
  ): Promise<SheetRow | 'answered' | 'replaced'> {
    const { workshop, person } = this.actor
    return oneAtATime(job, () =>
      this.together(async (sql) => {
        const newer = await sql`
          select 1 from sheet
          where workshop_id = ${workshop} and job_id = ${job} and kind = 'quotation' and count > ${count} limit 1`
        if (newer.length > 0) return 'replaced' as const
        const noted = await sql`
          insert into quotation_answer (workshop_id, job_id, count, answer, name, note, options, alternative, by)
          values (${workshop}, ${job}, ${count}, ${answer}, ${name}, ${note}, ${options as string[]},
            ${alternative}, ${person})
          on conflict do nothing returning 1`
        if (noted.length === 0) return 'answered' as const
        if (answer === 'accepted') await this.of.jobs.reach(sql, job, 'accepted')
        const answered = await sql<SheetRow[]>`
          select ${columns(sql)} from sheet
          where workshop_id = ${workshop} and job_id = ${job} and count = ${count}`
        return first(answered)
      }),
    )
  }

  private async nextCount(sql: Sql, job: string): Promise<number> {
    const [last] = await sql<
      { most: number | null }[]
    >`select max(count)::int as most from sheet where workshop_id = ${this.actor.workshop} and job_id = ${job}`
    return (last?.most ?? 0) + 1
  }
}
