import { test as base, expect, type Locator, type Page } from '@playwright/test'
import { freePort, freshDatabase, startServer, type TestDatabase, type TestServer } from './harness'

/** A server that a test may stop and start again at the same address. */
export interface App {
  readonly url: string
  readonly db: TestDatabase
  stop(): Promise<void>
  start(): Promise<void>
  /** Address of the bench of a demo job. */
  job(number: string): Promise<string>
}

/** Every test has a database and a server of its own, so that none sees what another did. */
export const test = base.extend<{ app: App }>({
  app: async ({}, use) => {
    const db = await freshDatabase()
    const port = await freePort()
    let server: TestServer = await startServer(db.url, port)
    await use({
      url: server.url, db,
      stop: () => server.stop(),
      async start() { server = await startServer(db.url, port) },
      async job(number) {
        const [row] = await db.sql<{ id: string }[]>`select job_id as id from job where number = ${number}`
        return `${server.url}/jobs/${row!.id}`
      },
    })
    await server.stop()
    await db.drop()
  },
})

export { expect }

export const headline = (page: Page): Locator => page.getByTestId('headline')
export const saveState = (page: Page): Locator => page.getByTestId('save-state')
export const field = (page: Page, path: string): Locator => page.locator(`[data-field="${path}"]`)
export const station = (page: Page, kind: string): Locator => page.locator(`[data-station="${kind}"] h3 button`)
export const check = (page: Page, key: string): Locator => page.locator(`[data-check="${key}"]`)
export const verdictOf = (page: Page, key: string) => check(page, key).getAttribute('data-verdict')

export async function openStation(page: Page, kind: string): Promise<void> {
  if (await station(page, kind).getAttribute('aria-expanded') === 'false') await station(page, kind).click()
}

export async function expectSaved(page: Page): Promise<void> {
  await expect(saveState(page)).toHaveAttribute('data-state', 'saved')
}
