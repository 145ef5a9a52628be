import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest'
import { emptyJob, type JobDocument } from '#core/job/document'
import { longWayJob, withValues } from '#core/testing'
import { purge } from '../db/purge'
import { freshDatabase, type TestDatabase } from '../../tests/harness'
import { judgeHere, TooLarge, type Judge } from '../judging/judge'
import { JudgingQueue } from '../judging/queue'
import { repositoriesOf, type Repositories } from './index'
import { jobsAPage, jobSorts, type JobPage, type JobSort } from './job-list'
import { NumberTaken } from './job-numbers'
import type { StoredJob } from './jobs'
import { shelfSorts, type ShelfPage, type ShelfRecord, type WholePage } from './shelf'

let db: TestDatabase
let here: Repositories
let elsewhere: Repositories

async function newWorkshop(
  judge: Judge = judgeHere,
  person = 'Ida',
  changed?: () => void,
): Promise<Repositories> {
  const [row] = await db.sql<
    { id: string; epoch: string }[]
  >`insert into workshop (name) values ('Another Slip') returning workshop_id as id, epoch`
  return repositoriesOf(
    db.sql,
    { workshop: row!.id, person, role: 'owner', epoch: row!.epoch },
    judge,
    changed,
  )
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
    expect(await elsewhere.jobList.page()).toEqual({ jobs: [], next: null })
    expect(
      await elsewhere.jobs.save(id, { version }, { ...document, job: { ...document.job, name: 'Theirs' } }),
    ).toBeNull()
    expect(await elsewhere.jobHistory.of(id)).toEqual([])
    expect(await elsewhere.sheets.issue(id, { version }, new Date())).toEqual({ kind: 'no-job' })
    expect((await here.jobs.read(id))!.document.job.name).toBe('Ours')
  })

  it('note a change under the person who acts', async () => {
    const { id, version, document } = await here.jobs.create(emptyJob('0002', 'Before'))
    await here.jobs.save(id, { version }, { ...document, job: { ...document.job, name: 'After' } })
    expect(await here.jobHistory.of(id)).toMatchObject([
      { who: 'Ida', version: version + 1, changes: [{ path: 'job/name', before: 'Before', after: 'After' }] },
    ])
  })
})

describe('checking', () => {
  /** A workshop whose jobs are checked in the background by a check of one's own. */
  async function judged(judge: Partial<Judge>) {
    const queue = new JudgingQueue(db.sql, { ...judgeHere, ...judge })
    queues.push(queue)
    const workshop = await newWorkshop(judgeHere, 'Ida', queue.wake)
    return { ...workshop, queue }
  }
  const queues: JudgingQueue[] = []
  afterEach(async () => {
    for (const queue of queues.splice(0)) {
      queue.stop()
      await queue.settled()
    }
  })
  const renamed = (document: JobDocument, name: string): JobDocument => ({
    ...document,
    job: { ...document.job, name },
  })
  const listed = async ({ jobList }: Repositories) => (await jobList.page()).jobs

  it('comes a moment after a save: until then the list says so, and shows nothing old', async () => {
    let go: () => void = () => undefined
    const held = new Promise<void>((resolve) => {
      go = resolve
    })
    const here = await judged({
      async verdict(job) {
        await held
        return judgeHere.verdict(job)
      },
    })
    await here.jobs.create(emptyJob('0001', 'Slow'))
    expect(await listed(here)).toMatchObject([{ verdict: null, headline: 'Being checked', reason: '' }])
    go()
    await here.queue.settled()
    expect((await listed(here))[0]!.verdict).not.toBeNull()
  })

  it('is that of the wiring where it is decided and worse', async () => {
    const here = await judged(judgeHere)
    await here.jobs.create(withValues(longWayJob(), { 'runs/charger-1-return/lengthM': 12 }))
    await here.queue.settled()
    expect(await listed(here)).toMatchObject([
      { verdict: 'suits-once-changed', headline: 'Suits after 1 change' },
    ])
  })

  it('is done again where the rules change meanwhile, so that no verdict of older rules is kept', async () => {
    const seen: unknown[] = []
    const own: { shop?: Repositories['shop'] } = {}
    const here = await judged({
      async verdict(job) {
        if (job.document.job.name !== 'Slow') return judgeHere.verdict(job)
        seen.push(job.rules)
        if (seen.length === 1) await own.shop!.save({ ...(await own.shop!.read()), rules: { lowSoc: 30 } })
        return { ...(await judgeHere.verdict(job)), reason: `by rules ${JSON.stringify(job.rules)}` }
      },
    })
    own.shop = here.shop
    await here.jobs.create(emptyJob('0001', 'Slow'))
    await here.queue.settled()
    expect(seen).toEqual([{}, { lowSoc: 30 }])
    expect(await listed(here)).toMatchObject([{ reason: 'by rules {"lowSoc":30}' }])
    expect(await here.shop.waiting()).toBe(0)
  })

  it('never writes over the checking of a job that was saved meanwhile', async () => {
    let meanwhile: (() => Promise<unknown>) | null = null
    const here = await judged({
      async verdict(job) {
        const first = meanwhile
        meanwhile = null
        await first?.()
        return { ...(await judgeHere.verdict(job)), reason: `name ${job.document.job.name}` }
      },
    })
    const { id, version, document } = await here.jobs.create(emptyJob('0001', 'Old'))
    meanwhile = () => here.jobs.save(id, { version }, renamed(document, 'New'))
    await here.queue.settled()
    expect(await listed(here)).toMatchObject([{ name: 'New', reason: 'name New' }])
  })

  it('that a server left undone is caught up by the next one', async () => {
    const left = await newWorkshop()
    const { id, version, document } = await left.jobs.create(emptyJob('0001', 'Left'))
    await left.jobs.save(id, { version }, renamed(document, 'Left again'))
    expect(await left.shop.waiting()).toBe(1)
    const queue = new JudgingQueue(db.sql, judgeHere)
    await queue.settled()
    queue.stop()
    expect(await left.shop.waiting()).toBe(0)
    expect((await listed(left))[0]!.verdict).not.toBeNull()
  })

  it('of a job that takes too long is given up, said, and not tried again', async () => {
    let tries = 0
    const here = await judged({
      verdict(job) {
        if (job.document.job.name !== 'Huge') return judgeHere.verdict(job)
        tries++
        return Promise.reject(new TooLarge('too large'))
      },
    })
    await here.jobs.create(emptyJob('0001', 'Huge'))
    await here.queue.settled()
    await here.queue.settled()
    expect(tries).toBe(1)
    expect(await listed(here)).toMatchObject([{ verdict: null, headline: 'Too large to check at once' }])
  })

  it('holds no transaction open', async () => {
    const open: number[] = []
    const here = await judged({
      async verdict(job) {
        const [row] = await db.sql<{ count: number }[]>`
          select count(*)::int as count from pg_stat_activity
          where datname = current_database() and pid <> pg_backend_pid() and state like 'idle in transaction%'`
        open.push(row!.count)
        return judgeHere.verdict(job)
      },
    })
    const { id, version, document } = await here.jobs.create(emptyJob('0001', 'A'))
    await here.queue.settled()
    await here.jobs.save(id, { version }, renamed(document, 'B'))
    await here.queue.settled()
    expect(open).toEqual([0, 0])
  })
})

