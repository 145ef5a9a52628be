import { expect, expectSaved, field, headline, saveState, sheet, test } from './bench-test'
import { atPlace, readyForOffline } from './offline'

const phone = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true } as const
test.use({ ...phone, serviceWorkers: 'allow' })

test('a phone without signal opens a job, works on it, and the laptop has it afterwards @long', async ({
  page,
  app,
  browser,
}) => {
  await page.goto(app.url)
  await expect(page.getByRole('list', { name: 'Jobs' }).getByRole('listitem')).toHaveCount(6)
  await readyForOffline(page)

  const address = await app.job('0417')
  await page.context().setOffline(true)
  await app.stop()
  await page.goto(atPlace(address))
  await expect(headline(page)).toBeVisible()
  await field(page, 'place/coldestC').fill('-9')
  await sheet(page)
    .getByLabel('Add a photo')
    .setInputFiles(new URL('./pixel.png', import.meta.url).pathname)
  await expect(sheet(page).getByRole('img', { name: 'Photo: pixel.png' })).toBeVisible()
  await expect(saveState(page)).toHaveText('Offline – 1 change kept on this device')

  await page.reload()
  await expect(field(page, 'place/coldestC')).toHaveValue('−9 °C')
  await expect(sheet(page).getByText('waits to be sent')).toBeVisible()
  await page.goto(`${address}/prove`)
  await expect(page.getByRole('heading', { name: 'Prove' })).toBeVisible()
  await page.close()

  const again = await page.context().newPage()
  await again.goto(app.url)
  await expect(again.getByTestId('waiting')).toContainText('2 changes kept on this device')
  await again.getByLabel('Search jobs').fill('0417')
  await expect(again.getByRole('list', { name: 'Jobs' }).getByRole('listitem')).toHaveCount(1)

  const laptop = await (await browser.newContext({ serviceWorkers: 'block' })).newPage()
  await app.start()
  await page.context().setOffline(false)
  await expect(again.getByTestId('waiting')).toHaveCount(0)
  await laptop.goto(atPlace(address))
  await expect(field(laptop, 'place/coldestC')).toHaveValue('−9 °C')
  await expect(sheet(laptop).getByRole('img', { name: 'Photo: pixel.png' })).toBeVisible()
  await laptop.context().close()
})

test('a job that is made without signal gets its number later', async ({ page, app }) => {
  await page.goto(app.url)
  await readyForOffline(page)
  await page.context().setOffline(true)
  await page.getByRole('button', { name: 'New job' }).click()
  await expect(page.getByText('Job New 1')).toBeVisible()
  await expect(saveState(page)).toContainText('Offline')
  const address = page.url()
  await page.goto(app.url)
  await expect(page.getByText('New on this device')).toBeVisible()
  await page.context().setOffline(false)
  await expect(page.getByText('New on this device')).toHaveCount(0)
  await page.goto(address)
  await expect(page.getByText(/Job 04\d\d/)).toBeVisible()
  await expectSaved(page)
})

test('a job that was deleted elsewhere is offered as a copy @long', async ({ page, app }) => {
  await page.goto(atPlace(await app.job('0421')))
  await expectSaved(page)
  await page.context().setOffline(true)
  await field(page, 'place/coldestC').fill('-3')
  await app.db.sql`update job set deleted_at = now() where number = '0421'`
  await page.context().setOffline(false)
  await expect(page.getByRole('alert')).toContainText('Somebody deleted this job')
  await page.getByRole('button', { name: 'Keep as new job' }).click()
  await page.waitForURL((url) => !url.search.includes('place'))
  await expectSaved(page)
  await page.goto(atPlace(page.url().split('?')[0]!))
  await expect(field(page, 'place/coldestC')).toHaveValue('−3 °C')
  await expect(page.getByText(/Job 04\d\d/)).toBeVisible()
})

test('two windows of one browser change a job without signal: both changes arrive @long', async ({
  page,
  app,
}) => {
  await page.goto(app.url)
  await readyForOffline(page)
  const address = atPlace(await app.job('0424'))
  const second = await page.context().newPage()
  await page.goto(address)
  await second.goto(address)
  await expect(field(second, 'place/coldestC')).toBeVisible()
  await page.context().setOffline(true)
  await field(page, 'place/coldestC').fill('-8')
  await field(second, 'place/hottestC').fill('48')
  await expect(saveState(page)).toHaveText('Offline – 1 change kept on this device')
  await expect(saveState(second)).toHaveText('Offline – 1 change kept on this device')
  await page.close()
  await second.close()

  const third = await page.context().newPage()
  await third.goto(app.url)
  await expect(third.getByTestId('waiting')).toContainText('2 changes kept on this device')
  await page.context().setOffline(false)
  await expect(third.getByTestId('waiting')).toHaveCount(0)
  const [row] = await app.db.sql<{ cold: number; hot: number }[]>`
    select (document #>> '{place,coldestC,value}')::float as cold, (document #>> '{place,hottestC,value}')::float as hot
    from job where number = '0424'`
  expect(row).toEqual({ cold: -8, hot: 48 })
})
