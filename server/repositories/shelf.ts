import { dequal } from 'dequal/lite'
import type { Sql } from 'postgres'
import type { ShelfKindId, ShelfPart } from '#core/shelf/kinds'
import { Repository } from './actor'
import { allWords } from './search'

/** A version of a part unchanged on the shelf. */
export interface ShelfRecord extends ShelfPart {
  readonly retired: boolean
  readonly createdAt: string
  readonly createdBy: string
}
type NewPart = Pick<ShelfPart, 'code' | 'name' | 'maker' | 'values'>

const columns = (sql: Sql) =>
  sql`kind, code, version, name, maker, part_values as values, retired, created_at as "createdAt", created_by as "createdBy"`

const rowsAtOnce = 1000
const partsAPage = 200

/** Sort orders of a list of parts; the first is the usual one. */
export const shelfSorts = ['name', 'code', 'maker', 'price'] as const
export type ShelfSort = (typeof shelfSorts)[number]

/** Sort keys before the code, as text or as a number. Parts without a price come last. */
function orderOf(sql: Sql, sort: ShelfSort) {
  const price = sql`coalesce((part_values->>'price')::numeric, (part_values->>'pricePerM')::numeric, 1e12)`
  const column = { name: sql`lower(name)`, code: sql`code`, maker: sql`lower(maker)`, price }[sort]
  return { column, type: sort === 'price' ? sql`numeric` : sql`text` }
}

/** Parts of a kind, and the query for the next ones; null at the end. */
export interface ShelfPage {
  readonly parts: readonly ShelfRecord[]
  readonly next: string | null
}
export interface WholePage {
  readonly parts: readonly ShelfPart[]
  readonly next: string | null
}

export interface Stored {
  readonly added: number
  readonly changed: number
  readonly same: number
}

export class Shelf extends Repository {
  /**
   * Parts of a kind in their current version, by name unless asked otherwise, a page at a time. All `words` must
   * occur.
   */
  async list(
    kind: ShelfKindId,
    words = '',
    after: string | null = null,
    sort: ShelfSort = 'name',
  ): Promise<ShelfPage> {
    const { sql, actor } = this
    const { column, type } = orderOf(sql, sort)
    const [key, code] = after === null ? [] : (JSON.parse(after) as [string, string])
    const rows = await sql<(ShelfRecord & { key: string })[]>`
      select ${columns(sql)}, ${column}::text as key from shelf_part
      where workshop_id = ${actor.workshop} and kind = ${kind} and is_current and not retired ${allWords(sql, words)}
        ${key === undefined ? sql`` : sql`and (${column}, code) > (${key}::text::${type}, ${code!})`}
      order by ${column}, code limit ${partsAPage + 1}`
    const parts = rows.slice(0, partsAPage).map(({ key: _key, ...part }) => part)
    const last = rows[partsAPage - 1]
    return { parts, next: rows.length > partsAPage ? JSON.stringify([last!.key, last!.code]) : null }
  }

  /** Every part of a kind that stands on the shelf, page by page. */
  async *all(kind: ShelfKindId): AsyncGenerator<readonly ShelfRecord[], void> {
    let after: string | null = null
    do {
      const page: ShelfPage = await this.list(kind, '', after)
      yield page.parts
      after = page.next
    } while (after !== null)
  }

  /** How many parts of each kind stand on the shelf. */
  count(): Promise<{ kind: ShelfKindId; count: number }[]> {
    return this.sql<{ kind: ShelfKindId; count: number }[]>`
      select kind, count(*)::int as count from shelf_part
      where workshop_id = ${this.actor.workshop} and is_current and not retired group by kind`
  }

  /** Every version of a part, newest first. */
  versions(kind: ShelfKindId, code: string): Promise<ShelfRecord[]> {
    const { sql, actor } = this
    return sql<ShelfRecord[]>`
      select ${columns(sql)} from shelf_part
      where workshop_id = ${actor.workshop} and kind = ${kind} and code = ${code} order by version desc`
  }

  /** The current versions of parts by their codes, whatever their kind; retired ones too. */
  currentOf(codes: readonly string[]): Promise<ShelfRecord[]> {
    const { sql, actor } = this
    const wanted = codes.length > 0 ? [...codes] : ['']
    return sql<
      ShelfRecord[]
    >`select ${columns(sql)} from shelf_part where workshop_id = ${actor.workshop} and is_current and code in ${sql(wanted)}`
  }

  /**
   * Puts parts on the shelf: new ones, and new versions of changed ones. Unchanged parts stay.
   */
  put(kind: ShelfKindId, parts: readonly NewPart[]): Promise<Stored> {
    return this.together((tx) => this.store(tx, kind, parts))
  }

