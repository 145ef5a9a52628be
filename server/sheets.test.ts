import { long } from '#core/testing'
import { specifiedBy } from '#core/solve/specify'
import { planOf } from '#core/solve/plan'
import { readFileSync } from 'node:fs'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { PlainPaper } from '#core/papers/plain'
import { sheetOf, type Sheet } from '#core/papers/sheet'
import type { JobDocument } from '#core/job/document'
import { withSpecified } from '#core/job/as-specified'
import { searchAnswers } from '#core/solve/answers'
import { ask } from '../tests/api-client'
import { freshDatabase, startServer, type TestDatabase, type TestServer } from '../tests/harness'
import type { StoredJob } from './repositories/jobs'
import type { LetterheadRow } from './repositories/letterheads'
import type { WholePage } from './repositories/shelf'
import { digestOf, type SheetRow } from './repositories/sheets'
import type { ShopSettings as Shop } from './repositories/shop'

let db: TestDatabase
let server: TestServer
const call = <T = Record<string, unknown>>(method: string, path: string, body?: unknown) =>
  ask<T>(server, method, path, body)
const raw = async (path: string) => {
  const r = await fetch(server.url + path)
  return {
    status: r.status,
    type: r.headers.get('content-type') ?? '',
    bytes: new Uint8Array(await r.arrayBuffer()),
  }
}
let job: StoredJob

beforeAll(async () => {
  db = await freshDatabase()
  server = await startServer(db.applicationUrl)
  const document = JSON.parse(
    readFileSync(new URL('../demo/jobs/0417-oyster-workboat.json', import.meta.url), 'utf8'),
  ) as JobDocument
  job = (
    await call<StoredJob>('POST', '/api/jobs/import?who=Test', {
      ...document,
      job: { ...document.job, number: '0500' },
    })
  ).body
})
afterAll(async () => {
  await server.stop()
  await db.drop()
})

const save = async (document: JobDocument): Promise<void> => {
  const saved = await call<StoredJob>('PUT', `/api/jobs/${job.id}`, {
    version: job.version,
    who: 'Test',
    document,
  })
  expect(saved.status).toBe(200)
  job = (await call<StoredJob>('GET', `/api/jobs/${job.id}`)).body
}
const issue = () =>
  call<SheetRow & { error?: string }>('POST', `/api/jobs/${job.id}/sheets`, {
    version: job.version,
    who: 'Ida Brell',
  })

describe('the whole shelf', () => {
  it('is the choice for a search: current parts of all kinds', async () => {
    const { status, body: page } = await call<WholePage>('GET', '/api/shelf/whole')
    const body = page.parts
    expect(status).toBe(200)
    expect(body.length).toBeGreaterThan(80)
    expect(new Set(body.map((part) => part.kind)).size).toBeGreaterThan(10)
  })
})

