import { createHash } from 'node:crypto'
import { readdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Sql } from 'postgres'

/** Any number will do, as long as every server asks for the same one. */
const migrationLock = 7_108_421

/** A database that this version of the application must not touch. */
export class SchemaMismatch extends Error {}

interface Migration {
  readonly number: number
  readonly name: string
  readonly text: string
  readonly digest: string
}

/** The numbered SQL files of a folder, in order. */
async function migrationsIn(folder: string): Promise<readonly Migration[]> {
  const names = (await readdir(folder)).filter((name) => /^\d{3}-.*\.sql$/.test(name)).sort()
  return Promise.all(
    names.map(async (name) => {
      const text = await readFile(join(folder, name), 'utf8')
      const digest = createHash('sha256').update(text).digest('hex')
      return { number: Number(name.slice(0, 3)), name, text, digest }
    }),
  )
}

interface Applied {
  readonly number: number
  readonly name: string
  readonly digest: string | null
}

async function appliedTo(sql: Sql): Promise<readonly Applied[]> {
  const [there] = await sql<{ table: string | null; digest: boolean }[]>`
    select to_regclass('public.schema_migration')::text as table, exists (
      select 1 from information_schema.columns
      where table_name = 'schema_migration' and column_name = 'digest') as digest`
  if (!there?.table) return []
  return there.digest
    ? sql<Applied[]>`select number, name, digest from schema_migration order by number`
    : sql<Applied[]>`select number, name, null as digest from schema_migration order by number`
}

/** @throws SchemaMismatch if the applied migrations differ from the known ones */
function refuseOther(applied: readonly Applied[], known: readonly Migration[]): void {
  const last = known.at(-1)?.number ?? 0
  const newest = applied.at(-1)
  if (newest && newest.number > last)
    throw new SchemaMismatch(
      `A newer version of the application has changed this database (schema ${newest.number}, ${newest.name}); ` +
        `this one knows schema ${last}. Start that version, or restore a backup made by this one.`,
    )
  for (const { number, name, digest } of applied) {
    const file = known.find((one) => one.number === number)
    if (file && digest !== null && digest !== file.digest)
      throw new SchemaMismatch(`The migration ${name} differs from the one applied to this database.`)
  }
}

/**
 * The pending migrations, and their number.
 * @throws SchemaMismatch if the database is of another version
 */
export async function pendingMigrations(
  sql: Sql,
  folder: string,
): Promise<{ readonly pending: readonly string[]; readonly applied: number }> {
  const [known, applied] = [await migrationsIn(folder), await appliedTo(sql)]
  refuseOther(applied, known)
  const done = new Set(applied.map(({ number }) => number))
  return {
    pending: known.filter(({ number }) => !done.has(number)).map(({ name }) => name),
    applied: applied.length,
  }
}

/**
 * Applies the numbered SQL files of a folder that were not applied yet, all in one transaction,
 * under a lock so that several servers may start at once. Gives the names applied.
 * @throws SchemaMismatch where the database is of another version; nothing is changed then
 */
export async function migrate(sql: Sql, folder: string): Promise<string[]> {
  const known = await migrationsIn(folder)
  return sql.begin(async (transaction) => {
    const tx = transaction as unknown as Sql
    // A migration has no time limit.
    await tx`set local statement_timeout = 0`
    await tx`set local lock_timeout = 0`
    await tx`select pg_advisory_xact_lock(${migrationLock})`
    const applied = await appliedTo(tx)
    refuseOther(applied, known)
    await tx`create table if not exists schema_migration (number integer primary key, name text not null, applied_at timestamptz not null default now())`
    await tx`alter table schema_migration add column if not exists digest text`
    const done = new Set(applied.map(({ number }) => number))
    const pending = known.filter(({ number }) => !done.has(number))
    for (const { number, name, text, digest } of pending) {
      await tx.unsafe(text)
      await tx`insert into schema_migration ${tx({ number, name, digest })}`
    }
    for (const { number, digest } of known)
      await tx`update schema_migration set digest = ${digest} where number = ${number} and digest is null`
    return pending.map(({ name }) => name)
  }) as Promise<string[]>
}
