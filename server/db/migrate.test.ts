import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { freshDatabase, type TestDatabase } from '../../tests/harness'
import { connect } from './connection'
import { migrate, pendingMigrations, SchemaMismatch } from './migrate'
import { loadDemo } from './demo'

const demo = fileURLToPath(new URL('../../demo', import.meta.url))
let db: TestDatabase
let folder: string

beforeEach(async () => {
  db = await freshDatabase({ migrated: false })
  folder = await mkdtemp(join(tmpdir(), 'migrations-'))
  await writeFile(join(folder, '001-one.sql'), 'create table one (n integer);')
})
afterEach(async () => {
  await db.drop()
  await rm(folder, { recursive: true })
})

describe('migrations', () => {
  it('are applied once, in order', async () => {
    await writeFile(join(folder, '002-two.sql'), 'insert into one values (2);')
    expect(await migrate(db.sql, folder)).toEqual(['001-one.sql', '002-two.sql'])
    expect(await migrate(db.sql, folder)).toEqual([])
    expect(await db.sql`select n from one`).toEqual([{ n: 2 }])
  })

  it('that fail leave nothing behind', async () => {
    await writeFile(join(folder, '002-two.sql'), 'create table two (n integer); select broken;')
    await expect(migrate(db.sql, folder)).rejects.toThrow()
    expect(await db.sql`select to_regclass('one') as one, to_regclass('two') as two`).toEqual([
      { one: null, two: null },
    ])
  })

  it('of a newer version are not touched, and the version needed is named', async () => {
    await writeFile(join(folder, '002-two.sql'), 'create table two (n integer);')
    await migrate(db.sql, folder)
    await rm(join(folder, '002-two.sql'))
    await expect(migrate(db.sql, folder)).rejects.toThrow(/newer version .*schema 2.* knows schema 1/)
    await expect(pendingMigrations(db.sql, folder)).rejects.toThrow(SchemaMismatch)
  })

  it('that were changed after they were applied are refused', async () => {
    await migrate(db.sql, folder)
    await writeFile(join(folder, '001-one.sql'), 'create table other (n integer);')
    await expect(migrate(db.sql, folder)).rejects.toThrow('001-one.sql differs from the one applied')
  })

  it('that are not applied yet are told before anything is changed', async () => {
    expect(await pendingMigrations(db.sql, folder)).toEqual({ pending: ['001-one.sql'], applied: 0 })
    await migrate(db.sql, folder)
    await writeFile(join(folder, '002-two.sql'), 'insert into one values (2);')
    expect(await pendingMigrations(db.sql, folder)).toEqual({ pending: ['002-two.sql'], applied: 1 })
  })

  it('wait for each other when two servers start at once', async () => {
    const second = connect(db.url)
    const applied = await Promise.all([migrate(db.sql, folder), migrate(second, folder)])
    expect(applied.flat()).toEqual(['001-one.sql'])
    await second.end()
  })
})

describe('the schema', () => {
  // A failed sign-in belongs to no workshop yet.
  it('has the workshop on every other table', async () => {
    await migrate(db.sql, fileURLToPath(new URL('./migrations', import.meta.url)))
    const without = await db.sql`
      select table_name from information_schema.tables t where table_schema = 'public'
      and table_name not in ('schema_migration', 'sign_in_failure', 'passkey_challenge')
      and not exists (select 1 from information_schema.columns c where c.table_name = t.table_name and c.column_name = 'workshop_id')`
    expect([...without]).toEqual([])
  })

  it('takes the demo jobs once', async () => {
    await migrate(db.sql, fileURLToPath(new URL('./migrations', import.meta.url)))
    expect(await loadDemo(db.sql, demo)).toBe(6)
    expect(await loadDemo(db.sql, demo)).toBe(0)
    expect(await db.sql`select count(*)::int as n from job`).toEqual([{ n: 6 }])
  })
})
