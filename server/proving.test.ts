import { long } from '#core/testing'
import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import { withMended, withReading, withStep } from '#core/job/proving-edits'
import { recordOf, type FittingRecord } from '#core/papers/record'
import { recordPaper } from '#core/papers/record-paper'
import { ask } from '../tests/api-client'
import { freshDatabase, startServer, type TestDatabase, type TestServer } from '../tests/harness'
import type { StoredJob } from './repositories/jobs'
import { digestOf, type SheetRow } from './repositories/sheets'

let db: TestDatabase
let server: TestServer
let job: StoredJob
const call = <T = Record<string, unknown>>(method: string, path: string, body?: unknown) =>
  ask<T>(server, method, path, body)
const when = '2026-11-27T10:00:00.000Z'
const by = 'Ida Brell'

function demo(name: string, number: string): JobDocument {
  const file = readFileSync(new URL(`../demo/jobs/${name}.json`, import.meta.url), 'utf8')
  const found = JSON.parse(file) as JobDocument
  return { ...found, job: { ...found.job, number } }
}

beforeAll(async () => {
  db = await freshDatabase()
  server = await startServer(db.applicationUrl)
  let document = demo('0433-sidecar-outfit', '0501')
  document = withStep(document, 'safe-mains', { state: 'put-off', when, by, note: 'No key' })
  document = withMended(document, { cause: 'x', words: 'Poor joint in W1', when, by })
  document = withReading(document, 'rested-bank', { value: 13.29, when, by, from: 'typed' })
  job = (await call<StoredJob>('POST', '/api/jobs/import?who=Test', document)).body
})
afterAll(async () => {
  await server.stop()
  await db.drop()
})

const sign = (signature: unknown, version = job.version) =>
  call<SheetRow & { error?: string }>('POST', `/api/jobs/${job.id}/sheets`, { version, who: by, signature })
const unreasoned = {
  name: 'Ida Brell',
  strokes: [
    [
      [1, 2],
      [30, 14],
      [60, 3],
    ],
  ],
}

const signature = { ...unreasoned, reason: 'The rest follows on Friday' }

describe('a signed record', () => {
  it('with missing items asks for a reason, and names them', long, async () => {
    const refused = await sign(unreasoned)
    expect(refused.status).toBe(422)
    const { gaps } = refused.body as unknown as { gaps: string[] }
    expect(gaps).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/^\d+ of \d+ steps are not done\.$/),
        expect.stringMatching(/^\d+ of \d+ essential tests have no reading\.$/),
      ]),
    )
    expect((await call('GET', `/api/jobs/${job.id}/sheets/1`)).status).toBe(404)
  })

  it('freezes steps, readings and repairs, without anything specified', async () => {
    const signed = await sign(signature)
    expect(signed).toMatchObject({
      status: 200,
      body: { count: 1, number: '0501-1', kind: 'record', name: 'Fitted and proved, signed by Ida Brell' },
    })
    const { body } = await call<SheetRow & { sheet: FittingRecord }>('GET', `/api/jobs/${job.id}/sheets/1`)
    const { result } = body.sheet
    expect(result.tests).toMatchObject([{ reading: '13.29 V', within: true }])
    expect(result.gaps!.length).toBeGreaterThan(1)
    const paper = JSON.stringify(recordPaper(body.sheet))
    for (const gap of result.gaps!) expect(paper).toContain(gap)
    expect(paper).toContain('Signed anyway: The rest follows on Friday')
    expect(paper).toMatch(/proved by none of \d+ essential tests/)
    expect(result.mended).toMatchObject([{ words: 'Poor joint in W1' }])
    expect(result.steps.find(({ note }) => note === 'No key')).toMatchObject({ state: 'put-off' })
    expect(digestOf(JSON.stringify(body.sheet))).toBe(body.digest)
    // What was computed can be computed again from what was kept.
    expect(recordOf(body.sheet.inputs).result).toEqual(result)
  })

  it('is printed, has no list of parts, and can neither be changed nor taken away', async () => {
    const pdf = await fetch(`${server.url}/api/jobs/${job.id}/sheets/1/pdf`)
    expect(pdf.headers.get('content-type')).toBe('application/pdf')
    expect((await call('GET', `/api/jobs/${job.id}/sheets/1/csv`)).status).toBe(404)
    await expect(db.sql`update sheet set content = '{}' where job_id = ${job.id}`).rejects.toThrow(
      'never changed',
    )
    await expect(db.sql`delete from sheet where job_id = ${job.id}`).rejects.toThrow('never changed')
  })

  it.each([
    [{ name: '', strokes: [] }],
    [{ name: 'A', strokes: [[[1]]] }],
    [{ name: 'A', strokes: [[[1, 1e9]]] }],
    [{ name: 'A\u0000', strokes: [] }],
    [{ strokes: [] }],
    ['Ida'],
  ])('is refused with %j for a signature', async (bad) => {
    expect((await sign(bad)).status).toBe(422)
  })
  it('is refused for a state of the job that is gone', async () => {
    expect((await sign(signature, job.version + 1)).status).toBe(409)
  })
})

describe('a stand-in for an instrument', () => {
  const stream = async (
    query: string,
    id = job.id,
  ): Promise<{ readings: [number, number][]; ended: boolean }> => {
    const text = await (await fetch(`${server.url}/api/jobs/${id}/instrument?${query}`)).text()
    const readings = text
      .split('\n')
      .filter((line) => line.startsWith('data: ['))
      .flatMap((line) => JSON.parse(line.slice(6)) as [number, number][])
    return { readings, ended: text.includes('event: end') }
  }

  it('shows the readings of the job’s own network, and continues after the received ones', async () => {
    const whole = await stream('test=rested-bank&seed=4&speed=600')
    expect(whole.ended).toBe(true)
    expect(whole.readings).toHaveLength(24)
    for (const [, volts] of whole.readings) expect(Math.abs(volts - 13.3)).toBeLessThan(0.4)
    const rest = await stream('test=rested-bank&seed=4&speed=600&from=20')
    expect(rest.readings).toEqual(whole.readings.slice(20))
  })
  it('drops a long reading once, and gives the rest when it is asked again', long, async () => {
    const workboat = demo('0417-oyster-workboat', '0502')
    const { id } = (await call<StoredJob>('POST', '/api/jobs/import?who=Test', workboat)).body
    const first = await stream('test=case-alternator-1&seed=4&speed=600', id)
    expect(first.ended).toBe(false)
    expect(first.readings).toHaveLength(60)
    const rest = await stream('test=case-alternator-1&seed=4&speed=600&from=60', id)
    expect(rest.ended).toBe(true)
    expect(first.readings.length + rest.readings.length).toBe(121)
    expect(rest.readings.at(-1)![0]).toBe(1800)
  })
  it.each([
    ['test=no-such-test', 404],
    ['test=', 422],
    ['test=rested-bank&from=-1', 422],
    ['test=rested-bank&speed=1e9', 422],
    ['test=rested-bank&seed=x', 422],
  ])('answers %s with %i', async (query, status) => {
    expect((await call('GET', `/api/jobs/${job.id}/instrument?${query}`)).status).toBe(status)
  })
  it('answers 404 for a job that is not there', async () => {
    const nobody = '00000000-0000-4000-8000-000000000000'
    expect((await call('GET', `/api/jobs/${nobody}/instrument?test=rested-bank`)).status).toBe(404)
  })
})
