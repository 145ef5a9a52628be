import type { Sql } from 'postgres'
import { connect } from '../db/connection'
import { theWorkshop } from '../db/workshop'

let pool: Sql | undefined

/** The pool of this server, opened at first use. */
export function database(): Sql {
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set: start with npm start')
  return (pool ??= connect(url))
}

/** The pool, and the workshop the request belongs to. */
export async function workshopDatabase(): Promise<{ sql: Sql; workshop: string }> {
  const sql = database()
  return { sql, workshop: await theWorkshop(sql) }
}
