import type { Sql } from 'postgres'
import { setTimeout } from 'node:timers/promises'

/** The role the application works under, if nobody names another: it owns nothing, and is no superuser. */
const applicationRole = 'jovial_anchor_application'

/**
 * Roles belong to the whole cluster and locks to one database. If the owners of two databases create the same role at
 * the same time, one of them gets one of these errors, and the role exists.
 */
const raced = ['23505', '42710', 'XX000']
const mostTries = 10
const pauseMs = 50

/** Rights on each table. All other tables are read-only. */
const allowed: Readonly<Record<string, string>> = {
  workshop: 'update',
  job: 'insert, update, delete',
  job_history: 'insert, update',
  shelf_part: 'insert, update',
  photo: 'insert, delete',
  // Issued documents are only added, and never changed or removed.
  sheet: 'insert',
  sheet_pdf: 'insert',
  quotation_answer: 'insert',
  customer_link: 'insert, update, delete',
  customer_message: 'insert',
  customer: 'insert, update, delete',
  craft: 'insert, update, delete',
  // A logbook is added to.
  log_entry: 'insert',
  craft_photo: 'insert',
  reminder: 'insert, update, delete',
  calendar_feed: 'insert, update, delete',
  person: 'insert, update',
  session: 'insert, update, delete',
  invitation: 'insert, update',
  sign_in_failure: 'insert, update, delete',
  job_change: 'insert, delete',
  presence: 'insert, update, delete',
  api_token: 'insert, update, delete',
  pin: 'insert, update, delete',
  passkey: 'insert, update, delete',
  passkey_challenge: 'insert, delete',
}

/** Functions that change rows which are otherwise fixed. */
const functions = ['erase_paper', 'erase_entry', 'erase_messages']

/**
 * Creates the role of the application, with only the rights that it needs in this database: it reads and writes
 * rows, and can change neither a table nor an issued document.
 * @param sql a connection of the owner of the database
 * @param url the address that the application will use: the name and password of its role are taken from it
 */
export async function allowApplication(sql: Sql, url: string): Promise<void> {
  for (let tries = 1; ; tries++) {
    try {
      return await allow(sql, new URL(url))
    } catch (error) {
      if (tries === mostTries || !raced.includes((error as { code?: string }).code ?? '')) throw error
      await setTimeout(pauseMs * tries)
    }
  }
}

async function allow(sql: Sql, { username, password }: URL): Promise<void> {
  await sql.begin(async (transaction) => {
    const tx = transaction as unknown as Sql
    const [known] = await tx<{ role: string; secret: string; there: boolean }[]>`
      select quote_ident(${decodeURIComponent(username)}) as role, quote_literal(${decodeURIComponent(password)}) as secret,
        exists (select 1 from pg_roles where rolname = ${decodeURIComponent(username)}) as there`
    const { role, secret, there } = known!
    await tx.unsafe(`${there ? 'alter' : 'create'} role ${role} login password ${secret}
      nosuperuser nocreatedb nocreaterole noreplication nobypassrls`)
    await tx.unsafe(`
      revoke create on schema public from public;
      revoke all on all tables in schema public from public, ${role};
      grant usage on schema public to ${role};
      grant select on all tables in schema public to ${role}`)
    for (const name of functions) await tx.unsafe(`grant execute on function ${name} to ${role}`)
    for (const [table, rights] of Object.entries(allowed))
      await tx.unsafe(`grant ${rights} on ${table} to ${role}`)
  })
}

/** The address of a database for the role of the application. */
export function applicationUrl(ownerUrl: string, password: string): string {
  const url = new URL(ownerUrl)
  url.username = applicationRole
  url.password = password
  return url.href
}
