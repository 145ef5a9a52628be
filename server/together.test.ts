import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { long } from '#core/testing'
import { ask } from '../tests/api-client'
import { freshDatabase, startServer, type TestDatabase, type TestServer } from '../tests/harness'
import type { StoredJob } from './repositories/jobs'

let db: TestDatabase
let here: TestServer
let there: TestServer
let job: StoredJob

beforeAll(async () => {
  db = await freshDatabase()
  ;[here, there] = await Promise.all([startServer(db.applicationUrl), startServer(db.applicationUrl)])
  const [row] = await db.sql<{ id: string }[]>`select job_id as id from job where number = '0417'`
  job = (await ask<StoredJob>(here, 'GET', `/api/jobs/${row!.id}`)).body
})
afterAll(async () => {
  await Promise.all([here.stop(), there.stop()])
  await db.drop()
})

/** The news that a window hears, until the wanted one came. */
async function newsUntil(
  server: TestServer,
  window: string,
  wanted: (news: { kind: string; data: Record<string, unknown> }) => boolean,
  act: () => Promise<unknown>,
): Promise<Record<string, unknown>> {
  const ending = new AbortController()
  const response = await fetch(`${server.url}/api/news?window=${window}`, { signal: ending.signal })
  const reader = response.body!.pipeThrough(new TextDecoderStream()).getReader()
  let text = ''
  let hasActed = false
  for (;;) {
    const { value = '', done } = await reader.read()
    text += value
    for (const block of text.split('\n\n').slice(0, -1)) {
      const kind = /^event: (.*)$/m.exec(block)?.[1] ?? ''
      const data = JSON.parse(/^data: (.*)$/m.exec(block)?.[1] ?? '{}') as Record<string, unknown>
      if (wanted({ kind, data })) {
        ending.abort()
        return data
      }
    }
    if (done) throw new Error(`The stream ended: ${text}`)
    if (!hasActed) {
      hasActed = true
      // Listening begins with the first window: it must have begun before something is to be heard.
      await new Promise((resolve) => setTimeout(resolve, 300))
      void act()
    }
  }
}

const window = (n: number): string => `00000000-0000-4000-8000-00000000000${n}`
const enter = (server: TestServer, n: number, who: string, id: string | null, view = 'Bench') =>
  ask<{ here: unknown[] }>(server, 'PUT', '/api/presence', { window: window(n), who, job: id, view })

