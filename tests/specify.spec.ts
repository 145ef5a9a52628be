import { readFileSync } from 'node:fs'
import { expect, expectSaved, field, openStation, test } from './bench-test'
import type { Page } from '@playwright/test'

const state = (page: Page) => page.getByTestId('solve-state')
const answers = (page: Page) => page.getByRole('table', { name: 'Answers' }).getByRole('button')

test('the workboat: answers are there without a click, are compared, changed by hand and chosen; the survey stays', async ({
  page,
  app,
}) => {
  await page.goto(`${await app.job('0417')}/specify`)
  await expect(state(page)).toHaveAttribute('data-state', 'done')
  await expect(state(page)).toContainText(/The best \d of \d+/)
  await answers(page)
    .filter({ hasText: /^40 A DC-DC on ignition signal, switch equalise off, keep shore charger/ })
    .click()
  const card = page.locator('[data-answer]').first()
  await expect(card).toHaveAttribute('data-verdict', 'suits')
  await expect(card).toContainText('Curlew D 40, 290 €')
  await expect(card).toContainText('settles equalise, desulfation or pulse')
  await page.getByRole('button', { name: 'Pin' }).click()
  await answers(page).first().click()
  await expect(page.locator('[data-answer]')).toHaveCount(2)
  const part = card.getByRole('combobox', { name: 'Part' }).first()
  await part.selectOption('CUR-D20')
  await expect(card).toContainText('DC-DC charger of 20 A')
  await expect(card).toContainText('Curlew D 20, ')

  const pinned = page.locator('[data-answer]').nth(1)
  await pinned.getByLabel('Do it: Switch equalise off').uncheck()
  await expect(pinned).toHaveAttribute('data-verdict', 'suits-once-changed')
  await expect(pinned).toContainText('Shore charger equalises at 15.5 V; the battery allows 14.8 V.')
  await pinned.getByLabel('Do it: Switch equalise off').check()
  await expect(pinned).toHaveAttribute('data-verdict', 'suits')

  await pinned.getByRole('button', { name: 'Choose this answer' }).click()
  const specified = page.getByRole('region', { name: /^Specified: 40 A DC-DC/ })
  await expect(specified).toContainText('The survey stays as it was found')
  await expectSaved(page)
  await expect(page.getByTestId('specified-now')).toContainText(
    'Suits with the survey and rules as they are now.',
  )
  await page.reload()
  await specified.getByText(/As found and as specified: \d+ values differ/).click()
  await expect(specified.getByRole('row').filter({ hasText: 'Shore charger: equalise' })).toContainText(
    'On, can be switched offPresent, switched off',
  )
  await expect(page.getByTestId('headline')).toContainText('Suits after 3 changes')
  await page.getByRole('link', { name: 'Bench' }).click()
  await openStation(page, 'chargers')
  await expect(
    field(page, 'chargers/charger-1/equaliseStage').getByRole('radio', { checked: true }),
  ).toHaveText('On, can be switched off')

  await page.getByRole('link', { name: 'Papers', exact: true }).click()
  await page.locator('[data-paper=summary]').getByRole('link', { name: 'Preview' }).click()
  await expect(page.getByTestId('paper')).toContainText('Switch equalise off (Shore charger)')
  await page.goto(await app.job('0417'))
  await page.getByRole('link', { name: 'Run' }).click()
  await expect(page.getByLabel(/^As specified: 40 A DC-DC/)).toBeVisible()
  await page.goto(`${await app.job('0417')}`)
  await openStation(page, 'place')
  await field(page, 'place/coldestC').fill('-9')
  await page.keyboard.press('Tab')
  await expectSaved(page)
  await page.getByRole('link', { name: 'Specify' }).click()
  await expect(page.getByTestId('specified-now')).toContainText('Search again, or take this answer back')
  await page.getByRole('button', { name: 'Withdraw choice' }).click()
  await expect(specified).toHaveCount(0)
})

