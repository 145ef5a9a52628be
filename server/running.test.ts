import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { readdirSync } from 'node:fs'
import { mkdtemp } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { root } from '../scripts/lib/machine.mjs'
import { wantsShop } from '../scripts/lib/shop.mjs'
import { ask } from '../tests/api-client'
import { freePort, freshDatabase, startServer, type TestDatabase, type TestServer } from '../tests/harness'
import { schemaNumber } from './db/schema'

const setupCode = 'code-of-the-terminal-of-this-test'

let db: TestDatabase
let server: TestServer
let cookie = ''

const asOwner = <T = Record<string, unknown>>(method: string, path: string, body?: unknown) =>
  ask<T>(server, method, path, body, { cookie })
const withKey = <T = Record<string, unknown>>(token: string, method: string, path: string, body?: unknown) =>
  ask<T>(server, method, path, body, { authorization: `Bearer ${token}` })
const newKey = async (role: string, days = 30): Promise<{ id: string; token: string }> =>
  (await asOwner<{ id: string; token: string }>('POST', '/api/tokens', { name: 'Stock list', role, days }))
    .body

beforeAll(async () => {
  db = await freshDatabase()
  server = await startServer(db.applicationUrl, { env: { SHOP_MODE: 'yes', SETUP_CODE: setupCode } })
  const response = await fetch(`${server.url}/api/session/begin`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', connection: 'close' },
    body: JSON.stringify({ code: setupCode, name: 'Isolde Brell', password: 'seven tall masts' }),
  })
  cookie = response.headers.get('set-cookie')!.split(';')[0]!
})
afterAll(async () => {
  await server.stop()
  await db.drop()
})

