import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { routesIn } from '../scripts/lib/hostile'
import { ask, type Reply } from '../tests/api-client'
import { freshDatabase, startServer, type TestDatabase, type TestServer } from '../tests/harness'
import type { PersonRow } from './repositories/people'

const setupCode = 'code-of-the-terminal-of-this-test'
const password = 'seven tall masts'

let db: TestDatabase
let server: TestServer
/** The cookies of people who are signed in, by what they are. */
const cookies: Record<'owner' | 'installer' | 'apprentice' | 'stranger', string> = {
  owner: '',
  installer: '',
  apprentice: '',
  stranger: '',
}
type Who = keyof typeof cookies

const as = <T = Record<string, unknown>>(who: Who | null, method: string, path: string, body?: unknown) =>
  ask<T>(server, method, path, body, who ? { cookie: cookies[who] } : {})

/** Signs in by any of the ways, and returns the cookie. */
async function enter(
  path: string,
  body: unknown,
): Promise<{ readonly status: number; readonly cookie: string }> {
  const response = await fetch(server.url + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', connection: 'close' },
    body: JSON.stringify(body),
  })
  await response.text()
  return { status: response.status, cookie: response.headers.get('set-cookie')?.split(';')[0] ?? '' }
}
const invite = async (name: string, role: string): Promise<string> =>
  (await as<{ token: string }>('owner', 'POST', '/api/people', { name, role })).body.token
const join = async (token: string): Promise<string> =>
  (await enter('/api/session/join', { token, password })).cookie

beforeAll(async () => {
  db = await freshDatabase()
  server = await startServer(db.applicationUrl, { env: { SHOP_MODE: 'yes', SETUP_CODE: setupCode } })
  cookies.owner = (
    await enter('/api/session/begin', { code: setupCode, name: 'Isolde Brell', password })
  ).cookie
  cookies.installer = await join(await invite('Piet Hollin', 'installer'))
  cookies.apprentice = await join(await invite('Rasmus', 'apprentice'))
  // Another workshop in the same database, with an owner who knows nothing of the first.
  const [other] = await db.sql<{ id: string }[]>`
    insert into workshop (name) values ('Elsewhere') returning workshop_id as id`
  await db.sql`
    insert into person (workshop_id, name, role, password)
    select ${other!.id}, 'Stranger', 'owner', password from person where name = 'Isolde Brell'`
  cookies.stranger = (await enter('/api/session', { name: 'Stranger', password })).cookie
})
afterAll(async () => {
  await server.stop()
  await db.drop()
})

/** Routes that need no sign-in. */
const open = [
  'GET /api/session',
  'POST /api/session',
  'POST /api/session/begin',
  'POST /api/session/invitation',
  'POST /api/session/join',
  'POST /api/customer/open',
  'POST /api/customer/answer',
  'POST /api/customer/message',
  'GET /api/session/pin',
  'POST /api/session/pin',
  'POST /api/session/passkey',
  'POST /api/session/passkey/options',
  'GET /api/calendar/[token]',
  'GET /api/certificate',
  'GET /api/health',
]
/** Routes that an apprentice may not use. */
const notForApprentices = [
  'DELETE /api/jobs/[id]',
  'POST /api/jobs/[id]/bring-back',
  'DELETE /api/jobs/[id]/photos/[photo]',
  'POST /api/jobs/[id]/sheets',
  'POST /api/jobs/[id]/sheets/[count]/answer',
  'PUT /api/letterhead',
  'POST /api/jobs/[id]/customer-link',
  'DELETE /api/jobs/[id]/customer-link',
  'DELETE /api/shelf/[kind]/parts/[code]',
  'PUT /api/shelf/[kind]/parts/[code]',
  'POST /api/shelf/[kind]/table',
  'PUT /api/shop',
  'POST /api/shop/preview',
  'POST /api/craft',
  'PUT /api/craft/[craft]',
  'POST /api/craft/[craft]/log/table',
  'PUT /api/jobs/[id]/craft',
  'POST /api/customers',
  'PUT /api/customers/[customer]',
  'GET /api/calendar-feed',
  'POST /api/calendar-feed',
  'DELETE /api/calendar-feed',
]
const onlyForOwners = [
  'GET /api/people',
  'GET /api/people/past',
  'POST /api/people',
  'PUT /api/people/[person]',
  'DELETE /api/people/[person]',
  'POST /api/people/[person]/link',
  'DELETE /api/people/[person]/sessions',
  'GET /api/tokens',
  'POST /api/tokens',
  'DELETE /api/tokens/[token]',
  'GET /api/metrics',
  'GET /api/archive',
  'POST /api/archive',
  'GET /api/customers/[customer]/data',
  'DELETE /api/customers/[customer]',
  'GET /api/mode',
  'PUT /api/mode',
]

