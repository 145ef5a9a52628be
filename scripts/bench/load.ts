import { execFileSync } from 'node:child_process'
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import type { JobDocument } from '#core/job/document'
import { freshDatabase, startServer } from '../../tests/harness'
import { bothTrees, commit, type Tree } from '../lib/before'
import { underLoad, type Loaded } from '../lib/load'
import { buildIfStale } from '../lib/machine.mjs'
import { startCluster } from '../lib/postgres.mjs'
import { demoJobs, ms } from './demo-jobs'

const clients = 16
const seconds = Number(process.env.SECONDS ?? 60)

/** A server of a tree, built, on a database of its own; the tests' own for the tree as it is. */
async function loadOn({ folder, name }: Tree): Promise<Loaded> {
  const now = name === 'now'
  const db = await freshDatabase({ migrated: now, demo: now })
  const entry = join(folder, '.output/server/index.mjs')
  if (!now) {
    if (!existsSync(entry)) {
      // Its packages are those of its own lock file.
      execFileSync('npm', ['install', '--no-save', '--no-audit', '--no-fund'], {
        cwd: folder,
        stdio: 'ignore',
      })
      execFileSync('npx', ['nuxt', 'build'], { cwd: folder, stdio: 'ignore' })
    }
    const env = { ...process.env, DATABASE_URL: db.url }
    execFileSync('npx', ['tsx', 'scripts/prepare-database.ts'], { cwd: folder, env, stdio: 'ignore' })
  }
  const server = await startServer(now ? db.applicationUrl : db.url, { entry })
  try {
    const documents = (now ? demoJobs.map(([, job]) => job) : oldDemo(folder)) as readonly JobDocument[]
    return await underLoad(server.url, documents, { clients, seconds })
  } finally {
    await server.stop()
    await db.drop()
  }
}

/** The demo jobs of a tree as they were then: its server reads no later ones. */
const oldDemo = (folder: string): unknown[] =>
  JSON.parse(
    execFileSync(
      process.execPath,
      [
        '-e',
        "const f=require('fs');console.log(JSON.stringify(f.readdirSync('demo/jobs').map((n)=>JSON.parse(f.readFileSync('demo/jobs/'+n)))))",
      ],
      { cwd: folder, encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 },
    ),
  ) as unknown[]

function rowOf(what: string, { requests, seconds: took, savesMs, readsMs, failed }: Loaded) {
  const at = (times: readonly number[], share: number): string =>
    ms(times.toSorted((a, b) => a - b)[Math.floor(share * (times.length - 1))] ?? NaN)
  return {
    what,
    'requests a second': Math.round(requests / took),
    saves: savesMs.length,
    'saves p50': at(savesMs, 0.5),
    'saves p99': at(savesMs, 0.99),
    'reads p99': at(readsMs, 0.99),
    failed,
  }
}

/** Sixteen clients, three saves in ten requests, on jobs of the size of the demo jobs; as it is and as it was. */
export async function benchLoad(): Promise<void> {
  buildIfStale()
  const cluster = await startCluster('test-postgres', { durable: true })
  process.env.TEST_DATABASE_URL = cluster.url
  try {
    const [before, now] = bothTrees()
    const [is, was] = [await loadOn(now), await loadOn(before)]
    console.log(`${clients} clients for ${seconds} s, 30 % saves`)
    console.table([rowOf('now', is), rowOf(commit, was)])
  } finally {
    cluster.stop()
  }
}
