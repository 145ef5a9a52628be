import { readFileSync } from 'node:fs'
import { expect, field, openStation, test } from './bench-test'

test('a driving day is run, read at a moment, and taken away as CSV', async ({ page, app }) => {
  await page.goto(`${await app.job('0417')}/run`)
  const state = page.getByTestId('run-state')
  await expect(state).toHaveAttribute('data-state', 'done')
  const totals = page.getByTestId('totals')
  await expect(totals).toContainText(/From the engine\s*\d+ Ah/)
  await expect(totals).toContainText(/Alternator at its limit after driving\s*\d+ min/)
  await expect(page.getByRole('list', { name: 'Events' })).toContainText('Alternator passed 100 °C')
  const line = async () => (await page.getByTestId('playhead').boundingBox())!.x
  const begin = await line()
  await page.getByRole('slider', { name: 'Playhead' }).fill(String(4 * 3600))
  await expect.poll(async () => (await line()) - begin).toBeGreaterThan(50)
  await expect(page.getByTestId('feeding')).toContainText(
    /The engine \d+ A → the lithium \d+ A, the loads \d+ A/,
  )
  await expect(
    page.getByText(/^lithium \d+ %, house [\d.]+ V, starting side [\d.]+ V, alternator [\d.]+ °C, cells/),
  ).toBeVisible()
  await page.getByText('Figures of the chart').click()
  await expect(page.getByRole('region', { name: 'Figures' })).toContainText('House voltage, V')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export series (CSV)' }).click(),
  ])
  expect(readFileSync(await download.path(), 'utf8')).toMatch(
    /^system,time \(s\),soc \(%\).*\n"New battery, as entered",\d+(\.\d)?,/,
  )
})

test('systems are compared on one timeline, and a year is changed and stopped while it runs', async ({
  page,
  app,
}) => {
  await page.goto(`${await app.job('0417')}/run`)
  const state = page.getByTestId('run-state')
  await expect(state).toHaveAttribute('data-state', 'done')
  await page.getByLabel(/DC-DC/).check()
  await page.getByLabel(/^Duty-cycling relay/).check()
  await expect(page.getByTestId('totals').getByRole('columnheader')).toHaveCount(3)
  await expect(
    page.getByRole('img', {
      name: /Timeline of New battery, as entered, With a \d+ A DC-DC, Duty-cycling relay/,
    }),
  ).toBeVisible()
  await page.getByLabel('Typical year').check()
  await expect(state).toHaveAttribute('data-state', 'running')
  await page.getByLabel('Old lead-acid bank').check()
  await expect(state).toHaveAttribute('data-state', 'running')
  await page.getByRole('button', { name: 'Stop' }).click()
  await expect(state).toHaveAttribute('data-state', 'done')
})

test('a year that is stopped while its weather is on the way does not begin after all @long', async ({
  page,
  app,
}) => {
  await page.goto(`${await app.job('0417')}/run`)
  const state = page.getByTestId('run-state')
  await expect(state).toHaveAttribute('data-state', 'done')
  let release = () => {}
  const released = new Promise<void>((resolve) => {
    release = resolve
  })
  await page.route('**/weather/*.epw', async (route) => {
    await released
    await route.continue()
  })
  const held = page.waitForRequest('**/weather/*.epw')
  await page.getByLabel('Typical year').check()
  await held
  await page.getByRole('button', { name: 'Stop' }).click()
  const answered = page.waitForResponse('**/weather/*.epw')
  release()
  await (await answered).finished()
  await page.evaluate(() => new Promise((resolve) => setTimeout(resolve, 200)))
  await expect(state).toHaveAttribute('data-state', 'done')
})

test('readings of the alternator’s case are brought in, fitted, and change the run @long', async ({
  page,
  app,
}) => {
  await page.goto(`${await app.job('0421')}/run`)
  await expect(page.getByTestId('run-state')).toHaveAttribute('data-state', 'done')
  const heat = page.getByTestId('alternator-heat')
  await expect(heat).toContainText('No readings yet')
  await heat.getByLabel('Import a log').setInputFiles({
    name: 'case.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(
      'amps (A),rpm (rpm),minutes (min),celsius (°C)\n60,4800,10,61\n60,4800,20,68\n60,4800,30,70\n',
    ),
  })
  await expect(heat).toContainText('from 3 readings')
  await expect(page.getByTestId('totals')).toContainText(/Alternator at its limit after driving\s*never/)
  await heat.getByLabel('Import a log').setInputFiles({
    name: 'bad.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('amps (A),rpm (rpm),minutes (min),celsius (°C)\n60,fast,10,61\n'),
  })
  await expect(heat.getByRole('alert')).toContainText(
    'bad.csv: line 2, rpm: Not a number of rpm. Nothing was imported.',
  )
})

test('a frozen week on the mountain: the sources, the limits of the cells, and an invalid weather file @long', async ({
  page,
  app,
}) => {
  await page.goto(`${await app.job('0421')}/run`)
  const state = page.getByTestId('run-state')
  await page.getByLabel('Cold week').check()
  await expect(page.getByTestId('totals')).toContainText(/Charge refused because of cold or heat\s*[1-9]/)
  await expect(page.getByRole('list', { name: 'Events' })).toContainText('BMS stopped charging')
  await expect(page.getByRole('list', { name: 'Events' })).toContainText(
    /(Mains|The engine|The sun) would charge for .* but the cells are too cold: −/,
  )
  await expect(page.getByText('Shaded: a source would charge')).toBeVisible()
  await page.getByLabel('Typical year').check()
  await expect(state).toHaveAttribute('data-state', 'done')
  await page
    .getByLabel('Weather file (EPW)')
    .setInputFiles({ name: 'none.epw', mimeType: 'text/plain', buffer: Buffer.from('hello') })
  await expect(page.getByRole('alert')).toContainText('line 1: This is not an EPW file')
})

test('an empty job runs too, and lists its typical values @long', async ({ page, app }) => {
  await page.goto(app.url)
  await page.getByRole('button', { name: 'New job' }).click()
  await page.getByRole('link', { name: 'Run', exact: true }).click()
  await expect(page.getByTestId('run-state')).toHaveAttribute('data-state', 'done')
  await expect(page.getByText('is unknown, so a typical value is used').first()).toBeVisible()
  await page.getByRole('link', { name: 'Bench' }).click()
  await openStation(page, 'place')
  await expect(field(page, 'place/coldestC')).toBeVisible()
})

test('a mixed bank shows who carries the current over the charge of the lithium @long', async ({
  page,
  app,
}) => {
  await page.goto(`${await app.job('0427')}/run`)
  await expect(page.getByTestId('run-state')).toHaveAttribute('data-state', 'done')
  const sharing = page.getByRole('region', { name: 'Sharing of the current' })
  await expect(sharing).toContainText('The lithium works first')
  await sharing.getByText('Figures').click()
  const half = sharing
    .getByRole('row')
    .filter({ has: page.getByRole('rowheader', { name: '50', exact: true }) })
    .getByRole('cell')
  const amps = async (i: number) => Number((await half.nth(i).textContent())!.replace('−', '-'))
  expect(await amps(0)).toBeLessThan(-6)
  expect(Math.abs(await amps(1))).toBeLessThan(1.5)
})
