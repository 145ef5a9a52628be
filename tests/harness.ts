import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { createServer } from 'node:net'
import { join } from 'node:path'
import type { Sql } from 'postgres'
import { connect } from '../server/db/connection'
import { migrate } from '../server/db/migrate'
import { loadDemo } from '../server/db/demo'
import { allowApplication, applicationUrl } from '../server/db/role'
import { root } from '../scripts/lib/machine.mjs'

const at = (path: string): string => join(root, path)

export interface TestDatabase {
  /** For its owner, and for the application. */
  readonly url: string
  readonly applicationUrl: string
  readonly sql: Sql
  /** Ends its connections, and makes new ones. */
  disconnect(): Promise<void>
  reconnect(): Promise<void>
  drop(): Promise<void>
}
const applicationPassword = 'of-the-tests'

/** Names a database that others are copied from, in the processes of a run. */
const templateName = 'TEST_TEMPLATE_DATABASE'

function adminUrl(): string {
  const url = process.env.TEST_DATABASE_URL
  if (!url) throw new Error('TEST_DATABASE_URL is not set: run npm test')
  return url
}
const databaseUrl = (name: string): string => adminUrl().replace(/\/[^/]*$/, `/${name}`)
/** The address of a test's database for the application. */
export const applicationUrlOf = (name: string): string =>
  applicationUrl(databaseUrl(name), applicationPassword)
const newName = (): string => `test_${Date.now().toString(36)}_${Math.random().toString(36).slice(2, 8)}`

async function asAdmin(...statements: readonly string[]): Promise<void> {
  const sql = connect(adminUrl())
  for (const statement of statements) await sql.unsafe(statement)
  await sql.end()
}

/**
 * Makes the database that the others of this run are copied from: migrated, with the demo jobs.
 * @returns the function that removes it
 */
export async function makeTemplate(): Promise<() => Promise<void>> {
  const { url, sql } = await freshDatabase()
  await sql.end()
  const name = url.slice(url.lastIndexOf('/') + 1)
  process.env[templateName] = name
  return () => asAdmin(`drop database ${name}`)
}

/** A database as it is at first, under a name of its own or in place of the one that has it. */
export async function freshDatabase({
  demo = true,
  migrated = true,
  name = newName(),
} = {}): Promise<TestDatabase> {
  const template = migrated && demo ? process.env[templateName] : undefined
  await asAdmin(
    `drop database if exists ${name} with (force)`,
    `create database ${name}${template ? ` template ${template}` : ''}`,
  )
  const url = databaseUrl(name)
  const application = applicationUrlOf(name)
  let sql = connect(url)
  if (migrated && !template) await migrate(sql, at('server/db/migrations'))
  if (migrated && demo && !template) await loadDemo(sql, at('demo'))
  if (migrated && !template) await allowApplication(sql, application)
  return {
    url,
    applicationUrl: application,
    get sql() {
      return sql
    },
    disconnect: () => sql.end(),
    async reconnect() {
      sql = connect(url)
      await sql`select 1`
    },
    async drop() {
      await sql.end()
      await asAdmin(`drop database ${name} with (force)`)
    },
  }
}

export async function freePort(): Promise<number> {
  const probe = createServer()
  probe.listen(0, '127.0.0.1')
  await once(probe, 'listening')
  const { port } = probe.address() as { port: number }
  probe.close()
  await once(probe, 'close')
  return port
}

export interface TestServer {
  readonly url: string
  readonly pid: number
  stop(): Promise<void>
}

/** How often a server is asked whether it is up, every 100 ms: minutes, on a slow machine. */
const mostTries = 3000

/** The built application on a port of loopback, with everything it logs kept from the test's output. */
export async function startServer(
  databaseUrl: string,
  {
    port,
    entry = at('.output/server/index.mjs'),
    env = {},
  }: {
    readonly port?: number
    readonly entry?: string
    readonly env?: Readonly<Record<string, string>>
  } = {},
): Promise<TestServer> {
  const own = String(port ?? (await freePort()))
  const child: ChildProcess = spawn(process.execPath, [entry], {
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      NITRO_HOST: '127.0.0.1',
      NITRO_PORT: own,
      HOST: '127.0.0.1',
      PORT: own,
      NODE_ENV: 'production',
      CHECK_ANSWERS: 'yes',
      ...env,
    },
    stdio: 'ignore',
  })
  const url = `http://127.0.0.1:${own}`
  for (let tries = 0; tries <= mostTries; tries++) {
    if (
      await fetch(url).then(
        (r) => r.ok,
        () => false,
      )
    )
      break
    if (child.exitCode !== null || tries === mostTries) throw new Error(`The server did not start at ${url}`)
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  return {
    url,
    pid: child.pid!,
    async stop() {
      if (child.exitCode !== null || child.signalCode !== null) return
      child.kill('SIGKILL')
      await once(child, 'exit')
    },
  }
}
