import ICAL from 'ical.js'
import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import type { LogEntry } from '#core/logbook/entry'
import { plusDays } from '#core/reminders/day'
import { chosen } from '../scripts/lib/chosen-workboat'
import { ask } from '../tests/api-client'
import { freshDatabase, startServer, type TestDatabase, type TestServer } from '../tests/harness'
import type { CraftPage, CraftRow } from './repositories/crafts'
import type { CustomerPage, CustomerRow } from './repositories/customers'
import type { JobRow } from './repositories/job-list'
import type { StoredJob } from './repositories/jobs'
import type { ReminderRow } from './repositories/reminders'
import type { SheetRow } from './repositories/sheets'

let db: TestDatabase
let server: TestServer
const call = <T = Record<string, unknown>>(method: string, path: string, body?: unknown, type?: string) =>
  ask<T>(server, method, path, body, type ? { 'content-type': type } : {})
interface WholeCraft {
  readonly craft: CraftRow
  readonly jobs: JobRow[]
  readonly fleet: { readonly name: string }[]
  readonly reminders: ReminderRow[]
}
const who = 'Test'

beforeAll(async () => {
  db = await freshDatabase()
  server = await startServer(db.applicationUrl)
})
afterAll(async () => {
  await server.stop()
  await db.drop()
})

const craftOf = async (number: string): Promise<string> => {
  const [row] = await db.sql<{ craft: string }[]>`select craft_id as craft from job where number = ${number}`
  return row!.craft
}
const whole = async (craft: string) => (await call<WholeCraft>('GET', `/api/craft/${craft}`)).body
const logOf = async (craft: string) => (await call<LogEntry[]>('GET', `/api/craft/${craft}/log`)).body
const customers = async (words = '') =>
  (await call<CustomerPage>('GET', `/api/customers?words=${encodeURIComponent(words)}`)).body.customers
/** Changes the head of a job as its page does. */
async function head(id: string, change: Partial<JobDocument['job']>): Promise<void> {
  const { body: job } = await call<StoredJob>('GET', `/api/jobs/${id}`)
  const document = { ...job.document, job: { ...job.document.job, ...change } }
  expect((await call('PUT', `/api/jobs/${id}`, { version: job.version, who, document })).status).toBe(200)
}
const newJob = async (change: Partial<JobDocument['job']> = {}): Promise<string> => {
  const { body } = await call<StoredJob>('POST', '/api/jobs', { who })
  if (Object.keys(change).length > 0) await head(body.id, change)
  return body.id
}
const belonging = async (job: string): Promise<{ craft: string; customer: string | null }> => {
  const [row] = await db.sql<{ craft: string; customer: string | null }[]>`
    select craft_id as craft, customer_id as customer from job where job_id = ${job}`
  return row!
}