const routes = routesIn(fileURLToPath(new URL('api', import.meta.url)))
  .filter(({ path }) => !path.includes('[...]'))
  .map(({ method, path }) => ({ method, path, name: `${method} ${path}` }))

describe('every route of the file tree', () => {
  const addressOf = async (path: string): Promise<string> => {
    const [job] = await db.sql<{ id: string }[]>`select job_id as id from job where number = '0417'`
    const [belongs] = await db.sql<{ craft: string; customer: string }[]>`
      select craft_id as craft, customer_id as customer from job where number = '0417'`
    const [person] = await db.sql<{ id: string }[]>`select person_id as id from person where name = 'Rasmus'`
    const known: Record<string, string> = {
      id: job!.id,
      ...belongs!,
      reminder: job!.id,
      person: person!.id,
      photo: job!.id,
      session: job!.id,
      token: job!.id,
      passkey: 'some-passkey',
      kind: 'batteries',
      code: 'BRI-200H',
      count: '1',
    }
    return path.replace(/\[(\w+)\]/g, (_, name: string) => known[name]!)
  }
  const asked = async (who: Who | null, { method, path }: (typeof routes)[number]): Promise<Reply> =>
    as(who, method, await addressOf(path), method === 'GET' || method === 'DELETE' ? undefined : {})
  /** Everything that people could change. */
  const state = async (): Promise<unknown> =>
    db.sql`
      select (select md5(string_agg(j::text, '' order by job_id)) from job j) as jobs,
        (select count(*) from job_history) as changes, (select count(*) from sheet) as sheets,
        (select md5(string_agg(s::text, '' order by kind, code, version)) from shelf_part s) as shelf,
        (select md5(string_agg(c::text, '' order by craft_id)) from craft c) as craft,
        (select md5(string_agg(c::text, '' order by customer_id)) from customer c) as customers,
        (select count(*) from log_entry) as entries, (select count(*) from reminder) as reminders,
        (select md5(string_agg(w::text, '' order by workshop_id)) from workshop w) as shops,
        (select md5(string_agg(p::text, '' order by person_id)) from person p) as people`

  it('is known', () => {
    expect(routes.length).toBeGreaterThan(40)
    const names = routes.map(({ name }) => name)
    for (const listed of [...open, ...notForApprentices, ...onlyForOwners]) expect(names).toContain(listed)
  })

  it('answers 401 without a session, and changes nothing', async () => {
    const before = await state()
    for (const route of routes.filter(({ name }) => !open.includes(name))) {
      const { status, body } = await asked(null, route)
      expect({ name: route.name, status, body }).toEqual({
        name: route.name,
        status: 401,
        body: { error: 'Sign in first.' },
      })
    }
    expect(await state()).toEqual(before)
  })

  it('answers 403 to a role that is too small, and changes nothing', async () => {
    const before = await state()
    for (const route of routes) {
      const tooSmall: Who[] = onlyForOwners.includes(route.name)
        ? ['apprentice', 'installer']
        : notForApprentices.includes(route.name)
          ? ['apprentice']
          : []
      for (const who of tooSmall)
        expect({ name: route.name, who, status: (await asked(who, route)).status }).toEqual({
          name: route.name,
          who,
          status: 403,
        })
    }
    expect(await state()).toEqual(before)
  })

  it('shows and changes nothing of another workshop', async () => {
    const before = await state()
    const ofSomething = routes.filter(
      ({ path, name }) => path.includes('[') && !open.includes(name) && !path.endsWith('/table'),
    )
    for (const route of ofSomething) {
      const { status } = await asked('stranger', route)
      expect({ name: route.name, isRefused: status >= 400 && status < 500 }).toEqual({
        name: route.name,
        isRefused: true,
      })
    }
    const { body: jobs } = await as<{ jobs: unknown[] }>('stranger', 'GET', '/api/jobs')
    expect(jobs.jobs).toEqual([])
    const table = await fetch(`${server.url}/api/shelf/batteries/table`, {
      headers: { cookie: cookies.stranger },
    })
    expect((await table.text()).trim().split('\n')).toHaveLength(1)
    const { body: people } = await as<PersonRow[]>('stranger', 'GET', '/api/people')
    expect(people.map(({ name }) => name)).toEqual(['Stranger'])
    expect(await state()).toEqual(before)
  })
})