  /** The same inside a transaction that is open already. */
  async store(tx: Sql, kind: ShelfKindId, parts: readonly NewPart[]): Promise<Stored> {
    const { workshop, person } = this.actor
    await this.lock(tx, kind)
    const standing = await tx<
      ShelfRecord[]
    >`select ${columns(tx)} from shelf_part where workshop_id = ${workshop} and kind = ${kind} and is_current`
    const there = new Map(standing.map((part) => [part.code, part]))
    const fresh = parts.filter((part) => {
      const old = there.get(part.code)
      return (
        !old ||
        old.retired ||
        !dequal([old.name, old.maker, old.values], [part.name, part.maker, part.values])
      )
    })
    const rowOf = ({ code, name, maker, values }: NewPart) => ({
      workshop_id: workshop,
      kind,
      code,
      version: (there.get(code)?.version ?? 0) + 1,
      name,
      maker,
      part_values: tx.json(values as never),
      search: `${code} ${name} ${maker}`.toLowerCase(),
      created_by: person,
    })
    for (let i = 0; i < fresh.length; i += rowsAtOnce) {
      const some = fresh.slice(i, i + rowsAtOnce)
      const codes = some.map(({ code }) => code)
      await tx`update shelf_part set is_current = false where workshop_id = ${workshop} and kind = ${kind} and is_current and code in ${tx(codes)}`
      await tx`insert into shelf_part ${tx(some.map(rowOf))}`
    }
    const changed = fresh.filter(({ code }) => there.has(code)).length
    return { added: fresh.length - changed, changed, same: parts.length - fresh.length }
  }

  /**
   * Saves one part over the version it was changed from (0 for a new one). Null when another version is
   * current.
   */
  save(kind: ShelfKindId, version: number, part: NewPart): Promise<ShelfRecord | null> {
    return this.together(async (tx) => {
      await this.lock(tx, kind)
      if ((await this.currentVersion(tx, kind, part.code)) !== version) return null
      await this.store(tx, kind, [part])
      const [saved] = await tx<ShelfRecord[]>`
        select ${columns(tx)} from shelf_part
        where workshop_id = ${this.actor.workshop} and kind = ${kind} and code = ${part.code} and is_current`
      return saved ?? null
    })
  }

  /**
   * Takes a part off the shelf as it was seen; jobs keep what they used.
   * @returns whether it was taken, was there no more, or had another version by now
   */
  retire(kind: ShelfKindId, code: string, version: number): Promise<'retired' | 'gone' | 'stale'> {
    const { workshop, person } = this.actor
    return this.together(async (tx) => {
      await this.lock(tx, kind)
      const current = await this.currentVersion(tx, kind, code)
      if (current === 0) return 'gone'
      if (current !== version) return 'stale'
      const rows = await tx`
        update shelf_part set retired = true, retired_by = ${person}, retired_at = now()
        where workshop_id = ${workshop} and kind = ${kind} and code = ${code} and is_current and not retired returning code`
      return rows.length > 0 ? 'retired' : 'gone'
    })
  }

  /** Locks a kind of part until the transaction ends: only one request changes its parts at a time. */
  private async lock(tx: Sql, kind: ShelfKindId): Promise<void> {
    await tx`select pg_advisory_xact_lock(hashtextextended(${`shelf ${this.actor.workshop} ${kind}`}, 0))`
  }

  private async currentVersion(tx: Sql, kind: ShelfKindId, code: string): Promise<number> {
    const [row] = await tx<{ version: number }[]>`
      select version from shelf_part
      where workshop_id = ${this.actor.workshop} and kind = ${kind} and code = ${code} and is_current`
    return row?.version ?? 0
  }

  /**
   * The current parts of all kinds, by kind and code, a page at a time: the choice for a search of answers.
   */
  async whole(after: string | null = null): Promise<WholePage> {
    const { sql, actor } = this
    const [kind, code] = after === null ? [] : (JSON.parse(after) as [string, string])
    const rows = await sql<ShelfPart[]>`
      select kind, code, version, name, maker, part_values as values from shelf_part
      where workshop_id = ${actor.workshop} and is_current and not retired
        ${kind === undefined ? sql`` : sql`and (kind, code) > (${kind}, ${code!})`}
      order by kind, code limit ${rowsAtOnce + 1}`
    const parts = rows.slice(0, rowsAtOnce)
    const last = parts.at(-1)
    return { parts, next: rows.length > rowsAtOnce ? JSON.stringify([last!.kind, last!.code]) : null }
  }
}