describe('craft and customers of jobs', () => {
  it('are there for every demo job, and found by name, registration and customer', async () => {
    const { body } = await call<CraftPage>('GET', '/api/craft')
    expect(body.crafts.length).toBeGreaterThanOrEqual(6)
    const { craft, jobs } = await whole(await craftOf('0417'))
    expect(craft).toMatchObject({ name: 'Marigold Tern', kind: 'vessel', jobs: 1 })
    expect(jobs.map(({ number }) => number)).toEqual(['0417'])
    const found = await call<CraftPage>(
      'GET',
      `/api/craft?words=${encodeURIComponent(`${craft.customer} marigold`)}`,
    )
    expect(found.body.crafts.map(({ id }) => id)).toEqual([craft.id])
  })

  it('follow the head of their only job, without leaving half-typed customers', async () => {
    const job = await newJob()
    for (const customer of ['O', 'Oda', 'Oda Farrow']) await head(job, { name: 'Sea Lark', customer })
    await head(job, { registration: 'PL 77', contact: 'oda@farrow.example' })
    const { craft } = await whole((await belonging(job)).craft)
    expect(craft).toMatchObject({
      name: 'Sea Lark',
      registration: 'PL 77',
      customer: 'Oda Farrow',
      contact: 'oda@farrow.example',
    })
    expect((await customers('oda')).map(({ name }) => name)).toEqual(['Oda Farrow'])
    await head(job, { customer: '' })
    expect((await belonging(job)).customer).toBeNull()
    expect(await customers('oda')).toEqual([])
  })

  it('keep two customers of one name apart if their contacts differ', async () => {
    const [one, two] = [
      await newJob({ name: 'A', customer: 'Sam Pike', contact: 'sam@a.example' }),
      await newJob({ name: 'B', customer: 'Sam Pike', contact: 'sam@b.example' }),
    ]
    expect((await belonging(one)).customer).not.toBe((await belonging(two)).customer)
    expect(await customers('pike')).toHaveLength(2)
  })

  it('give an imported job the craft with the same registration of the same customer', async () => {
    const job = await newJob({ name: 'Old Gannet', customer: 'Wyn Marsh', registration: 'PL 12' })
    const { body } = await call<StoredJob>('GET', `/api/jobs/${job}`)
    const copy = { ...body.document, job: { ...body.document.job, number: '0712', name: 'The Gannet' } }
    const imported = await call<StoredJob>('POST', '/api/jobs/import?who=Test', copy)
    expect((await belonging(imported.body.id)).craft).toBe((await belonging(job)).craft)
    // The newest job says what the craft is called from now on; an older one changes only itself.
    await head(imported.body.id, { name: 'Gannet' })
    await head(job, { name: 'Gannet of old' })
    expect((await whole((await belonging(job)).craft)).craft.name).toBe('Gannet')
  })

  it('can be entered by hand, changed once at a time, and take over a job', async () => {
    const { body: customer } = await call<CustomerRow>('POST', '/api/customers', { who, name: 'Brill Vans' })
    const entry = { who, name: 'Van 7', kind: 'vehicle', type: 'Rescue van', customerId: customer.id }
    const { status, body: craft } = await call<CraftRow>('POST', '/api/craft', entry)
    expect(status).toBe(201)
    const { body: other } = await call<CraftRow>('POST', '/api/craft', { ...entry, name: 'Van 8' })
    expect((await whole(craft.id)).fleet.map(({ name }) => name)).toEqual(['Van 8'])
    const changed = { ...entry, version: craft.version, registration: 'V7' }
    expect((await call('PUT', `/api/craft/${craft.id}`, changed)).status).toBe(200)
    expect((await call('PUT', `/api/craft/${craft.id}`, changed)).status).toBe(409)
    expect((await call('PUT', `/api/craft/${craft.id}`, { ...changed, name: 'x'.repeat(201) })).status).toBe(
      422,
    )
    // A job of one is the start for another: everything in it is assumed until somebody looks.
    const van = (await db.sql<{ id: string }[]>`select job_id as id from job where number = '0421'`)[0]!.id
    const { body: copy } = await call<StoredJob>('POST', `/api/craft/${craft.id}/jobs`, { who, from: van })
    expect(copy.document.job).toMatchObject({ name: 'Van 7', craft: 'vehicle', customer: 'Brill Vans' })
    expect(copy.document.alternators['alternator-1']!.ratedA).toEqual({
      value: 180,
      how: 'assumed',
      from: 'job 0421, Ptarmigan Two',
    })
    const job = await newJob()
    const before = (await belonging(job)).craft
    expect((await call('PUT', `/api/jobs/${job}/craft`, { who, craft: other.id })).status).toBe(200)
    expect((await call('GET', `/api/craft/${before}`)).status).toBe(404)
    expect((await whole(other.id)).jobs).toHaveLength(1)
  })
})

