// npm run rehearse [-- JOBS PHOTOS BYTES]: walks docs/running.md on a shop of its own, with as many jobs and
// photographs of this many bytes: backing up while it is used, restoring, moving the data away, a port that is taken,
// a second start. Every row must come back as it was. Fails with the first sentence that does not hold.
import { createHash, randomBytes } from 'node:crypto'
import { once } from 'node:events'
import {
  closeSync,
  mkdtempSync,
  openSync,
  readSync,
  renameSync,
  rmSync,
  statSync,
  readFileSync,
  readdirSync,
  writeFileSync,
} from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Sql } from 'postgres'
import type { JobPage } from '../server/repositories/job-list'
import type { StoredJob } from '../server/repositories/jobs'
import { connect } from '../server/db/connection'
import { Application, type Ran } from './lib/application'

const [jobs = 300, photos = 500, bytes = 100_000] = process.argv.slice(2).map(Number)
const mostMb = 300
const application = await Application.begin('rehearsal')
const folder = mkdtempSync(join(tmpdir(), 'rehearsal-'))
const file = join(folder, 'shop.backup')

function holds(sentence: string, isTrue: boolean, more: unknown = ''): void {
  if (!isTrue) throw new Error(`Does not hold: ${sentence} ${String(more)}`)
  console.log(`holds: ${sentence}`)
}
const seconds = async <T>(what: string, work: () => Promise<T>): Promise<T> => {
  const began = performance.now()
  const result = await work()
  console.log(`${what}: ${((performance.now() - began) / 1000).toFixed(1)} s`)
  return result
}

/** A connection of the owner of the database, which must run. */
function asOwner(): Sql {
  const home = join(application.data, 'postgres')
  const port = readFileSync(join(home, 'cluster/postmaster.pid'), 'utf8').split('\n')[3]
  return connect(
    `postgres://jovial:${readFileSync(join(home, 'password'), 'utf8')}@127.0.0.1:${port}/postgres`,
    // Without limits: gigabytes of photographs take their time.
    { connection: {} },
  )
}

/** Every row of every table but those that say how and when the data were served. */
async function rowsOf(): Promise<Record<string, string>> {
  const sql = asOwner()
  const tables = ['workshop', 'job', 'job_history', 'shelf_part', 'photo', 'sheet']
  const digests: Record<string, string> = {}
  for (const table of tables) {
    const hash = createHash('sha256')
    // Rows written by checks, and rows that a restore or a view changes, are not the shop's.
    const left = `to_jsonb(t) - '{epoch,looked_at,clock_since,data,verdict,headline,reason,specified_verdict,specified_headline,judged_version,judged_shop}'::text[]`
    const data = table === 'photo' ? ` || jsonb_build_object('data', encode(sha256(t.data), 'hex'))` : ''
    const query = sql.unsafe<{ row: string }[]>(
      `select ((${left})${data})::text as row from ${table} t order by ((${left}))::text`,
    )
    for await (const some of query.cursor(200)) for (const { row } of some) hash.update(row)
    digests[table] = hash.digest('hex')
  }
  await sql.end()
  return digests
}
const isSame = (a: Record<string, string>, b: Record<string, string>): boolean =>
  JSON.stringify(a) === JSON.stringify(b)
const is = (ran: Ran, code: number, words: RegExp): boolean => ran.code === code && words.test(ran.said)

try {
  const [first] = (await application.insist<JobPage>('/api/jobs')).jobs
  await seconds(`${jobs} jobs and ${photos} photographs of ${bytes} bytes`, async () => {
    for (let i = 0; i < jobs; i++) await application.ask('POST', '/api/jobs', { who: `Rehearsal ${i}` })
    const sql = asOwner()
    const all = await sql<{ job_id: string; workshop_id: string }[]>`select job_id, workshop_id from job`
    for (let i = 0; i < photos; i++)
      await sql`
        insert into photo ${sql({
          ...all[i % all.length]!,
          station: 'place',
          name: `Photo ${i}`,
          mime: 'image/jpeg',
          width: 100,
          height: 100,
          data: randomBytes(bytes),
          taken_by: 'Rehearsal',
        })}`
    await sql.end()
  })
  const before = await rowsOf()

  const second = await application.run('start.mjs')
  holds('a second start says so, gives the address, and ends', is(second, 1, new RegExp(application.url)))

  const backup = await seconds('backup', () => application.run('backup.mjs', 'backup', file))
  holds('a backup is taken while it is used', is(backup, 0, /MB, checked/), backup.said)
  console.log(`${(statSync(file).size / 1e6).toFixed(0)} MB; ${backup.peakMb.toFixed(0)} MB of memory`)
  holds('a backup takes bounded memory', backup.peakMb < mostMb)
  holds('only its owner can read it', (statSync(file).mode & 0o077) === 0)

  const running = await application.run('backup.mjs', 'restore', file)
  holds('a restore while it runs is refused, and nothing is changed', is(running, 1, /running.*Nothing was/s))
  holds('nothing was changed', isSame(await rowsOf(), before))

  const stored = await application.insist<StoredJob>(`/api/jobs/${first!.id}`)
  const document = { ...stored.document, notes: { use: 'After the backup' } }
  const { version, epoch } = stored
  await application.ask('PUT', `/api/jobs/${first!.id}`, { version, epoch, who: 'Rehearsal', document })
  holds('a save changes the data', !isSame(await rowsOf(), before))
  await application.stop()
  const restored = await seconds('restore', () => application.run('backup.mjs', 'restore', file))
  holds('a restore brings everything back', is(restored, 0, /Restored from/), restored.said)
  console.log(`${restored.peakMb.toFixed(0)} MB of memory`)
  holds('a restore takes bounded memory', restored.peakMb < mostMb)
  holds(
    'what was there before is backed up',
    readdirSync(join(application.data, 'backups')).some((name) => name.startsWith('before-restore-')),
  )
  application.start()
  const again = await application.insist<StoredJob>(`/api/jobs/${first!.id}`)
  holds('every row and photograph is as it was', isSame(await rowsOf(), before))
  const late = await application.ask<{ theirs?: StoredJob }>('PUT', `/api/jobs/${first!.id}`, {
    version,
    epoch,
    who: 'A page open since before',
    document,
  })
  holds('a page open since before meets a conflict', late?.status === 409 && again.epoch !== stored.epoch)

  await application.stop()
  const damaged = join(folder, 'damaged.backup')
  const piece = Buffer.alloc(100_000)
  const handle = openSync(file, 'r')
  readSync(handle, piece)
  closeSync(handle)
  writeFileSync(damaged, piece)
  holds(
    'one that is cut short is refused',
    is(await application.run('backup.mjs', 'restore', damaged), 1, /Nothing was changed/),
  )

  renameSync(join(application.data, 'postgres'), join(application.data, 'postgres-of-before'))
  application.start()
  await application.insist('/api/jobs')
  await application.stop()
  const moved = await application.run('backup.mjs', 'restore', file)
  holds('after the folder was moved away: start once, restore', is(moved, 0, /Restored from/), moved.said)
  application.start()
  await application.insist('/api/jobs')
  holds('every row is there again', isSame(await rowsOf(), before))

  await application.stop()
  const taken = createServer().listen(Number(new URL(application.url).port), '127.0.0.1')
  await once(taken, 'listening')
  application.start()
  await new Promise((resolve) => setTimeout(resolve, 5000))
  taken.close()
  await application.insist('/api/jobs')
  holds('a port that PORT names is tried again until it is free', true)
} finally {
  await application.end()
  rmSync(folder, { recursive: true, force: true })
}