describe('a specification sheet', () => {
  it('is not issued while nothing is specified', async () => {
    expect(await issue()).toMatchObject({
      status: 422,
      body: { error: expect.stringContaining('Choose an answer first') },
    })
  })

  it('is issued for the chosen answer, numbered, and frozen', async () => {
    const shelf = (await call<WholePage>('GET', '/api/shelf/whole')).body.parts
    const answer = searchAnswers(planOf(job.document, {}, shelf)).answers[0]!
    await save(withSpecified(job.document, specifiedBy(answer, 'Ida Brell', '2026-11-20T10:00:00.000Z')))
    const first = await issue()
    expect(first).toMatchObject({
      status: 200,
      body: { count: 1, number: '0500-1', name: answer.name, issuedBy: 'Ida Brell' },
    })
    const { body } = await call<SheetRow & { sheet: Sheet }>('GET', `/api/jobs/${job.id}/sheets/1`)
    expect(body.sheet.result.lines.length).toBeGreaterThan(0)
    expect(digestOf(JSON.stringify(body.sheet))).toBe(body.digest)
    // What was computed can be computed again from what was kept.
    expect(JSON.stringify(sheetOf(body.sheet.inputs).result)).toBe(JSON.stringify(body.sheet.result))
  })

  it('stays to the letter after rules, shelf and job have changed, and comes as the same PDF and CSV', async () => {
    const before = [
      await raw(`/api/jobs/${job.id}/sheets/1`),
      await raw(`/api/jobs/${job.id}/sheets/1/pdf`),
      await raw(`/api/jobs/${job.id}/sheets/1/csv`),
    ]
    const shop = (await call<Shop>('GET', '/api/shop')).body
    await call('PUT', '/api/shop', {
      ...shop,
      name: 'Another name',
      rules: { windowHighV: 14.4, labourPerH: 99 },
      units: { system: 'imperial', currency: '$' },
    })
    await db.sql`update shelf_part set part_values = jsonb_set(part_values, '{price}', '1') where kind = 'monitors'`
    await save({
      ...job.document,
      place: { ...job.document.place, coldestC: { value: -12, how: 'measured' } },
    })
    const after = [
      await raw(`/api/jobs/${job.id}/sheets/1`),
      await raw(`/api/jobs/${job.id}/sheets/1/pdf`),
      await raw(`/api/jobs/${job.id}/sheets/1/csv`),
    ]
    expect(after.map((r) => r.status)).toEqual([200, 200, 200])
    expect(after.map((r) => r.type.split(';')[0])).toEqual([
      'application/json',
      'application/pdf',
      'text/csv',
    ])
    for (let i = 0; i < 3; i++) expect(Buffer.compare(after[i]!.bytes, before[i]!.bytes)).toBe(0)
    expect(new TextDecoder().decode(after[1]!.bytes.slice(0, 5))).toBe('%PDF-')
    expect((await issue()).body).toMatchObject({ number: '0500-2' })
    expect(
      (await call<SheetRow[]>('GET', `/api/jobs/${job.id}/sheets`)).body.map((row) => row.number),
    ).toEqual(['0500-2', '0500-1'])
    const second = (await call<{ sheet: Sheet }>('GET', `/api/jobs/${job.id}/sheets/2`)).body.sheet
    expect(second.inputs).toMatchObject({ shop: { name: 'Another name' }, rules: { labourPerH: 99 } })
  })

  it('cannot be changed even in the database, and one that was is not given out', async () => {
    await expect(db.sql`update sheet set content = '{}' where job_id = ${job.id}`).rejects.toThrow(
      'never changed',
    )
    await expect(db.sql`delete from sheet where job_id = ${job.id}`).rejects.toThrow('taken away')
    await expect(db.sql`delete from job where job_id = ${job.id}`).rejects.toThrow('taken away')
    await expect(db.sql`truncate sheet cascade`).rejects.toThrow('taken away')
    await db.sql`alter table sheet disable trigger sheet_stays`
    await db.sql`update sheet set content = replace(content, 'Ida Brell', 'Somebody') where job_id = ${job.id} and count = 2`
    await db.sql`alter table sheet enable trigger sheet_stays`
    expect((await call('GET', `/api/jobs/${job.id}/sheets/2`)).status).toBe(500)
    expect((await call('GET', `/api/jobs/${job.id}/sheets/1`)).status).toBe(200)
  })

  it('of a state that is not the current one is refused with both sides', async () => {
    expect(
      await call('POST', `/api/jobs/${job.id}/sheets`, { version: job.version - 1, who: 'Test' }),
    ).toMatchObject({ status: 409, body: { theirs: { id: job.id } } })
  })

  it('has next to it the summary of the job as it is saved, as a PDF', async () => {
    const { status, type, bytes } = await raw(`/api/jobs/${job.id}/papers/summary/pdf`)
    expect([status, type, new TextDecoder().decode(bytes.slice(0, 5))]).toEqual([
      200,
      'application/pdf',
      '%PDF-',
    ])
    expect(
      (await call('GET', '/api/jobs/00000000-0000-4000-8000-000000000000/papers/summary/pdf')).status,
    ).toBe(404)
  })

  it.each([
    ['none', 'sheets/99'],
    ['a word', 'sheets/first'],
    ['a huge count', 'sheets/99999999999999'],
    ['its PDF', 'sheets/99/pdf'],
    ['its CSV', 'sheets/0/csv'],
  ])('that is not there is a 404: %s', async (_what, path) => {
    expect((await call('GET', `/api/jobs/${job.id}/${path}`)).status).toBe(404)
  })

  it.each([
    ['no version', { who: 'T' }],
    ['no name', { version: 1 }],
    ['a version that is text', { version: '1', who: 'T' }],
    ['a list', []],
  ])('asked for with %s is refused and issues nothing', async (_what, body) => {
    expect((await call('POST', `/api/jobs/${job.id}/sheets`, body)).status).toBeGreaterThanOrEqual(400)
    expect((await call<SheetRow[]>('GET', `/api/jobs/${job.id}/sheets`)).body).toHaveLength(2)
  })

  it('of a job that is not there is a 404', async () => {
    expect((await call('GET', '/api/jobs/00000000-0000-4000-8000-000000000000/sheets')).status).toBe(404)
    expect((await call('POST', '/api/jobs/nothing/sheets', { version: 1, who: 'T' })).status).toBe(404)
  })
})