describe('numbers', () => {
  it('of thirty jobs made at once are thirty numbers', async () => {
    const { jobs } = await newWorkshop()
    const made = await Promise.all(
      Array.from({ length: 30 }, () => jobs.createNumbered((number) => emptyJob(number, 'Many'))),
    )
    expect(new Set(made.map(({ document }) => document.job.number)).size).toBe(30)
  })

  it('that someone has given are passed over, and never given twice', async () => {
    const { jobs } = await newWorkshop()
    await jobs.create(emptyJob('0001'))
    const { id, version, document } = await jobs.createNumbered((number) => emptyJob(number))
    expect(document.job.number).toBe('0002')
    await expect(jobs.create(emptyJob('0002'))).rejects.toThrow(NumberTaken)
    const taken = { ...document, job: { ...document.job, number: '0001' } }
    await expect(jobs.save(id, { version }, taken)).rejects.toThrow(NumberTaken)
    expect((await jobs.read(id))!.version).toBe(version)
  })
})

describe('lists', () => {
  it('give every job once, page by page, however they are sorted and though they are alike', async () => {
    const { jobs, jobList } = await newWorkshop()
    const made = await Promise.all(
      Array.from({ length: 2 * jobsAPage + 5 }, () => jobs.createNumbered((number) => emptyJob(number))),
    )
    await db.sql`update job set updated_at = '2026-01-02T03:04:05.678901Z' where job_id in ${db.sql(made.map(({ id }) => id))}`
    for (const sort of jobSorts) {
      const seen: string[] = []
      let after: string | undefined
      do {
        const page: JobPage = await jobList.page({ after, sort })
        seen.push(...page.jobs.map(({ id }) => id))
        after = page.next ?? undefined
      } while (after)
      expect(seen, sort).toHaveLength(made.length)
      expect(new Set(seen).size, sort).toBe(made.length)
    }
  })

  it('are sorted as requested, jobs without a due date last', async () => {
    const { jobs, jobList } = await newWorkshop()
    const make = (number: string, name: string, dueDate?: string) =>
      jobs.create({ ...emptyJob(number), job: { ...emptyJob(number).job, name, dueDate } })
    await make('0003', 'Tern')
    await make('0001', 'auk', '2026-12-24')
    await make('0002', 'Puffin', '2026-12-04')
    const numbers = async (sort: JobSort) => (await jobList.page({ sort })).jobs.map(({ number }) => number)
    expect(await numbers('changed')).toEqual(['0002', '0001', '0003'])
    expect(await numbers('due')).toEqual(['0002', '0001', '0003'])
    expect(await numbers('number')).toEqual(['0001', '0002', '0003'])
    expect(await numbers('name')).toEqual(['0001', '0002', '0003'])
  })

  it('of the whole shelf end where the shelf ends, and not before', async () => {
    const { shelf } = await newWorkshop()
    const parts = Array.from({ length: 2100 }, (_, i) => ({
      code: `F-${i}`,
      name: `Fuse ${i % 7}`,
      maker: '',
      values: {},
    }))
    await shelf.put('fuses', parts)
    const whole: string[] = []
    let after: string | null = null
    do {
      const page: WholePage = await shelf.whole(after)
      whole.push(...page.parts.map(({ code }) => code))
      after = page.next
    } while (after)
    expect(new Set(whole).size).toBe(2100)
    const listed: string[] = []
    for await (const some of shelf.all('fuses')) listed.push(...some.map(({ code }) => code))
    expect(listed.toSorted()).toEqual(whole.toSorted())
  })

  it('of the shelf come by name, code, maker or price, those without a price last, each part once', async () => {
    const { shelf } = await newWorkshop()
    const parts = Array.from({ length: 450 }, (_, i) => ({
      code: `F-${i + 100}`,
      name: `Fuse ${i % 7}`,
      maker: i % 2 ? 'North' : 'South',
      values: (i % 5 ? { price: (i * 37) % 90 } : {}) as Record<string, number>,
    }))
    await shelf.put('fuses', parts)
    for (const sort of shelfSorts) {
      const listed: ShelfRecord[] = []
      let after: string | null = null
      do {
        const page: ShelfPage = await shelf.list('fuses', '', after, sort)
        listed.push(...page.parts)
        after = page.next
      } while (after)
      expect(new Set(listed.map(({ code }) => code)).size).toBe(450)
      const keyOf = ({ name, code, maker, values }: ShelfRecord): string | number =>
        ({ name, code, maker, price: Number(values.price ?? 1e9) })[sort]
      const keys = listed.map(keyOf)
      expect(keys.every((key, i) => i === 0 || keys[i - 1]! <= key)).toBe(true)
    }
  })
})

