import type { Sql } from 'postgres'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { emptyJob } from '#core/job/document'
import { freshDatabase, type TestDatabase } from '../../tests/harness'
import { judgeHere } from '../judging/judge'
import { repositoriesOf } from '../repositories/index'
import { connect } from './connection'
import { everyWorkshop } from './pool'
import { allowApplication } from './role'

let db: TestDatabase
let application: Sql
beforeAll(async () => {
  db = await freshDatabase()
  application = connect(db.applicationUrl, { max: 1 })
  // As the application works for itself: its connections see nothing before.
  await application`select set_config('jovial.scope', ${everyWorkshop}, false)`
})
afterAll(async () => {
  await application.end()
  await db.drop()
})

describe('the role of the application', () => {
  it('saves a job and reads it', async () => {
    const [row] = await application<
      { id: string; epoch: string }[]
    >`select workshop_id as id, epoch from workshop`
    const { jobs } = repositoriesOf(
      application,
      { workshop: row!.id, person: 'Ida', role: 'owner', epoch: row!.epoch },
      judgeHere,
    )
    const { id } = await jobs.createNumbered((number) => emptyJob(number))
    expect((await jobs.read(id))?.version).toBe(1)
  })

  it('is made once where the owners of several databases make it at the same time', async () => {
    const others = [await freshDatabase({ demo: false }), await freshDatabase({ demo: false })]
    const url = new URL(db.applicationUrl)
    url.username = `made_at_once_${process.pid}`
    await Promise.all([db, ...others].map(({ sql }) => allowApplication(sql, url.href)))
    for (const { sql } of [db, ...others]) {
      const [may] = await sql`
        select has_table_privilege(${url.username}, 'job', 'insert') as insert,
          has_table_privilege(${url.username}, 'sheet', 'delete') as delete`
      expect(may).toEqual({ insert: true, delete: false })
    }
    for (const other of others) await other.drop()
    await db.sql.unsafe(`drop owned by ${url.username}; drop role ${url.username}`)
  })

  it('owns nothing and is no superuser', async () => {
    const [role] = await application`
      select rolsuper, rolcreatedb, rolcreaterole, rolbypassrls,
        (select count(*)::int from pg_class where relowner = pg_roles.oid) as owns
      from pg_roles where rolname = current_user`
    expect(role).toEqual({
      rolsuper: false,
      rolcreatedb: false,
      rolcreaterole: false,
      rolbypassrls: false,
      owns: 0,
    })
  })

  it.each([
    'drop table job',
    'truncate job',
    'alter table sheet disable trigger all',
    'create table mine (n integer)',
    'delete from sheet',
    "update sheet set issued_by = 'me'",
    'delete from sheet_pdf',
    'update sheet_pdf set count = 1',
    'delete from job_history',
    'delete from shelf_part',
    'delete from workshop',
    'update schema_migration set number = 99',
    'create role other',
  ])('may not %s', async (statement) => {
    await expect(application.unsafe(statement)).rejects.toMatchObject({ code: '42501' })
  })
})
