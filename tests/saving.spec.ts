import type { Browser, Page } from '@playwright/test'
import { expect, expectSaved, field, headline, openStation, saveState, test, type App } from './bench-test'

/** The workboat open at its place in a second browser as well as in this one. */
async function openInTwo(page: Page, app: App, browser: Browser): Promise<Page> {
  const other = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  for (const each of [page, other]) {
    await each.goto(await app.job('0417'))
    await openStation(each, 'place')
  }
  return other
}

test('the server stops in the middle of typing and comes back: nothing typed is lost @long', async ({
  page,
  app,
}) => {
  await page.goto(await app.job('0417'))
  await openStation(page, 'place')
  await field(page, 'place/coldestC').fill('5')
  await app.stop()
  await field(page, 'place/hottestC').fill('4')
  await field(page, 'place/hottestC').press('End')
  await page.keyboard.type('4')
  await expect(saveState(page)).toHaveAttribute('data-state', 'unreachable')
  await expect(saveState(page)).toContainText('kept on this device')
  await page.keyboard.press('Tab')
  await app.start()
  await expectSaved(page)
  const [row] = await app.db.sql<
    { cold: number; hot: number }[]
  >`select (document #>> '{place,coldestC,value}')::float as cold, (document #>> '{place,hottestC,value}')::float as hot from job where number = '0417'`
  expect(row).toEqual({ cold: 5, hot: 44 })
})

test('a reload while the connection is lost brings back the typed text @long', async ({ page, app }) => {
  const address = await app.job('0417')
  await page.goto(address)
  await openStation(page, 'place')
  await app.stop()
  await field(page, 'place/coldestC').fill('3')
  await openStation(page, 'chargers')
  await field(page, 'chargers/charger-1/floatV').fill('13 point 5')
  await expect(saveState(page)).toHaveAttribute('data-state', 'unreachable')
  await page.close()
  await app.start()
  const later = await page.context().newPage()
  await later.goto(address)
  await expect(later.getByText('Your unsaved changes are back')).toBeVisible()
  await openStation(later, 'place')
  await expect(field(later, 'place/coldestC')).toHaveValue('3 °C')
  await openStation(later, 'chargers')
  await expect(field(later, 'chargers/charger-1/floatV')).toHaveValue('13 point 5')
  // The unreadable text was typed last, and goes first; the last good change is still there.
  await later.getByRole('button', { name: 'Undo' }).click()
  await expect(field(later, 'chargers/charger-1/floatV')).toHaveValue('13.5 V')
  await openStation(later, 'place')
  await expect(field(later, 'place/coldestC')).toHaveValue('3 °C')
  await later.getByRole('button', { name: 'Undo' }).click()
  await expect(field(later, 'place/coldestC')).toHaveValue('6 °C')
  await expectSaved(later)
})

test('a reload in the very moment of typing loses nothing', async ({ page, app }) => {
  await page.goto(await app.job('0421'))
  await openStation(page, 'place')
  await field(page, 'place/coldestC').fill('-7')
  await page.reload()
  await openStation(page, 'place')
  await expect(field(page, 'place/coldestC')).toHaveValue('−7 °C')
  await expectSaved(page)
})

test('two browsers on different values are joined, and each is told', async ({ page, app, browser }) => {
  const other = await openInTwo(page, app, browser)
  await field(page, 'place/coldestC').fill('4')
  await expectSaved(page)
  await field(other, 'place/hottestC').fill('40')
  await expect(
    other.getByText('Another page or device named Bench laptop changed one value of this job'),
  ).toBeVisible()
  await expectSaved(other)
  await expect(field(other, 'place/coldestC')).toHaveValue('4 °C')
  await expect(field(other, 'place/hottestC')).toHaveValue('40')
  await other.context().close()
})

test('two browsers on one value: neither overwrites the other, the person chooses @long', async ({
  page,
  app,
  browser,
}) => {
  const other = await openInTwo(page, app, browser)
  // Online, a change of the one shows on the other before it can be changed there.
  await other.context().setOffline(true)
  await field(page, 'place/coldestC').fill('4')
  await expectSaved(page)
  await field(other, 'place/coldestC').fill('-9')
  await field(other, 'place/hottestC').fill('50')
  await other.context().setOffline(false)
  const dialog = other.getByRole('dialog', {
    name: 'Another page or device named Bench laptop changed the same value',
  })
  // The question takes no key of somebody who types: it is offered.
  await expect(saveState(other)).toHaveText('Two people changed the same value')
  await other.keyboard.press('End')
  await other.keyboard.press('Backspace')
  await other.keyboard.type('5')
  await expect(dialog).toHaveCount(0)
  await other.getByRole('button', { name: 'Choose value' }).click()
  await expect(dialog).toContainText('Yours: −9 °C')
  await expect(dialog).toContainText('Another page or device named Bench laptop: 4 °C')
  await other.keyboard.press('Escape')
  await expect(dialog).toBeVisible()
  const stored = async () =>
    (
      await app.db.sql<
        { cold: number; hot: number }[]
      >`select (document #>> '{place,coldestC,value}')::float as cold, (document #>> '{place,hottestC,value}')::float as hot from job where number = '0417'`
    )[0]
  expect(await stored()).toEqual({ cold: 4, hot: 31 })

  await other.reload()
  const offered = other.getByRole('button', { name: 'Choose value' })
  await expect(offered.or(dialog).first()).toBeVisible()
  if (!(await dialog.isVisible())) await offered.click()
  await expect(dialog).toContainText('Yours: −9 °C')
  await expect(dialog.getByRole('button', { name: 'Save choices' })).toBeDisabled()
  await dialog.getByRole('radio', { name: /Bench laptop/ }).check()
  await dialog.getByRole('button', { name: 'Save choices' }).click()
  await expectSaved(other)
  expect(await stored()).toEqual({ cold: 4, hot: 55 })
  await other.context().close()
})

test('a change by one person appears for the other with a message, and both see each other @long', async ({
  page,
  app,
  browser,
}) => {
  const other = await openInTwo(page, app, browser)
  await expect(other.getByTestId('also-here')).toHaveText('Also here: Bench laptop (Bench)')
  await field(page, 'place/coldestC').fill('4')
  await expect(field(other, 'place/coldestC')).toHaveValue('4 °C')
  await expect(other.getByText('changed one value of this job')).toBeVisible()
  await page.goto(`${app.url}/shelf`)
  await expect(other.getByTestId('also-here')).toHaveCount(0)
  await other.context().close()
})

test('a change saved on one device can be undone on another @long', async ({ page, app, browser }) => {
  const other = await openInTwo(page, app, browser)
  await field(page, 'place/coldestC').fill('4')
  await expectSaved(page)
  await other.reload()
  await openStation(other, 'place')
  await expect(field(other, 'place/coldestC')).toHaveValue('4 °C')
  await other.getByRole('button', { name: 'Undo' }).click()
  await expect(field(other, 'place/coldestC')).toHaveValue('6 °C')
  await expectSaved(other)
  await other.context().close()
})

test('a job that is not there says so', async ({ page, app }) => {
  await page.goto(`${app.url}/jobs/00000000-0000-4000-8000-000000000000`)
  await expect(page.getByRole('heading', { name: 'This job cannot be opened' })).toBeVisible()
  await page.getByRole('link', { name: 'Back to jobs' }).click()
  await expect(headline(page)).toHaveCount(0)
})