describe('a part of the shelf', () => {
  const part = (name: string) => ({ code: 'X-1', name, maker: '', values: {} })

  it('is saved by one of thirty who changed the same version', async () => {
    const { shelf } = await newWorkshop()
    await shelf.save('fuses', 0, part('First'))
    const answers = await Promise.all(
      Array.from({ length: 30 }, (_, i) => shelf.save('fuses', 1, part(`Writer ${i}`))),
    )
    expect(answers.filter((saved) => saved !== null)).toHaveLength(1)
    expect((await shelf.versions('fuses', 'X-1')).map(({ version }) => version)).toEqual([2, 1])
  })

  it('is taken off in the version that was seen, and by whom is noted', async () => {
    const { shelf } = await newWorkshop()
    await shelf.save('fuses', 0, part('First'))
    await shelf.save('fuses', 1, part('Second'))
    expect(await shelf.retire('fuses', 'X-1', 1)).toBe('stale')
    expect(await shelf.retire('fuses', 'X-1', 2)).toBe('retired')
    expect(await shelf.retire('fuses', 'X-1', 2)).toBe('gone')
    expect(await db.sql`select retired_by from shelf_part where code = 'X-1' and retired`).toContainEqual({
      retired_by: 'Ida',
    })
  })
})

describe('a deleted job', () => {
  it('is in no list and cannot be saved, and comes back as it was', async () => {
    const { jobs, jobList } = await newWorkshop()
    const { id, version, document } = await jobs.createNumbered((number) => emptyJob(number, 'Gone'))
    expect(await jobs.remove(id)).toBe(true)
    expect(await jobs.remove(id)).toBe(false)
    expect((await jobList.page()).jobs).toEqual([])
    expect((await jobList.page({ deleted: true })).jobs).toMatchObject([{ id, name: 'Gone' }])
    expect(await jobs.read(id)).toBeNull()
    expect(await jobs.save(id, { version }, { ...document, job: { ...document.job, name: 'x' } })).toBeNull()
    expect(await jobs.bringBack(id)).toBe(true)
    expect((await jobs.read(id))!.document).toEqual(document)
  })

  it('goes after thirty days with its history, but never one with issued papers', async () => {
    const { jobs } = await newWorkshop()
    const made = await Promise.all(
      ['Old', 'Issued', 'Fresh', 'Kept'].map((name) =>
        jobs.createNumbered((number) => emptyJob(number, name)),
      ),
    )
    const [old, issued, fresh] = made.map(({ id }) => id) as [string, string, string]
    for (const id of [old, issued, fresh]) await jobs.remove(id)
    await db.sql`
      insert into sheet (workshop_id, job_id, count, number, name, issued_at, issued_by, content, digest)
      select workshop_id, job_id, 1, number, 'x', now(), 'Ida', '{}', 'x' from job where job_id = ${issued}`
    await db.sql`update job set deleted_at = now() - interval '31 days' where job_id in ${db.sql([old, issued])}`
    expect(await purge(db.sql)).toBe(1)
    const left = await db.sql<{ id: string }[]>`
      select job_id as id from job where job_id in ${db.sql(made.map(({ id }) => id))}`
    expect(left.map(({ id }) => id).toSorted()).toEqual([issued, fresh, made[3]!.id].toSorted())
  })

  it('stays where the clock has leapt ahead, until it has gone on for two days', async () => {
    const { jobs } = await newWorkshop()
    const { id } = await jobs.createNumbered((number) => emptyJob(number, 'Old'))
    await jobs.remove(id)
    await db.sql`update job set deleted_at = now() - interval '31 days' where job_id = ${id}`
    await db.sql`update workshop set looked_at = now() - interval '400 days'`
    expect(await purge(db.sql)).toBe(0)
    expect(await purge(db.sql)).toBe(0)
    // Two days later.
    await db.sql`update workshop set clock_since = now() - interval '2 days'`
    expect(await purge(db.sql)).toBe(1)
  })
})

