import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { shelfKindIds } from '#core/shelf/kinds'
import { writeShelfCsv } from '#core/formats/shelf-csv'
import { ask, listedJobs } from '../tests/api-client'
import { freshDatabase, startServer, type TestDatabase, type TestServer } from '../tests/harness'
import type { JobRow } from './repositories/job-list'
import type { StoredJob } from './repositories/jobs'
import type { PhotoRow } from './repositories/photos'
import type { ShelfRecord } from './repositories/shelf'
import type { Preview, ShopSettings as Shop } from './repositories/shop'

let db: TestDatabase
let server: TestServer
const call = <T = Record<string, unknown>>(
  method: string,
  path: string,
  body?: unknown,
  headers?: Record<string, string>,
) => ask<T>(server, method, path, body, headers)

beforeAll(async () => {
  db = await freshDatabase()
  server = await startServer(db.applicationUrl)
})
afterAll(async () => {
  await server.stop()
  await db.drop()
})

const shop = async (): Promise<Shop> => (await call<Shop>('GET', '/api/shop')).body
const job = async (number: string): Promise<JobRow> =>
  (await listedJobs(server)).find((row) => row.number === number)!

describe('shop rules', () => {
  it('are the defaults at first', async () =>
    expect(await shop()).toMatchObject({
      name: 'Larkspur Slip Electrics',
      rules: {},
      units: { system: 'metric', currency: '€' },
    }))

  it('show their effect on the open jobs, and change nothing until they are saved', async () => {
    const before = await job('0421')
    const preview = await call<Preview>('POST', '/api/shop/preview', {
      rules: { certificatesVehicle: 'both', windowTimeShare: 10 },
    })
    expect(preview).toMatchObject({ status: 200, body: { open: 6, judged: 6 } })
    expect(preview.body.changed).toEqual([])
    const strict = await call<Preview>('POST', '/api/shop/preview', {
      rules: { certificatesVessel: 'both', chargerSchool: 'replace' },
    })
    expect(strict.body.changed.map((c) => [c.number, c.before, c.after]).toSorted()).toEqual([
      ['0417', 'suits-once-changed', 'does-not-suit'],
      ['0424', 'measure-first', 'does-not-suit'],
      ['0427', 'suits-once-changed', 'does-not-suit'],
    ])
    expect(await job('0421')).toEqual(before)
  })

  it('kept, check every open job again; a job handed over keeps its verdict', async () => {
    const tug = await job('0427')
    const stored = (await call<StoredJob>('GET', `/api/jobs/${tug.id}`)).body
    await call('PUT', `/api/jobs/${tug.id}`, {
      version: stored.version,
      who: 'Test',
      document: { ...stored.document, job: { ...stored.document.job, stage: 'done' } },
    })
    expect((await job('0427')).stage).toBe('done')
    const kept = await call<{ shop: Shop; waiting: number }>('PUT', '/api/shop', {
      ...(await shop()),
      rules: { chargerSchool: 'replace' },
    })
    expect(kept).toMatchObject({
      status: 200,
      body: { waiting: expect.any(Number) as number, shop: { rules: { chargerSchool: 'replace' } } },
    })
    expect((await job('0417')).verdict).toBe('does-not-suit')
    expect((await job('0417')).reason).toContain('has no lithium profile')
    expect((await job('0427')).verdict).toBe('suits-once-changed')
    await call('PUT', '/api/shop', { ...(await shop()), rules: {} })
    expect((await job('0417')).verdict).toBe('suits-once-changed')
  })

  it('take no name that cannot be stored', async () => {
    const named = { ...(await shop()), name: 'Slip\u0000' }
    expect((await call('PUT', '/api/shop', named)).status).toBe(422)
  })

  it('of another person in the meantime are not overwritten', async () => {
    const mine = await shop()
    expect((await call('PUT', '/api/shop', { ...mine, name: 'First' })).status).toBe(200)
    const late = await call<{ error: string; theirs: Shop }>('PUT', '/api/shop', { ...mine, name: 'Second' })
    expect(late).toMatchObject({ status: 409, body: { theirs: { name: 'First' } } })
    expect((await shop()).name).toBe('First')
  })

  it('in imperial units are written so in the lists', async () => {
    await call('PUT', '/api/shop', { ...(await shop()), units: { system: 'imperial', currency: '$' } })
    const trailer = await job('0430')
    const stored = (await call<StoredJob>('GET', `/api/jobs/${trailer.id}`)).body
    const warm = {
      ...stored.document,
      candidate: {
        ...stored.document.candidate,
        continuousA: { value: 400 },
        mostInverterW: { value: 5000 },
        ahEach: { value: 400 },
      },
      place: { ...stored.document.place, hottestC: { value: 80 } },
    }
    await call('PUT', `/api/jobs/${trailer.id}`, { version: stored.version, who: 'Test', document: warm })
    expect((await job('0430')).reason).toContain('176 °F')
    await call('PUT', '/api/shop', { ...(await shop()), units: { system: 'metric', currency: '€' } })
  })

  it.each([
    ['a rule that does not exist', { rules: { nonsense: 1 } }],
    ['a rule out of its limits', { rules: { windowLowV: 900 } }],
    ['a school that does not exist', { rules: { coldSchool: 'hot' } }],
    ['a word for a number', { rules: { lowSoc: 'low' } }],
  ])('%s is refused', async (_says, change) => {
    const before = await shop()
    const reply = await call<{ fields: Record<string, string> }>('PUT', '/api/shop', { ...before, ...change })
    expect(reply.status).toBe(422)
    expect(Object.keys(reply.body.fields)[0]).toMatch(/^rules\//)
    expect((await call('POST', '/api/shop/preview', change)).status).toBe(422)
    expect(await shop()).toEqual(before)
  })
})

describe('the shelf', () => {
  const put = (code: string, version: unknown, values: unknown, kind = 'chargers', more: object = {}) =>
    call<ShelfRecord & { error: string; fields?: Record<string, string> }>(
      'PUT',
      `/api/shelf/${kind}/parts/${code}`,
      { version, who: 'Test', name: 'Test charger', maker: '', values, ...more },
    )

  it('lists the current version of a kind, finds by words, and counts each kind', async () => {
    const { body } = await call<{ parts: ShelfRecord[]; counts: Record<string, number> }>(
      'GET',
      '/api/shelf?kind=batteries&words=brindle%20200',
    )
    expect(body.parts.map((part) => [part.code, part.version, part.values.price])).toEqual([
      ['BRI-200H', 2, 1520],
    ])
    expect(Object.keys(body.counts)).toHaveLength(shelfKindIds.length)
    expect(Object.values(body.counts).reduce((a, b) => a + b)).toBeGreaterThanOrEqual(60)
  })

  it('keeps every version; a save over an old one is refused, and a retired part is gone but not forgotten', async () => {
    expect(await put('T-1', 0, { ratedA: 20 })).toMatchObject({ status: 200, body: { version: 1 } })
    expect(await put('T-1', 0, { ratedA: 21 })).toMatchObject({
      status: 409,
      body: { error: 'T-1 stands on the shelf already' },
    })
    expect(await put('T-1', 1, { ratedA: 25 })).toMatchObject({
      status: 200,
      body: { version: 2, values: { ratedA: 25 } },
    })
    expect((await put('T-1', 1, { ratedA: 30 })).status).toBe(409)
    expect(await put('T-1', 2, { ratedA: 25 })).toMatchObject({ status: 200, body: { version: 2 } })
    expect(
      (await call<ShelfRecord[]>('GET', '/api/shelf/chargers/parts/T-1')).body.map(
        (part) => part.values.ratedA,
      ),
    ).toEqual([25, 20])
    const off = (version: number) =>
      call('DELETE', `/api/shelf/chargers/parts/T-1?version=${version}&who=Test`)
    expect((await call('DELETE', '/api/shelf/chargers/parts/T-1')).status).toBe(422)
    expect((await off(1)).status).toBe(409)
    expect((await off(2)).status).toBe(200)
    expect((await off(2)).status).toBe(404)
    expect(
      (await call<{ parts: ShelfRecord[] }>('GET', '/api/shelf?kind=chargers&words=test%20charger')).body
        .parts,
    ).toEqual([])
    expect(
      (await call<ShelfRecord[]>('GET', '/api/shelf/current?codes=T-1,BRI-200H')).body
        .map((part) => [part.code, part.version, part.retired])
        .toSorted(),
    ).toEqual([
      ['BRI-200H', 2, false],
      ['T-1', 2, true],
    ])
  })

  it.each([
    ['a kind that is none', () => put('T-2', 0, {}, 'anvils'), 404],
    ['a code with spaces', () => put('no%20way', 0, {}), 404],
    ['a value out of limits', () => put('T-2', 0, { ratedA: -5 }), 422],
    ['a value that is none of the kind', () => put('T-2', 0, { colour: 'red' }), 422],
    ['a value of another type', () => put('T-2', 0, { ratedA: [1] }), 422],
    ['a huge number', () => put('T-2', 0, { ratedA: 1e300 }), 422],
    ['a version that is none', () => put('T-2', 'x', {}), 422],
    ['a name of control letters', () => put('T-2', 0, {}, 'chargers', { name: 'a\u0007' }), 422],
    ['values that are none', () => put('T-2', 0, 'none'), 422],
  ])('%s is refused with words', async (_says, attempt, status) => {
    const reply = await attempt()
    expect(reply.status).toBe(status)
    expect(reply.body.error).toMatch(/\w/)
    expect((await call('GET', '/api/shelf/chargers/parts/T-2')).status).toBe(404)
  })

  it('a table of 5000 rows with 37 bad ones: each fault named by line and column, 4963 taken when asked', async () => {
    const rows = Array.from({ length: 5000 }, (_, i) => ({
      code: `BULK-${i}`,
      name: `Bulk ${i}`,
      maker: 'Test',
      values: { ratedA: 10 + (i % 50), profile: 'lithium' },
    }))
    const lines = writeShelfCsv('chargers', rows).split('\n')
    const bad = Array.from({ length: 37 }, (_, k) => 10 + k * 130)
    for (const line of bad) lines[line - 1] = lines[line - 1]!.replace('lithium', line % 2 ? 'magic' : 'lead')
    const text = lines.join('\n')
    const check = await call<{
      good: number
      bad: number
      count: number
      problems: { line: number; column: string; reason: string }[]
    }>('POST', '/api/shelf/chargers/table?who=Test', text, { 'content-type': 'text/csv' })
    expect(check.body).toMatchObject({ count: 5000, good: 4963, bad: 37 })
    expect(check.body.problems.map((p) => [p.line, p.column])).toEqual(bad.map((line) => [line, 'profile']))
    expect(check.body.problems[0]!.reason).toMatch(/“lead” is not one of/)
    const count = async () =>
      (await call<{ counts: { chargers: number } }>('GET', '/api/shelf?kind=chargers')).body.counts.chargers
    const before = await count()
    const taken = await call<{ taken: object }>(
      'POST',
      '/api/shelf/chargers/table?who=Test&take=good',
      text,
      { 'content-type': 'text/csv' },
    )
    expect(taken.body.taken).toEqual({ added: 4963, changed: 0, same: 0 })
    expect(await count()).toBe(before + 4963)
    expect(
      (
        await call<{ taken: object }>('POST', '/api/shelf/chargers/table?who=Test&take=good', text, {
          'content-type': 'text/csv',
        })
      ).body.taken,
    ).toEqual({ added: 0, changed: 0, same: 4963 })
  })

  it('goes out as a table and comes back the same', async () => {
    const text = await (await fetch(`${server.url}/api/shelf/batteries/table`)).text()
    expect(
      (
        await call<{ taken: object }>('POST', '/api/shelf/batteries/table?who=Test&take=good', text, {
          'content-type': 'text/csv',
        })
      ).body,
    ).toMatchObject({ bad: 0, taken: { added: 0, changed: 0, same: 17 } })
  })

  it.each([
    ['bytes that are no text', new Uint8Array([0xff, 0xfe, 0, 1, 2]), 422],
    ['a picture', readFileSync(new URL('../tests/pixel.png', import.meta.url)), 422],
    ['more than 8 MB', new Uint8Array(9 * 1024 * 1024).fill(65), 413],
  ])('a table of %s is refused', async (_says, bytes, status) =>
    expect(
      (
        await call('POST', '/api/shelf/chargers/table?who=Test&take=good', bytes, {
          'content-type': 'text/csv',
        })
      ).status,
    ).toBe(status),
  )
})

describe('photos', () => {
  const png = readFileSync(new URL('../tests/pixel.png', import.meta.url))
  const send = (
    id: string,
    body: Uint8Array,
    query = 'who=Test&station=place&name=Locker',
    type = 'image/png',
  ) =>
    call<PhotoRow & { error: string }>('POST', `/api/jobs/${id}/photos?${query}`, body, {
      'content-type': type,
    })

  it('are kept with their station, shown as they are, and taken away', async () => {
    const { id } = await job('0417')
    const sent = await send(id, png)
    expect(sent).toMatchObject({ status: 201, body: { station: 'place', name: 'Locker', takenBy: 'Test' } })
    const picture = await fetch(`${server.url}/api/jobs/${id}/photos/${sent.body.id}`)
    expect(picture.headers.get('content-type')).toBe('image/png')
    expect((await picture.arrayBuffer()).byteLength).toBeGreaterThan(50)
    expect((await call<PhotoRow[]>('GET', `/api/jobs/${id}/photos`)).body).toHaveLength(1)
    expect((await call('GET', `/api/jobs/${(await job('0421')).id}/photos/${sent.body.id}`)).status).toBe(404)
    expect((await call('DELETE', `/api/jobs/${id}/photos/${sent.body.id}`)).status).toBe(200)
    expect((await call('DELETE', `/api/jobs/${id}/photos/${sent.body.id}`)).status).toBe(404)
  })

  it.each([
    [
      'no picture, whatever it calls itself',
      Buffer.from('<svg onload="alert(1)"/>'),
      undefined,
      'image/png',
      422,
    ],
    ['half a header', png.subarray(0, 12), undefined, 'image/png', 422],
    ['another type', png, undefined, 'text/plain', 415],
    ['a station that is none', png, 'who=Test&station=moon&name=x', 'image/png', 422],
    ['more than 8 MB', new Uint8Array(9 * 1024 * 1024), undefined, 'image/png', 413],
  ])('%s is refused', async (_says, body, query, type, status) => {
    const { id } = await job('0417')
    expect((await send(id, body, query, type)).status).toBe(status)
    expect((await call<PhotoRow[]>('GET', `/api/jobs/${id}/photos`)).body).toEqual([])
  })

  it('are no more than sixty, however many come at once', async () => {
    const { id } = await job('0433')
    const sent = await Promise.all(Array.from({ length: 70 }, () => send(id, png)))
    expect(sent.filter(({ status }) => status === 201)).toHaveLength(60)
    expect(sent.find(({ status }) => status === 422)!.body.error).toContain('at most 60 photos')
  })

  it('of a job that is not there, or no id, are not found', async () => {
    expect((await send('00000000-0000-4000-8000-000000000000', png)).status).toBe(404)
    expect((await call('GET', `/api/jobs/${(await job('0417')).id}/photos/none`)).status).toBe(404)
  })
})

describe('a new job', () => {
  it('can be a copy, or a typical vehicle, but not both', async () => {
    const { id } = await job('0424')
    const copy = await call<StoredJob>('POST', '/api/jobs', { who: 'Test', copyOf: id })
    expect(copy).toMatchObject({
      status: 201,
      body: { document: { job: { name: 'Copy of The Quillback', stage: 'enquiry' } } },
    })
    expect(
      (await call<StoredJob>('POST', '/api/jobs', { who: 'Test', typical: 'cruiser' })).body.document
        .alternators['alternator-1']!.ratedA,
    ).toEqual({ value: 80, how: 'assumed' })
    expect((await call('POST', '/api/jobs', { who: 'Test', typical: 'spaceship' })).status).toBe(422)
    expect((await call('POST', '/api/jobs', { who: 'Test', typical: 'bus', copyOf: id })).status).toBe(422)
    expect(
      (await call('POST', '/api/jobs', { who: 'Test', copyOf: '00000000-0000-4000-8000-000000000000' }))
        .status,
    ).toBe(404)
  })
})

describe('the shunt stand-in', () => {
  const read = async (query: string): Promise<string> =>
    (await fetch(`${server.url}/api/instruments/shunt?${query}`)).text()
  const readings = (text: string): number[][] =>
    [...text.matchAll(/^data: (\[.*\])$/gm)].flatMap((m) => JSON.parse(m[1]!) as number[][])

  it('streams the same vehicle for the same seed, after the received readings, and ends', async () => {
    const text = await read('speed=60&from=1600')
    const tail = readings(text)
    expect(tail).toHaveLength(80)
    expect(tail[0]![0]).toBe(400)
    expect(text).toContain('event: end')
    expect(readings(await read('speed=60&from=1600'))).toEqual(tail)
  })

  it('fails once on the way, as any link does, and goes on where it was', async () => {
    const text = await read('speed=60&from=800')
    expect(readings(text)).toHaveLength(100)
    expect(text).not.toContain('event: end')
    expect(readings(await read('speed=60&from=1640'))[0]![0]).toBe(410)
  })

  it('refuses impossible requests', async () => {
    for (const query of ['speed=0', 'speed=1e9', 'from=-1', 'seed=x'])
      expect((await call('GET', `/api/instruments/shunt?${query}`)).status).toBe(422)
  })
})

describe('parts and photos of another workshop', () => {
  it('are not there for this one', async () => {
    const [other] = await db.sql<
      { id: string }[]
    >`insert into workshop (name, created_at) values ('Another', now() + interval '1 day') returning workshop_id as id`
    await db.sql`update shelf_part set workshop_id = ${other!.id} where code = 'WRE-24S'`
    expect((await call('GET', '/api/shelf/batteries/parts/WRE-24S')).status).toBe(404)
    expect((await call<ShelfRecord[]>('GET', '/api/shelf/current?codes=WRE-24S')).body).toEqual([])
    expect((await call('DELETE', '/api/shelf/batteries/parts/WRE-24S?version=1&who=Test')).status).toBe(404)
  })
})
