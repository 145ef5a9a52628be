import { dequal } from 'dequal/lite'
import type { Sql } from 'postgres'
import type { ShelfKindId, ShelfPart } from '#core/shelf/kinds'
import { allWords } from './jobs'

/** A version of a part as it stands on the shelf. */
export interface ShelfRecord extends ShelfPart {
  readonly retired: boolean
  readonly createdAt: string
  readonly createdBy: string
}
export type NewPart = Pick<ShelfPart, 'code' | 'name' | 'maker' | 'values'>

const columns = (sql: Sql) => sql`kind, code, version, name, maker, part_values as values, retired, created_at as "createdAt", created_by as "createdBy"`

/** Parts of a kind in their current version, by name. All `words` must occur. */
export function listShelf(sql: Sql, workshop: string, kind: ShelfKindId, words = '', limit = 300): Promise<ShelfRecord[]> {
  return sql<ShelfRecord[]>`
    select ${columns(sql)} from shelf_part
    where workshop_id = ${workshop} and kind = ${kind} and is_current and not retired ${allWords(sql, words)}
    order by lower(name), code limit ${limit}`
}

/** How many parts of each kind stand on the shelf. */
export const countShelf = (sql: Sql, workshop: string): Promise<{ kind: ShelfKindId; count: number }[]> =>
  sql<{ kind: ShelfKindId; count: number }[]>`select kind, count(*)::int as count from shelf_part where workshop_id = ${workshop} and is_current and not retired group by kind`

/** Every version of a part, newest first. */
export const readVersions = (sql: Sql, workshop: string, kind: ShelfKindId, code: string): Promise<ShelfRecord[]> =>
  sql<ShelfRecord[]>`select ${columns(sql)} from shelf_part where workshop_id = ${workshop} and kind = ${kind} and code = ${code} order by version desc`

/** The current versions of parts by their codes, whatever their kind; retired ones too. */
export const currentOf = (sql: Sql, workshop: string, codes: readonly string[]): Promise<ShelfRecord[]> =>
  sql<ShelfRecord[]>`select ${columns(sql)} from shelf_part where workshop_id = ${workshop} and is_current and code in ${sql(codes.length > 0 ? [...codes] : [''])}`

const rowsAtOnce = 1000

export interface Stored {
  readonly added: number
  readonly changed: number
  readonly same: number
}

/** Puts parts on the shelf: new ones, and new versions of those whose data differ. What is the same stays as it is. */
export const putOnShelf = (sql: Sql, workshop: string, kind: ShelfKindId, parts: readonly NewPart[], who: string): Promise<Stored> =>
  sql.begin((tx) => storeParts(tx as unknown as Sql, workshop, kind, parts, who)) as Promise<Stored>

/** The same inside a transaction that is open already. */
export async function storeParts(tx: Sql, workshop: string, kind: ShelfKindId, parts: readonly NewPart[], who: string): Promise<Stored> {
  await tx`select pg_advisory_xact_lock(hashtextextended(${`shelf ${workshop} ${kind}`}, 0))`
  const there = new Map((await tx<ShelfRecord[]>`select ${columns(tx)} from shelf_part where workshop_id = ${workshop} and kind = ${kind} and is_current`).map((part) => [part.code, part]))
  const fresh = parts.filter((part) => {
    const old = there.get(part.code)
    return !old || old.retired || !dequal([old.name, old.maker, old.values], [part.name, part.maker, part.values])
  })
  for (let i = 0; i < fresh.length; i += rowsAtOnce) {
    const some = fresh.slice(i, i + rowsAtOnce)
    await tx`update shelf_part set is_current = false where workshop_id = ${workshop} and kind = ${kind} and is_current and code in ${tx(some.map((part) => part.code))}`
    await tx`insert into shelf_part ${tx(some.map(({ code, name, maker, values }) => ({
      workshop_id: workshop, kind, code, version: (there.get(code)?.version ?? 0) + 1, name, maker, part_values: tx.json(values as never), search: `${code} ${name} ${maker}`.toLowerCase(), created_by: who,
    })))}`
  }
  const changed = fresh.filter((part) => there.has(part.code)).length
  return { added: fresh.length - changed, changed, same: parts.length - fresh.length }
}

/** Saves one part over the version it was changed from (0 for a new one). Null when another version is current. */
export async function savePart(sql: Sql, workshop: string, kind: ShelfKindId, version: number, part: NewPart, who: string): Promise<ShelfRecord | null> {
  const [current] = await readVersions(sql, workshop, kind, part.code)
  if ((current?.version ?? 0) !== version) return null
  await putOnShelf(sql, workshop, kind, [part], who)
  return (await readVersions(sql, workshop, kind, part.code))[0] ?? null
}

/** Takes a part off the shelf; jobs keep what they used. False when it is not there. */
export async function retirePart(sql: Sql, workshop: string, kind: ShelfKindId, code: string): Promise<boolean> {
  const rows = await sql`update shelf_part set retired = true where workshop_id = ${workshop} and kind = ${kind} and code = ${code} and is_current and not retired returning code`
  return rows.length > 0
}

/** Every part that stands on the shelf now, of all kinds, by kind and code: what a search for answers chooses from. */
export const wholeShelf = (sql: Sql, workshop: string, limit = 5000): Promise<ShelfPart[]> =>
  sql<ShelfPart[]>`
    select kind, code, version, name, maker, part_values as values from shelf_part
    where workshop_id = ${workshop} and is_current and not retired order by kind, code limit ${limit}`
