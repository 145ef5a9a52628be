import AxeBuilder from '@axe-core/playwright'
import type { Locator, Page } from '@playwright/test'
import { expect, expectSaved, field, headline, openStation, sheet, test } from './bench-test'
import { blankPhoto, codePhoto, photoFile, platePhoto, type PhotoFile } from './plates'

const charger = [
  'Model: TER-12/30',
  'S/N: P4256298',
  'Input: 220-240 V~ 50/60 Hz 2.4 A',
  'Output: 12 V 30 A',
  'Float voltage: 13.6 V',
  'Equalisation: 14.4 V',
]

const dialog = (page: Page): Locator => page.getByRole('dialog')
const values = (page: Page): Locator => dialog(page).getByRole('list', { name: 'Values on the label' })
const value = (page: Page, name: RegExp): Locator => values(page).getByRole('checkbox', { name })
const give = (page: Page, file: PhotoFile): Promise<void> =>
  dialog(page)
    .getByLabel(/^Choose (?:a|another) photo$/)
    .setInputFiles(file)
const read = async (page: Page, part: string, file: PhotoFile): Promise<void> => {
  await page.getByRole('button', { name: new RegExp(`^Read label ?: ${part}`) }).click()
  await give(page, file)
}

test.describe('on a phone', () => {
  test.use({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
    serviceWorkers: 'allow',
  })

  test('the photo of a plate sets the confirmed values, changes the verdict, and works without signal @long', async ({
    page,
    app,
  }) => {
    await page.goto(app.url)
    await page.evaluate(async () => {
      await navigator.serviceWorker.ready
    })
    const address = `${await app.job('0417')}?column=walk&station=chargers`
    await page.goto(address)
    await expect(headline(page)).toHaveText('Suits after 3 changes')
    await read(page, 'Shore charger', photoFile(await platePhoto('Battery Charger', charger, 1)))
    await expect(value(page, /^Voltage of that stage 14.4 V/)).toBeChecked()
    await expect(value(page, /^Serial number P4256298/)).toBeChecked()
    await expect(headline(page), 'nothing is set before it is confirmed').toHaveText('Suits after 3 changes')
    const { violations } = await new AxeBuilder({ page }).setLegacyMode().analyze()
    expect(violations.map(({ id }) => id)).toEqual([])
    // A value shows where it stands on the plate, and one can be left out.
    const float = value(page, /^Float voltage 13.6 V instead of 13.5 V/)
    await expect(float, 'what was measured is not replaced by itself').not.toBeChecked()
    await float.check()
    await float.focus()
    await expect(dialog(page).locator('[data-box="floatV"]')).toHaveClass(/stroke-changed/)
    await value(page, /^Model/).uncheck()
    await dialog(page)
      .getByRole('button', { name: /^Use \d+ values$/ })
      .click()
    await expect(headline(page)).toHaveText('Suits after 2 changes')
    await expect(field(page, 'chargers/charger-1/equaliseV')).toHaveValue('14.4 V')
    await expect(field(page, 'chargers/charger-1/floatV')).toHaveValue('13.6 V')
    await expect(sheet(page).getByLabel('Serial number')).toHaveValue('P4256298')
    await expect(sheet(page).getByRole('img', { name: 'Photo: Label: Shore charger' })).toBeVisible()
    await expectSaved(page)
    const { pathname } = new URL(await app.job('0417'))
    const stored = await fetch(`${app.url}/api${pathname}`)
    const { document } = (await stored.json()) as {
      document: { chargers: Record<string, Record<string, { how?: string }>> }
    }
    expect(document.chargers['charger-1']!.floatV).toMatchObject({ value: 13.6, how: 'label' })

    // One step of undo takes all of it back.
    await page.getByRole('button', { name: 'Undo' }).click()
    await expect(field(page, 'chargers/charger-1/equaliseV')).toHaveValue('15.5 V')
    await expect(headline(page)).toHaveText('Suits after 3 changes')

    // Without signal the reader is on the device.
    await page.context().setOffline(true)
    await app.stop()
    await page.goto(address)
    await expect(headline(page)).toBeVisible()
    await read(page, 'Shore charger', photoFile(await platePhoto('Battery Charger', charger, 1)))
    await expect(value(page, /^Voltage of that stage/)).toBeChecked()
    await dialog(page)
      .getByRole('button', { name: /^Use \d+ values$/ })
      .click()
    await expect(headline(page)).toHaveText('Suits after 2 changes')
  })
})

test('a photo that is no plate is kept, and says that nothing is readable @long', async ({ page, app }) => {
  await page.goto(await app.job('0417'))
  await openStation(page, 'chargers')
  await read(page, 'Shore charger', photoFile(await blankPhoto(900, 600)))
  await expect(dialog(page).getByRole('alert')).toHaveText('Nothing readable on this photo. It is kept.')
  await expect(dialog(page).getByRole('button', { name: /^Use/ })).toHaveCount(0)
  await page.keyboard.press('Escape')
  await expect(sheet(page).getByRole('img', { name: 'Photo: Label: Shore charger' })).toBeVisible()
})

