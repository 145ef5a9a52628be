import { readFileSync } from 'node:fs'
import { expect, expectSaved, test } from './bench-test'

test('a measured audit, from the first switch to saved loads, over a dropped connection and a reload @long', async ({
  page,
  app,
}) => {
  await page.goto(`${await app.job('0424')}/loads`)
  const state = page.getByTestId('stream-state')
  const found = page.getByTestId('found').getByRole('listitem')
  const readings = async (): Promise<number> => Number(/(\d+) readings/.exec(await state.innerText())![1])
  await page.getByLabel('Speed').selectOption('30')
  await page.getByRole('button', { name: 'Start the demo meter' }).click()
  await expect(found).not.toHaveCount(0)
  await expect(found.first()).toContainText('4.4 A')

  await app.stop()
  await expect(state).toHaveAttribute('data-state', 'lost')
  await expect(state).toContainText('what was read is kept')
  const before = await readings()
  const foundBefore = await found.count()
  expect(before).toBeGreaterThan(50)
  await app.start()
  await expect(state).toHaveAttribute('data-state', 'connected')
  await expect.poll(readings).toBeGreaterThan(before)
  expect(await found.count()).toBeGreaterThanOrEqual(foundBefore)
  await page.getByRole('button', { name: 'Stop' }).click()
  const kept = await readings()

  await page.reload()
  await expect(state).toContainText(`${kept} readings`)
  await page.getByLabel('Speed').selectOption('30')
  await page.getByRole('button', { name: 'Go on' }).click()
  await expect(state).toHaveAttribute('data-state', 'ended')
  expect(await readings()).toBe(1680)
  await expect(found).toHaveCount(8)

  const name = async (draws: string, text: string): Promise<void> =>
    found.filter({ hasText: draws }).getByPlaceholder('Name this load').fill(text)
  await name('4.4 A', 'Fridge, compressor')
  await expect(found.first().getByLabel('Hours a day')).toHaveValue('24 h')
  await expect(found.first()).toContainText('cycling, 3 times')
  await name('6.8 A', 'Water pump')
  await found.filter({ hasText: '6.8 A' }).getByLabel('Hours a day').fill('20 min')
  await page.getByRole('button', { name: 'Keep these 2 loads' }).click()
  await expect(page.getByText('2 loads kept from the measurement.')).toBeVisible()
  const fridge = page.locator('[data-part="loads/load-5"]')
  await expect(fridge.getByRole('textbox', { name: 'Name' })).toHaveValue('Fridge, compressor')
  await expect(fridge.getByLabel('Share of time on', { exact: true })).toHaveValue('37 %')
  await expect(fridge).toContainText('39 Ah')
  await expectSaved(page)
})

test('loads by hand, from the library and from a file add up by part of day', async ({ page, app }) => {
  await page.goto(app.url)
  await page.getByRole('button', { name: 'New job' }).click()
  await page.getByRole('link', { name: 'Loads' }).click()
  await expect(page.getByTestId('daily')).toHaveText('unknown')
  await page.getByRole('button', { name: 'Add a load' }).click()
  const first = page.locator('[data-part="loads/load-1"]')
  await expect(first.getByRole('textbox', { name: 'Name' })).toBeFocused()
  await page.keyboard.type('Lamp')
  await first.getByLabel('Draw', { exact: true }).fill('24 W')
  await expect(first).toContainText('“W” is not a unit for A')
  await first.getByLabel('Draw', { exact: true }).fill('2,5')
  await first.getByLabel('Hours a day', { exact: true }).fill('4')
  await first.getByLabel('When', { exact: true }).selectOption('evening')
  await expect(page.getByTestId('daily')).toHaveText('10 Ah')
  await page.getByRole('button', { name: 'Choose from library' }).click()
  await page.getByRole('button', { name: /^Anchor light/ }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('table', { name: 'Energy by part of the day' })).toContainText(
    'Evening, 18 to 24',
  )
  await page.getByLabel('Import CSV').setInputFiles({
    name: 'loads.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('name,supply,amps (A),hours (h)\nPump,dc,8,1\nOven,gas,4,1\n'),
  })
  await expect(page.getByText('loads.csv: 1 of 2 loads added, 1 with faults left out.')).toBeVisible()
  await expect(page.getByRole('list', { name: 'Faults in the file' })).toContainText(
    'Line 3, supply: “gas” is not one of dc, ac',
  )
  await expect(page.locator('[data-part]')).toHaveCount(3)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Export CSV' }).click(),
  ])
  expect(readFileSync(await download.path(), 'utf8')).toContain('Lamp,dc,2.5,')
  await page.getByRole('button', { name: 'More of Pump' }).click()
  await page.getByRole('button', { name: 'Remove Pump' }).click()
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.locator('[data-part]')).toHaveCount(3)
  await expectSaved(page)
})

test('a recording is replayed through the same path, and a bad one is refused by its line @long', async ({
  page,
  app,
}) => {
  await page.goto(`${await app.job('0427')}/loads`)
  const rows = Array.from({ length: 240 }, (_, i) => `${i / 4},${-(i < 80 ? 1 : i < 160 ? 7 : 1)},12.6`)
  await page.getByLabel('Replay a recording').setInputFiles({
    name: 'night.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['time (s),current (A),voltage (V)', ...rows].join('\n')),
  })
  await expect(page.getByTestId('stream-state')).toHaveAttribute('data-state', 'ended')
  await expect(page.getByTestId('found').getByRole('listitem')).toHaveCount(1)
  await expect(page.getByTestId('found')).toContainText('6 A')
  await page.getByLabel('Replay a recording').setInputFiles({
    name: 'bad.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('time (s),current (A),voltage (V)\n0,1,12\n0,1,12\n'),
  })
  await expect(page.getByRole('alert')).toContainText(
    'bad.csv: line 3, time: is not later than the row before. Nothing was imported.',
  )
})