describe('a specification in a job', () => {
  it.each([
    [
      'without its changes',
      { name: 'x', at: '2026-11-20T10:00:00Z', by: 'x', battery: [], steps: [], accepted: [] },
    ],
    [
      'with a path that is none',
      {
        name: 'x',
        at: '2026-11-20T10:00:00Z',
        by: 'x',
        battery: [],
        steps: [],
        accepted: [],
        changes: [{ path: '../../etc' }],
      },
    ],
    [
      'with a price that is text',
      {
        name: 'x',
        at: '2026-11-20T10:00:00Z',
        by: 'x',
        battery: [{ kind: null, code: '', version: 0, name: 'x', quantity: 1, unit: '', price: '10' }],
        steps: [],
        accepted: [],
        changes: [],
      },
    ],
    ['that is a word', 'all of it'],
  ])('%s is refused, and nothing is saved', async (_what, specified) => {
    const reply = await call('PUT', `/api/jobs/${job.id}`, {
      version: job.version,
      who: 'Test',
      document: { ...job.document, specified },
    })
    expect(reply.status).toBe(422)
    expect((await call<StoredJob>('GET', `/api/jobs/${job.id}`)).body.version).toBe(job.version)
  })
})

describe('a quotation', () => {
  const sheets = () => `/api/jobs/${job.id}/sheets`
  const quote = () =>
    call<SheetRow & { error?: string }>('POST', sheets(), {
      version: job.version,
      who: 'Ida Brell',
      kind: 'quotation',
    })
  const answer = (count: number, more: object = {}) =>
    call<SheetRow & { error?: string }>('POST', `${sheets()}/${count}/answer`, {
      who: 'Ida Brell',
      answer: 'accepted',
      name: 'Wren Tolhurst',
      ...more,
    })
  const travel = { name: 'Travel', group: 'other', quantity: 1, price: null } as const

  it('is not issued with a missing price, and names the line', async () => {
    await save({ ...job.document, quotation: { added: { travel } } })
    const { status, body } = await quote()
    expect([status, body.error]).toEqual([422, 'Enter the missing prices first: Travel'])
  })
  it('is issued, answered once with an option that it offers, and replaced by a newer one', async () => {
    const lines = { travel: { price: 48.5, isOptional: true } }
    await save({ ...job.document, quotation: { added: { travel }, lines } })
    const { status, body: first } = await quote()
    expect({ status, ...first }).toMatchObject({ status: 200, kind: 'quotation', answer: null })
    expect(Date.parse(first.until!) - Date.parse(first.issuedAt)).toBe(30 * 24 * 3600 * 1000)
    expect((await answer(first.count, { options: ['no-such-line'] })).status).toBe(422)
    expect((await answer(first.count, { options: ['travel'] })).body.answer).toMatchObject({
      answer: 'accepted',
      name: 'Wren Tolhurst',
      options: ['travel'],
      by: 'Ida Brell',
    })
    // The stage of the job follows, which makes another version of it.
    job = (await call<StoredJob>('GET', `/api/jobs/${job.id}`)).body
    expect(job.document.job.stage).toBe('accepted')
    expect((await answer(first.count, { answer: 'declined' })).body.error).toBe(
      'This quotation is answered already',
    )
    const [second, third] = [(await quote()).body, (await quote()).body]
    expect((await answer(second.count)).body.error).toBe('A newer quotation replaces this one')
    const { body: rows } = await call<SheetRow[]>('GET', sheets())
    expect(
      rows
        .filter(({ kind }) => kind === 'quotation')
        .map(({ count, answer: given }) => [count, given?.answer]),
    ).toEqual([
      [third.count, undefined],
      [second.count, undefined],
      [first.count, 'accepted'],
    ])
    expect((await raw(`${sheets()}/${first.count}/pdf`)).type).toBe('application/pdf')
    await expect(db.sql`update quotation_answer set note = 'other'`).rejects.toThrow('never changed')
  })
  it('has no answer on a specification or on no sheet, nor one in words that are none', async () => {
    expect((await answer(1)).status).toBe(404)
    expect((await answer(99)).status).toBe(404)
    const { count } = (await quote()).body
    for (const bad of [
      { answer: 'perhaps' },
      { name: '' },
      { name: 'a\u0000b' },
      { options: 'travel' },
      { note: 'x'.repeat(1001) },
    ])
      expect({ bad, status: (await answer(count, bad)).status }).toEqual({ bad, status: 422 })
  })
  it.each([
    ['a price below zero', { lines: { travel: { price: -1 } } }],
    ['a discount over 100 %', { discountPercent: 101 }],
    ['a line of no group', { added: { travel: { ...travel, group: 'gifts' } } }],
    ['a validity of half a day', { validDays: 0.5 }],
    ['words that are too long', { message: 'x'.repeat(5001) }],
  ])('is refused with %s', async (_, quotation) => {
    const { status } = await call('PUT', `/api/jobs/${job.id}`, {
      version: job.version,
      who: 'Test',
      document: { ...job.document, quotation },
    })
    expect(status).toBe(422)
  })
})

