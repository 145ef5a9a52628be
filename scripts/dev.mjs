// npm run dev: the application from its sources, rebuilt as they change, on a database of its own.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { join } from 'node:path'
import { dataFolder, freePort, giveUp, installPackages, root } from './lib/machine.mjs'
import { speakPlainly } from './lib/plain-errors.mjs'
import { startCluster } from './lib/postgres.mjs'
import { prepareDatabase } from './lib/prepare.mjs'

speakPlainly()
installPackages()
// Not the database of npm start: changes under work must not reach real jobs.
const cluster = process.env.DATABASE_URL ? null : await startCluster('dev-postgres', { durable: true })
process.once('exit', () => cluster?.stop())
const database = cluster ?? {
  url: process.env.DATABASE_URL,
  applicationUrl: process.env.APPLICATION_DATABASE_URL,
}
try {
  prepareDatabase(database)
} catch (cause) {
  giveUp(cause.message)
}
const port = process.env.PORT ?? String(await freePort(3000))
console.log(`The data is in ${dataFolder}. Ctrl+C stops it.`)
// Not by npx, which would not hand on the signal that ends it.
const nuxt = join(root, 'node_modules/nuxt/bin/nuxt.mjs')
const server = spawn(process.execPath, [nuxt, 'dev', '--host', '127.0.0.1', '--port', port], {
  cwd: root,
  stdio: 'inherit',
  env: {
    ...process.env,
    DATABASE_URL: database.applicationUrl ?? database.url,
    NUXT_TELEMETRY_DISABLED: '1',
  },
})
// Ctrl+C reaches the server too: it ends first, then this.
for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => server.kill(signal))
const [code] = await once(server, 'exit')
process.exit(code ?? 0)
