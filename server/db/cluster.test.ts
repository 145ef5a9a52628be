import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { createServer, type AddressInfo } from 'node:net'
import { afterEach, expect, it, vi } from 'vitest'
import { freePort } from '../../scripts/lib/machine.mjs'
import { dropData, startCluster } from '../../scripts/lib/postgres.mjs'
import { connect } from './connection'

vi.mock(import('../../scripts/lib/machine.mjs'), async (original) => {
  const own = await original()
  return { ...own, freePort: vi.fn(own.freePort) }
})

const name = `test-killed-${process.pid}`
afterEach(() => dropData(name, '.'))

it('a database that was killed starts again once its processes have let its memory go', async () => {
  const killed = await startCluster(name, { durable: false })
  const sql = connect(killed.url)
  const [there] = await sql<{ folder: string; session: number }[]>`
    select current_setting('data_directory') as folder, pg_backend_pid() as session`
  const { folder, session } = there!
  process.kill(session, 'SIGSTOP')
  process.kill(Number(readFileSync(join(folder, 'postmaster.pid'), 'utf8').split('\n')[0]), 'SIGKILL')
  // Held until then: the start waits for it without letting anything else of this process run.
  spawn('sh', ['-c', `sleep 2; kill -CONT ${session}`], { stdio: 'ignore' })
  const again = await startCluster(name, { durable: false })
  try {
    expect(again.isUp()).toBe(true)
  } finally {
    await sql.end({ timeout: 0 })
    again.stop()
  }
})

it('a cluster whose port another has taken a moment before takes the next', async () => {
  const other = createServer()
  await new Promise<void>((resolve) => other.listen(0, '127.0.0.1', resolve))
  const { port } = other.address() as AddressInfo
  vi.mocked(freePort).mockResolvedValueOnce(port)
  const cluster = await startCluster(name, { durable: false })
  try {
    expect(cluster.isUp()).toBe(true)
    expect(new URL(cluster.url).port).not.toBe(String(port))
  } finally {
    cluster.stop()
    other.close()
  }
})
