// What the README promises of `npm start`, from the checkout as it is: it serves the page and the six demo jobs,
// ends cleanly on Ctrl+C, and leaves nothing running. Node.js alone: packages may not be installed yet.
import { spawn } from 'node:child_process'
import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { once } from 'node:events'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
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
  if (code !== 0) throw new Error(`npm start ended with ${signal ?? code} on Ctrl+C`)
  const stillThere = await fetch(url).then(
    () => true,
    () => false,
  )
  if (stillThere) throw new Error(`Something still serves ${url} after Ctrl+C`)
} catch (cause) {
  console.error(cause.message)
  if (start.exitCode === null && start.signalCode === null) {
    interrupt()
    await ended
  }
  process.exit(1)
}
