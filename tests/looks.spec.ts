import AxeBuilder from '@axe-core/playwright'
import { fileURLToPath } from 'node:url'
import type { Page } from '@playwright/test'
import { loadDemoYears } from '../server/db/demo-years'
import { check, choose, expect, field, headline, openStation, test, type App } from './bench-test'

const laptop = { width: 1280, height: 800 }
const phone = { width: 390, height: 844 }

type Look = (page: Page) => Promise<void>

/** Axe with all its rules, or with some alone. */
const axe =
  (...rules: readonly string[]): Look =>
  async (page) => {
    const builder = new AxeBuilder({ page }).setLegacyMode().options({ resultTypes: ['violations'] })
    const { violations } = await (
      rules.length > 0
        ? builder.withRules([...rules])
        : builder.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
    ).analyze()
    expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`)).toEqual(
      [],
    )
  }

interface Walk {
  readonly page: Page
  readonly app: App
  readonly isPhone: boolean
  readonly look: Look
}

async function walkBench({ page, app, look }: Walk): Promise<void> {
  await page.goto(app.url)
  await expect(page.getByRole('list', { name: 'Jobs' })).toBeVisible()
  await look(page)
  for (const number of ['0421', '0424']) {
    await page.goto(await app.job(number))
    await expect(headline(page)).toBeVisible()
    await look(page)
  }
}

async function walkStation({ page, app, isPhone, look }: Walk): Promise<void> {
  await page.goto(await app.job('0417'))
  await expect(headline(page)).toBeVisible()
  if (isPhone) await page.getByRole('button', { name: 'Walk-round' }).click()
  await openStation(page, 'chargers')
  await field(page, 'chargers/charger-1/floatV').fill('no number')
  await look(page)
  // Next to it on a laptop, behind a button on a phone.
  if (isPhone) {
    await page.getByRole('button', { name: 'Why' }).click()
    await look(page)
  }
  await page.getByRole('button', { name: /^Find/ }).click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await look(page)
  await page.goto(`${await app.job('0421')}/papers/summary`)
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await look(page)
}

async function walkBeside({ page, app, look }: Walk): Promise<void> {
  for (const address of [
    `${await app.job('0430')}/candidates`,
    `${await app.job('0421')}/run`,
    `${await app.job('0427')}/rules`,
    `${await app.job('0421')}/quotation`,
    `${await app.job('0421')}/papers`,
    `${await app.job('0421')}/papers/labels`,
    `${app.url}/letterhead`,
    `${app.url}/people`,
    `${app.url}/sign-in`,
    `${app.url}/trust`,
    `${app.url}/help`,
  ]) {
    await page.goto(address)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await page.waitForLoadState('networkidle')
    await look(page)
  }
}

async function walkWiring({ page, app, isPhone, look }: Walk): Promise<void> {
  await page.goto(`${await app.job('0417')}/wiring`)
  await expect(page.getByTestId('wiring-verdict')).toBeVisible()
  await page.getByRole('button', { name: isPhone ? /^W13 / : 'W13', exact: !isPhone }).click()
  await expect(page.getByRole('heading', { name: /^W13 · / })).toBeVisible()
  await look(page)
}

async function walkProve({ page, app, look }: Walk): Promise<void> {
  await page.goto(`${await app.job('0417')}/prove`)
  const part = (name: RegExp) =>
    page.getByRole('navigation', { name: 'Parts of proving' }).getByRole('button', { name })
  await expect(part(/^Work/)).toBeVisible()
  await look(page)
  await part(/^Tests/).click()
  await page.getByRole('button', { name: 'Yes', exact: true }).click()
  await expect(page.getByTestId('causes')).toBeVisible()
  await look(page)
  await page.getByTestId('next-test').click()
  await expect(page.getByTestId('walk')).toBeVisible()
  await look(page)
  await part(/^As fitted/).click()
  await look(page)
  await part(/^Practice/).click()
  await page.getByTestId('practise').click()
  await expect(page.getByTestId('practice-guess')).toBeVisible()
  await look(page)
}

async function walkShelfAndLoads({ page, app, look }: Walk): Promise<void> {
  await page.goto(`${app.url}/shelf`)
  await page.getByRole('button', { name: /Brindle 200 H/ }).click()
  await expect(page.getByRole('region', { name: 'BRI-200H' })).toBeVisible()
  await look(page)
  await page.goto(`${await app.job('0430')}/loads`)
  await page.getByLabel('Speed').selectOption('30')
  await page.getByRole('button', { name: 'Start the demo meter' }).click()
  await expect(page.getByTestId('found').getByRole('listitem').first()).toBeVisible()
  await page.getByRole('button', { name: 'Stop' }).click()
  await look(page)
  await page.getByRole('button', { name: 'Choose from library' }).click()
  await look(page)
}

async function walkSpecify({ page, app, look }: Walk): Promise<void> {
  await page.goto(`${await app.job('0421')}/specify`)
  await expect(page.getByTestId('solve-state')).toHaveAttribute('data-state', 'done')
  await page.getByText('Settings', { exact: true }).click()
  await page.getByText('As found and as specified', { exact: true }).click()
  await look(page)
  await page.getByRole('button', { name: 'Choose this answer' }).click()
  await page.getByRole('button', { name: 'Issue specification' }).click()
  await page.getByRole('link', { name: 'Specification 0421-1' }).click()
  await expect(page.getByTestId('sheet')).toBeVisible()
  await look(page)
}

const demoYears = fileURLToPath(new URL('../demo/years/years.json', import.meta.url))

async function walkCraft({ page, app, look }: Walk): Promise<void> {
  await loadDemoYears(app.db.sql, demoYears)
  const open = async (address: string): Promise<void> => {
    await page.goto(address)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await page.waitForLoadState('networkidle')
    await look(page)
  }
  for (const name of ['today', 'craft', 'customers', 'reminders', 'learnt', 'data'])
    await open(`${app.url}/${name}`)
  const craft = page.getByRole('link', { name: /Marigold Tern/ }).first()
  await page.goto(`${app.url}/craft`)
  await craft.click()
  await expect(page.getByRole('heading', { name: 'Marigold Tern', level: 1 })).toBeVisible()
  const address = page.url()
  await page.getByRole('button', { name: 'New entry' }).click()
  await look(page)
  await page.getByRole('button', { name: 'Edit craft' }).click()
  await expect(page.getByRole('dialog')).toBeVisible()
  await look(page)
  await open(`${address}/test`)
  await open(`${address}/test?kind=cranking`)
  await page.goto(`${app.url}/customers`)
  await page.getByRole('list', { name: 'Customers' }).getByRole('link').first().click()
  await expect(page.getByRole('list', { name: 'Craft' })).toBeVisible()
  await look(page)
}

const nothingIsWiderThanTheScreen: Look = async (page) => {
  const beyond = (): Promise<number> =>
    page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth)
  // A chart follows the width of its window a moment later.
  await expect.poll(beyond).toBe(0)
}

const onLaptop: Look = async (page) => {
  await nothingIsWiderThanTheScreen(page)
  await axe()(page)
  // The dark may break colours alone.
  await page.emulateMedia({ colorScheme: 'dark' })
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark')
  await axe('color-contrast', 'link-in-text-block')(page)
  await page.emulateMedia({ colorScheme: 'light' })
}
/** Touch targets may wrap on a phone. */
const onPhone: Look = async (page) => {
  await nothingIsWiderThanTheScreen(page)
  await axe('target-size', 'scrollable-region-focusable', 'aria-hidden-focus')(page)
}

/** Views that a phone reaches by other buttons. */
const walkedOtherwise = [
  ['on an open station, find and the summary', walkStation],
  ['on the wiring', walkWiring],
] as const

/** The same page on both: it follows the width of its window. */
const onBoth: Look = async (page) => {
  await onLaptop(page)
  await page.setViewportSize(phone)
  await onPhone(page)
  await page.setViewportSize(laptop)
}

for (const [name, viewport, look, walks] of [
  [
    'laptop, light and dark, and on a phone',
    laptop,
    onBoth,
    [
      ['on the jobs and the bench', walkBench],
      ['on candidates, runs and rules', walkBeside],
      ['on the shelf and loads', walkShelfAndLoads],
      ['on proving', walkProve],
      ['on specify and on an issued sheet', walkSpecify],
      ['on craft, customers, reminders and what was learnt', walkCraft],
    ],
  ],
  ['laptop, light and dark', laptop, onLaptop, walkedOtherwise],
  ['phone', phone, onPhone, walkedOtherwise],
] as const) {
  test.describe(`axe finds nothing, and all fits the screen, on a ${name}`, () => {
    test.use({ colorScheme: 'light', viewport })
    for (const [where, walk] of walks)
      test(`${where} @long`, ({ page, app }) => walk({ page, app, isPhone: viewport === phone, look }))
  })
}

test.describe('on a phone', () => {
  test.use({ viewport: phone, hasTouch: true })

  test('the verdict, the walk-round and the reasons are a thumb apart @long', async ({ page, app }) => {
    await page.goto(await app.job('0417'))
    await expect(headline(page)).toBeInViewport()
    await page.getByRole('button', { name: 'Walk-round' }).tap()
    await openStation(page, 'chargers')
    await choose(page, 'chargers/charger-1/equaliseStage', 'off')
    await page.getByRole('button', { name: 'Paths' }).tap()
    await check(page, 'link.diode@links/link-1').tap()
    await expect(
      page.getByRole('heading', { name: /^Why · The alternator, drop of the diode isolator/ }),
    ).toBeVisible()
    await expect(headline(page)).toHaveText('Suits after 2 changes')
  })

  test('every target is at least 44 pixels high @long', async ({ page, app }) => {
    await page.goto(await app.job('0424'))
    await expect(headline(page)).toBeVisible()
    const small = async (): Promise<string[]> =>
      page.evaluate(() =>
        [...document.querySelectorAll('button, a, select, input:not(.sr-only), summary')]
          .filter(
            (e) =>
              e.checkVisibility() &&
              !e.classList.contains('sr-only') &&
              !e.closest('.sr-only') &&
              e.getBoundingClientRect().height < 44 &&
              !(e as HTMLElement).className.includes('focus:not-sr-only'),
          )
          .map(
            (e) => `${e.tagName} ${e.textContent?.trim().slice(0, 40)} ${e.getBoundingClientRect().height}`,
          ),
      )
    expect(await small()).toEqual([])
    await page.getByRole('button', { name: 'Walk-round' }).tap()
    await openStation(page, 'chargers')
    expect(await small()).toEqual([])
    await page.getByRole('button', { name: 'Why' }).tap()
    expect(await small()).toEqual([])
  })
})

test('the theme follows the device and can be set @long', async ({ page, app }) => {
  await page.emulateMedia({ colorScheme: 'dark' })
  await page.goto(app.url)
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark')
  await page.getByRole('button', { name: /^Theme: as device/ }).click()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'light')
  await page.reload()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'light')
})

test('the summary page lists changes, open values and cautions, and prints on paper @long', async ({
  page,
  app,
}) => {
  await page.goto(`${await app.job('0417')}/papers/summary`)
  const sheet = page.getByRole('article')
  await expect(sheet).toContainText('Suits after 3 changes')
  await expect(sheet).toContainText('Shore charger: Switch equalise off.')
  await expect(sheet, 'no formula').not.toContainText('= 0.7 V')
  await expect(sheet).toContainText('not a certificate of compliance')
  await expect(sheet).toContainText('The local code and the makers’ instructions come before this page.')
  await page.goto(`${await app.job('0421')}/papers/summary`)
  await expect(sheet).toContainText('Obstacles')
  await expect(sheet).toContainText('Possible change: fit a DC-DC charger of 15 A on an ignition signal')
  await expect(sheet).toContainText('These changes alone are not enough.')
  await page.goto(`${await app.job('0424')}/papers/summary`)
  await expect(sheet).toContainText('To be measured')
  await expect(sheet).toContainText('Depot charger: absorption voltage.')
  await page.emulateMedia({ media: 'print', colorScheme: 'dark' })
  await expect(page.getByRole('navigation', { name: 'Main' })).toBeHidden()
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden()
  const pdf = await page.pdf({ format: 'A4' })
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
})