describe('people', () => {
  it('sign in with their password, and are told who they are', async () => {
    const wrong = await as(null, 'POST', '/api/session', { name: 'Piet Hollin', password: 'wrong password' })
    expect(wrong).toEqual({ status: 401, body: { error: 'The name or the password is wrong.' } })
    const { cookie } = await enter('/api/session', { name: 'piet hollin', password })
    const { body } = await ask(server, 'GET', '/api/session', undefined, { cookie })
    expect(body).toMatchObject({ isShop: true, person: { name: 'Piet Hollin', role: 'installer' } })
  })

  it('change jobs under their own name, whatever the page says', async () => {
    const { body: page } = await as<{ jobs: { id: string; number: string }[] }>(
      'apprentice',
      'GET',
      '/api/jobs',
    )
    const { id } = page.jobs.find(({ number }) => number === '0421')!
    const { body: job } = await as<{ version: number; document: Record<string, unknown> }>(
      'apprentice',
      'GET',
      `/api/jobs/${id}`,
    )
    const document = { ...job.document, notes: { place: 'Seen by lamp.' } }
    const saved = await as('apprentice', 'PUT', `/api/jobs/${id}`, {
      version: job.version,
      who: 'Isolde Brell',
      document,
    })
    expect(saved).toMatchObject({ status: 200, body: { updatedBy: 'Rasmus' } })
  })

  it('are refused for a while after five wrong passwords, wherever they come from', async () => {
    await invite('Guessed', 'apprentice').then(join)
    for (let tries = 0; tries < 5; tries++)
      expect(
        (await as(null, 'POST', '/api/session', { name: 'guessed', password: `guess ${tries}` })).status,
      ).toBe(401)
    const { status, body } = await as(null, 'POST', '/api/session', { name: 'Guessed', password })
    expect(status).toBe(429)
    expect(body.error).toMatch(/^Too many wrong passwords\. Try again in \d+ min\.$/)
    await db.sql`update sign_in_failure set since = now() - interval '16 minutes'`
    expect((await as(null, 'POST', '/api/session', { name: 'Guessed', password })).status).toBe(200)
  })

  it('join once by a link, and get a new one from the owner', async () => {
    const token = await invite('Łukasz', 'installer')
    const { body: invited } = await as(null, 'POST', '/api/session/invitation', { token })
    expect(invited).toEqual({ name: 'Łukasz', role: 'installer', isNew: true })
    const first = await join(token)
    expect(first).not.toBe('')
    expect((await enter('/api/session/join', { token, password })).status).toBe(404)
    const [row] = await db.sql<{ id: string }[]>`select person_id as id from person where name = 'Łukasz'`
    const { body: again } = await as<{ token: string }>('owner', 'POST', `/api/people/${row!.id}/link`)
    // Who sets a new password ends the sessions that the old one opened.
    await enter('/api/session/join', { token: again.token, password: 'another long password' })
    expect((await ask(server, 'GET', '/api/jobs', undefined, { cookie: first })).status).toBe(401)
  })

  it('refuse weak passwords, used names and unknown roles in words', async () => {
    const token = await invite('Weak', 'apprentice')
    expect((await enter('/api/session/join', { token, password: 'short' })).status).toBe(422)
    expect(
      (await as('owner', 'POST', '/api/people', { name: 'ISOLDE BRELL', role: 'owner' })).body.error,
    ).toMatch(/used by another person/)
    expect((await as('owner', 'POST', '/api/people', { name: 'X', role: 'king' })).status).toBe(422)
  })

  it('are signed out by the owner, one browser or all, and when they leave', async () => {
    const cookie = await join(await invite('Leaver', 'apprentice'))
    const second = (await enter('/api/session', { name: 'Leaver', password })).cookie
    const isIn = async (which: string): Promise<boolean> =>
      (await ask(server, 'GET', '/api/jobs', undefined, { cookie: which })).status === 200
    const { body: sessions } = await ask<{ id: string; isThis: boolean }[]>(
      server,
      'GET',
      '/api/session/all',
      undefined,
      {
        cookie,
      },
    )
    const other = sessions.find(({ isThis }) => !isThis)!
    await ask(server, 'DELETE', `/api/session/${other.id}`, undefined, { cookie })
    expect([await isIn(cookie), await isIn(second)]).toEqual([true, false])
    const [row] = await db.sql<{ id: string }[]>`select person_id as id from person where name = 'Leaver'`
    expect((await as('owner', 'DELETE', `/api/people/${row!.id}`)).status).toBe(200)
    expect(await isIn(cookie)).toBe(false)
    expect((await enter('/api/session', { name: 'Leaver', password })).status).toBe(401)
  })

  it('are told from the names of devices before people signed in', async () => {
    await db.sql`
      insert into job_history (workshop_id, job_id, version, who, changes)
      select workshop_id, job_id, 900, 'Bench laptop', '[]' from job where number = '0417'`
    const { body } = await as<{ name: string }[]>('owner', 'GET', '/api/people/past')
    expect(body.map(({ name }) => name)).toEqual(['Bench laptop'])
  })

  it('keep one owner', async () => {
    const [row] = await db.sql<
      { id: string }[]
    >`select person_id as id from person where name = 'Isolde Brell'`
    expect((await as('owner', 'DELETE', `/api/people/${row!.id}`)).status).toBe(409)
    expect((await as('owner', 'PUT', `/api/people/${row!.id}`, { role: 'installer' })).status).toBe(409)
  })

  it('begin once, and only with the code of the terminal', async () => {
    const mine = { name: 'Intruder', password }
    expect((await enter('/api/session/begin', { ...mine, code: 'x'.repeat(30) })).status).toBe(403)
    expect((await enter('/api/session/begin', { ...mine, code: setupCode })).status).toBe(409)
  })

  it('have cookies that scripts and other sites cannot use', async () => {
    const response = await fetch(`${server.url}/api/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'Piet Hollin', password }),
    })
    const cookie = response.headers.get('set-cookie')!
    expect(cookie).toMatch(/HttpOnly/)
    expect(cookie).toMatch(/SameSite=Strict/)
    const [kept] = await db.sql<{ text: string }[]>`select string_agg(s::text, ' ') as text from session s`
    expect(kept!.text).not.toContain(cookie.split('=')[1]!.split(';')[0])
  })
})

describe('one machine', () => {
  it('asks nobody to sign in, and manages no people', async () => {
    const alone = await startServer(db.applicationUrl)
    expect((await ask(alone, 'GET', '/api/session')).body).toEqual({
      isShop: false,
      person: null,
      needsOwner: false,
    })
    expect((await ask(alone, 'GET', '/api/jobs')).status).toBe(200)
    expect((await ask(alone, 'GET', '/api/people')).status).toBe(404)
    expect((await ask(alone, 'POST', '/api/session', { name: 'Piet Hollin', password })).status).toBe(404)
    await alone.stop()
  })
})

describe('the PIN of a shared browser', () => {
  /** The cookies of a browser after it has answered. */
  const cookiesAfter = async (
    cookie: string,
    method: string,
    path: string,
    body: unknown,
  ): Promise<{ readonly status: number; readonly cookie: string; readonly error: string | undefined }> => {
    const response = await fetch(server.url + path, {
      method,
      headers: { 'content-type': 'application/json', cookie, connection: 'close' },
      body: JSON.stringify(body),
    })
    const { error } = (await response.json()) as { error?: string }
    const jar = new Map(cookie.split('; ').map((pair) => pair.split('=', 2) as [string, string]))
    for (const set of response.headers.getSetCookie()) {
      const [name, value] = set.split(';')[0]!.split('=', 2) as [string, string]
      jar.set(name, value)
    }
    const kept = [...jar].map(([name, value]) => `${name}=${value}`).join('; ')
    return { status: response.status, cookie: kept, error }
  }
  const idOfPerson = async (name: string): Promise<string> =>
    (await db.sql<{ id: string }[]>`select person_id as id from person where name = ${name}`)[0]!.id
  const shared = async (name: string): Promise<{ readonly id: string; readonly cookie: string }> => {
    const joined = await join(await invite(name, 'apprentice'))
    const { cookie, status } = await cookiesAfter(joined, 'PUT', '/api/session/pin', { pin: '2580' })
    expect(status).toBe(200)
    return { id: await idOfPerson(name), cookie }
  }

  it('lets its person in there, ends the session of the one before, and is of no use elsewhere', async () => {
    const { id, cookie } = await shared('Shares a laptop')
    const entered = await cookiesAfter(cookie, 'POST', '/api/session/pin', { person: id, pin: '2580' })
    expect(entered.status).toBe(200)
    const me = await ask<{ person: unknown }>(server, 'GET', '/api/session', undefined, {
      cookie: entered.cookie,
    })
    expect(me.body.person).toMatchObject({ name: 'Shares a laptop' })
    const before = await ask(server, 'GET', '/api/jobs', undefined, { cookie })
    expect(before.status).toBe(401)
    const elsewhere = await as(null, 'POST', '/api/session/pin', { person: id, pin: '2580' })
    expect(elsewhere.status).toBe(403)
    expect((await as(null, 'GET', '/api/session/pin')).body).toEqual([])
  })

  it('is gone after five wrong tries, even many at once', async () => {
    const { id, cookie } = await shared('Guesses')
    const tries = await Promise.all(
      Array.from({ length: 12 }, (_, i) =>
        cookiesAfter(cookie, 'POST', '/api/session/pin', { person: id, pin: String(1000 + i) }),
      ),
    )
    expect(tries.filter(({ status }) => status === 401)).toHaveLength(4)
    const late = await cookiesAfter(cookie, 'POST', '/api/session/pin', { person: id, pin: '2580' })
    expect([late.status, late.error]).toEqual([
      403,
      'There is no such PIN on this device any more. Sign in with your password.',
    ])
  })

  it('goes when its person is signed out everywhere, or their browser is', async () => {
    const everywhere = await shared('Signed out')
    await as('owner', 'DELETE', `/api/people/${everywhere.id}/sessions`)
    const after = await cookiesAfter(everywhere.cookie, 'POST', '/api/session/pin', {
      person: everywhere.id,
      pin: '2580',
    })
    expect(after.status).toBe(403)

    const one = await shared('Lost a laptop')
    const phone = (await enter('/api/session', { name: 'Lost a laptop', password })).cookie
    const list = await ask<{ id: string; isThis: boolean }[]>(server, 'GET', '/api/session/all', undefined, {
      cookie: phone,
    })
    const laptop = list.body.find(({ isThis }) => !isThis)!
    await ask(server, 'DELETE', `/api/session/${laptop.id}`, undefined, { cookie: phone })
    const back = await cookiesAfter(one.cookie, 'POST', '/api/session/pin', { person: one.id, pin: '2580' })
    expect(back.status).toBe(403)
  })

  it.each(['123', '123456789', '12 34', 'abcd', '0000', ''])('is refused in words as “%s”', async (pin) => {
    expect((await as('apprentice', 'PUT', '/api/session/pin', { pin })).status).toBe(422)
  })
})

describe('a passkey', () => {
  const made = (challenge: string) => ({
    response: {
      id: 'AAAA',
      rawId: 'AAAA',
      type: 'public-key',
      clientExtensionResults: {},
      response: { clientDataJSON: Buffer.from(JSON.stringify({ challenge })).toString('base64url') },
    },
  })
  it('is not offered where the address is a number', async () => {
    expect((await as('apprentice', 'POST', '/api/session/passkeys/options')).status).toBe(409)
    expect((await as(null, 'POST', '/api/session/passkey/options')).status).toBe(409)
  })
  it('is refused where it is made up', async () => {
    const host = { host: new URL(server.url).host.replace('127.0.0.1', 'localhost') }
    const added = await ask(server, 'POST', '/api/session/passkeys', made('x'), {
      ...host,
      cookie: cookies.apprentice,
    })
    expect(added.status).toBeGreaterThanOrEqual(409)
    expect(added.status).toBeLessThan(500)
    expect(
      (await ask(server, 'POST', '/api/session/passkey', made('x'), host)).status,
    ).toBeGreaterThanOrEqual(401)
    expect((await as('apprentice', 'DELETE', '/api/session/passkeys/AAAA')).status).toBe(404)
  })
})