describe('the link of a customer', () => {
  const link = () => `/api/jobs/${job.id}/customer-link`
  const made = async () => (await call<{ token: string }>('POST', link(), { who: 'Ida Brell' })).body.token
  const open = (token: string) =>
    call<{ papers: { kind: string; count: number; paper: unknown }[]; error?: string }>(
      'POST',
      '/api/customer/open',
      {
        token,
      },
    )

  // An earlier test has changed a specification behind the server’s back.
  beforeAll(async () => {
    expect((await issue()).status).toBe(200)
  })

  it('shows the newest papers, without costs, margins and the job they were made from', async () => {
    const { status, body } = await open(await made())
    expect(status).toBe(200)
    expect(body.papers.map(({ kind }) => kind)).toEqual(['specification', 'quotation'])
    const words = JSON.stringify(body)
    for (const secret of ['marginPercent', 'letterhead', '"inputs"', 'chargers/charger-1', '"rules"'])
      expect(words).not.toContain(secret)
    expect((await call<{ link: { openings: number } }>('GET', link())).body.link.openings).toBe(1)
  })
  it('takes an answer once, and nothing for another job, an unknown sheet or a wrong secret', async () => {
    const token = await made()
    const { count } = (await open(token)).body.papers.find(({ kind }) => kind === 'quotation')!
    const answer = (more: object) =>
      call<{ error?: string }>('POST', '/api/customer/answer', {
        token,
        count,
        answer: 'declined',
        name: 'Wren',
        note: 'Too dear',
        ...more,
      })
    expect((await answer({ count: 99 })).status).toBe(404)
    expect((await answer({ count: 1 })).status).toBe(404)
    expect((await answer({ token: 'a'.repeat(43) })).status).toBe(404)
    expect((await answer({ options: ['no-such-line'] })).status).toBe(422)
    expect((await answer({})).status).toBe(201)
    expect((await answer({ answer: 'accepted' })).status).toBe(409)
    const { body: rows } = await call<SheetRow[]>('GET', `/api/jobs/${job.id}/sheets`)
    expect(rows.find((row) => row.count === count)?.answer).toMatchObject({
      answer: 'declined',
      note: 'Too dear',
      by: 'Customer page',
    })
  })
  it('takes no answer to a quotation that has expired', async () => {
    const { status, body } = await call<SheetRow>('POST', `/api/jobs/${job.id}/sheets`, {
      version: job.version,
      who: 'Ida Brell',
      kind: 'quotation',
    })
    expect(status).toBe(200)
    await db.sql`alter table sheet disable trigger sheet_stays`
    const [{ content }] = await db.sql<
      [{ content: string }]
    >`select content from sheet where job_id = ${job.id} and count = ${body.count}`
    const old = content.replace(/"until":"[^"]+"/, '"until":"2026-01-01T00:00:00.000Z"')
    await db.sql`update sheet set content = ${old}, digest = ${digestOf(old)} where job_id = ${job.id} and count = ${body.count}`
    await db.sql`alter table sheet enable trigger sheet_stays`
    const answered = await call<{ error?: string }>('POST', '/api/customer/answer', {
      token: await made(),
      count: body.count,
      answer: 'accepted',
      name: 'Wren',
    })
    expect([answered.status, answered.body.error]).toEqual([
      409,
      'This quotation has expired. Ask the workshop for a new one.',
    ])
  })
  it('ends with a newer one, when it is revoked, when it is too old, and with its job; and wrong ones are limited', async () => {
    const first = await made()
    const second = await made()
    expect([(await open(first)).status, (await open(second)).status]).toEqual([404, 200])
    await db.sql`update customer_link set ends_at = now()`
    expect((await open(second)).status).toBe(404)
    const third = await made()
    expect((await call('DELETE', link())).status).toBe(200)
    expect([(await open(third)).status, (await call('DELETE', link())).status]).toEqual([404, 404])
    const fourth = await made()
    await db.sql`update job set deleted_at = now() where job_id = ${job.id}`
    expect((await open(fourth)).status).toBe(404)
    await db.sql`update job set deleted_at = null where job_id = ${job.id}`
    expect((await open(fourth)).status).toBe(200)
    const statuses = []
    for (let i = 0; i < 25; i++) statuses.push((await open(String(i).padStart(43, 'x'))).status)
    expect(statuses.at(-1)).toBe(429)
    await db.sql`delete from sign_in_failure`
    expect((await open(fourth)).status).toBe(200)
  })
})

