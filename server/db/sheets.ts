import { createHash } from 'node:crypto'
import type { Sql } from 'postgres'
import { sheetInputs, sheetOf, type Sheet } from '#core/papers/sheet'
import { readJob, type StoredJob } from './jobs'
import { readShop } from './shop'

/** A sheet as lists show it. */
export interface SheetRow {
  readonly count: number
  readonly number: string
  readonly name: string
  readonly issuedAt: string
  readonly issuedBy: string
  readonly digest: string
}

const columns = (sql: Sql) => sql`count, number, name, issued_at as "issuedAt", issued_by as "issuedBy", digest`

export const digestOf = (content: string): string => createHash('sha256').update(content).digest('hex')

export const listSheets = (sql: Sql, workshop: string, job: string): Promise<SheetRow[]> =>
  sql<SheetRow[]>`select ${columns(sql)} from sheet where workshop_id = ${workshop} and job_id = ${job} order by count desc`

/** An issued sheet, to the letter. Null when there is none. @throws when what is kept is not what was issued */
export async function readSheet(sql: Sql, workshop: string, job: string, count: number): Promise<{ readonly row: SheetRow; readonly sheet: Sheet } | null> {
  const [found] = await sql<(SheetRow & { content: string })[]>`select ${columns(sql)}, content from sheet where workshop_id = ${workshop} and job_id = ${job} and count = ${count}`
  if (!found) return null
  const { content, ...row } = found
  if (digestOf(content) !== row.digest) throw new Error(`Sheet ${row.number} is not as it was issued`)
  return { row, sheet: JSON.parse(content) as Sheet }
}

export type Issued =
  | { readonly kind: 'issued'; readonly row: SheetRow }
  | { readonly kind: 'no-job' | 'nothing-specified' }
  | { readonly kind: 'stale'; readonly theirs: StoredJob }

/** Freezes what is specified for a job as its next sheet: inputs, rules, parts and results as they stand. */
export function issueSheet(sql: Sql, workshop: string, job: string, version: number, who: string, now: Date): Promise<Issued> {
  return sql.begin(async (transaction) => {
    const tx = transaction as unknown as Sql
    await tx`select 1 from job where workshop_id = ${workshop} and job_id = ${job} for update`
    const stored = await readJob(tx, workshop, job)
    if (!stored) return { kind: 'no-job' } as const
    if (stored.version !== version) return { kind: 'stale', theirs: stored } as const
    if (!stored.document.specified) return { kind: 'nothing-specified' } as const
    const [last] = await tx<{ most: number | null }[]>`select max(count)::int as most from sheet where workshop_id = ${workshop} and job_id = ${job}`
    const count = (last?.most ?? 0) + 1
    const number = `${stored.document.job.number}-${count}`
    const content = JSON.stringify(sheetOf(sheetInputs(stored.document, await readShop(tx, workshop), { number, issuedAt: now.toISOString(), issuedBy: who })))
    const [row] = await tx<SheetRow[]>`
      insert into sheet ${tx({ workshop_id: workshop, job_id: job, count, number, name: stored.document.specified.name, issued_at: now, issued_by: who, content, digest: digestOf(content) })} returning ${columns(tx)}`
    return { kind: 'issued', row: row! } as const
  }) as Promise<Issued>
}