describe('a logbook', () => {
  const reading = (at: string, value: number) => ({
    kind: 'reading',
    at,
    quantity: 'capacity',
    subject: 'House bank',
    value,
  })

  it('takes entries, corrects one by another, and keeps both', async () => {
    const craft = await craftOf('0421')
    const add = (entries: unknown[]) => call('POST', `/api/craft/${craft}/log`, { who, entries })
    expect((await add([reading('2026-05-01', 98), reading('2026-09-01', 9.7)])).status).toBe(201)
    const [, wrong] = await logOf(craft)
    expect((await add([{ ...reading('2026-09-01', 97), corrects: wrong!.id }])).status).toBe(201)
    const log = await logOf(craft)
    expect(log.map(({ value }) => value)).toEqual([98, 9.7, 97])
    const table = await (await fetch(`${server.url}/api/craft/${craft}/log/table`)).text()
    expect(table).toContain('97')
    expect(table).not.toContain('9.7')
    await expect(db.sql`update log_entry set value = 1`).rejects.toThrow()
  })

  it('refuses impossible values, in words', async () => {
    const craft = await craftOf('0421')
    const before = await logOf(craft)
    for (const [entry, words] of [
      [reading('2026-05-01', 50_000), 'between 0 and 20000 Ah'],
      [reading('2036-05-01', 90), 'in the future'],
      [{ ...reading('2026-05-01', 90), quantity: null }, 'is empty'],
      [{ kind: 'note', at: '2026-05-01' }, 'is empty'],
      [{ ...reading('2026-05-01', 90), corrects: craft }, 'not in this logbook'],
      [{ kind: 'replaced', at: '2026-05-01', subject: 'Relay', warrantyEnd: '2026-02-30' }, 'date'],
    ] as const) {
      const { status, body } = await call<{ error: string }>('POST', `/api/craft/${craft}/log`, {
        who,
        entries: [entry],
      })
      expect({ status, isSaid: body.error.includes(words), error: body.error }).toMatchObject({
        status: 422,
        isSaid: true,
      })
    }
    expect(await logOf(craft)).toEqual(before)
  })

  it('reminds of a warranty before it ends, once', async () => {
    const craft = await craftOf('0427')
    const entry = {
      kind: 'replaced',
      at: '2026-05-01',
      subject: 'Shaft generator relay',
      warrantyEnd: '2028-05-01',
    }
    for (const entries of [[entry], [entry]])
      expect((await call('POST', `/api/craft/${craft}/log`, { who, entries })).status).toBe(201)
    const due = (await whole(craft)).reminders.filter(({ kind }) => kind === 'warranty')
    expect(due.map(({ due: day, words }) => [day, words])).toEqual([
      ['2028-04-01', 'Test Shaft generator relay before its warranty ends on 1 May 2028.'],
    ])
  })

  it('goes out as a table and comes in again, good rows only', async () => {
    const craft = await craftOf('0424')
    const text = [
      'Date,Quantity,Of,Value,Expected,Words',
      '2025-04-02,Capacity,House bank,"182,5 Ah",200,',
      '2025-04-02,jointResistance,W1,0.0004 ohm,,',
      '2025-04-02,,,,,Fan was dusty',
      '2025-13-02,Capacity,House bank,180,,',
      '2025-05-02,Beauty,House bank,180,,',
    ].join('\n')
    const read = (take: string) =>
      call<{ good: number; problems: { line: number }[]; taken?: { added: number } }>(
        'POST',
        `/api/craft/${craft}/log/table?who=Test&take=${take}`,
        text,
        'text/csv',
      )
    expect((await read('none')).body).toMatchObject({ good: 3, problems: [{ line: 5 }, { line: 6 }] })
    expect(await logOf(craft)).toEqual([])
    expect((await read('good')).body.taken).toEqual({ added: 3 })
    expect(
      (await logOf(craft)).map(({ kind, value, expected, words }) => [kind, value, expected, words]),
    ).toEqual([
      ['reading', 182.5, 200, ''],
      ['reading', 0.4, null, ''],
      ['note', null, null, 'Fan was dusty'],
    ])
  })
})