describe('the letterhead', () => {
  it('is saved over the version that was seen, and refuses invalid data', async () => {
    const { body: before } = await call<LetterheadRow>('GET', '/api/letterhead')
    const put = (more: object, version = before.version) =>
      call<LetterheadRow>('PUT', '/api/letterhead', {
        letterhead: { ...before.letterhead, ...more },
        version,
      })
    for (const bad of [
      { currency: 'XYZ' },
      { locale: 'xx' },
      { taxRates: [] },
      { taxRates: [{ name: 'A', percent: 101 }] },
      {
        taxRates: [
          { name: 'A', percent: 1 },
          { name: 'A', percent: 2 },
        ],
      },
      { validDays: 0 },
      { terms: 'x'.repeat(5001) },
      { address: 'a\u0007b' },
      { marginPercent: {} },
      { own: 1 },
    ])
      expect({ bad, status: (await put(bad)).status }).toEqual({ bad, status: 422 })
    const saved = await put({ address: '3 Larkspur Slip\nWharf End', currency: 'GBP' })
    expect(saved.body).toMatchObject({ version: before.version + 1, letterhead: { currency: 'GBP' } })
    expect((await put({ currency: 'SEK' })).status).toBe(409)
  })
})

describe('sheets issued at once', () => {
  it('are all issued, each under a number of its own', async () => {
    const replies = await Promise.all(Array.from({ length: 6 }, issue))
    expect(replies.map(({ status }) => status)).toEqual(Array(6).fill(200))
    expect(new Set(replies.map(({ body }) => body.number)).size).toBe(6)
  })
})

