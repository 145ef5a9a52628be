import { readdir, readFile } from 'node:fs/promises'
import { join } from 'node:path'
import type { Sql } from 'postgres'

/** Any number will do, as long as every server asks for the same one. */
const migrationLock = 7_108_421

/**
 * Applies the numbered SQL files of a folder that were not applied yet, all in one transaction,
 * under a lock so that several servers may start at once. Gives the names applied.
 */
export async function migrate(sql: Sql, folder: string): Promise<string[]> {
  const files = (await readdir(folder)).filter((name) => /^\d{3}-.*\.sql$/.test(name)).sort()
  return sql.begin(async (tx) => {
    // A migration takes what it takes.
    await tx`set local statement_timeout = 0`
    await tx`set local lock_timeout = 0`
    await tx`select pg_advisory_xact_lock(${migrationLock})`
    await tx`create table if not exists schema_migration (number integer primary key, name text not null, applied_at timestamptz not null default now())`
    const applied = new Set(
      (await tx<{ number: number }[]>`select number from schema_migration`).map((row) => row.number),
    )
    const pending = files.filter((name) => !applied.has(Number(name.slice(0, 3))))
    for (const name of pending) {
      await tx.unsafe(await readFile(join(folder, name), 'utf8'))
      await tx`insert into schema_migration ${tx({ number: Number(name.slice(0, 3)), name })}`
    }
    return pending
  })
}
