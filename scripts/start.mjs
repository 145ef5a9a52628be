// npm start: everything from a clean clone to a served application, kept up until it is stopped.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { buildIfStale, freePort, giveUp, installPackages, root, run } from './lib/machine.mjs'
import { ownData } from './lib/owner.mjs'
import { startCluster } from './lib/postgres.mjs'

/** Pauses between tries to bring back what has gone, ms: longer each time, until it has stood for a while. */
const firstPauseMs = 500
const longestPauseMs = 30_000
const standsMs = 60_000
const lookMs = 5000

installPackages()
buildIfStale()
const cluster = process.env.DATABASE_URL ? null : await startCluster('postgres', { durable: true })
process.once('exit', () => cluster?.stop())
const port = await wantedPort()
const url = `http://127.0.0.1:${port}`
const databaseUrl = cluster?.url ?? process.env.DATABASE_URL
if (cluster) {
  const owner = await ownData(databaseUrl, url)
  if (owner !== null) giveUp(`Jovial Anchor is running already, at ${owner}`)
}

let ending = false
let server = null
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, stopping)
const env = { ...process.env, DATABASE_URL: databaseUrl, ...(cluster && { POSTGRES_PROGRAMS: cluster.bin }) }
run('npx', ['--no-install', 'tsx', join(root, 'scripts', 'prepare-database.ts')], { env })
const serving = keepUp()
await answering(url)
console.log('Ctrl+C stops it; the jobs stay.')
console.log(`Jovial Anchor is at ${url}`)
if (cluster) void watchDatabase()
await serving
process.exit(0)

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
      ...env,
      ENDS_WITH_INPUT: 'yes',
      NITRO_HOST: '127.0.0.1',
      NITRO_PORT: String(port),
      HOST: '127.0.0.1',
      PORT: String(port),
      NODE_ENV: 'production',
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
    console.error(`The server ended by itself (${code}); it comes back in ${pauseMs / 1000} s.`)
    await pause(pauseMs)
    pauseMs = Math.min(longestPauseMs, pauseMs * 2)
  }
}

async function watchDatabase() {
  let pauseMs = firstPauseMs
  while (!ending) {
    await pause(lookMs)
    if (ending || cluster.isUp()) continue
    console.error('PostgreSQL has ended by itself; it is started again.')
    try {
      cluster.bringBack({ orGiveUp: false })
      pauseMs = firstPauseMs
    } catch (cause) {
      console.error(`${cause.message}. Tried again in ${pauseMs / 1000} s.`)
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

async function answering(address) {
  for (let tries = 0; tries < 150; tries++) {
    if (
      await fetch(address).then(
        (r) => r.ok,
        () => false,
      )
    )
      return
    await pause(200)
  }
  giveUp(`The server did not answer at ${address}`)
}