describe('a plain paper', () => {
  it.each(['summary', 'wiring', 'labels', 'cards', 'booklet'])(
    'has a paper of the kind %s, frozen with its letterhead, as page and PDF',
    async (kind) => {
      const { version, epoch } = job
      const path = `/api/jobs/${job.id}/sheets`
      const issued = await call<SheetRow>('POST', path, { version, epoch, who: 'Ida Brell', kind })
      expect(issued).toMatchObject({ status: 200, body: { kind, number: `0500-${issued.body.count}` } })
      const { body } = await call<{ sheet: PlainPaper }>('GET', `${path}/${issued.body.count}`)
      expect(body.sheet.inputs.letterhead.currency).toMatch(/^[A-Z]{3}$/)
      expect(body.sheet.result.paper.foot).toContain(issued.body.number)
      const [one, again] = [
        await raw(`${path}/${issued.body.count}/pdf`),
        await raw(`${path}/${issued.body.count}/pdf`),
      ]
      expect(one.type).toBe('application/pdf')
      expect(Buffer.compare(one.bytes, again.bytes)).toBe(0)
      expect((await call('GET', `${path}/${issued.body.count}/csv`)).status).toBe(404)
    },
  )

  it('of labels takes a sheet of labels that it knows, and no other', async () => {
    const { version, epoch } = job
    const asked = { version, epoch, who: 'Ida Brell', kind: 'labels' }
    const path = `/api/jobs/${job.id}/sheets`
    const { body } = await call<SheetRow>('POST', path, { ...asked, labelSheet: 'letter-80' })
    const { sheet } = (await call<{ sheet: PlainPaper }>('GET', `${path}/${body.count}`)).body
    expect(sheet.result.paper.size).toBe('Letter')
    expect((await call('POST', path, { ...asked, labelSheet: 'a3-1' })).status).toBe(422)
    expect((await call('POST', path, { ...asked, kind: 'poster' })).status).toBe(422)
    expect((await raw(`/api/jobs/${job.id}/papers/labels/pdf?labelSheet=a4-65`)).status).toBe(200)
    expect((await call('GET', `/api/jobs/${job.id}/papers/labels/pdf?labelSheet=a3-1`)).status).toBe(422)
    expect((await call('GET', `/api/jobs/${job.id}/papers/poster/pdf`)).status).toBe(404)
  })

  it('is shown to the customer, but for labels', async () => {
    const { token } = (
      await call<{ token: string }>('POST', `/api/jobs/${job.id}/customer-link`, { who: 'Ida', days: 3650 })
    ).body
    const { papers } = (await call<{ papers: { kind: string }[] }>('POST', '/api/customer/open', { token }))
      .body
    const kinds = papers.map(({ kind }) => kind)
    expect(kinds).toEqual(expect.arrayContaining(['summary', 'wiring', 'cards', 'booklet']))
    expect(kinds).not.toContain('labels')
    const tooLong = await call('POST', `/api/jobs/${job.id}/customer-link`, { who: 'Ida', days: 9999 })
    expect(tooLong.status).toBe(422)
  })
})

describe('a message of the customer', () => {
  it('reaches the workshop as it was typed, twenty a day at most', async () => {
    const path = `/api/jobs/${job.id}/messages`
    const { token } = (
      await call<{ token: string }>('POST', `/api/jobs/${job.id}/customer-link`, { who: 'Ida' })
    ).body
    const send = (more: object = {}) =>
      call<{ error?: string }>('POST', '/api/customer/message', {
        token,
        name: 'Wren',
        words: 'First line\n<b>second</b>',
        ...more,
      })
    expect((await send({ words: '' })).status).toBe(422)
    expect((await send({ name: ' ' })).status).toBe(422)
    expect((await send({ words: 'a\u0000b' })).status).toBe(422)
    expect((await send({ token: 'a'.repeat(43) })).status).toBe(404)
    const sent = await Promise.all(Array.from({ length: 22 }, () => send()))
    expect(sent.filter(({ status }) => status === 201)).toHaveLength(20)
    expect(sent.filter(({ status }) => status === 429)).toHaveLength(2)
    const { body } = await call<{ name: string; words: string }[]>('GET', path)
    expect(body).toHaveLength(20)
    expect(body[0]).toMatchObject({ name: 'Wren', words: 'First line\n<b>second</b>' })
  })
})

