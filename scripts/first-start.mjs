// Checks the README's promises of `npm start` and `npm run dev` in the present checkout: each serves the page and
// the six demo jobs, ends cleanly on Ctrl+C, and leaves nothing running. Node.js alone: packages may not be
// installed yet.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { chmodSync, existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { fileURLToPath } from 'node:url'

const root = fileURLToPath(new URL('..', import.meta.url))
const demoJobs = ['0417', '0421', '0424', '0427', '0430', '0433']
/** Installing and building take minutes on a slow machine; this only ends a start that hangs. */
const hangsMs = 30 * 60_000

const data = mkdtempSync(join(tmpdir(), 'jovial-anchor-'))
// As root, PostgreSQL runs as another user, who must reach it.
chmodSync(data, 0o755)
const { PORT: _port, DATABASE_URL: _database, ...env } = process.env
process.once('exit', () => rmSync(data, { recursive: true, force: true }))

/**
 * A command that serves the application, in a process group of its own: Ctrl+C reaches all of it, as in a terminal.
 */
class Served {
  constructor({ name, args, cluster, announces }) {
    this.name = name
    this.announces = announces
    this.lock = join(data, cluster, 'cluster/postmaster.pid')
    this.child = spawn('npm', args, {
      cwd: root,
      detached: true,
      stdio: ['ignore', 'pipe', 'inherit'],
      env: { ...env, JOVIAL_ANCHOR_DATA: data },
    })
    this.ended = once(this.child, 'exit')
    this.printed = ''
    this.child.stdout.on('data', (piece) => (this.printed += piece))
  }

  get isOver() {
    return this.child.exitCode !== null || this.child.signalCode !== null
  }
  interrupt() {
    process.kill(-this.child.pid, 'SIGINT')
  }

  /** The address that it prints. */
  async address() {
    const last = Date.now() + hangsMs
    while (!this.isOver && Date.now() < last) {
      const found = this.announces.exec(this.printed)
      if (found && (await isReady(found[1]))) return found[1]
      await pause(200)
    }
    throw new Error(`${this.name} gave no address:\n${this.printed}`)
  }

  /** Ends it by Ctrl+C, and sees that nothing is left. */
  async stop(url) {
    this.interrupt()
    const [code, signal] = await this.ended
    // npm itself reports the signal that it was stopped with.
    if (code !== 0 && code !== 130 && signal !== 'SIGINT')
      throw new Error(`${this.name} ended with ${signal ?? code} on Ctrl+C`)
    await this.groupEnds()
    if (await isServed(url)) throw new Error(`${url} is still served after Ctrl+C`)
    if (existsSync(this.lock)) throw new Error('PostgreSQL was not stopped on Ctrl+C')
  }

  async groupEnds() {
    for (let tries = 0; tries < 600; tries++) {
      try {
        process.kill(-this.child.pid, 0)
      } catch {
        return
      }
      await pause(100)
    }
    throw new Error(`Processes of ${this.name} are still there a minute after Ctrl+C`)
  }
}

const isServed = (url) =>
  fetch(url).then(
    () => true,
    () => false,
  )
/** Whether it serves the page: the development server answers 503 before it can. */
const isReady = (url) =>
  fetch(url).then(
    ({ ok }) => ok,
    () => false,
  )

const commands = [
  {
    name: 'npm start',
    args: ['start'],
    cluster: 'postgres',
    announces: /Jovial Anchor is at (http:\/\/127\.0\.0\.1:\d+)/,
  },
  {
    name: 'npm run dev',
    args: ['run', 'dev'],
    cluster: 'dev-postgres',
    announces: /Local:\s+(http:\/\/127\.0\.0\.1:\d+)/,
  },
]

async function fetched(url) {
  const response = await fetch(url)
  if (!response.ok) throw new Error(`${url} answers ${response.status}`)
  return response
}

/** Fetches the page and the demo jobs. */
async function visit(url) {
  const page = await (await fetched(url)).text()
  if (!page.includes('<div id="__nuxt">')) throw new Error(`${url} is not the page of the application`)
  const { jobs } = await (await fetched(`${url}/api/jobs`)).json()
  for (const number of demoJobs) {
    const listed = jobs.find((job) => job.number === number)
    if (!listed) throw new Error(`Demo job ${number} is not in the list`)
    const { document } = await (await fetched(`${url}/api/jobs/${listed.id}`)).json()
    if (document.job.number !== number) throw new Error(`Demo job ${number} opens as another job`)
  }
}

for (const command of commands) {
  const begun = Date.now()
  const served = new Served(command)
  try {
    const url = await served.address()
    await visit(url)
    console.log(`${served.name} served after ${Math.round((Date.now() - begun) / 1000)} s`)
    await served.stop(url)
    console.log('Ctrl+C ended it cleanly')
  } catch (cause) {
    console.error(cause.message)
    if (!served.isOver) {
      served.interrupt()
      await served.ended
    }
    process.exit(1)
  }
}
