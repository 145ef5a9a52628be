// npm start: everything from a clean clone to a served application, kept up until it is stopped. With --shop it
// serves the network, and people sign in. With --empty the first start makes a workshop without the demo.
import { spawn } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { buildIfStale, dataFolder, freePort, giveUp, installPackages, root } from './lib/machine.mjs'
import { ownerOf } from './lib/owner.mjs'
import { plainWords, speakPlainly } from './lib/plain-errors.mjs'
import { startCluster } from './lib/postgres.mjs'
import { prepareDatabase } from './lib/prepare.mjs'
import { modeOf } from './lib/shop.mjs'

/** Pauses between attempts to restart a part, ms: longer each time, until it has been up for a while. */
const firstPauseMs = 500
const longestPauseMs = 10_000
const standsMs = 60_000
const lookMs = 2000
/** The server's exit code if another program has its port. */
const portTaken = 98
/** Times that setting the database up is begun again. */
const mostTries = 8

speakPlainly()
installPackages()
const mode = await modeOf(process.argv.slice(2), dataFolder)
buildIfStale()
const cluster = process.env.DATABASE_URL ? null : await startCluster('postgres', { durable: true })
process.once('exit', () => cluster?.stop())
/** Known to the server of this start alone: an answer without it is that of another program. */
const startId = randomUUID()
let port = await wantedPort()
let url = mode.urlAt(port)
let own = cluster && (await ownerOf(cluster.url, () => url))
let ending = false
let isAnnounced = false
let server = null
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, stopping)
// The owner of the database prepares it; the application works under a role that may do less.
const database = cluster ?? {
  url: process.env.DATABASE_URL,
  applicationUrl: process.env.APPLICATION_DATABASE_URL,
}
await withDatabase(async () => {
  const owner = (await own?.take()) ?? null
  if (owner !== null) giveUp(`Jovial Anchor is already running at ${owner}`)
  prepareDatabase({ ...database, isEmpty: process.argv.includes('--empty') })
})
const serving = keepUp()
await answering()
if (!ending) {
  console.log('Ctrl+C stops it. The jobs stay.')
  await mode.announce(url, port)
  isAnnounced = true
  if (cluster) void watchDatabase()
}
await serving
process.exit(0)

/**
 * Does something with the database; where that falls in the middle of it, it is brought back and it is done again.
 */
async function withDatabase(work) {
  for (let tries = 1; ; tries++) {
    try {
      return await work()
    } catch (cause) {
      await pause(firstPauseMs)
      // Where it stands and the work fails all the same, it is not for want of the database.
      if (ending || !cluster || tries === mostTries || (tries > 2 && cluster.isUp()))
        giveUp(plainWords(cause) ?? cause.message)
      await bringBack()
    }
  }
}

/** Starts the database again where it is down; that may take more than one try. */
async function bringBack() {
  if (cluster.isUp()) return
  console.error('PostgreSQL stopped. Starting it again.')
  const before = cluster.url
  try {
    await cluster.bringBack()
  } catch (cause) {
    console.error(cause.message)
  }
  if (cluster.url !== before) await followDatabase()
}

/** Another program has the port of the database, so the database and its clients use another one. */
async function followDatabase() {
  console.error(`Another program has taken its port. It now uses port ${new URL(cluster.url).port}.`)
  await own.release()
  own = await ownerOf(cluster.url, () => url)
  server?.kill('SIGTERM')
}

async function wantedPort() {
  const wanted = process.env.PORT ? Number(process.env.PORT) : await freePort(3000)
  if (!Number.isInteger(wanted) || wanted < 1 || wanted > 65_535)
    giveUp(`PORT must be a number from 1 to 65535, not ${process.env.PORT}`)
  return wanted
}

/** One life of the server. It ends with this process, however that ends: its input closes then. */
function serve() {
  server = spawn(process.execPath, [join(root, '.output', 'server', 'index.mjs')], {
    cwd: root,
    stdio: ['pipe', 'ignore', 'inherit'],
    env: {
      ...process.env,
      DATABASE_URL: database.applicationUrl ?? database.url,
      ENDS_WITH_INPUT: 'yes',
      START_ID: startId,
      NITRO_HOST: mode.host,
      NITRO_PORT: String(port),
      HOST: mode.host,
      PORT: String(port),
      NODE_ENV: 'production',
      ...mode.env,
    },
  })
  return new Promise((resolve) => server.once('exit', (code, signal) => resolve(signal ?? code)))
}

async function keepUp() {
  let pauseMs = firstPauseMs
  while (!ending) {
    const begun = Date.now()
    const code = await serve()
    if (ending) return
    if (Date.now() - begun > standsMs) pauseMs = firstPauseMs
    if (code === portTaken && (await tookAnotherPort())) continue
    console.error(`The server stopped (${code}). It restarts in ${pauseMs / 1000} s.`)
    await pause(pauseMs)
    pauseMs = Math.min(longestPauseMs, pauseMs * 2)
  }
}

/** Brings the database back where it has gone, and holds the data for this process. */
async function watchDatabase() {
  let pauseMs = firstPauseMs
  while (!ending) {
    await pause(lookMs)
    if (ending) return
    try {
      const owner = await own.take()
      if (owner !== null) {
        console.error(`Another start has taken the data, at ${owner}.`)
        return stopping()
      }
      pauseMs = firstPauseMs
    } catch {
      if (ending) return
      await bringBack()
      if (cluster.isUp()) continue
      console.error(`Next try in ${pauseMs / 1000} s.`)
      await pause(pauseMs)
      pauseMs = Math.min(longestPauseMs, pauseMs * 2)
    }
  }
}

function stopping() {
  if (ending) return
  ending = true
  server?.kill('SIGTERM')
  setTimeout(() => server?.kill('SIGKILL'), 5000).unref()
}

/** Goes on at the next free port, unless one was asked for: that is tried again until it is free. */
async function tookAnotherPort() {
  if (process.env.PORT) {
    console.error(`Port ${port} is used by another program.`)
    return false
  }
  port = await freePort(port + 1)
  url = mode.urlAt(port)
  await own?.announce()
  if (isAnnounced) console.log(`Another program has taken its port. Jovial Anchor is now at ${url}`)
  return true
}

/** Waits for an answer of the server of this start, unless it is stopped before. */
async function answering() {
  for (let tries = 0; tries < 1500; tries++) {
    if (ending) return
    const isOwn = await mode.ask(port, '/').then(
      ({ status, headers }) => status === 200 && headers['x-start'] === startId,
      () => false,
    )
    if (isOwn) return
    await pause(200)
  }
  giveUp(`The server did not answer at ${url}`)
}
