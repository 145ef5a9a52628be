// npm start: everything from a clean clone to a served application.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { buildIfStale, freePort, giveUp, installPackages, root, run } from './lib/machine.mjs'
import { startCluster } from './lib/postgres.mjs'

installPackages()
buildIfStale()
const cluster = process.env.DATABASE_URL
  ? { url: process.env.DATABASE_URL, stop() {} }
  : await startCluster('postgres', { durable: true })
process.once('exit', () => cluster.stop())
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => stopping(0))

const env = { ...process.env, DATABASE_URL: cluster.url }
run('npx', ['--no-install', 'tsx', join(root, 'scripts', 'prepare-database.ts')], { env })

const port = process.env.PORT ? Number(process.env.PORT) : await freePort(3000)
if (!Number.isInteger(port) || port < 1 || port > 65_535)
  giveUp(`PORT must be a number from 1 to 65535, not ${process.env.PORT}`)
const server = spawn(process.execPath, [join(root, '.output', 'server', 'index.mjs')], {
  cwd: root,
  stdio: ['ignore', 'ignore', 'inherit'],
  env: {
    ...env,
    NITRO_HOST: '127.0.0.1',
    NITRO_PORT: String(port),
    HOST: '127.0.0.1',
    PORT: String(port),
    NODE_ENV: 'production',
  },
})
let ending = false
server.once('exit', (code) => {
  if (!ending) console.error(`The server ended by itself (${code})`)
  process.exit(ending ? 0 : 1)
})

const url = `http://127.0.0.1:${port}`
await answering(url)
console.log('Ctrl+C stops it; the jobs stay.')
console.log(`Jovial Anchor is at ${url}`)

function stopping() {
  if (ending) return
  ending = true
  server.kill('SIGTERM')
  setTimeout(() => server.kill('SIGKILL'), 5000).unref()
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
    await new Promise((resolve) => setTimeout(resolve, 200))
  }
  giveUp(`The server did not answer at ${address}`)
}
