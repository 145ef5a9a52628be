// What the README promises of `npm start`, from the checkout as it is: it serves the page and the six demo jobs,
// ends cleanly on Ctrl+C, and leaves nothing running. Node.js alone: packages may not be installed yet.
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
const begun = Date.now()
const { PORT: _port, DATABASE_URL: _database, ...env } = process.env
// A process group of its own, so that Ctrl+C reaches all of it, as in a terminal.
const start = spawn('npm', ['start'], {
  cwd: root,
  detached: true,
  stdio: ['ignore', 'pipe', 'inherit'],
  env: { ...env, JOVIAL_ANCHOR_DATA: data },
})
const ended = once(start, 'exit')
const interrupt = () => process.kill(-start.pid, 'SIGINT')
process.once('exit', () => rmSync(data, { recursive: true, force: true }))

/** The address that npm start prints as its last line. */
async function address() {
  const timeOut = setTimeout(interrupt, hangsMs)
  let printed = ''
  try {
    for await (const piece of start.stdout) {
      printed += piece
      const found = /Jovial Anchor is at (http:\/\/127\.0\.0\.1:\d+)/.exec(printed)
      if (found) return found[1]
    }
  } finally {
    clearTimeout(timeOut)
  }
  throw new Error(`npm start ended without an address:\n${printed}`)
}

const isServed = (url) =>
  fetch(url).then(
    () => true,
    () => false,
  )

/** Waits until no process of npm start is left. */
async function groupEnds() {
  for (let tries = 0; tries < 600; tries++) {
    try {
      process.kill(-start.pid, 0)
    } catch {
      return
    }
    await pause(100)
  }
  throw new Error('Processes of npm start are still there a minute after Ctrl+C')
}

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

try {
  const url = await address()
  await visit(url)
  console.log(`npm start served after ${Math.round((Date.now() - begun) / 1000)} s`)
  interrupt()
  const [code, signal] = await ended
  // npm itself reports the signal that it was stopped with.
  if (code !== 0 && code !== 130 && signal !== 'SIGINT')
    throw new Error(`npm start ended with ${signal ?? code} on Ctrl+C`)
  await groupEnds()
  if (await isServed(url)) throw new Error(`${url} is still served after Ctrl+C`)
  if (existsSync(join(data, 'postgres/cluster/postmaster.pid')))
    throw new Error('PostgreSQL was not stopped on Ctrl+C')
  console.log('Ctrl+C ended it cleanly')
} catch (cause) {
  console.error(cause.message)
  if (start.exitCode === null && start.signalCode === null) {
    interrupt()
    await ended
  }
  process.exit(1)
}
