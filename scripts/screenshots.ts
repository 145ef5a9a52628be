// npm run screenshots: one picture of each main view, from the demo data, into docs/screenshots.
import { fileURLToPath } from 'node:url'
import { chromium, type Page } from '@playwright/test'
import { chromiumArgs } from '../playwright.config'
import { freshDatabase, startServer } from '../tests/harness'
import { buildIfStale, chromiumPath } from './lib/machine.mjs'
import { startCluster } from './lib/postgres.mjs'

buildIfStale()
const cluster = await startCluster('test-postgres', { durable: false })
process.env.TEST_DATABASE_URL = cluster.url
const db = await freshDatabase()
const server = await startServer(db.url)
const browser = await chromium.launch({ executablePath: chromiumPath, args: chromiumArgs })
const id = async (number: string): Promise<string> => (await db.sql<{ id: string }[]>`select job_id as id from job where number = ${number}`)[0]!.id

const laptop = { width: 1280, height: 800 }
const phone = { width: 390, height: 844 }
interface Shot {
  readonly name: string
  readonly path: string
  readonly size?: typeof laptop
  readonly dark?: true
  readonly act?: (page: Page) => Promise<void>
}
const workboat = `/jobs/${await id('0417')}`
const van = `/jobs/${await id('0421')}`
const bus = `/jobs/${await id('0424')}`
const shots: readonly Shot[] = [
  { name: 'jobs', path: '/' },
  { name: 'bench', path: workboat },
  { name: 'bench-station', path: van, act: async (page) => { await page.locator('[data-station=links] h3 button').click() } },
  { name: 'bench-dark', path: van, dark: true, act: async (page) => { await page.keyboard.press('t') } },
  { name: 'bench-measure', path: bus, act: async (page) => { await page.locator('[data-check="charger.absorption@chargers/charger-1"]').click() } },
  { name: 'bench-phone', path: workboat, size: phone },
  { name: 'bench-phone-walk', path: bus, size: phone, dark: true, act: async (page) => { await page.getByTestId('next').click() } },
  { name: 'summary', path: `${workboat}/summary` },
]

for (const { name, path, size = laptop, dark, act } of shots) {
  const page = await browser.newPage({ viewport: size, colorScheme: dark ? 'dark' : 'light' })
  await page.goto(server.url + path)
  await page.waitForLoadState('networkidle')
  await page.evaluate(() => document.fonts.ready)
  await act?.(page)
  await page.waitForTimeout(300)
  await page.screenshot({ path: fileURLToPath(new URL(`../docs/screenshots/${name}.png`, import.meta.url)) })
  await page.close()
  console.log(`docs/screenshots/${name}.png`)
}

await browser.close()
await server.stop()
await db.drop()
cluster.stop()
