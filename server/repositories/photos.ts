import type { Sql } from 'postgres'
import { Repository } from './actor'

export interface PhotoRow {
  readonly id: string
  readonly station: string
  readonly name: string
  readonly width: number
  readonly height: number
  readonly takenAt: string
  readonly takenBy: string
}
export interface NewPhoto extends Pick<PhotoRow, 'station' | 'name' | 'width' | 'height'> {
  readonly mime: string
  readonly data: Uint8Array
}

const columns = (sql: Sql) =>
  sql`photo_id as id, station, name, width, height, taken_at as "takenAt", taken_by as "takenBy"`

/** The photos of jobs. */
export class Photos extends Repository {
  list(job: string): Promise<PhotoRow[]> {
    const { sql, actor } = this
    return sql<
      PhotoRow[]
    >`select ${columns(sql)} from photo where workshop_id = ${actor.workshop} and job_id = ${job} order by taken_at, photo_id`
  }

  async add(job: string, { station, name, mime, width, height, data }: NewPhoto): Promise<PhotoRow> {
    const { sql, actor } = this
    const photo = {
      workshop_id: actor.workshop,
      job_id: job,
      station,
      name,
      mime,
      width,
      height,
      taken_by: actor.person,
      data: Buffer.from(data),
    }
    const [row] = await sql<PhotoRow[]>`insert into photo ${sql(photo)} returning ${columns(sql)}`
    return row!
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
