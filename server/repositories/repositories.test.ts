import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { emptyJob } from '#core/job/document'
import { freshDatabase, type TestDatabase } from '../../tests/harness'
import { judgeHere, type Judge } from '../judging/judge'
import { repositoriesOf, type Repositories } from './index'

let db: TestDatabase
let here: Repositories
let elsewhere: Repositories

async function newWorkshop(judge: Judge = judgeHere, person = 'Ida'): Promise<Repositories> {
  const [row] = await db.sql<
    { id: string }[]
  >`insert into workshop (name) values ('Another Slip') returning workshop_id as id`
  return repositoriesOf(db.sql, { workshop: row!.id, person, role: 'owner' }, judge)
}

beforeAll(async () => {
  db = await freshDatabase({ demo: false })
  here = await newWorkshop()
  elsewhere = await newWorkshop()
})
afterAll(() => db.drop())

describe('repositories', () => {
  it('find nothing of another workshop, and change nothing there', async () => {
    const { id, version, document } = await here.jobs.create(emptyJob('0001', 'Ours'))
    expect(await elsewhere.jobs.read(id)).toBeNull()
    expect(await elsewhere.jobs.list()).toEqual([])
    expect(
      await elsewhere.jobs.save(id, version, { ...document, job: { ...document.job, name: 'Theirs' } }),
    ).toBeNull()
    expect(await elsewhere.jobs.history(id)).toEqual([])
    expect(await elsewhere.sheets.issue(id, version, new Date())).toEqual({ kind: 'no-job' })
    expect((await here.jobs.read(id))!.document.job.name).toBe('Ours')
  })

  it('note a change under the person who acts', async () => {
    const { id, version, document } = await here.jobs.create(emptyJob('0002', 'Before'))
    await here.jobs.save(id, version, { ...document, job: { ...document.job, name: 'After' } })
    expect(await here.jobs.history(id)).toMatchObject([
      { who: 'Ida', version: version + 1, changes: [{ path: 'job/name', before: 'Before', after: 'After' }] },
    ])
  })
})

describe('judging', () => {
  it('is done again where the rules change meanwhile, so that no verdict of older rules is kept', async () => {
    const seen: unknown[] = []
    const own: { shop?: Repositories['shop'] } = {}
    const judge: Judge = {
      ...judgeHere,
      async verdict(job) {
        seen.push(job.rules)
        if (seen.length === 1) await own.shop!.save({ ...(await own.shop!.read()), rules: { lowSoc: 30 } })
        return { ...(await judgeHere.verdict(job)), reason: `by rules ${JSON.stringify(job.rules)}` }
      },
    }
    const { jobs, shop } = await newWorkshop(judge)
    own.shop = shop
    await jobs.create(emptyJob('0001', 'Slow'))
    expect(seen).toEqual([{}, { lowSoc: 30 }])
    expect(await jobs.list()).toMatchObject([{ reason: 'by rules {"lowSoc":30}' }])
  })

  it('of many jobs never writes over a job that was saved meanwhile', async () => {
    let meanwhile: (() => Promise<unknown>) | null = null
    const judge: Judge = {
      ...judgeHere,
      async verdict(job) {
        const first = meanwhile
        meanwhile = null
        await first?.()
        return { ...(await judgeHere.verdict(job)), reason: `name ${job.document.job.name}` }
      },
    }
    const { jobs, shop } = await newWorkshop(judge)
    const { id, version, document } = await jobs.create(emptyJob('0001', 'Old'))
    meanwhile = () => jobs.save(id, version, { ...document, job: { ...document.job, name: 'New' } })
    const { rules, units } = await shop.read()
    expect(await shop.rejudge(rules, units, { keep: true })).toMatchObject({ open: 1, judged: 1 })
    expect(await jobs.list()).toMatchObject([{ name: 'New', reason: 'name New' }])
  })

  it('holds no transaction open', async () => {
    const open: number[] = []
    const judge: Judge = {
      ...judgeHere,
      async verdict(job) {
        const [row] = await db.sql<{ count: number }[]>`
          select count(*)::int as count from pg_stat_activity
          where datname = current_database() and pid <> pg_backend_pid() and state like 'idle in transaction%'`
        open.push(row!.count)
        return judgeHere.verdict(job)
      },
    }
    const { jobs } = await newWorkshop(judge)
    const { id, version, document } = await jobs.create(emptyJob('0001', 'A'))
    await jobs.save(id, version, { ...document, job: { ...document.job, name: 'B' } })
    expect(open).toEqual([0, 0])
  })
})
