import type { Sql } from 'postgres'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { emptyJob } from '#core/job/document'
import { freshDatabase, type TestDatabase } from '../../tests/harness'
import { judgeHere } from '../judging/judge'
import { repositoriesOf, type Repositories } from '../repositories/index'
import type { Actor } from '../repositories/actor'
import { everyWorkshop, Pool } from './pool'

let db: TestDatabase
/** As the application connects: not as the owner of the tables. */
let pool: Pool
let ours: Actor
let theirs: Actor

async function newWorkshop(name: string): Promise<Actor> {
  const [row] = await db.sql<{ id: string; epoch: string }[]>`
    insert into workshop (name) values (${name}) returning workshop_id as id, epoch`
  return { workshop: row!.id, person: 'Ida', role: 'owner', epoch: row!.epoch }
}
const within = (scope: string, actor: Actor, sql = pool.within(scope)): Repositories =>
  repositoriesOf(sql, actor, judgeHere)

beforeAll(async () => {
  db = await freshDatabase({ demo: false })
  pool = new Pool(db.applicationUrl)
  ours = await newWorkshop('Ours')
  theirs = await newWorkshop('Theirs')
  await within(ours.workshop, ours).jobs.create(emptyJob('0001', 'Ours'))
  await within(theirs.workshop, theirs).jobs.create(emptyJob('0001', 'Theirs'))
})
afterAll(async () => {
  pool.end()
  await db.drop()
})

/** SQL that forgets the workshop: every `workshop_id = …` of a statement is true for all rows. */
function forgetful(sql: Sql): Sql {
  const write = (first: unknown, ...rest: unknown[]): unknown => {
    if (!Array.isArray(first) || !('raw' in first))
      return (sql as unknown as (...all: unknown[]) => unknown)(first, ...rest)
    const strings = (first as string[]).map((text) =>
      text.replace(/workshop_id = $/, 'true or workshop_id = '),
    )
    const template = Object.assign(strings, { raw: strings })
    return (sql as unknown as (...all: unknown[]) => unknown)(template, ...rest)
  }
  return Object.assign(write, { json: sql.json, begin: sql.begin }) as unknown as Sql
}
const namesListed = async (scope: string): Promise<string[]> => {
  const { jobList } = within(scope, ours, forgetful(pool.within(scope)))
  return (await jobList.page({ sort: 'name' })).jobs.map(({ name }) => name)
}

describe('a connection of a workshop', () => {
  it('reads no row of another one, though a statement forgets to ask for its own', async () => {
    expect(await namesListed(ours.workshop)).toEqual(['Ours'])
    expect(await namesListed(theirs.workshop)).toEqual(['Theirs'])
  })

  it('would read all without the policy of the database: the statement really forgets', async () => {
    expect(await namesListed(everyWorkshop)).toEqual(['Ours', 'Theirs'])
  })

  it('changes and deletes no row of another one', async () => {
    const sql = pool.within(ours.workshop)
    const changed = await sql`update job set customer = 'Found' returning name`
    expect(changed.map(({ name }) => name as string)).toEqual(['Ours'])
    await sql`delete from job_history`
      .then(() => expect.unreachable('history is never deleted'))
      .catch((cause: unknown) => {
        expect(cause).toMatchObject({ code: '42501' })
      })
  })

  it('adds no row to another one', async () => {
    const { jobs } = within(ours.workshop, theirs)
    await expect(jobs.create(emptyJob('0002', 'Smuggled'))).rejects.toMatchObject({ code: '42501' })
  })

  it('sees nothing where it was set to no workshop', async () => {
    expect(await pool.within('')`select 1 from job`).toHaveLength(0)
    expect(await pool.within('')`select 1 from person`).toHaveLength(0)
  })

  it('is set again for each request: neighbours never see each other’s rows', async () => {
    const small = new Pool(db.applicationUrl, { size: 1 })
    const seen = await Promise.all(
      Array.from({ length: 40 }, async (_, i) => {
        const actor = i % 2 ? theirs : ours
        const rows = await small.within(actor.workshop)<{ name: string }[]>`select name from job`
        const inside = await small
          .within(actor.workshop)
          .begin(async (tx) => (tx as unknown as Sql)<{ name: string }[]>`select name from job`)
        return [...rows, ...inside].every(({ name }) => name === (i % 2 ? 'Theirs' : 'Ours'))
      }),
    )
    small.end()
    expect(seen.every(Boolean)).toBe(true)
  })

  it('of the application sees every table with a workshop through a policy', async () => {
    const open = await db.sql<{ name: string }[]>`
      select c.relname as name from pg_class c join pg_attribute a on a.attrelid = c.oid
      where c.relkind = 'r' and a.attname = 'workshop_id' and not a.attisdropped and not c.relrowsecurity`
    expect(open).toEqual([])
  })
})