test('a file that is no photo, cut off or too large is refused in words, and print that looks like markup stays print @long', async ({
  page,
  app,
}) => {
  await page.goto(await app.job('0417'))
  await openStation(page, 'chargers')
  const alert = dialog(page).getByRole('alert')
  await read(
    page,
    'Shore charger',
    photoFile(
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" onload="document.title=1"/>'),
      'plate.jpg',
    ),
  )
  await expect(alert).toHaveText('This is no photo. Choose a JPEG, PNG or WebP picture.')
  const whole = await platePhoto('Battery Charger', charger, 1)
  await give(page, photoFile(whole.subarray(0, whole.length >> 1)))
  await expect(alert).toHaveText('This photo is cut off: its end is missing. Take it again.')
  await give(page, photoFile(await blankPhoto(12_000, 9_000)))
  await expect(alert).toHaveText(
    'This photo has 108 million pixels. 64 million is the most: take it with a lower setting.',
  )
  const markup = ['<img src=x onerror=alert(1)>', 'Model: <b>X-12</b>', 'Float voltage: 13.8 V']
  page.on('dialog', () => expect('a dialog').toBe('never shown'))
  await give(page, photoFile(await platePhoto('<script>alert(1)</script>', markup, 1)))
  await expect(value(page, /^Float voltage 13.8 V/)).toBeVisible()
  expect(await dialog(page).locator('b, script, img[src="x"]').count()).toBe(0)
})

test('a code on the label is the serial number, or leads to the part of the shelf @long', async ({
  page,
  app,
}) => {
  await page.goto(await app.job('0427'))
  await openStation(page, 'candidate')
  await page.getByRole('button', { name: /^Read label/ }).click()
  await give(page, photoFile(await codePhoto('LT-4256298')))
  await expect(value(page, /^Serial number LT-4256298/)).toBeChecked()
  await give(page, photoFile(await codePhoto('BRI-200H')))
  await expect(dialog(page)).toContainText('Looks like Brindle 200 H on your shelf.')
  await dialog(page).getByRole('button', { name: 'Use Brindle 200 H' }).click()
  await expect(sheet(page)).toContainText(/BRI-200H, version \d/)
})

test('a new part of the shelf comes from a photo of its label @long', async ({ page, app }) => {
  await page.goto(`${app.url}/shelf?kind=batteries`)
  await page
    .getByLabel('New part from a photo')
    .setInputFiles(
      photoFile(
        await platePhoto(
          'LiFePO4 Battery',
          [
            'Model: PIP-150X',
            'Nominal voltage: 12.8 V',
            'Capacity: 150 Ah',
            'Energy: 1920 Wh',
            'Charge voltage: 14.2 to 14.6 V',
            'Max. charge current: 100 A',
          ],
          7,
        ),
      ),
    )
  await expect(value(page, /^Capacity of each 150 Ah/)).toBeChecked()
  await dialog(page)
    .getByRole('button', { name: /^Use \d+ values$/ })
    .click()
  const part = page.getByRole('region', { name: 'New battery' })
  await expect(part.getByLabel('Name')).toHaveValue('PIP-150X')
  await expect(part.getByLabel('Capacity of each')).toHaveValue('150 Ah')
  await part.getByRole('button', { name: 'Put on the shelf' }).click()
  await expect(page.getByRole('region', { name: 'PIP-150X' })).toBeVisible()
})

test('a table of a supplier is matched by its words, shown, and imported @long', async ({ page, app }) => {
  await page.goto(`${app.url}/shelf?kind=chargers`)
  const table =
    'Artikel-Nr.;Bezeichnung;Ladestrom (A);Absorptionsspannung;Farbe\nPIP-7;Pipit 7;7;14,4 V;blau\nPIP-9;Pipit 9;viele;14,4 V;grün\n'
  await page
    .getByLabel('Import CSV')
    .setInputFiles({ name: 'list.csv', mimeType: 'text/csv', buffer: Buffer.from(table, 'latin1') })
  await expect(dialog(page)).toContainText('4 of 5 columns are matched.')
  await expect(dialog(page).getByLabel('Ladestrom (A) becomes')).toHaveValue('ratedA')
  await expect(dialog(page).getByLabel('Farbe becomes').locator('option:checked')).toHaveText('Leave out')
  await expect(dialog(page).getByRole('row', { name: /Bezeichnung/ })).toContainText('Pipit 7 · Pipit 9')
  await expect(dialog(page).getByRole('row', { name: /Farbe/ })).toContainText('blau · grün')
  const { violations } = await new AxeBuilder({ page }).setLegacyMode().analyze()
  expect(violations.map(({ id }) => id)).toEqual([])
  await dialog(page).getByLabel('Farbe becomes').selectOption('name')
  await expect(dialog(page).getByRole('alert')).toHaveText('Two columns become Name. Leave one out.')
  await dialog(page).getByLabel('Farbe becomes').selectOption({ label: 'Leave out' })
  await dialog(page).getByRole('button', { name: 'Read 4 columns' }).click()
  await expect(dialog(page)).toContainText('1 of 2 rows can be taken.')
  await dialog(page).getByRole('button', { name: 'Import the 1 good rows' }).click()
  await expect(dialog(page)).toContainText('1 new')
  await dialog(page).getByRole('button', { name: 'Done' }).click()
  await expect(page.getByRole('button', { name: /Pipit 7/ })).toBeVisible()
})
