import { createHash, randomBytes } from 'node:crypto'
import { mkdtemp, readdir, readFile, rm, stat, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { long } from '#core/testing'
import { emptyJob } from '#core/job/document'
import { backUp, backUpBefore, keepNewest, readBackup, restore } from '../../scripts/lib/backup.mjs'
import { postgresPrograms } from '../../scripts/lib/machine.mjs'
import { prepareDatabase } from '../../scripts/lib/prepare.mjs'
import { freshDatabase, type TestDatabase } from '../../tests/harness'
import { Pool } from './pool'
import { judgeHere } from '../judging/judge'
import { repositoriesOf, type Repositories } from '../repositories/index'

const bin = postgresPrograms()
let db: TestDatabase
let folder: string
let shop: Repositories
/** Connects the shop to its database, which nobody may be connected to while a backup takes its place. */
async function connected(): Promise<void> {
  const [row] = await db.sql<{ id: string; epoch: string }[]>`select workshop_id as id, epoch from workshop`
  shop = repositoriesOf(
    db.sql,
    { workshop: row!.id, person: 'Ida', role: 'owner', epoch: row!.epoch },
    judgeHere,
  )
}
beforeEach(async () => {
  db = await freshDatabase()
  folder = await mkdtemp(join(tmpdir(), 'backups-'))
  await connected()
})
afterEach(async () => {
  await db.drop()
  await rm(folder, { recursive: true })
})

const file = (): string => join(folder, 'a.backup')
const numbers = async (): Promise<string[]> =>
  (await db.sql<{ number: string }[]>`select number from job order by number`).map(({ number }) => number)

const prepare = (url: string): void => {
  prepareDatabase({ url, applicationUrl: db.applicationUrl, bin, isBackedUp: true })
}
/** Brings a backup back while nobody is connected, as the command does. */
async function bringBack(work = prepare): Promise<void> {
  await db.disconnect()
  try {
    await restore(bin, db.url, file(), work)
  } finally {
    await db.reconnect()
    await connected()
  }
}

describe('a backup', () => {
  it('is taken of a database in use, and holds every save that was acknowledged before', long, async () => {
    const before = await numbers()
    let isWriting = true
    const acknowledged: string[] = []
    const writing = (async () => {
      while (isWriting) {
        const { document } = await shop.jobs.createNumbered((number) => emptyJob(number))
        acknowledged.push(document.job.number)
      }
    })()
    await expect.poll(() => acknowledged.length).toBeGreaterThan(5)
    const sure = [...acknowledged]
    backUp(bin, db.url, file())
    isWriting = false
    await writing
    await db.sql`delete from job`
    await bringBack()
    expect(await numbers()).toEqual(expect.arrayContaining([...before, ...sure]))
    // And goes on with the next number.
    const { document } = await shop.jobs.createNumbered((number) => emptyJob(number))
    expect(sure).not.toContain(document.job.number)
  })

  it('of several megabytes comes back, photograph for photograph', long, async () => {
    const [job] = await db.sql<{ id: string; workshop: string }[]>`
      select job_id as id, workshop_id as workshop from job limit 1`
    // Bytes at random do not compress: the file is as large as they are.
    const photos = Array.from({ length: 8 }, () => randomBytes(1024 * 1024))
    for (const data of photos)
      await db.sql`
        insert into photo ${db.sql({
          workshop_id: job!.workshop,
          job_id: job!.id,
          station: 'place',
          name: 'Locker',
          mime: 'image/jpeg',
          width: 100,
          height: 100,
          data,
          taken_by: 'Ida',
        })}`
    expect(backUp(bin, db.url, file())).toBeGreaterThan(8 * 1024 * 1024)
    await db.sql`delete from photo`
    await bringBack()
    const kept = await db.sql<{ data: Uint8Array }[]>`select data from photo`
    const digests = (all: readonly Uint8Array[]): string[] =>
      all.map((data) => createHash('sha256').update(data).digest('hex')).sort()
    expect(digests(kept.map(({ data }) => data))).toEqual(digests(photos))
  })

  it('is read by its owner alone, and its folder too', async () => {
    const made = backUpBefore('restore', bin, db.url, join(folder, 'backups'))
    expect((await stat(made)).mode & 0o777).toBe(0o600)
    expect((await stat(join(folder, 'backups'))).mode & 0o777).toBe(0o700)
  })

  it('that fails leaves no part of a file', async () => {
    expect(() => backUp(bin, `${db.url}_is_not_there`, file())).toThrow(/backup failed/)
    expect(await readdir(folder)).toEqual([])
  })

  it.each([
    ['cut short', (bytes: Buffer) => bytes.subarray(0, bytes.length - 500)],
    [
      'with one byte turned',
      (bytes: Buffer) => {
        const other = Buffer.from(bytes)
        other[Math.floor(bytes.length / 2)]! ^= 1
        return other
      },
    ],
    ['that is another file', () => Buffer.from('hello')],
    ['that is empty', () => Buffer.alloc(0)],
  ])('%s is refused before anything is touched', async (_name, spoil) => {
    backUp(bin, db.url, file())
    await writeFile(file(), spoil(await readFile(file())))
    const before = await numbers()
    expect(() => readBackup(file())).toThrow(/damaged|no backup/)
    await expect(bringBack()).rejects.toThrow(/damaged|no backup/)
    expect(await numbers()).toEqual(before)
  })

  it(
    'made before a migration comes back over data that were migrated since, and is migrated too',
    long,
    async () => {
      const before = await numbers()
      // As the version before the epoch left it.
      await db.sql.unsafe(`
      alter table workshop drop column epoch, drop column looked_at, drop column clock_since;
      delete from schema_migration where number = 10`)
      backUp(bin, db.url, file())
      await db.disconnect()
      prepare(db.url)
      await db.reconnect()
      await db.sql`delete from job`
      await bringBack()
      expect(await numbers()).toEqual(before)
      expect(await db.sql`select number from schema_migration where number = 10`).toHaveLength(1)
      // The application has its rights again.
      const application = new Pool(db.applicationUrl)
      expect(await application.sql`update workshop set name = name returning epoch`).toHaveLength(1)
      application.end()
    },
  )

  it('of a newer version is refused with the version it is of, and changes nothing', long, async () => {
    await db.sql`insert into schema_migration (number, name) values (999, '999-later.sql')`
    backUp(bin, db.url, file())
    await db.sql`delete from schema_migration where number = 999`
    await db.sql`update workshop set name = 'As it was'`
    await expect(bringBack()).rejects.toThrow(/newer version .*schema 999, 999-later.sql/)
    expect(await db.sql`select name from workshop`).toEqual([{ name: 'As it was' }])
    expect(await db.sql`select number from schema_migration where number = 999`).toEqual([])
    const name = db.url.slice(db.url.lastIndexOf('/') + 1)
    expect(await db.sql`select datname from pg_database where starts_with(datname, ${name})`).toHaveLength(1)
  })

  it('does not take the place of data that someone uses', long, async () => {
    backUp(bin, db.url, file())
    await db.sql`update workshop set name = 'In use'`
    await expect(restore(bin, db.url, file(), prepare)).rejects.toThrow(/being accessed by other users/)
    expect(await db.sql`select name from workshop`).toEqual([{ name: 'In use' }])
  })

  it('that comes back has another epoch: earlier reads are of other data', long, async () => {
    const [job] = (await shop.jobList.page()).jobs
    const seen = (await shop.jobs.read(job!.id))!
    backUp(bin, db.url, file())
    await bringBack()
    const now = (await shop.jobs.read(job!.id))!
    expect([now.version, now.epoch === seen.epoch]).toEqual([seen.version, false])
  })

  it('of which there are many leaves the newest five', async () => {
    for (let i = 0; i < 8; i++) await writeFile(join(folder, `before-migration-2026-0${i + 1}.backup`), '')
    await writeFile(join(folder, 'mine.backup'), '')
    await writeFile(join(folder, 'before-restore-2026-01.backup'), '')
    keepNewest('migration', folder, 5)
    const { readdirSync } = await import('node:fs')
    expect(readdirSync(folder).sort()).toEqual([
      ...Array.from({ length: 5 }, (_, i) => `before-migration-2026-0${i + 4}.backup`),
      'before-restore-2026-01.backup',
      'mine.backup',
    ])
  })
})