describe('health', () => {
  it('is good where the database has the tables of this version', async () =>
    expect(await ask(server, 'GET', '/api/health')).toEqual({
      status: 200,
      body: {
        ready: true,
        database: 'reachable',
        migrations: { applied: schemaNumber, wanted: schemaNumber },
      },
    }))

  it('is bad where a migration is missing, or the database cannot be reached', async () => {
    await db.sql`delete from schema_migration where number = ${schemaNumber}`
    expect((await ask(server, 'GET', '/api/health')).status).toBe(503)
    await db.sql`insert into schema_migration (number, name) values (${schemaNumber}, 'again')`
    const alone = await startServer(db.applicationUrl.replace(/:\d+\//, `:${await freePort()}/`))
    expect(await ask(alone, 'GET', '/api/health')).toMatchObject({
      status: 503,
      body: { ready: false, database: 'unreachable' },
    })
    await alone.stop()
  })

  it('expects the last migration of the folder', () => {
    const folder = fileURLToPath(new URL('db/migrations', import.meta.url))
    expect(Math.max(...readdirSync(folder).map((name) => Number.parseInt(name, 10)))).toBe(schemaNumber)
  })
})

describe('metrics', () => {
  it('count requests by route, not by job, for the owner', async () => {
    const { token } = await newKey('owner')
    await withKey(token, 'GET', '/api/jobs')
    const response = await fetch(`${server.url}/api/metrics`, {
      headers: { authorization: `Bearer ${token}` },
    })
    const text = await response.text()
    expect(response.headers.get('content-type')).toMatch(/^text\/plain/)
    expect(text).toMatch(/http_request_seconds_count\{method="GET",route="\/api\/jobs",status="200"\} \d+/)
    expect(text).toMatch(/^jobs_waiting_for_a_verdict \d+$/m)
    expect(text).not.toMatch(/[0-9a-f]{8}-[0-9a-f]{4}-/)
  })

  it('are for nobody else', async () => {
    expect((await ask(server, 'GET', '/api/metrics')).status).toBe(401)
    const { token } = await newKey('installer')
    expect((await withKey(token, 'GET', '/api/metrics')).status).toBe(403)
  })
})

describe('the key of a program', () => {
  it('has the rights of its role, under its own name', async () => {
    const { token } = await newKey('apprentice')
    const made = await withKey<{ id: string; updatedBy: string }>(token, 'POST', '/api/jobs', { who: 'x' })
    expect(made).toMatchObject({ status: 201, body: { updatedBy: 'Stock list' } })
    expect((await withKey(token, 'DELETE', `/api/jobs/${made.body.id}`)).status).toBe(403)
    expect((await withKey(token, 'GET', '/api/session/all')).body.error).toBe(
      'A program with a key cannot do this',
    )
  })

  it('ends when it is revoked, and after its days', async () => {
    const [first, second] = [await newKey('installer'), await newKey('installer')]
    expect((await asOwner('DELETE', `/api/tokens/${first.id}`)).status).toBe(200)
    await db.sql`update api_token set ends_at = now() - interval '1 second' where token_id = ${second.id}`
    for (const { token } of [first, second])
      expect((await withKey(token, 'GET', '/api/jobs')).status).toBe(401)
    expect((await asOwner('DELETE', `/api/tokens/${first.id}`)).status).toBe(404)
  })

  it('is told once and kept as its hash', async () => {
    const { id, token } = await newKey('installer')
    const { body: listed } = await asOwner<{ id: string; name: string }[]>('GET', '/api/tokens')
    expect(listed.find((one) => one.id === id)).toMatchObject({ name: 'Stock list', role: 'installer' })
    expect(JSON.stringify(listed)).not.toContain(token)
    const [kept] = await db.sql<{ text: string }[]>`select string_agg(t::text, ' ') as text from api_token t`
    expect(kept!.text).not.toContain(token)
  })

  it('is refused in words where it has no name, no role or too many days', async () => {
    const bad = [
      { name: '', role: 'owner', days: 1 },
      { name: 'A', role: 'king', days: 1 },
      { name: 'A', role: 'owner', days: 9999 },
    ]
    for (const body of bad) expect((await asOwner('POST', '/api/tokens', body)).status).toBe(422)
    expect((await withKey('not-a-key-of-this-shop', 'GET', '/api/jobs')).status).toBe(401)
  })
})

describe('the mode', () => {
  it('of the next start is chosen by the owner, and kept in a file', async () => {
    const file = join(await mkdtemp(join(tmpdir(), 'mode-')), 'shop-mode')
    const alone = await startServer(db.applicationUrl, { env: { SHOP_SWITCH: file } })
    expect((await ask(alone, 'GET', '/api/mode')).body).toEqual({ shop: false, next: false })
    expect((await ask(alone, 'PUT', '/api/mode', { shop: true })).body).toEqual({ shop: false, next: true })
    expect([wantsShop([], file), wantsShop(['--one-machine'], file)]).toEqual([true, false])
    expect((await ask(alone, 'PUT', '/api/mode', { shop: 'yes' })).status).toBe(422)
    await ask(alone, 'PUT', '/api/mode', { shop: false })
    expect([wantsShop([], file), wantsShop(['--shop'], file)]).toEqual([false, true])
    await alone.stop()
  })

  it('cannot be chosen where the server was started otherwise', async () =>
    expect((await asOwner('PUT', '/api/mode', { shop: false })).status).toBe(409))
})

describe('the log', () => {
  it('is lines of JSON that name routes and no jobs, if asked for', async () => {
    const port = String(await freePort())
    const child = spawn(process.execPath, [`${root}/.output/server/index.mjs`], {
      env: {
        ...process.env,
        DATABASE_URL: db.applicationUrl,
        NITRO_HOST: '127.0.0.1',
        NITRO_PORT: port,
        NODE_ENV: 'production',
        LOG_JSON: 'yes',
      },
      stdio: ['ignore', 'ignore', 'pipe'],
    })
    let text = ''
    child.stderr.on('data', (chunk: Buffer) => (text += chunk.toString()))
    const at = { url: `http://127.0.0.1:${port}` }
    await expect
      .poll(
        () =>
          ask(at, 'GET', '/api/jobs').then(
            ({ status }) => status,
            () => 0,
          ),
        { timeout: 60_000 },
      )
      .toBe(200)
    const [row] = await db.sql<{ id: string }[]>`select job_id as id from job where number = '0417'`
    await ask(at, 'GET', `/api/jobs/${row!.id}`)
    await expect.poll(() => text, { timeout: 60_000 }).toContain('/api/jobs/:id')
    child.kill('SIGKILL')
    await once(child, 'exit')
    const lines = text
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as Record<string, unknown>)
    expect(lines.some(({ route, status }) => route === '/api/jobs/:id' && status === 200)).toBe(true)
    expect(text).not.toContain(row!.id)
  })
})