describe('data that a backup was brought back over', () => {
  it('take no save, paper or setting that was made on those before, though the version is the same', async () => {
    const { jobs, shop } = here
    const { id, ...seen } = await jobs.createNumbered((number) => emptyJob(number, 'Marigold'))
    const settings = await shop.read()
    const [row] = await db.sql<{ id: string; epoch: string }[]>`
      update workshop set epoch = gen_random_uuid() where epoch = ${seen.epoch} returning workshop_id as id, epoch`
    const again = repositoriesOf(
      db.sql,
      { workshop: row!.id, person: 'Ida', role: 'owner', epoch: row!.epoch },
      judgeHere,
    )
    const document = { ...seen.document, notes: { use: 'later' } }
    expect(await again.jobs.save(id, seen, document)).toMatchObject({
      saved: false,
      theirs: { version: seen.version, epoch: row!.epoch },
    })
    expect(await again.sheets.issue(id, seen, new Date())).toMatchObject({ kind: 'stale' })
    expect(await again.shop.save(settings)).toBeNull()
    expect(await again.jobs.save(id, { ...seen, epoch: row!.epoch }, document)).toMatchObject({ saved: true })
  })
})

describe('the history of a job', () => {
  it('is one entry for a burst of typing in one value, and another for the next value', async () => {
    const { jobs, jobHistory } = await newWorkshop()
    let job = await jobs.createNumbered((number) => emptyJob(number, ''))
    const type = async (head: object): Promise<void> => {
      const document = { ...job.document, job: { ...job.document.job, ...head } }
      const saved = await jobs.save(job.id, job, document)
      job = (saved as { job: StoredJob }).job
    }
    for (const name of ['M', 'Ma', 'Mar', 'Marigold']) await type({ name })
    await type({ customer: 'T' })
    const [second, first, ...others] = await jobHistory.of(job.id)
    expect(others).toEqual([])
    expect(first!.changes).toMatchObject([{ path: 'job/name', before: '', after: 'Marigold' }])
    expect(second).toMatchObject({ version: job.version, changes: [{ path: 'job/customer', after: 'T' }] })
  })

  it('keeps that there was a change where it is too large to keep, and fits into one answer', async () => {
    const { jobs, jobHistory } = await newWorkshop()
    let job = await jobs.createNumbered((number) => emptyJob(number, ''))
    const write = async (text: string): Promise<void> => {
      const saved = await jobs.save(job.id, job, { ...job.document, notes: { use: text } })
      job = (saved as { job: StoredJob }).job
    }
    await write('x'.repeat(300_000))
    await write('y')
    expect((await jobHistory.of(job.id))[0]!.changes).toBeNull()
    for (let i = 0; i < 12; i++) {
      await write(`${i} ${'z'.repeat(100_000)}`)
      await jobs.save(job.id, job, job.document)
      await db.sql`update job_history set at = at - interval '1 hour' where job_id = ${job.id}`
    }
    const page = await jobHistory.of(job.id)
    expect(JSON.stringify(page).length).toBeLessThan(1_200_000)
    const older = await jobHistory.of(job.id, page.at(-1)!.version)
    expect(older.length).toBeGreaterThan(0)
    expect(older[0]!.version).toBeLessThan(page.at(-1)!.version)
  })
})
