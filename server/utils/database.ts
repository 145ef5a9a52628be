import type { Sql } from 'postgres'
import { Pool } from '../db/pool'
import { judgeOfServer } from '../judging/pool'
import { JudgingQueue } from '../judging/queue'
import type { Actor } from '../repositories/actor'
import { repositoriesOf, type Repositories } from '../repositories/index'

let pool: Pool | undefined
let queue: JudgingQueue | undefined

/** The pool of this server, opened at first use. */
export function database(): Sql {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set: start with npm start')
  return (pool ??= new Pool(url)).sql
}

/** What checks the jobs that are behind; it begins with those that an earlier server has left. */
export function judgingQueue(): JudgingQueue {
  queue ??= new JudgingQueue(database(), judgeOfServer())
  return queue
}

/**
 * Until there are accounts, a person has the name of the device, the workshop is the one of the database, and
 * everybody owns it.
 */
async function actorOf(sql: Sql, person: string): Promise<Actor> {
  const [row] = await sql<
    { id: string; epoch: string }[]
  >`select workshop_id as id, epoch from workshop order by created_at limit 1`
  if (!row) throw new Error('The database holds no workshop: run npm start once to set it up')
  return { workshop: row.id, person, role: 'owner', epoch: row.epoch }
}

/**
 * The data of the workshop as whoever asks may see and change them.
 * @param person needed by what is noted under a name
 */
export async function repositories(person = 'somebody'): Promise<Repositories> {
  const sql = database()
  return repositoriesOf(sql, await actorOf(sql, person), judgeOfServer(), judgingQueue().saved)
}