describe('a signed record', () => {
  let job: StoredJob
  beforeAll(async () => {
    const document = chosen
    const reading = (value: number) => [
      { value, when: '2026-11-20T10:00:00Z', by: 'Ida', from: 'typed' as const },
    ]
    const imported = await call<StoredJob>('POST', '/api/jobs/import?who=Test', {
      ...document,
      job: { ...document.job, number: '0801', usePattern: 'laidUp' },
      proving: {
        steps: {
          'safe-mains': { state: 'put-off', when: '2026-11-20T09:00:00Z', by: 'Ida', note: 'No key' },
        },
        readings: { 'rested-house': reading(13.3) },
        mended: [],
        fitted: [{ path: 'runs/main-lead/lengthM', after: { value: 0.4, how: 'measured' } }],
      },
    })
    expect(imported.status).toBe(201)
    job = imported.body
    const { version } = job
    const signature = { name: 'Ida Brell', strokes: [], reason: 'The rest follows' }
    const signed = await call<SheetRow>('POST', `/api/jobs/${job.id}/sheets`, { version, who, signature })
    expect(signed.status).toBe(200)
  }, 120_000)

  it('writes the visit, the readings and the open items into the logbook', async () => {
    const log = await logOf((await belonging(job.id)).craft)
    expect(log.filter(({ kind }) => kind === 'visit').map(({ words }) => words)[0]).toContain(
      'signed by Ida Brell',
    )
    const open = log.filter(({ kind }) => kind === 'deviation').map(({ words }) => words)
    expect(open.some((words) => words.startsWith('Skipped: ') && words.includes('No key'))).toBe(true)
    expect(open.some((words) => words.endsWith('not tested.'))).toBe(true)
    expect(log.every(({ source, job: of }) => source === 'prove' && of === job.id)).toBe(true)
  })

  it('makes reminders, which are done, come again, and are taken back', async () => {
    const craft = (await belonging(job.id)).craft
    const due = (await whole(craft)).reminders
    expect(due.map(({ kind }) => kind).toSorted()).toEqual(['retorque', 'storage', 'top-up', 'yearly'])
    const yearly = due.find(({ kind }) => kind === 'yearly')!
    const put = (body: unknown) => call<ReminderRow>('PUT', `/api/reminders/${yearly.id}`, body)
    expect((await put({ who, done: true })).body.doneBy).toBe(who)
    const open = async () =>
      (await whole(craft)).reminders.filter(({ kind, doneAt }) => kind === 'yearly' && doneAt === null)
    expect((await open())[0]!.due > yearly.due).toBe(true)
    expect((await put({ who, done: false })).body.doneAt).toBeNull()
    expect((await open()).map(({ due: day }) => day)).toEqual([yearly.due])
    expect((await put({ who, due: plusDays(yearly.due, 3) })).body.due).toBe(plusDays(yearly.due, 3))
    expect((await put({ who, due: '2027-02-30' })).status).toBe(422)
  })

  it('starts the next job from the fitted parts, with the source of each value', async () => {
    const craft = (await belonging(job.id)).craft
    const { status, body } = await call<StoredJob>('POST', `/api/craft/${craft}/jobs`, { who })
    expect(status).toBe(201)
    const { document } = body
    expect(document.job).toMatchObject({ name: 'Marigold Tern', stage: 'enquiry' })
    expect(document.specified ?? document.proving ?? null).toBeNull()
    const run = (document.runs as Record<string, Record<string, unknown>>)['main-lead']!
    expect(run.lengthM).toMatchObject({ value: 0.4, how: 'measured', from: 'job 0801, as fitted' })
    expect(document.place.coldestC).toMatchObject({ from: 'job 0801, survey' })
    expect((await whole(craft)).jobs.map(({ number }) => number)).toEqual([
      document.job.number,
      '0801',
      '0417',
    ])
  })
})

