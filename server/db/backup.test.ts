import { createHash, randomBytes } from 'node:crypto'
import { mkdtemp, readdir, readFile, rm, stat, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { emptyJob } from '#core/job/document'
import { backUp, backUpBefore, keepNewest, readBackup, restore } from '../../scripts/lib/backup.mjs'
import { postgresPrograms } from '../../scripts/lib/machine.mjs'
import { freshDatabase, type TestDatabase } from '../../tests/harness'
import { judgeHere } from '../judging/judge'
import { repositoriesOf, type Repositories } from '../repositories/index'

const bin = postgresPrograms()
let db: TestDatabase
let folder: string
let shop: Repositories
beforeEach(async () => {
  db = await freshDatabase()
  folder = await mkdtemp(join(tmpdir(), 'backups-'))
  const [row] = await db.sql<{ id: string }[]>`select workshop_id as id from workshop`
  shop = repositoriesOf(db.sql, { workshop: row!.id, person: 'Ida', role: 'owner' }, judgeHere)
})
afterEach(async () => {
  await db.drop()
  await rm(folder, { recursive: true })
})

const file = (): string => join(folder, 'a.backup')
const numbers = async (): Promise<string[]> =>
  (await db.sql<{ number: string }[]>`select number from job order by number`).map(({ number }) => number)

describe('a backup', () => {
  it('is taken of a database in use, and holds every save that was acknowledged before', async () => {
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
    restore(bin, db.url, file())
    expect(await numbers()).toEqual(expect.arrayContaining([...before, ...sure]))
    // And goes on: the same connections, the next number.
    const { document } = await shop.jobs.createNumbered((number) => emptyJob(number))
    expect(sure).not.toContain(document.job.number)
  })

  it('of several megabytes comes back, photograph for photograph', async () => {
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
    restore(bin, db.url, file())
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
    expect(() => {
      restore(bin, db.url, file())
    }).toThrow(/damaged|no backup/)
    expect(await numbers()).toEqual(before)
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
