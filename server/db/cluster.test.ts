import { spawn, type ChildProcess } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { createServer, type AddressInfo } from 'node:net'
import { afterEach, expect, it, vi } from 'vitest'
import { long } from '#core/testing'
import { freePort, root } from '../../scripts/lib/machine.mjs'
import { dropData, startCluster } from '../../scripts/lib/postgres.mjs'
import { connect } from './connection'

vi.mock(import('../../scripts/lib/machine.mjs'), async (original) => {
  const own = await original()
  return { ...own, freePort: vi.fn(own.freePort) }
})

const name = `test-killed-${process.pid}`
afterEach(() => dropData(name, '.'))

it('a database that was killed starts again once its processes have let its memory go', long, async () => {
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

it('a cluster whose port another has taken a moment before takes the next', long, async () => {
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

it(
  'a cluster that comes back while another program has its port takes the next, and says so by its address',
  long,
  async () => {
    const cluster = await startCluster(name, { durable: false })
    const before = cluster.url
    const sql = connect(before)
    const [there] = await sql<{ folder: string }[]>`select current_setting('data_directory') as folder`
    const pid = Number(readFileSync(join(there!.folder, 'postmaster.pid'), 'utf8').split('\n')[0])
    process.kill(pid, 'SIGKILL')
    await expect.poll(() => cluster.isUp()).toBe(false)
    await sql.end({ timeout: 0 })
    const other = createServer()
    const port = Number(new URL(before).port)
    await new Promise<void>((resolve) => other.listen(port, '127.0.0.1', resolve))
    try {
      await cluster.bringBack()
      expect([cluster.isUp(), cluster.url === before]).toEqual([true, false])
      const again = connect(cluster.applicationUrl.replace('jovial_anchor_application', 'nobody'))
      await expect(again`select 1`).rejects.toThrow(/password authentication failed/)
      await again.end()
    } finally {
      cluster.stop()
      other.close()
    }
  },
)

it('two first starts at once share one cluster and its secrets', async () => {
  const starting = (): Promise<string> =>
    new Promise((resolve, reject) => {
      const child = spawn(process.execPath, [
        '--input-type=module',
        '-e',
        `import { startCluster } from ${JSON.stringify(join(root, 'scripts/lib/postgres.mjs'))}
         const { url } = await startCluster('${name}', { durable: false })
         console.log(url)
         process.stdin.once('data', () => process.exit())`,
      ])
      let said = ''
      let wrong = ''
      child.stderr.on('data', (text: Buffer) => (wrong += String(text)))
      child.stdout.on('data', (text: Buffer) => {
        said += String(text)
        if (said.includes('\n')) resolve(said.trim())
      })
      child.once('exit', () => reject(new Error(wrong)))
      children.push(child)
    })
  const children: ChildProcess[] = []
  const [first, second] = await Promise.all([starting(), starting()])
  expect(first).toBe(second)
  const sql = connect(first)
  expect(await sql`select 1 as one`).toEqual([{ one: 1 }])
  await sql.end()
  for (const child of children) child.stdin!.write('end')
  const cluster = await startCluster(name, { durable: false })
  cluster.stop()
})