describe('reminders for calendars', () => {
  it('go out as a file that another reader reads', async () => {
    const craft = await craftOf('0417')
    const add = await call<ReminderRow>('POST', `/api/craft/${craft}/reminders`, {
      who,
      due: '2027-03-04',
      words: 'Call about the fenders; price, colour',
    })
    expect(add.status).toBe(201)
    const text = await (await fetch(`${server.url}/api/reminders/calendar`)).text()
    const calendar = new ICAL.Component(ICAL.parse(text) as unknown[])
    const events = calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one))
    const { body: open } = await call<ReminderRow[]>('GET', '/api/reminders')
    expect(events).toHaveLength(open.length)
    const mine = events.find(({ uid }) => uid.startsWith(add.body.id))!
    expect(mine.summary).toBe('Marigold Tern: Call about the fenders; price, colour')
    expect([mine.startDate.toString(), mine.startDate.isDate]).toEqual(['2027-03-04', true])
  })

  it('are read at an address until it is ended', async () => {
    const { body } = await call<{ token: string }>('POST', '/api/calendar-feed', { who })
    const feed = () => fetch(`${server.url}/api/calendar/${body.token}.ics`)
    const first = await feed()
    expect([first.status, first.headers.get('content-type')]).toEqual([200, 'text/calendar; charset=utf-8'])
    expect(await first.text()).toContain('BEGIN:VCALENDAR')
    const { body: known } = await call<{ feed: { readAt: string | null } }>('GET', '/api/calendar-feed')
    expect(known.feed.readAt).not.toBeNull()
    expect((await call('DELETE', '/api/calendar-feed')).body).toEqual({ ended: true })
    expect((await feed()).status).toBe(404)
    const stored = await db.sql<{ hash: Buffer }[]>`select token_hash as hash from calendar_feed`
    expect(stored).toEqual([])
  })
})

describe('a customer’s data', () => {
  it('are shown as a whole, and erased from jobs, papers, logbooks and lists', async () => {
    const [found] = await db.sql<{ customer: string; job: string; craft: string }[]>`
      select customer_id as customer, job_id as job, craft_id as craft from job where number = '0421'`
    const { customer, job, craft } = found!
    const { body: before } = await call<StoredJob>('GET', `/api/jobs/${job}`)
    const name = before.document.job.customer!
    await head(job, { contact: 'phone 0417', registration: 'PL 421', wishes: `Call ${name} at noon` })
    const { version } = (await call<StoredJob>('GET', `/api/jobs/${job}`)).body
    expect((await call('POST', `/api/jobs/${job}/sheets`, { version, who, kind: 'summary' })).status).toBe(
      200,
    )
    const entry = { kind: 'note', at: '2026-05-01', words: `${name} was aboard` }
    await call('POST', `/api/craft/${craft}/log`, { who, entries: [entry] })

    const data = JSON.stringify((await call('GET', `/api/customers/${customer}/data`)).body)
    expect(
      [name, 'phone 0417', 'was aboard', 'jovial-anchor/summary'].filter((words) => !data.includes(words)),
    ).toEqual([])

    expect((await call('DELETE', `/api/customers/${customer}`)).body).toEqual({ erased: customer })
    expect((await call('DELETE', `/api/customers/${customer}`)).status).toBe(404)
    const after = JSON.stringify((await call('GET', `/api/customers/${customer}/data`)).body)
    expect([name, 'phone 0417', 'PL 421'].filter((words) => after.includes(words))).toEqual([])
    expect(after.includes('Erased customer was aboard')).toBe(true)
    const kept = await db.sql`
      select 1 from job where (document::text || search || customer) like ${`%${name}%`}
      union all select 1 from job_history where changes::text like ${`%${name}%`}
      union all select 1 from sheet where (content || name) like ${`%${name}%`}
      union all select 1 from log_entry where words like ${`%${name}%`}
      union all select 1 from customer where name like ${`%${name}%`}`
    expect(kept).toEqual([])
    // The paper is still whole: its digest fits what it says now.
    expect((await call('GET', `/api/jobs/${job}/sheets/1`)).status).toBe(200)
    expect((await customers(name)).length).toBe(0)
  })
})