test('an issued sheet stays as it is after rules, shelf and job have changed @long', async ({
  page,
  app,
}) => {
  const job = await app.job('0421')
  await page.goto(`${job}/specify`)
  await expect(state(page)).toHaveAttribute('data-state', 'done')
  await answers(page).filter({ hasText: 'Pipit H 120 pad under it' }).first().click()
  await page.getByRole('button', { name: 'Choose this answer' }).first().click()
  await expectSaved(page)
  await page.getByRole('button', { name: 'Issue specification' }).click()
  const sheets = page.getByRole('list', { name: 'Sheets issued' })
  await expect(sheets).toContainText('Specification 0421-1')
  await sheets.getByRole('link', { name: 'Specification 0421-1' }).click()
  const sheet = page.getByTestId('sheet')
  await expect(sheet).toContainText('Pipit H 120 pad')
  await expect(sheet).toContainText('Battery monitor')
  const issued = await sheet.innerText()
  const bytes = async (kind: string) =>
    (await page.request.get(`${job.replace('/jobs/', '/api/jobs/')}/sheets/1/${kind}`)).body()
  const [pdf, csv] = [await bytes('pdf'), await bytes('csv')]

  await page.goto(`${app.url}/rules`)
  await page.locator('[data-rule=coldSchool]').getByLabel('0 °C for everything').check()
  await page.getByRole('button', { name: 'Save rules' }).click()
  await expect(page.getByTestId('effect')).toContainText('Every open job is checked with the new rules')
  await app.db
    .sql`update shelf_part set name = 'Something else', part_values = part_values - 'price' where kind in ('dcdc', 'heaters')`
  await page.goto(job)
  await openStation(page, 'place')
  await field(page, 'place/coldestC').fill('-30')
  await page.keyboard.press('Tab')
  await expectSaved(page)

  await page.goto(`${job}/sheets/1`)
  await expect(sheet).toContainText('Specification 0421-1')
  expect(await sheet.innerText()).toBe(issued)
  expect(Buffer.compare(await bytes('pdf'), pdf)).toBe(0)
  expect(Buffer.compare(await bytes('csv'), csv)).toBe(0)
  await page.goto(`${job}/sheets/7`)
  await expect(page.getByRole('heading', { name: 'No such sheet' })).toBeVisible()
})

test('a search is stopped, and a change of school for this job searches again @long', async ({
  page,
  app,
}) => {
  await page.goto(`${await app.job('0427')}/specify`)
  await expect(state(page)).toHaveAttribute('data-state', 'done')
  await expect(answers(page).first()).toContainText('Hybrid bank with stops and switches')
  const schools = page.getByRole('region', { name: 'Other approaches' })
  await expect(schools.locator('[data-school=mixedSchool]')).toContainText(
    'Allowed as a hybrid bank, with conditions, for this job',
  )
  await schools.getByRole('button', { name: /^Use for this job: Never: always fit a DC-DC/ }).click()
  await expect(answers(page).first()).toContainText('Old battery behind a DC-DC')
  await expect(state(page)).toHaveAttribute('data-state', 'done')
  await expect(page.getByRole('table', { name: 'Answers' })).not.toContainText('Hybrid bank')

  await page.goto(`${await app.job('0430')}/specify`)
  await page.getByRole('button', { name: 'Stop' }).click()
  await expect(state(page)).toHaveAttribute('data-state', 'stopped')
  await expect(state(page)).toContainText(/Stopped after \d+ of \d+/)
  await page.getByRole('button', { name: 'Search again' }).click()
  await expect(state(page)).toHaveAttribute('data-state', 'done')
})

test('a job that nothing on the shelf can settle says so, and shows the nearest miss @long', async ({
  page,
  app,
}) => {
  const document = JSON.parse(
    readFileSync(new URL('../demo/jobs/0417-oyster-workboat.json', import.meta.url), 'utf8'),
  )
  Object.assign(document.place, {
    widthMm: { value: 120, how: 'measured' },
    depthMm: { value: 90, how: 'measured' },
    heightMm: { value: 80, how: 'measured' },
  })
  const stored = await (
    await page.request.post(`${app.url}/api/jobs/import?who=Test`, {
      data: { ...document, job: { ...document.job, number: '0999' } },
    })
  ).json()
  await page.goto(`${app.url}/jobs/${stored.id}/specify`)
  await expect(state(page)).toContainText('No part on the shelf makes this battery suit')
  const card = page.locator('[data-answer]')
  await expect(card).toContainText('Nearest miss')
  await expect(card).toHaveAttribute('data-verdict', 'does-not-suit')
  await expect(card.getByRole('button', { name: /Choose/ })).toHaveCount(0)
})
