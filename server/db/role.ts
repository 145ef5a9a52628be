import type { Sql } from 'postgres'

/** The role the application works under, where nobody names another: it owns nothing, and is no superuser. */
const applicationRole = 'jovial_anchor_application'

/** Any number will do, as long as whoever makes the role asks for the same one: roles belong to the whole cluster. */
const roleLock = 7_108_423

/** What may be done with each table. What is not named here may only be read. */
const allowed: Readonly<Record<string, string>> = {
  workshop: 'update',
  job: 'insert, update, delete',
  job_history: 'insert, update',
  shelf_part: 'insert, update',
  photo: 'insert, delete',
  // What is issued is added to, and never changed or taken away.
  sheet: 'insert',
  sheet_pdf: 'insert',
}

/**
 * Makes the role of the application, and lets it do in this database what it needs and nothing else: it reads and
 * writes rows, and can neither change a table nor what was issued.
 * @param sql a connection of the owner of the database
 * @param url the address that the application will use: the name and password of its role are taken from it
 */
export async function allowApplication(sql: Sql, url: string): Promise<void> {
  const { username, password } = new URL(url)
  await sql.begin(async (transaction) => {
    const tx = transaction as unknown as Sql
    await tx`select pg_advisory_xact_lock(${roleLock})`
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