describe('the shop’s start page', () => {
  it('lists due jobs, stages, flagged craft, and follows the work of a customer', async () => {
    const craft = await craftOf('0430')
    const reading = (year: number, value: number) => ({
      kind: 'reading',
      at: `${year}-05-01`,
      quantity: 'capacity',
      subject: 'House bank',
      value,
      expected: 100,
    })
    const entries = [2021, 2022, 2023, 2024, 2025, 2026].map((year, i) => reading(year, 100 - 3 * i))
    await call('POST', `/api/craft/${craft}/log`, { who, entries })
    interface Answer {
      stages: Record<string, number>
      due: { number: string }[]
      flagged: { craft: string; checks: { from: string; why: string }[] }[]
    }
    const { body } = await call<Answer>('GET', '/api/today')
    const flagged = body.flagged.find((one) => one.craft === craft)!
    expect(flagged.checks[0]!.from).toBe('trend')
    expect(flagged.checks[0]!.why).toContain('It reaches 80 Ah in 2027')
    expect(Object.values(body.stages).reduce((a, b) => a + b, 0)).toBeGreaterThan(6)
    await call('POST', `/api/craft/${craft}/log`, { who, entries: [reading(2026, 70)] })
    const { body: later } = await call<Answer>('GET', '/api/today')
    expect(later.flagged.find((one) => one.craft === craft)!.checks[0]!.from).toBe('limit')
  })
})

describe('a photograph of a craft', () => {
  const pixel = readFileSync(new URL('../tests/pixel.png', import.meta.url))
  const send = (craft: string, words: string, body: Uint8Array = pixel, type = 'image/png') =>
    call(
      'POST',
      `/api/craft/${craft}/photos?${new URLSearchParams({ who, words, at: '2026-05-02T08:00:00Z' })}`,
      body,
      type,
    )

  it('is an entry of the logbook with its picture, and stays', async () => {
    const craft = await craftOf('0424')
    expect(await send(craft, 'Battery box')).toMatchObject({ status: 201, body: { added: 1 } })
    const entry = (await logOf(craft)).find(({ kind }) => kind === 'photo')!
    expect(entry).toMatchObject({ words: 'Battery box', at: '2026-05-02T08:00:00.000Z', by: who })
    const picture = await fetch(`${server.url}/api/craft/${craft}/photos/${entry.id}`)
    expect(picture.headers.get('content-type')).toBe('image/png')
    expect((await picture.arrayBuffer()).byteLength).toBeGreaterThan(50)
    const other = await craftOf('0417')
    expect((await call('GET', `/api/craft/${other}/photos/${entry.id}`)).status).toBe(404)
    await expect(db.sql`update craft_photo set mime = 'image/jpeg'`).rejects.toThrow(/never changed/)
    const table = await (await fetch(`${server.url}/api/craft/${craft}/log/table`)).text()
    expect(table).not.toContain('Battery box')
  })

  it('that is no picture, or comes without one, is refused', async () => {
    const craft = await craftOf('0424')
    expect((await send(craft, 'x', pixel.subarray(0, 40))).status).toBe(422)
    expect((await send(craft, 'x', Buffer.from('<svg/>'), 'image/jpeg')).status).toBe(422)
    expect((await send(craft, 'x'.repeat(501))).status).toBe(422)
    const entry = { kind: 'photo', at: '2026-05-02T08:00:00Z', words: 'No picture' }
    expect((await call('POST', `/api/craft/${craft}/log`, { who, entries: [entry] })).status).toBe(422)
    expect((await logOf(craft)).filter(({ kind }) => kind === 'photo')).toHaveLength(1)
  })
})
