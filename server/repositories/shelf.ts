import { dequal } from 'dequal/lite'
import type { Sql } from 'postgres'
import type { ShelfKindId, ShelfPart } from '#core/shelf/kinds'
import { Repository } from './actor'
import { allWords } from './search'

/** A version of a part as it stands on the shelf. */
export interface ShelfRecord extends ShelfPart {
  readonly retired: boolean
  readonly createdAt: string
  readonly createdBy: string
}
export type NewPart = Pick<ShelfPart, 'code' | 'name' | 'maker' | 'values'>

const columns = (sql: Sql) =>
  sql`kind, code, version, name, maker, part_values as values, retired, created_at as "createdAt", created_by as "createdBy"`

const rowsAtOnce = 1000

export interface Stored {
  readonly added: number
  readonly changed: number
  readonly same: number
}

export class Shelf extends Repository {
  /** Parts of a kind in their current version, by name. All `words` must occur. */
  list(kind: ShelfKindId, words = '', limit = 300): Promise<ShelfRecord[]> {
    const { sql, actor } = this
    return sql<ShelfRecord[]>`
      select ${columns(sql)} from shelf_part
      where workshop_id = ${actor.workshop} and kind = ${kind} and is_current and not retired ${allWords(sql, words)}
      order by lower(name), code limit ${limit}`
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
   * Puts parts on the shelf: new ones, and new versions of those whose data differ. What is the same stays as
   * it is.
   */
  put(kind: ShelfKindId, parts: readonly NewPart[]): Promise<Stored> {
    return this.together((tx) => this.store(tx, kind, parts))
  }

  /** The same inside a transaction that is open already. */
  async store(tx: Sql, kind: ShelfKindId, parts: readonly NewPart[]): Promise<Stored> {
    const { workshop, person } = this.actor
    await tx`select pg_advisory_xact_lock(hashtextextended(${`shelf ${workshop} ${kind}`}, 0))`
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
  async save(kind: ShelfKindId, version: number, part: NewPart): Promise<ShelfRecord | null> {
    const [current] = await this.versions(kind, part.code)
    if ((current?.version ?? 0) !== version) return null
    await this.put(kind, [part])
    return (await this.versions(kind, part.code))[0] ?? null
  }

  /** Takes a part off the shelf; jobs keep what they used. False when it is not there. */
  async retire(kind: ShelfKindId, code: string): Promise<boolean> {
    const rows = await this.sql`
      update shelf_part set retired = true
      where workshop_id = ${this.actor.workshop} and kind = ${kind} and code = ${code} and is_current and not retired returning code`
    return rows.length > 0
  }

  /**
   * Every part that stands on the shelf now, of all kinds, by kind and code: what a search for answers
   * chooses from.
   */
  whole(limit = 5000): Promise<ShelfPart[]> {
    return this.sql<ShelfPart[]>`
      select kind, code, version, name, maker, part_values as values from shelf_part
      where workshop_id = ${this.actor.workshop} and is_current and not retired order by kind, code limit ${limit}`
  }
}
