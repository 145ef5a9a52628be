import { usualLetterhead, type Letterhead } from '#core/quotation/terms'
import { Repository } from './actor'

/** The letterhead of the workshop, in a version. */
export interface LetterheadRow {
  readonly letterhead: Letterhead
  readonly version: number
}

/** The workshop's text for its quotations. */
export class Letterheads extends Repository {
  async read(): Promise<LetterheadRow> {
    const [row] = await this.sql<{ letterhead: Partial<Letterhead>; version: number }[]>`
      select letterhead, letterhead_version as version from workshop where workshop_id = ${this.actor.workshop}`
    return { letterhead: { ...usualLetterhead, ...row?.letterhead }, version: row?.version ?? 1 }
  }

  /** Saves the letterhead over the version that was seen; null if somebody else changed it. */
  async save(letterhead: Letterhead, version: number): Promise<LetterheadRow | null> {
    const { sql } = this
    const saved = await sql`
      update workshop set letterhead = ${sql.json(letterhead as never)}, letterhead_version = letterhead_version + 1
      where workshop_id = ${this.actor.workshop} and letterhead_version = ${version} returning 1`
    return saved.length > 0 ? this.read() : null
  }
}
