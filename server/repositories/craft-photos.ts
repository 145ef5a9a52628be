import type { Sql } from 'postgres'
import { entryOf } from '#core/logbook/entry'
import { Repository, type Actor } from './actor'
import type { Logbooks } from './logbooks'
import { believedTime, heldBytes, mostBytes, noRoom } from './photos'

/** Photographs of one craft, at most. */
const mostPhotos = 500

/** A picture to keep. */
interface NewPicture {
  readonly mime: string
  readonly width: number
  readonly height: number
  readonly data: Uint8Array
}

/** Photographs in the logbooks of craft: each is an entry with its picture. They are only added to. */
export class CraftPhotos extends Repository {
  constructor(
    sql: Sql,
    actor: Actor,
    private readonly logbooks: Logbooks,
  ) {
    super(sql, actor)
  }

  /** Adds a photograph; in words, why there is no room for it. @param at when it was taken, ISO date-time */
  add(
    craft: string,
    { mime, width, height, data }: NewPicture,
    { words, at }: { readonly words: string; readonly at?: string | undefined },
  ): Promise<'added' | { readonly refused: string }> {
    const { workshop } = this.actor
    return this.together(async (tx) => {
      if ((await heldBytes(tx, workshop)) + data.byteLength > mostBytes) return { refused: noRoom }
      const [held] = await tx<{ count: number }[]>`
        select count(*)::int as count from log_entry
        where workshop_id = ${workshop} and craft_id = ${craft} and kind = 'photo'`
      if ((held?.count ?? 0) >= mostPhotos)
        return { refused: `A craft holds at most ${mostPhotos} photographs` }
      const taken = (at ? believedTime(at) : new Date()).toISOString()
      const [entry] = await this.logbooks.addIn(tx, craft, [
        entryOf({ kind: 'photo', at: taken, source: 'typed', words }),
      ])
      await tx`insert into craft_photo ${tx({
        workshop_id: workshop,
        entry_id: entry ?? null,
        mime,
        width,
        height,
        bytes: data.byteLength,
        data: Buffer.from(data),
      })}`
      return 'added' as const
    })
  }

  async read(craft: string, entry: string): Promise<{ mime: string; data: Uint8Array } | null> {
    const [row] = await this.sql<{ mime: string; data: Uint8Array }[]>`
      select mime, data from craft_photo join log_entry using (workshop_id, entry_id)
      where workshop_id = ${this.actor.workshop} and craft_id = ${craft} and entry_id = ${entry}`
    return row ?? null
  }
}
