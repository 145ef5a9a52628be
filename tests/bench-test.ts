import { test as base, expect, type Locator, type Page } from '@playwright/test'
import {
  applicationUrlOf,
  freePort,
  freshDatabase,
  startServer,
  type TestDatabase,
  type TestServer,
} from './harness'

/** The application with a database as it is at first. */
export interface App {
  readonly url: string
  readonly db: TestDatabase
  /** A test may stop the server, and start it again at the same address. */
  stop(): Promise<void>
  start(): Promise<void>
  /** Address of the bench of a demo job. */
  job(number: string): Promise<string>
}

/** The server of a worker: kept from test to test, unless one of them stopped it. */
class OwnServer {
  private running: TestServer | null = null
  private constructor(
    private readonly databaseUrl: string,
    private readonly port: number,
  ) {}

  static on = async (databaseUrl: string): Promise<OwnServer> => new OwnServer(databaseUrl, await freePort())

  get url(): string {
    return `http://127.0.0.1:${this.port}`
  }
  async start(): Promise<void> {
    this.running ??= await startServer(this.databaseUrl, { port: this.port })
  }
  async stop(): Promise<void> {
    await this.running?.stop()
    this.running = null
  }
  /**
   * Waits until it has noticed that its connections to the database before are closed: they refuse what comes first.
   */
  async findsItsDatabase(): Promise<void> {
    await expect(async () => expect((await fetch(`${this.url}/api/jobs`)).status).toBe(200)).toPass()
  }
}

interface Own {
  readonly name: string
  readonly server: OwnServer
}

/**
 * Every test has a database as it is at first, so that none sees what another did; its worker's server finds
 * it under the same name.
 */
export const test = base.extend<{ app: App }, { own: Own }>({
  own: [
    async ({}, use, { parallelIndex }) => {
      const name = `test_worker_${process.pid}_${parallelIndex}`
      const server = await OwnServer.on(applicationUrlOf(name))
      await use({ name, server })
      await server.stop()
    },
    { scope: 'worker' },
  ],
  app: async ({ own: { name, server } }, use) => {
    const db = await freshDatabase({ name })
    await server.start()
    await server.findsItsDatabase()
    await use({
      url: server.url,
      db,
      stop: () => server.stop(),
      start: () => server.start(),
      async job(number) {
        const [row] = await db.sql<{ id: string }[]>`select job_id as id from job where number = ${number}`
        return `${server.url}/jobs/${row!.id}`
      },
    })
    await db.sql.end()
  },
})

export { expect }

export const headline = (page: Page): Locator => page.getByTestId('headline')
export const saveState = (page: Page): Locator => page.getByTestId('save-state')
export const field = (page: Page, path: string): Locator => page.locator(`[data-field="${path}"]`)
/** What is open of a station: next to the walk-round, on a phone under its heading. */
export const sheet = (page: Page): Locator => page.getByTestId('station')
export const station = (page: Page, kind: string): Locator =>
  page.locator(`[data-station="${kind}"] h3 button`)
/** Takes an option of a choice, whether it is a row of buttons or a list. */
export async function choose(page: Page, path: string, option: string): Promise<void> {
  const at = field(page, path)
  if ((await at.getAttribute('role')) === 'radiogroup') await at.locator(`[data-option="${option}"]`).click()
  else await at.selectOption(option)
}
export const check = (page: Page, key: string): Locator => page.locator(`[data-check="${key}"]`)
export const verdictOf = (page: Page, key: string) => check(page, key).getAttribute('data-verdict')

export async function openStation(page: Page, kind: string): Promise<void> {
  if ((await station(page, kind).getAttribute('aria-expanded')) === 'false') await station(page, kind).click()
}

/** Closes the station next to the paths, which then show every check. */
export const closeStation = (page: Page): Promise<void> =>
  page.getByRole('button', { name: 'Close', exact: true }).click()

export async function expectSaved(page: Page): Promise<void> {
  await expect(saveState(page)).toHaveAttribute('data-state', 'saved')
}
