import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { check, expect, field, headline, openStation, test } from './bench-test'

const phone = { width: 390, height: 844 }

async function expectNoViolations(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
    .analyze()
  expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`)).toEqual(
    [],
  )
}

for (const scheme of ['light', 'dark'] as const) {
  for (const [size, viewport] of [
    ['laptop', { width: 1280, height: 800 }],
    ['phone', phone],
  ] as const) {
    test.describe(`${scheme}, ${size}`, () => {
      test.use({ colorScheme: scheme, viewport })

      test('axe finds nothing on any view', async ({ page, app }) => {
        await page.goto(app.url)
        await expect(page.getByRole('list', { name: 'Jobs' })).toBeVisible()
        await expectNoViolations(page)
        for (const number of scheme === 'dark' ? ['0421', '0417'] : ['0417', '0424', '0433']) {
          await page.goto(await app.job(number))
          await expect(headline(page)).toBeVisible()
          await expectNoViolations(page)
        }
        if (size === 'phone') await page.getByRole('button', { name: 'Walk-round' }).click()
        await openStation(page, 'chargers')
        await field(page, 'chargers/charger-1/floatV').fill('no number')
        await expectNoViolations(page)
        if (size === 'phone') await page.getByRole('button', { name: 'Why' }).click()
        await expectNoViolations(page)
        await page.getByRole('button', { name: /^Find/ }).click()
        await expect(page.getByRole('dialog')).toBeVisible()
        await expectNoViolations(page)
        await page.goto(`${await app.job('0421')}/summary`)
        await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
        await expectNoViolations(page)
      })

      // One of each theme and size: axe takes its time over long pages.
      if ((scheme === 'light') === (size === 'laptop'))
        test('axe finds nothing on loads, candidates, shelf and rules', async ({ page, app }) => {
          test.setTimeout(240_000)
          for (const address of [
            `${await app.job('0417')}/loads`,
            `${await app.job('0430')}/candidates`,
            `${await app.job('0421')}/run`,
            `${await app.job('0427')}/rules`,
            `${app.url}/shelf`,
            `${app.url}/rules`,
          ]) {
            await page.goto(address)
            await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
            await page.waitForLoadState('networkidle')
            await expectNoViolations(page)
          }
          await page.goto(`${app.url}/shelf`)
          await page.getByRole('button', { name: /Brindle 200 H/ }).click()
          await expect(page.getByRole('region', { name: 'BRI-200H' })).toBeVisible()
          await expectNoViolations(page)
          await page.goto(`${await app.job('0430')}/loads`)
          await page.getByLabel('Speed').selectOption('30')
          await page.getByRole('button', { name: 'Start the stand-in' }).click()
          await expect(page.getByTestId('found').getByRole('listitem').first()).toBeVisible()
          await page.getByRole('button', { name: 'Stop' }).click()
          await expectNoViolations(page)
          await page.getByRole('button', { name: 'From the library' }).click()
          await expectNoViolations(page)
        })

      if ((scheme === 'light') !== (size === 'laptop'))
        test('axe finds nothing on specify and on an issued sheet', async ({ page, app }) => {
          const job = await app.job('0421')
          await page.goto(`${job}/specify`)
          await expect(page.getByTestId('solve-state')).toHaveAttribute('data-state', 'done', {
            timeout: 60_000,
          })
          await page.getByText('Settings', { exact: true }).click()
          await page.getByText('As found and as specified', { exact: true }).click()
          await expectNoViolations(page)
          await page.getByRole('button', { name: 'Choose this one' }).click()
          await page.getByRole('button', { name: 'Issue the sheet' }).click()
          await page.getByRole('link', { name: 'Specification 0421-1' }).click()
          await expect(page.getByTestId('sheet')).toBeVisible()
          await expectNoViolations(page)
          expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
            viewport.width,
          )
        })

      // Colours move nothing.
      if (scheme === 'light')
        test('nothing is wider than the screen', async ({ page, app }) => {
          for (const address of [
            app.url,
            `${app.url}/shelf`,
            `${app.url}/rules`,
            await app.job('0417'),
            await app.job('0421'),
            `${await app.job('0417')}/summary`,
            `${await app.job('0417')}/loads`,
            `${await app.job('0430')}/candidates`,
            `${await app.job('0430')}/run`,
            `${await app.job('0417')}/specify`,
            `${await app.job('0427')}/rules`,
          ]) {
            await page.goto(address)
            await page.waitForLoadState('networkidle')
            expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(
              viewport.width,
            )
          }
        })
    })
  }
}

test.describe('on a phone', () => {
  test.use({ viewport: phone, hasTouch: true })

  test('the verdict, the walk-round and the reasons are a thumb apart', async ({ page, app }) => {
    await page.goto(await app.job('0417'))
    await expect(headline(page)).toBeInViewport()
    await page.getByRole('button', { name: 'Walk-round' }).tap()
    await openStation(page, 'chargers')
    await field(page, 'chargers/charger-1/equaliseStage').selectOption('off')
    await page.getByRole('button', { name: 'Paths' }).tap()
    await check(page, 'link.diode@links/link-1').tap()
    await expect(
      page.getByRole('heading', { name: /^Why · The alternator, drop of the diode isolator/ }),
    ).toBeVisible()
    await expect(headline(page)).toHaveText('Suits once two things are changed')
  })

  test('every target is at least 44 pixels high', async ({ page, app }) => {
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

test('the theme follows the device and can be set', async ({ page, app }) => {
  await page.emulateMedia({ colorScheme: 'dark' })
  await page.goto(app.url)
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'dark')
  await page.getByRole('button', { name: /^Theme: as device/ }).click()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'light')
  await page.reload()
  await expect(page.locator('html')).toHaveAttribute('data-theme', 'light')
})

test('the summary page says what to change, what is open, and the cautions, and prints on paper', async ({
  page,
  app,
}) => {
  await page.goto(`${await app.job('0417')}/summary`)
  const sheet = page.getByRole('article')
  await expect(sheet).toContainText('Suits once three things are changed')
  await expect(sheet).toContainText('Shore charger: Switch equalise off.')
  await expect(sheet).toContainText('15.5 V − 14.8 V = 0.7 V over')
  await expect(sheet).toContainText('not a certificate of compliance')
  await expect(sheet).toContainText('The local code and the makers’ instructions come before this page.')
  await page.goto(`${await app.job('0421')}/summary`)
  await expect(sheet).toContainText('What stands in the way')
  await expect(sheet).toContainText('What could help: 15 A DC-DC charger on an ignition signal')
  await expect(sheet).toContainText('These alone do not make it suit.')
  await page.goto(`${await app.job('0424')}/summary`)
  await expect(sheet).toContainText('Still to be measured')
  await expect(sheet).toContainText('Depot charger: absorption voltage.')
  await page.emulateMedia({ media: 'print', colorScheme: 'dark' })
  await expect(page.getByRole('navigation', { name: 'Main' })).toBeHidden()
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden()
  const pdf = await page.pdf({ format: 'A4' })
  expect(pdf.subarray(0, 5).toString()).toBe('%PDF-')
})