describe('two servers on one database', () => {
  it('tell each other of a saved job, with its version and who saved it', async () => {
    const news = await newsUntil(
      there,
      window(1),
      ({ kind }) => kind === 'job',
      () =>
        ask(here, 'PUT', `/api/jobs/${job.id}`, {
          version: job.version,
          who: 'Phone',
          document: { ...job.document, notes: { place: 'Frost' } },
        }),
    )
    expect(news).toEqual({ job: job.id, version: job.version + 1, by: 'Phone', isDeleted: false })
  })

  it('tell each other who has a job open, and where', async () => {
    const { here: present } = await newsUntil(
      there,
      window(2),
      ({ kind, data }) => kind === 'presence' && (data.here as unknown[]).length > 0,
      () => enter(here, 3, 'Isolde', job.id, 'Prove'),
    )
    expect(present).toEqual([{ window: window(3), person: 'Isolde', view: 'Prove' }])
    expect((await enter(here, 3, 'Isolde', null)).body.here).toEqual([])
    expect((await enter(there, 4, 'Piet', job.id)).body.here).toHaveLength(1)
  })

  it('forget a window once its stream ends', async () => {
    await enter(here, 5, 'Rasmus', job.id)
    await newsUntil(
      here,
      window(5),
      ({ kind }) => kind === 'alive',
      () => Promise.resolve(),
    )
    await expect
      .poll(async () => (await db.sql`select 1 from presence where window_id = ${window(5)}`).length, {
        timeout: 60_000,
      })
      .toBe(0)
  })

  it('carry out one change once, whichever of them it is sent to', async () => {
    const { body: now } = await ask<StoredJob>(here, 'GET', `/api/jobs/${job.id}`)
    const order = {
      change: '11111111-1111-4111-8111-111111111111',
      version: now.version,
      who: 'Phone',
      document: { ...now.document, notes: { place: 'Ice' } },
    }
    const answers = await Promise.all(
      [here, there, here, there].map((server) => ask(server, 'PUT', `/api/jobs/${job.id}`, order)),
    )
    expect(answers.map(({ status, body }) => [status, body.version])).toEqual(
      Array(4).fill([200, now.version + 1]),
    )
    const history =
      await db.sql`select 1 from job_history where job_id = ${job.id} and version > ${now.version}`
    expect(history.length).toBeLessThanOrEqual(1)
  })

  it('tell a device that comes back which of its changes arrived', async () => {
    const { body: now } = await ask<StoredJob>(here, 'GET', `/api/jobs/${job.id}`)
    const put = (change: string, version: number, note: string, unsure: string[] = []) =>
      ask<{ arrived?: string; version?: number }>(here, 'PUT', `/api/jobs/${job.id}`, {
        change,
        version,
        unsure,
        who: 'Phone',
        document: { ...now.document, notes: { place: note } },
      })
    const [first, second] = ['22222222-2222-4222-8222-222222222222', '33333333-3333-4333-8333-333333333333']
    expect((await put(first!, now.version, 'one')).status).toBe(200)
    const late = await put(second!, now.version, 'two', [first!])
    expect([late.status, late.body.arrived]).toEqual([409, first])
  })

  it('make a job of a device once, with the next number, and refuse a broken one', async () => {
    const id = '44444444-4444-4444-8444-444444444444'
    const document = { ...job.document, job: { ...job.document.job, number: 'New 1' } }
    const order = { change: '55555555-5555-4555-8555-555555555555', version: 0, who: 'Phone', document }
    const made = await ask<StoredJob>(here, 'PUT', `/api/jobs/${id}`, order)
    expect(made.status).toBe(200)
    expect(made.body.document.job.number).toMatch(/^04\d\d$/)
    const again = await ask<StoredJob>(there, 'PUT', `/api/jobs/${id}`, order)
    expect(again.body).toMatchObject({
      version: 1,
      document: { job: { number: made.body.document.job.number } },
    })
    const broken = { ...order, document: { ...document, place: 7 } }
    expect((await ask(here, 'PUT', `/api/jobs/${id.replaceAll('4', '6')}`, broken)).status).toBe(422)
  })
})

it(
  'one of two servers is killed under load: the other goes on, nothing saved is lost, nothing is saved twice',
  long,
  async () => {
    const doomed = await startServer(db.applicationUrl)
    const edits = 25
    const rows = await db.sql<
      { id: string }[]
    >`select job_id as id from job where number between '0418' and '0433'`
    expect(rows.length).toBeGreaterThanOrEqual(4)
    let saved = 0
    /** Saves the edits of one job in order; what got no answer goes to the server that lives, with the same id. */
    const work = async ({ id }: { readonly id: string }, n: number) => {
      const { body: first } = await ask<StoredJob>(here, 'GET', `/api/jobs/${id}`)
      let { version } = first
      for (let edit = 1; edit <= edits; edit++) {
        const order = {
          change: randomUUID(),
          version,
          who: `Phone ${n}`,
          document: { ...first.document, notes: { place: `edit ${edit}` } },
        }
        const send = (server: TestServer) =>
          ask<StoredJob>(server, 'PUT', `/api/jobs/${id}`, order).catch(() => null)
        const answer = (await send((edit + n) % 2 ? doomed : here)) ?? (await send(here))
        expect([answer?.status, answer?.body.version]).toEqual([200, version + 1])
        version = answer!.body.version
        if (++saved === 30) await doomed.stop()
      }
      const { body: last } = await ask<StoredJob>(here, 'GET', `/api/jobs/${id}`)
      return [last.version - first.version, last.document.notes]
    }
    const results = await Promise.all(rows.map(work))
    expect(results).toEqual(rows.map(() => [edits, { place: `edit ${edits}` }]))
  },
)
