import { existsSync } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { long } from '#core/testing'
import { postgresVersions } from '../../scripts/lib/machine.mjs'
import { ownerOf } from '../../scripts/lib/owner.mjs'
import { dropData, startCluster, versionOfCluster } from '../../scripts/lib/postgres.mjs'
import { moveCluster } from '../../scripts/lib/upgrade.mjs'
import { prepareDatabase } from '../../scripts/lib/prepare.mjs'
import { Pool } from './pool'

const name = `test-upgrade-${process.pid}`
const [newest] = postgresVersions() as [string]
let folder: string
beforeEach(async () => {
  folder = await mkdtemp(join(tmpdir(), 'upgrade-'))
})
afterEach(async () => {
  dropData(name, '.')
  await rm(folder, { recursive: true })
})

const numbers = async (url: string): Promise<string[]> => {
  const pool = new Pool(url)
  const rows = await pool.sql<{ number: string }[]>`select number from job order by number`
  pool.end()
  return rows.map(({ number }) => number)
}

describe('an upgrade of PostgreSQL', () => {
  it('moves every job into a cluster of the other version, and keeps the old data', long, async () => {
    const before = await startCluster(name, { durable: false })
    prepareDatabase(before)
    const jobs = await numbers(before.url)
    before.stop()
    const { kept, file } = await moveCluster(name, newest, folder, { durable: false })
    expect([existsSync(join(kept, 'PG_VERSION')), existsSync(file)]).toEqual([true, true])
    expect(versionOfCluster(name)).toBe(newest)
    const after = await startCluster(name, { durable: false })
    try {
      expect(jobs.length).toBeGreaterThan(0)
      expect(await numbers(after.url)).toEqual(jobs)
      // The application signs in as before.
      expect(await numbers(after.applicationUrl)).toEqual(jobs)
    } finally {
      after.stop()
    }
  })

  it('of data that are in use is refused, and changes nothing', long, async () => {
    const used = await startCluster(name, { durable: false })
    const owner = await ownerOf(used.url, () => 'http://127.0.0.1:3000')
    await owner.take()
    try {
      await expect(moveCluster(name, newest, folder, { durable: false })).rejects.toThrow('127.0.0.1:3000')
      expect(versionOfCluster(name)).toBe(newest)
    } finally {
      await owner.release()
      used.stop()
    }
  })
})
