import type { Sql } from 'postgres'
import { Repository } from './actor'
import { first } from './first'

export interface PhotoRow {
  readonly id: string
  readonly station: string
  readonly name: string
  readonly width: number
  readonly height: number
  readonly takenAt: string
  readonly takenBy: string
}
/** A photo of a job of a craft. */
export interface CraftPhoto extends Pick<PhotoRow, 'id' | 'station' | 'name' | 'takenAt' | 'takenBy'> {
  readonly job: string
  readonly jobNumber: string
}
interface NewPhoto extends Pick<PhotoRow, 'station' | 'name' | 'width' | 'height'> {
  readonly mime: string
  readonly data: Uint8Array
  /** The id that a device gave it: sent again with it, the photo is added once. */
  readonly id?: string | undefined
  /** When it was taken, by the clock of the device. */
  readonly takenAt?: string | undefined
}

const columns = (sql: Sql) =>
  sql`photo_id as id, station, name, width, height, taken_at as "takenAt", taken_by as "takenBy"`

/** Photos that a job holds, and bytes that all of a workshop take, at most. */
const mostPhotos = 60
export const mostBytes = 4 * 1024 ** 3
export const noRoom = 'There is no room for more photos. Delete old ones first'

/**
 * When a photo was taken. The clock of a device may be wrong; the future is not believed.
 * @param takenAt ISO date-time
 */
export const believedTime = (takenAt: string): Date => new Date(Math.min(Date.parse(takenAt), Date.now()))

/**
 * Bytes of all photos of a workshop. Uploads wait here for each other, so that several at once cannot exceed a limit
 * together.
 */
export async function heldBytes(tx: Sql, workshop: string): Promise<number> {
  await tx`select pg_advisory_xact_lock(hashtextextended(${`photos ${workshop}`}, 0))`
  const [held] = await tx<{ bytes: string }[]>`
    select coalesce((select sum(bytes) from photo where workshop_id = ${workshop}), 0)
      + coalesce((select sum(bytes) from craft_photo where workshop_id = ${workshop}), 0) as bytes`
  return Number(held!.bytes)
}

/** The photos of jobs. */
export class Photos extends Repository {
  list(job: string): Promise<PhotoRow[]> {
    const { sql, actor } = this
    return sql<
      PhotoRow[]
    >`select ${columns(sql)} from photo where workshop_id = ${actor.workshop} and job_id = ${job} order by taken_at, photo_id`
  }

  /** Photos of all jobs of a craft, newest first. */
  ofCraft(craft: string): Promise<CraftPhoto[]> {
    const { sql, actor } = this
    return sql<CraftPhoto[]>`
      select photo_id as id, job_id as job, number as "jobNumber", station, photo.name, taken_at as "takenAt",
        taken_by as "takenBy"
      from photo join job using (workshop_id, job_id)
      where workshop_id = ${actor.workshop} and craft_id = ${craft} and deleted_at is null
      order by taken_at desc, photo_id limit 300`
  }

  /** Adds a photo; in words, why there is no room for it. */
  add(
    job: string,
    { id, takenAt, station, name, mime, width, height, data }: NewPhoto,
  ): Promise<PhotoRow | { readonly refused: string }> {
    const { workshop, person } = this.actor
    return this.together(async (tx) => {
      const bytes = await heldBytes(tx, workshop)
      const [there] = id
        ? await tx<PhotoRow[]>`
            select ${columns(tx)} from photo where workshop_id = ${workshop} and job_id = ${job} and photo_id = ${id}`
        : []
      if (there) return there
      const [held] = await tx<{ count: number }[]>`
        select count(*)::int as count from photo where workshop_id = ${workshop} and job_id = ${job}`
      if (held!.count >= mostPhotos) return { refused: `A job holds at most ${mostPhotos} photos` }
      if (bytes + data.byteLength > mostBytes) return { refused: noRoom }
      const photo = {
        workshop_id: workshop,
        job_id: job,
        station,
        name,
        mime,
        width,
        height,
        taken_by: person,
        bytes: data.byteLength,
        data: Buffer.from(data),
        ...(id ? { photo_id: id } : {}),
        ...(takenAt ? { taken_at: believedTime(takenAt) } : {}),
      }
      return first(await tx<PhotoRow[]>`insert into photo ${tx(photo)} returning ${columns(tx)}`)
    })
  }

  async read(job: string, id: string): Promise<{ mime: string; data: Uint8Array } | null> {
    const [row] = await this.sql<{ mime: string; data: Uint8Array }[]>`
      select mime, data from photo where workshop_id = ${this.actor.workshop} and job_id = ${job} and photo_id = ${id}`
    return row ?? null
  }

  async remove(job: string, id: string): Promise<boolean> {
    const removed = await this
      .sql`delete from photo where workshop_id = ${this.actor.workshop} and job_id = ${job} and photo_id = ${id} returning photo_id`
    return removed.length > 0
  }
}
