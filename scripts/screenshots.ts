// npm run screenshots [-- NAME…]: one picture of each main view, or those named, from the demo data, into
// docs/screenshots.
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import type { Page } from '@playwright/test'
import { loadDemoYears } from '../server/db/demo-years'
import { loadFonts } from './labels/draw'
import { samplePlate } from './labels/sample'
import { withDemo } from './lib/demo'

const laptop = { width: 1280, height: 800 }
/** A charger's plate, printed dark on silver. */
const plateShown = 21
const phone = { width: 390, height: 844 }
interface Shot {
  readonly name: string
  readonly path: string
  readonly size?: typeof laptop
  readonly dark?: true
  readonly act?: (page: Page) => Promise<void>
}
await withDemo(async ({ url, sql, browser, job }) => {
  const [workboat, van, bus, trailer] = [
    await job('0417'),
    await job('0421'),
    await job('0424'),
    await job('0430'),
  ] as const
  const craftOf = async (number: string): Promise<string> => {
    const [found] = await sql<{ craft: string }[]>`select craft_id as craft from job where number = ${number}`
    return `/craft/${found!.craft}`
  }
  /** The photo of a charger's rating plate. */
  const plate = async () => {
    await loadFonts(join(process.cwd(), '.data/plates/fonts'))
    const { photo } = await samplePlate(plateShown)
    return { name: 'plate.jpg', mimeType: 'image/jpeg', buffer: photo }
  }
  const drawn = async (page: Page): Promise<void> => {
    await page.getByRole('img', { name: /^Chart: Capacity/ }).waitFor()
    await page.waitForTimeout(500)
  }
  const answered = async (page: Page): Promise<void> => {
    await page.locator('[data-testid=solve-state][data-state=done]').waitFor()
    await page.waitForTimeout(800)
  }
  const issued = async (page: Page): Promise<void> => {
    await page.locator('[data-testid=solve-state][data-state=done]').waitFor()
    await page
      .getByRole('table', { name: 'Answers' })
      .getByRole('button')
      .filter({ hasText: /^40 A DC-DC.*keep/ })
      .first()
      .click()
    await page.getByRole('button', { name: 'Choose this answer' }).click()
    await page.getByRole('button', { name: 'Issue specification' }).click()
    await page.getByRole('link', { name: /^Specification 0417-1/ }).click()
    await page.getByTestId('sheet').waitFor()
  }
  /** A poor joint at the main fuse, found by two readings. */
  const proved = async (page: Page): Promise<void> => {
    await page.getByRole('button', { name: /^Tests/ }).click()
    await page.setViewportSize({ ...page.viewportSize()!, width: Math.max(1280, page.viewportSize()!.width) })
    const isPhone = page.viewportSize()!.height > 800
    // Once a reading is off, its causes replace the worth of the readings.
    await page.getByTestId('worth').or(page.getByTestId('causes')).first().waitFor({ timeout: 60_000 })
    await page.getByTestId('more-tests').click()
    for (const [test, value] of [
      ['left-load-1', '11.6'],
      ['drop-main-feed-1', '0.62'],
    ]) {
      await page.locator(`[data-row=${test}] button`).click()
      if ((await page.getByTestId('test-verdict').count()) > 0) continue
      await page.getByTestId('type-reading').fill(value!)
      await page.getByRole('button', { name: 'Keep' }).click()
    }
    if (isPhone) await page.setViewportSize(phone)
    await page.getByTestId('causes').waitFor({ timeout: 60_000 })
    await page.waitForTimeout(1500)
    if (isPhone) await page.evaluate(() => window.scrollTo(0, 250))
  }
  const ran = async (page: Page): Promise<void> => {
    await page.locator('[data-testid=run-state][data-state=done]').waitFor()
    await page.waitForTimeout(1000)
  }
  const shots: readonly Shot[] = [
    { name: 'jobs', path: '/' },
    { name: 'bench', path: workboat },
    {
      name: 'bench-station',
      path: van,
      act: async (page) => {
        await page.locator('[data-station=links] h3 button').click()
      },
    },
    {
      name: 'label',
      path: workboat,
      act: async (page) => {
        await page.locator('[data-station=chargers] h3 button').click()
        await page.getByRole('button', { name: /^Read label/ }).click()
        await page.getByLabel('Choose a photo').setInputFiles(await plate())
        await page.getByRole('list', { name: 'Values on the label' }).waitFor({ timeout: 60_000 })
      },
    },
    { name: 'bench-phone', path: workboat, size: phone },
    { name: 'loads', path: `${workboat}/loads` },
    { name: 'candidates', path: `${trailer}/candidates` },
    { name: 'specify', path: `${bus}/specify`, act: answered },
    { name: 'run', path: `${workboat}/run`, act: ran },
    {
      name: 'shelf',
      path: '/shelf',
      act: async (page) => {
        await page.getByRole('button', { name: /Brindle 200 H/ }).click()
        await page.getByRole('region', { name: 'BRI-200H' }).waitFor()
      },
    },
    {
      name: 'rules',
      path: '/rules',
      act: async (page) => {
        await page.locator('[data-rule=chargerSchool]').getByLabel('Replace always').check()
        await page.getByText('verdicts would change').waitFor()
      },
    },
    {
      name: 'wiring',
      path: `${workboat}/wiring`,
      act: async (page) => {
        await page.getByTestId('wiring-verdict').waitFor()
        await page.getByRole('button', { name: 'W13', exact: true }).click()
      },
    },
    { name: 'prove', path: `${workboat}/prove`, act: proved },
    { name: 'prove-phone', path: `${workboat}/prove`, size: phone, dark: true, act: proved },
    // Last: the first chooses an answer for the workboat.
    { name: 'sheet', path: `${workboat}/specify`, act: issued },
    {
      name: 'papers',
      path: `${workboat}/papers`,
      act: async (page) => {
        await page.locator('[data-paper=booklet]').getByRole('button', { name: 'Issue' }).click()
        await page.getByRole('link', { name: /^Customer’s booklet / }).waitFor()
        await page.evaluate(() => window.scrollTo(0, 0))
      },
    },
    {
      name: 'quotation',
      path: `${workboat}/quotation`,
      act: async (page) => {
        await page.getByLabel('New line').fill('Travel')
        await page.getByRole('button', { name: 'Add line' }).click()
        await page.getByTestId('missing-prices').waitFor()
        await page.evaluate(() => window.scrollTo(0, 0))
      },
    },
  ]
  /** With three years of logbooks, which change some of the jobs. */
  const shotsOfYears: readonly Shot[] = [
    { name: 'today', path: '/today' },
    { name: 'craft', path: await craftOf('0417'), act: drawn },
  ]

  const named = process.argv.slice(2)
  const isWanted = ({ name }: Shot): boolean => named.length === 0 || named.includes(name)
  for (const shot of shots.filter(isWanted)) await take(shot)
  if (shotsOfYears.some(isWanted)) {
    await loadDemoYears(sql, fileURLToPath(new URL('../demo/years/years.json', import.meta.url)))
    for (const shot of shotsOfYears.filter(isWanted)) await take(shot)
  }

  async function take({ name, path, size = laptop, dark, act }: Shot): Promise<void> {
    const page = await browser.newPage({ viewport: size, colorScheme: dark ? 'dark' : 'light' })
    await page.goto(url + path)
    await page.waitForLoadState('networkidle')
    await page.locator('h1').first().waitFor()
    await page.evaluate(() => document.fonts.ready)
    await act?.(page)
    await page.waitForTimeout(300)
    await page.screenshot({
      path: fileURLToPath(new URL(`../docs/screenshots/${name}.png`, import.meta.url)),
    })
    await page.close()
    console.log(`docs/screenshots/${name}.png`)
  }
})
