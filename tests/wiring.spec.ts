import type { Page } from '@playwright/test'
import { choose, expect, expectSaved, field, saveState, test } from './bench-test'

const verdict = (page: Page) => page.getByTestId('wiring-verdict')
const heading = (page: Page, words: RegExp) => page.getByRole('heading', { name: words })
const opened = async (page: Page, address: string): Promise<void> => {
  await page.goto(`${address}/wiring`)
  await expect(verdict(page)).toBeVisible()
}
const row = (page: Page, number: string) =>
  page.getByRole('row').filter({ has: page.getByRole('button', { name: number, exact: true }) })

test('the workboat’s wiring is proposed, and its error is chosen, changed and settled', async ({
  page,
  app,
}) => {
  await opened(page, await app.job('0417'))
  await expect(verdict(page)).toContainText('The wiring suits')
  await expect(page.getByTestId('drawing')).toContainText('Brindle 200 H')
  await expect(page.getByTestId('drawing')).toContainText('class T')
  await page.locator('[data-id="fittings/main-fuse"]').click()
  // A main fuse of 150 A may go before one of 125 A behind it.
  await field(page, 'fittings/main-fuse/ratedA').fill('150')
  await expect(verdict(page)).toContainText('Suits after changes')
  await page.locator('[data-open^="wiring.grading"]').first().click()
  await expect(heading(page, /^F\d+ Fuse of/)).toBeVisible()
  await page.getByRole('button', { name: 'Use this' }).first().click()
  await expect(verdict(page)).toContainText('The wiring suits')
  await expectSaved(page)
  await page.reload()
  await expect(verdict(page)).toContainText('The wiring suits')
})

test('a length set by hand moves size, fuse, loss and parts; it stays when the rest is proposed again, and goes back @long', async ({
  page,
  app,
}) => {
  await opened(page, await app.job('0417'))
  const winch = row(page, 'W14')
  await expect(winch).toContainText('unknown')
  await page.getByRole('button', { name: 'W14', exact: true }).click()
  await expect(
    page.getByText('decided by').or(page.getByText('or more: the fitted size is unknown')),
  ).toBeVisible()
  await field(page, 'runs/load-1-feed/lengthM').fill('22')
  await expect(winch).toContainText('22 m')
  await expect(winch).toContainText('70 mm²')
  await field(page, 'runs/load-1-feed/areaMm2').fill('16')
  // 16 mm² under a fuse of 125 A: found, with its remedy.
  const found = page.locator('[data-check="wiring.fuse-rating@runs/load-1-feed"]')
  await expect(found).toHaveAttribute('data-verdict', 'suits-once-changed')
  await expect(found).toContainText('burns before the fuse blows')
  await expectSaved(page)

  await page.goto(`${await app.job('0417')}/loads`)
  await opened(page, await app.job('0417'))
  await expect(row(page, 'W14')).toContainText('16 mm²')
  await page.getByRole('button', { name: 'Add a branch' }).click()
  await expect(page.getByRole('cell', { name: /^Fuse of Spare way$/ }).first()).toBeVisible()
  await expect(row(page, 'W14')).toContainText('22 m')
  await page.locator('[data-id="fittings/charger-1-fuse"]').click()
  await choose(page, 'fittings/charger-1-fuse/standsOn', 'second')
  await expect(page.getByText('Second bar −', { exact: false }).first()).toBeVisible()

  await page.getByRole('button', { name: 'W14', exact: true }).click()
  await page.getByRole('button', { name: 'Back to the proposal' }).click()
  await expect(row(page, 'W14')).toContainText('unknown')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(row(page, 'W14')).toContainText('22 m')
  await expect(saveState(page)).toBeVisible()
})

test('arrows walk from the battery along the runs to the bar and on @long', async ({ page, app }) => {
  await opened(page, await app.job('0417'))
  await page.getByRole('button', { name: 'W1', exact: true }).click()
  await page.getByTestId('drawing').focus()
  await expect(heading(page, /^W1 · Brindle 200 H, positive to Main fuse/)).toBeVisible()
  await page.keyboard.press('ArrowDown')
  await expect(heading(page, /^F1 Main fuse/)).toBeVisible()
  await expect(page.getByText('Short circuit', { exact: true })).toBeVisible()
  await page.keyboard.press('ArrowDown')
  await expect(heading(page, /^W2 · /)).toBeVisible()
  await page.keyboard.press('ArrowUp')
  await expect(heading(page, /^F1 Main fuse/)).toBeVisible()
})

test('the drawing is saved as SVG and the plan as PDF @long', async ({ page, app }) => {
  await opened(page, await app.job('0424'))
  const [svg] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export drawing (SVG)' }).click(),
  ])
  expect(svg.suggestedFilename()).toBe('0424-wiring.svg')
  const [pdf] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Open plan (PDF)' }).click(),
  ])
  expect(pdf.suggestedFilename()).toMatch(/wiring-0424.*\.pdf$/)
})

test.describe('on the phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })
  test('a list follows the current, and the chosen row scrolls into sight @long', async ({ page, app }) => {
    await opened(page, await app.job('0430'))
    await expect(page.getByTestId('drawing')).toBeHidden()
    await page.getByRole('button', { name: /^W8 / }).tap()
    const chosen = heading(page, /^W8 · /)
    await expect(chosen).toBeInViewport()
    await expect(page.getByText(/left at the DC-DC/)).toBeAttached()
  })
})