describe('photos in a paper', () => {
  it(
    'are frozen in it as JPEG with their caption, six at most, and only where they were chosen',
    long,
    async () => {
      const ids: string[] = []
      for (let i = 0; i < 8; i++) {
        const data = await sharp({ create: { width: 1400, height: 700, channels: 3, background: '#24505e' } })
          .webp()
          .toBuffer()
        const added = await fetch(
          `${server.url}/api/jobs/${job.id}/photos?who=Ida&station=place&name=P${i}`,
          {
            method: 'POST',
            headers: { 'content-type': 'image/webp' },
            body: new Uint8Array(data),
          },
        )
        ids.push(((await added.json()) as { id: string }).id)
      }
      const choice = { caption: 'Locker <b>', papers: ['booklet'] as const }
      await save({ ...job.document, paperPhotos: Object.fromEntries(ids.map((id) => [id, choice])) })
      const { version, epoch } = job
      const path = `/api/jobs/${job.id}/sheets`
      const issued = await call<SheetRow>('POST', path, { version, epoch, who: 'Ida', kind: 'booklet' })
      const { sheet } = (await call<{ sheet: PlainPaper }>('GET', `${path}/${issued.body.count}`)).body
      const last = sheet.result.paper.sections.at(-1)!.blocks[0]!
      const photos = last.kind === 'photos' ? last.photos : []
      expect(photos).toHaveLength(6)
      expect(photos[0]).toMatchObject({
        caption: 'Locker <b>',
        source: expect.stringMatching(/^data:image\/jpeg;base64,/),
      })
      const { width } = await sharp(Buffer.from(photos[0]!.source.split(',')[1]!, 'base64')).metadata()
      expect(width).toBe(1100)
      expect((await raw(`${path}/${issued.body.count}/pdf`)).status).toBe(200)
      const other = await call<SheetRow>('POST', path, { version, epoch, who: 'Ida', kind: 'summary' })
      const summary = (await call<{ sheet: PlainPaper }>('GET', `${path}/${other.body.count}`)).body.sheet
      expect(JSON.stringify(summary.result.paper)).not.toContain('data:image/jpeg')
    },
  )
})

describe('the logo of the letterhead', () => {
  const save = async (logo: string) => {
    const { letterhead, version } = (await call<LetterheadRow>('GET', '/api/letterhead')).body
    return call<LetterheadRow>('PUT', '/api/letterhead', { letterhead: { ...letterhead, logo }, version })
  }
  const png = (data: Buffer) => `data:image/png;base64,${data.toString('base64')}`
  const picture = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: '#24505e' } })
      .png()
      .withMetadata()
      .toBuffer()

  it('is kept as its pixels, and stands on the next paper as page and PDF', async () => {
    const data = await picture(300, 90)
    expect((await save(png(data))).status).toBe(200)
    const { version, epoch } = job
    const path = `/api/jobs/${job.id}/sheets`
    const { body } = await call<SheetRow>('POST', path, { version, epoch, who: 'Ida', kind: 'booklet' })
    const { sheet } = (await call<{ sheet: PlainPaper }>('GET', `${path}/${body.count}`)).body
    expect(sheet.result.paper.logo).toMatch(/^data:image\/png;base64,/)
    expect((await raw(`${path}/${body.count}/pdf`)).status).toBe(200)
  })
  it('is refused where it is no whole PNG, or too large', async () => {
    const data = await picture(300, 90)
    for (const logo of [
      png(Buffer.from('<svg onload="alert(1)"/>')),
      png(data.subarray(0, 60)),
      'data:image/svg+xml;base64,AAAA',
      'javascript:alert(1)',
      png(await picture(2100, 10)),
      `data:image/png;base64,${'A'.repeat(300_000)}`,
    ])
      expect((await save(logo)).status).toBe(422)
    expect((await save('')).status).toBe(200)
  })
})
