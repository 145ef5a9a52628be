import type { Sql } from 'postgres'

export interface PhotoRow {
  readonly id: string
  readonly station: string
  readonly name: string
  readonly width: number
  readonly height: number
  readonly takenAt: string
  readonly takenBy: string
}
export interface NewPhoto extends Pick<PhotoRow, 'station' | 'name' | 'width' | 'height' | 'takenBy'> {
  readonly mime: string
  readonly data: Uint8Array
}

const columns = (sql: Sql) => sql`photo_id as id, station, name, width, height, taken_at as "takenAt", taken_by as "takenBy"`

export const listPhotos = (sql: Sql, workshop: string, job: string): Promise<PhotoRow[]> =>
  sql<PhotoRow[]>`select ${columns(sql)} from photo where workshop_id = ${workshop} and job_id = ${job} order by taken_at, photo_id`

export async function addPhoto(sql: Sql, workshop: string, job: string, photo: NewPhoto): Promise<PhotoRow> {
  const { station, name, mime, width, height, takenBy, data } = photo
  const [row] = await sql<PhotoRow[]>`
    insert into photo ${sql({ workshop_id: workshop, job_id: job, station, name, mime, width, height, taken_by: takenBy, data: Buffer.from(data) })} returning ${columns(sql)}`
  return row!
}

export async function readPhoto(sql: Sql, workshop: string, job: string, id: string): Promise<{ mime: string; data: Uint8Array } | null> {
  const [row] = await sql<{ mime: string; data: Uint8Array }[]>`select mime, data from photo where workshop_id = ${workshop} and job_id = ${job} and photo_id = ${id}`
  return row ?? null
}

export async function removePhoto(sql: Sql, workshop: string, job: string, id: string): Promise<boolean> {
  return (await sql`delete from photo where workshop_id = ${workshop} and job_id = ${job} and photo_id = ${id} returning photo_id`).length > 0
}
