import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { createServer } from 'node:net'
import { fileURLToPath } from 'node:url'
import type { Sql } from 'postgres'
import { connect } from '../server/db/connection'
import { migrate } from '../server/db/migrate'
import { loadDemo } from '../server/db/workshop'

const at = (path: string): string => fileURLToPath(new URL(path, import.meta.url))

export interface TestDatabase {
  readonly url: string
  readonly sql: Sql
  drop(): Promise<void>
}

/** A database of its own on the test cluster, migrated and, unless it is to stay empty, with the demo jobs. */
export async function freshDatabase({ demo = true, migrated = true } = {}): Promise<TestDatabase> {
  const admin = process.env.TEST_DATABASE_URL
  if (!admin) throw new Error('TEST_DATABASE_URL is not set: run npm test')
  const name = `test_${Date.now().toString(36)}_${Math.random().toString(36).slice(2, 8)}`
  const adminSql = connect(admin)
  await adminSql.unsafe(`create database ${name}`)
  const url = admin.replace(/\/[^/]*$/, `/${name}`)
  const sql = connect(url)
  if (migrated) await migrate(sql, at('../server/db/migrations'))
  if (migrated && demo) await loadDemo(sql, at('../demo'))
  return {
    url, sql,
    async drop() {
      await sql.end()
      await adminSql.unsafe(`drop database ${name} with (force)`)
      await adminSql.end()
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
  stop(): Promise<void>
}

/** The built application on a port of loopback, with everything it logs kept from the test's output. */
export async function startServer(databaseUrl: string, port?: number): Promise<TestServer> {
  const own = String(port ?? await freePort())
  const child: ChildProcess = spawn(process.execPath, [at('../.output/server/index.mjs')], {
    env: { ...process.env, DATABASE_URL: databaseUrl, NITRO_HOST: '127.0.0.1', NITRO_PORT: own, HOST: '127.0.0.1', PORT: own, NODE_ENV: 'production' }, stdio: 'ignore',
  })
  const url = `http://127.0.0.1:${own}`
  for (let tries = 0; tries < 100; tries++) {
    if (await fetch(url).then((r) => r.ok, () => false)) break
    if (child.exitCode !== null || tries === 99) throw new Error(`The server did not start at ${url}`)
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  return {
    url,
    async stop() {
      if (child.exitCode !== null || child.signalCode !== null) return
      child.kill('SIGKILL')
      await once(child, 'exit')
    },
  }
}
