import AxeBuilder from '@axe-core/playwright'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import type { Page } from '@playwright/test'
import { loadDemoYears } from '../server/db/demo-years'
import { expect, expectSaved, field, station, test } from './bench-test'

const pixel = readFileSync(fileURLToPath(new URL('pixel.png', import.meta.url)))
const years = fileURLToPath(new URL('../demo/years/years.json', import.meta.url))
const accessible = async (page: Page): Promise<void> =>
  expect((await new AxeBuilder({ page }).setLegacyMode().analyze()).violations).toEqual([])

test('a craft comes back: its fading bank, a capacity test, a correction, and a job from its known data @long', async ({
  page,
  app,
}) => {
  await loadDemoYears(app.db.sql, years)
  await page.goto(`${app.url}/today`)
  const flagged = page.getByRole('list', { name: 'Flagged by logbooks' })
  await expect(flagged).toContainText('Capacity, House bank: measure it again.')
  await expect(page.getByRole('list', { name: 'Waiting for an answer' })).toContainText('Quotation 0424-1')
  await accessible(page)
  await flagged.getByRole('link', { name: 'Marigold Tern' }).click()
  await expect(page.getByRole('heading', { name: 'Marigold Tern', level: 1 })).toBeVisible()
  const checks = page.getByRole('list', { name: 'Check next time' })
  await expect(checks).toContainText(/It reaches 176 Ah in 20\d\d \(.+\)\./)
  await accessible(page)

  // Open items are settled with a note.
  await checks.getByRole('button', { name: /^Settle Drain hole/ }).click()
  await page.getByLabel('What was done about it').fill('Cleared with a wire')
  await page.getByRole('button', { name: 'Settle', exact: true }).click()
  await expect(checks).not.toContainText('Drain hole')
  const entries = page.getByRole('list', { name: 'Entries' })
  await expect(entries).toContainText('Cleared with a wire')

  // A guided discharge with the demo meter, down to the floor.
  await page.getByRole('link', { name: 'Battery test' }).click()
  await page.getByLabel('Chemistry').selectOption('lead')
  await page.getByLabel('Load (A)').fill('22')
  await page.getByRole('button', { name: 'Start the demo meter' }).click()
  await expect(page.getByRole('status')).toContainText('The floor is reached')
  await expect(page.getByTestId('test-result')).toContainText(/\d+ Ah ± \d+ Ah\s+of 220 Ah/)
  await accessible(page)
  await page.getByRole('button', { name: 'Save to logbook' }).click()
  await expect(entries).toContainText('from a test')

  // A photograph goes into the logbook too.
  await page
    .getByLabel('Add a photo')
    .setInputFiles({ name: 'locker.png', mimeType: 'image/png', buffer: pixel })
  await page.getByLabel('What it shows').fill('Battery box, port side')
  await page.getByRole('dialog').getByRole('button', { name: 'Add', exact: true }).click()
  await expect(entries).toContainText('Photograph: Battery box, port side')
  await expect(
    page.getByRole('list', { name: 'Photos' }).getByRole('img', { name: 'Battery box, port side' }),
  ).toBeVisible()

  // A wrong entry is corrected: both stay.
  await page.getByRole('button', { name: 'New entry' }).click()
  await page.getByLabel('Quantity').selectOption('tailCurrent')
  await page.getByLabel('Reading (A)').fill('18')
  await page.getByRole('button', { name: 'Add entry' }).click()
  await entries
    .getByRole('button', { name: /^Correct Tail current/ })
    .first()
    .click()
  await page.getByRole('dialog').getByLabel('Reading (A)').fill('1,8')
  await page.getByRole('button', { name: 'Save correction' }).click()
  await expect(entries).toContainText('corrects an earlier entry')
  await expect(entries).toContainText('Tail current: 1.8 A')
  await expect(entries).toContainText('Tail current: 18 A')

  // A reminder that is done, and taken back.
  const overdue = page.getByRole('region', { name: 'Overdue' })
  await overdue.getByRole('button', { name: /^Done/ }).click()
  await expect(overdue).toHaveCount(0)
  await page.getByRole('status').getByRole('button', { name: 'Undo' }).click()
  await expect(overdue).toBeVisible()

  // The next job says where its values come from.
  await page.getByRole('button', { name: 'New job for this craft' }).click()
  await expect(page).toHaveURL(/\/jobs\//)
  await expect(page.locator('main')).toContainText('Job 0434')
  await station(page, 'houseBank').click()
  await field(page, 'houseBank/ahEach').focus()
  await expect(page.getByTestId('station')).toContainText('From job 0417, survey.')
  await page.getByRole('link', { name: 'Logbook', exact: true }).click()
  await expect(page.getByRole('list', { name: 'Jobs' }).getByRole('listitem')).toHaveCount(2)
})

test('craft and customers are found, fleets compared, and a customer is erased @long', async ({
  page,
  app,
}) => {
  await loadDemoYears(app.db.sql, years)
  await page.goto(`${app.url}/customers`)
  await page.getByRole('button', { name: 'Add customer' }).first().click()
  await page.getByRole('dialog').getByLabel('Name').fill('Brill Vans')
  await page.getByRole('dialog').getByRole('button', { name: 'Add customer' }).click()
  await expect(page.getByRole('heading', { name: 'Brill Vans', level: 1 })).toBeVisible()
  for (const name of ['Van 7', 'Van 8']) {
    await page.goto(`${app.url}/craft`)
    await page.getByRole('button', { name: 'Add craft' }).first().click()
    const form = page.getByRole('dialog')
    await form.getByLabel('Name').fill(name)
    await form.getByLabel('Owner').fill('brill')
    await form.getByRole('button', { name: 'Brill Vans' }).click()
    await form.getByLabel('Fleet type').fill('Rescue van')
    await form.getByRole('button', { name: 'Add craft' }).click()
    await expect(page.getByRole('heading', { name, level: 1 })).toBeVisible()
  }
  await expect(page.getByRole('region', { name: 'Fleet', exact: true })).toContainText('Van 7')
  await page.goto(`${app.url}/craft`)
  await page.getByLabel('Search craft').fill('brill 8')
  await expect(page.getByRole('list', { name: 'Craft' }).getByRole('listitem')).toHaveCount(1)
  await accessible(page)

  await page.goto(`${app.url}/customers`)
  await page.getByRole('link', { name: 'Hanno Nettle' }).click()
  await expect(page.getByRole('list', { name: 'Papers' }).getByRole('listitem')).toHaveCount(5)
  await page.getByRole('button', { name: 'Erase customer' }).click()
  const dialog = page.getByRole('dialog')
  await expect(dialog.getByRole('button', { name: 'Erase customer' })).toBeDisabled()
  await dialog.getByLabel(/^Type the customer/).fill('Hanno Nettle')
  await dialog.getByRole('button', { name: 'Erase customer' }).click()
  await expect(page.getByText('This customer was erased.')).toBeVisible()
  await page.getByRole('link', { name: 'Installer’s record 0433-3' }).click()
  await expect(page.getByTestId('sheet')).toContainText('Erased customer')
  await expect(page.getByTestId('sheet')).not.toContainText('Hanno Nettle')
})

test('a guided discharge from Prove comes back with its reading, and stands in the logbook too @long', async ({
  page,
  app,
}) => {
  const job = await app.job('0417')
  await page.goto(`${job}/prove`)
  await page.getByRole('button', { name: /^Tests/ }).click()
  await page.getByRole('button', { name: /^Show \d+ more tests/ }).click()
  await page
    .getByRole('button', { name: /^Capacity of / })
    .first()
    .click()
  await page.getByRole('link', { name: 'Guided discharge' }).click()
  await page.getByLabel('Rated capacity (Ah)').fill('200')
  await page.getByRole('button', { name: 'Start the demo meter' }).click()
  await expect(page.getByRole('status')).toContainText('The floor is reached')
  await page.getByRole('button', { name: 'Save to logbook' }).click()
  await expect(page).toHaveURL(/\/prove$/)
  await expectSaved(page)
  const [kept] = await app.db.sql<{ readings: Record<string, unknown[]> }[]>`
    select document->'proving'->'readings' as readings from job where number = '0417'`
  expect(Object.keys(kept!.readings)[0]).toMatch(/^capacity-/)
  const [entry] = await app.db.sql<{ source: string }[]>`select source from log_entry`
  expect(entry!.source).toBe('test')
})

test('stages follow the work, and undo takes them back @long', async ({ page, app }) => {
  const job = await app.job('0417')
  await page.goto(`${job}/specify`)
  await expect(page.getByTestId('solve-state')).toHaveAttribute('data-state', 'done')
  await page.getByRole('button', { name: 'Choose this answer' }).first().click()
  await expectSaved(page)
  await page.getByRole('link', { name: 'Quotation', exact: true }).click()
  await page.getByRole('button', { name: 'Issue quotation' }).click()
  await expect(page.getByText('Stage is now Quoted. Undo takes it back.')).toBeVisible()
  await expectSaved(page)
  await page.goto(app.url)
  const row = page.getByRole('list', { name: 'Jobs' }).getByRole('listitem').filter({ hasText: '0417' })
  await expect(row).toContainText('Quoted')
  await page.goto(`${job}/quotation`)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expectSaved(page)
  await page.goto(app.url)
  await expect(row).toContainText('Specified')
})

test('the shop’s learnt values offer a rule, and change none by themselves @long', async ({ page, app }) => {
  await loadDemoYears(app.db.sql, years)
  await page.goto(`${app.url}/learnt`)
  await expect(page.getByText('Temperature of cables for voltage drop')).toBeVisible()
  await accessible(page)
  await page.getByRole('link', { name: /which open jobs change/ }).click()
  await expect(page.getByText(/open jobs? checked|verdicts? would change/).first()).toBeVisible()
  const [before] = await app.db.sql<{ rules: object }[]>`select rules from workshop`
  expect(before!.rules).toEqual({})
})

test('calendars read the reminders at an address, until it is ended @long', async ({ page, app }) => {
  await loadDemoYears(app.db.sql, years)
  await page.goto(`${app.url}/reminders`)
  await page.getByRole('button', { name: 'Make address' }).click()
  const address = page.getByText(/\/api\/calendar\/[\w-]+\.ics/)
  await expect(address).toBeVisible()
  const feed = (await address.innerText()).trim()
  expect(await (await page.request.get(feed)).text()).toContain('BEGIN:VCALENDAR')
  await page.getByRole('button', { name: 'End address' }).click()
  await expect(page.getByRole('button', { name: 'Make address' })).toBeVisible()
  expect((await page.request.get(feed)).status()).toBe(404)
})

test('a logger on a serial port feeds the capacity test and Prove @long', async ({ page, app }) => {
  // A port that sends a discharge to its floor, with a header and a broken line in it.
  await page.addInitScript(() => {
    const lines = ['quantity,at,value,unit', 'current,shu']
    for (let i = 0; i <= 40; i++)
      lines.push(
        `voltage,house,${(13.2 - i * 0.06).toFixed(2)},V`,
        `{"quantity":"current","at":"shunt","value":-20}`,
      )
    const port = {
      readable: null as ReadableStream<Uint8Array> | null,
      open() {
        let next = 0
        port.readable = new ReadableStream({
          async pull(controller) {
            await new Promise((resolve) => setTimeout(resolve, 20))
            controller.enqueue(new TextEncoder().encode(`${lines[next++ % lines.length]}\r\n`))
          },
        })
        return Promise.resolve()
      },
      close: () => Promise.resolve(),
    }
    Object.defineProperty(navigator, 'serial', { value: { requestPort: () => Promise.resolve(port) } })
  })
  const [craft] = await app.db.sql<{ id: string }[]>`select craft_id as id from job where number = '0417'`
  await page.goto(`${app.url}/craft/${craft!.id}/test`)
  await page.getByLabel('Rated capacity (Ah)').fill('100')
  await page.getByRole('button', { name: 'Connect a logger' }).click()
  await expect(page.getByRole('status')).toContainText('The floor is reached')
  await expect(page.getByTestId('test-result')).toContainText('of 100 Ah')

  await page.goto(`${await app.job('0417')}/prove`)
  await page.getByRole('button', { name: /^Tests/ }).click()
  await page.getByRole('button', { name: /^Show \d+ more tests/ }).click()
  await page.getByRole('button', { name: 'Resting voltage of the starting battery' }).click()
  await page.getByRole('button', { name: 'Connect a logger' }).click()
  await expect(page.getByTestId('reading')).toContainText(/1[0-3]\.\d+ V/)
  await expect(page.getByTestId('test-verdict')).toBeVisible()
})
