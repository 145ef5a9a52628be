import { chromium, type Browser } from '@playwright/test'
import type { Sql } from 'postgres'
import { chromiumArgs } from '../../playwright.config'
import { freshDatabase, startServer } from '../../tests/harness'
import { buildIfStale, chromiumPath, ensureChromium } from './machine.mjs'
import { startCluster } from './postgres.mjs'

export interface Demo {
  readonly url: string
  readonly sql: Sql
  readonly browser: Browser
  /** Path of a demo job. */
  readonly job: (number: string) => Promise<string>
}

/**
 * Does some work with the built application, the demo jobs in a database of their own and a Chromium; all are
 * ended, whatever happens.
 */
export async function withDemo(work: (demo: Demo) => Promise<void>): Promise<void> {
  ensureChromium()
  buildIfStale()
  const ends: (() => unknown)[] = []
  try {
    const cluster = await startCluster('test-postgres', { durable: false })
    ends.unshift(() => cluster.stop())
    process.env.TEST_DATABASE_URL = cluster.url
    const { applicationUrl, sql, drop } = await freshDatabase()
    ends.unshift(drop)
    const server = await startServer(applicationUrl)
    ends.unshift(() => server.stop())
    const browser = await chromium.launch({ executablePath: chromiumPath, args: chromiumArgs })
    ends.unshift(() => browser.close())
    await work({
      url: server.url,
      sql,
      browser,
      job: async (number) =>
        `/jobs/${(await sql<{ id: string }[]>`select job_id as id from job where number = ${number}`)[0]!.id}`,
    })
  } finally {
    for (const end of ends) await end()
  }
}
