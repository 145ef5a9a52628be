import { stationIds } from '#core/job/fields'
import type { Page } from '@playwright/test'
import { expect, expectSaved, field, headline, openStation, sheet, station, test } from './bench-test'

const phone = { width: 390, height: 844 }

test.describe('with one thumb', () => {
  test.use({ viewport: phone, hasTouch: true })

  /** Types into a field after a tap, or picks from its list: no mouse, no shortcut into the page. */
  async function enter(page: Page, path: string, value: string): Promise<void> {
    const at = field(page, path)
    await at.scrollIntoViewIfNeeded()
    if ((await at.getAttribute('role')) === 'radiogroup')
      return at.getByRole('radio', { name: value, exact: true }).tap()
    if (await at.evaluate((element) => element.tagName === 'SELECT')) {
      await at.selectOption({ label: value })
      return
    }
    await at.tap()
    await page.keyboard.type(value)
    await expect(at).toHaveValue(value)
    await expect(at).toHaveAttribute('aria-invalid', 'false')
  }
  async function next(page: Page, kind: string): Promise<void> {
    await page.getByTestId('next-station').tap()
    await expect(station(page, kind)).toHaveAttribute('aria-expanded', 'true')
    await expect(station(page, kind)).toBeInViewport()
  }

  test('a job is surveyed from nothing, in walking order, and ends in a verdict', async ({ page, app }) => {
    await page.goto(app.url)
    await page.getByRole('button', { name: 'New job' }).tap()
    await expect(headline(page)).toHaveText('Enter what charges the house bank')
    await page.getByRole('button', { name: 'Walk-round' }).tap()
    await station(page, 'job').tap()
    await page.getByLabel('Vehicle or vessel').tap()
    await page.keyboard.press('ControlOrMeta+a')
    await page.keyboard.type('Plover’s van')
    await next(page, 'use')
    await page.getByRole('combobox', { name: 'Kind', exact: true }).selectOption('vehicle')
    for (const [name, value] of [
      ['daysAway', '2'],
      ['dailyAh', '55'],
      ['dcAtOnceA', '22 A'],
      ['monitor', 'Shunt monitor that counts all current'],
      ['warns', 'Yes'],
    ] as const)
      await enter(page, `use/${name}`, value)
    await next(page, 'houseBank')
    for (const [name, value] of [
      ['chemistry', 'AGM'],
      ['nominalV', '12 V'],
      ['parallel', '1'],
      ['ahEach', '100'],
      ['ageYears', '6'],
      ['restedV', '12,4'],
    ] as const)
      await enter(page, `houseBank/${name}`, value)
    await next(page, 'startingBatteries')
    for (const [name, value] of [
      ['present', 'Separate starting battery'],
      ['chemistry', 'Calcium'],
      ['ah', '80'],
      ['standbyA', '30 mA'],
      ['fedByCharger', 'No'],
      ['jumpSwitch', 'No'],
    ] as const)
      await enter(page, `startingBatteries/starting-1/${name}`, value)
    await next(page, 'alternators')
    await page.getByRole('button', { name: 'Add alternator' }).tap()
    for (const [name, value] of [
      ['nominalV', '12 V'],
      ['ratedA', '180'],
      ['regulator', 'Fixed voltage'],
      ['regulatorV', '14.4'],
      ['vehicleDrawA', '18'],
      ['driveHours', '2'],
    ] as const)
      await enter(page, `alternators/alternator-1/${name}`, value)
    await next(page, 'links')
    await enter(page, 'links/link-1/kind', 'DC-DC charger')
    await page.getByRole('button', { name: 'Choose from shelf' }).tap()
    await page.getByRole('combobox', { name: 'Kind of part' }).selectOption('dcdc')
    await page.getByRole('button', { name: /^Curlew D 20/ }).tap()
    await expect(field(page, 'links/link-1/ratedA')).toHaveValue('20 A')
    for (const kind of ['chargers', 'solar', 'sources', 'generators', 'inverters', 'loads', 'conductors'])
      await next(page, kind)
    await page.getByRole('button', { name: 'Add cable' }).tap()
    for (const [name, value] of [
      ['lengthM', '15 ft'],
      ['areaMm2', '6 AWG'],
      ['fuseKind', 'Fuse on the terminal'],
      ['fuseA', '60'],
    ] as const)
      await enter(page, `conductors/cable-1/${name}`, value)
    await next(page, 'devices')
    await next(page, 'place')
    for (const [name, value] of [
      ['where', 'Cabin'],
      ['widthMm', '40 cm'],
      ['depthMm', '250'],
      ['heightMm', '300'],
      ['coldestC', '50 F'],
      ['hottestC', '38'],
    ] as const)
      await enter(page, `place/${name}`, value)
    await next(page, 'candidate')
    await page.getByRole('button', { name: 'Choose from shelf' }).tap()
    await page.getByLabel('Search the shelf').tap()
    await page.keyboard.type('brindle 100')
    await page.getByRole('button', { name: /^Brindle 100 H/ }).tap()
    await expect(field(page, 'candidate/ahEach')).toHaveValue('100 Ah')
    await expect(page.getByText('BRI-100H, version 1')).toBeVisible()

    await expect(headline(page)).toHaveText('Suits')
    await expectSaved(page)
    await page.getByRole('button', { name: 'Paths' }).tap()
    await expect(page.getByRole('article', { name: 'Alternator' })).toContainText('through a DC-DC charger')
    await page.reload()
    await expect(headline(page)).toHaveText('Suits')
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(phone.width)
  })

  test('no entry of any station is wider than the phone, folded out or not @long', async ({ page, app }) => {
    await page.goto(await app.job('0430'))
    await page.getByRole('button', { name: 'Walk-round' }).tap()
    for (const kind of stationIds) {
      await openStation(page, kind)
      await sheet(page)
        .getByRole('button', { name: /^(Seldom needed|More of)/ })
        .evaluateAll((folds: HTMLElement[]) => folds.forEach((fold) => fold.click()))
      const widest = await sheet(page)
        .locator('[data-step]')
        .evaluateAll((steps) => Math.max(0, ...steps.map((step) => step.getBoundingClientRect().right)))
      expect(widest, kind).toBeLessThanOrEqual(phone.width)
    }
  })
})

test('a station folds away seldom needed fields, until they are known @long', async ({ page, app }) => {
  await page.goto(await app.job('0417'))
  await openStation(page, 'place')
  await expect(field(page, 'place/loadLimitKg')).toBeHidden()
  await page.getByText(/^Seldom needed/).click()
  await field(page, 'place/loadLimitKg').fill('40 lb')
  await expect(page.locator('[data-check="battery.weight@candidate"]')).toHaveAttribute(
    'data-verdict',
    'suits-once-changed',
  )
  await page.reload()
  await openStation(page, 'place')
  await expect(field(page, 'place/loadLimitKg')).toHaveValue('18.144 kg')
})

test('text typed in a folded field arrives to the last digit, and stays focused through checks @long', async ({
  page,
  app,
}) => {
  await page.goto(await app.job('0417'))
  await openStation(page, 'place')
  await page.getByText(/^Seldom needed/).click()
  const limit = field(page, 'place/loadLimitKg')
  await limit.click()
  await page.keyboard.type('29.75', { delay: 120 })
  await expect(limit).toBeFocused()
  await expect(limit).toHaveValue('29.75')
  await page.keyboard.press('Tab')
  await expect(limit).toHaveValue('29.75 kg')
  await openStation(page, 'alternators')
  await page.getByText(/^Seldom needed/).click()
  const wire = field(page, 'alternators/alternator-1/fieldWire')
  await wire.getByRole('radio').first().focus()
  await page.keyboard.press('2')
  const taken = wire.getByRole('radio', { checked: true })
  await expect(taken).toHaveText('Field wire brought out')
  await page.keyboard.press('ArrowRight')
  await expect(taken).toHaveText('Temperature sensor')
  await expect(taken).toBeFocused()
  await expectSaved(page)
})

test('readings are a table: cell by cell, or pasted; a missing value is named', async ({ page, app }) => {
  await page.goto(await app.job('0417'))
  await openStation(page, 'houseBank')
  const each = field(page, 'houseBank/restedEachV').getByRole('textbox')
  await expect(each).toHaveCount(3)
  await expect(each.nth(1)).toHaveValue('12.44')
  await each.nth(0).fill('12,62')
  await each.nth(1).fill('a bit low')
  await expect(sheet(page)).toContainText('Row 2, resting: “a bit low” is not a number')
  await each.nth(1).fill('12.5')
  await each.nth(2).focus()
  await page.keyboard.type('12.58')
  await expect(each).toHaveCount(4)
  await expectSaved(page)
  await openStation(page, 'alternators')
  await page.getByText(/^Seldom needed/).click()
  const readings = field(page, 'alternators/alternator-1/temperatureReadings').getByRole('textbox')
  const paste = (text: string) =>
    readings.first().evaluate((entry, pasted) => {
      const clipboardData = new DataTransfer()
      clipboardData.setData('text', pasted)
      entry.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }))
    }, text)
  await paste('60\t2000\t10\t82\n75\t2000\t20\t95')
  await expect(readings.nth(7)).toHaveValue('95')
  await readings.nth(8).focus()
  await page.keyboard.type('80')
  await expect(sheet(page)).toContainText('Row 3, alternator speed: still to be entered')
  await page.reload()
  await expect(readings.nth(8)).toHaveValue('80')
})

test('notes and photos stay with their station @long', async ({ page, app }) => {
  await page.goto(await app.job('0421'))
  await openStation(page, 'place')
  const place = sheet(page)
  await place.getByRole('button', { name: 'Note' }).click()
  await place.getByLabel('Note', { exact: true }).fill('Frost on the lid <b>at noon</b>')
  await place.getByLabel('Add a photo').setInputFiles(new URL('./pixel.png', import.meta.url).pathname)
  await expect(place.getByRole('img', { name: 'Photo: pixel.png' })).toBeVisible()
  await place
    .getByLabel('Add a photo')
    .setInputFiles({ name: 'note.png', mimeType: 'image/png', buffer: Buffer.from('not a picture') })
  await expect(place.getByRole('alert')).toContainText('note.png is not a picture')
  await expectSaved(page)
  await page.reload()
  await openStation(page, 'place')
  await expect(place.getByLabel('Note', { exact: true })).toHaveValue('Frost on the lid <b>at noon</b>')
  await place.getByRole('button', { name: 'Photo: pixel.png' }).click()
  await page.getByRole('button', { name: 'Remove this photo' }).click()
  await expect(place.getByRole('img')).toHaveCount(0)
})

test('a job can be copied, or begun from a typical one and corrected @long', async ({ page, app }) => {
  await page.goto(await app.job('0424'))
  await page.getByRole('button', { name: 'Copy job' }).click()
  await expect(page.locator('main')).toContainText('Copy of The Quillback')
  await expect(headline(page)).toHaveText('Measure first')
  await page.goto(app.url)
  await page.getByRole('button', { name: 'New from template' }).click()
  await page.getByRole('button', { name: /Camper van, older/ }).click()
  await openStation(page, 'alternators')
  await expect(page.getByLabel('How rated current is known')).toHaveValue('assumed')
  await field(page, 'alternators/alternator-1/ratedA').fill('90')
  await expectSaved(page)
})

test('Back and Escape go one step back within the job, and the last station ends with Done', async ({
  page,
  app,
}) => {
  await page.goto(await app.job('0417'))
  await station(page, 'chargers').click()
  await expect(page).toHaveURL(/station=chargers/)
  await openStation(page, 'place')
  await page.goBack()
  await expect(station(page, 'chargers')).toHaveAttribute('aria-expanded', 'true')
  await page.goBack()
  await expect(sheet(page)).toHaveCount(0)
  await expect(page).toHaveURL(/jobs/)
  await page.goForward()
  await expect(station(page, 'chargers')).toHaveAttribute('aria-expanded', 'true')
  await page.keyboard.press('Escape')
  await expect(sheet(page)).toHaveCount(0)
  await expect(station(page, 'chargers')).toBeFocused()
  await openStation(page, 'candidate')
  await page.getByRole('button', { name: 'Done', exact: true }).click()
  await expect(sheet(page)).toHaveCount(0)
})

test('the job station keeps its number, and the find box opens on every view', async ({ page, app }) => {
  await page.goto(await app.job('0417'))
  await openStation(page, 'job')
  const number = page.getByLabel('Job number')
  await number.fill('')
  await expect(sheet(page).getByRole('alert')).toHaveText('Enter a job number. 0417 stays until then.')
  await number.blur()
  await expect(number).toHaveValue('0417')
  await page.getByRole('link', { name: 'Wiring' }).click()
  await expect(page.getByRole('heading', { name: 'Wiring', exact: true, level: 1 })).toBeVisible()
  await page.keyboard.press('/')
  await page.getByRole('combobox').fill('drop of the isol')
  await page.keyboard.press('Enter')
  await expect(field(page, 'links/link-1/dropV')).toBeFocused()
})

test('several values are dictated into the find box, shown, set together, and taken back by one undo', async ({
  page,
  app,
}) => {
  await page.goto(await app.job('0417'))
  await expect(headline(page)).toBeVisible()
  await page.keyboard.press('/')
  const box = page.getByRole('combobox')
  await box.fill('alternator 80 amps 14.6 volts measured, charger 1 float 13.4, teapot 3 amps')
  const shown = page.getByTestId('dictated')
  await expect(shown).toContainText(/rated current 80 A, measured/)
  await expect(shown).toContainText('Not understood: teapot 3 amps')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('status').filter({ hasText: 'Set:' })).toContainText('14.6 V')
  await page.keyboard.press('Escape')
  await expectSaved(page)
  await openStation(page, 'alternators')
  await expect(field(page, 'alternators/alternator-1/ratedA')).toHaveValue(/^80/)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(field(page, 'alternators/alternator-1/ratedA')).toHaveValue(/^90/)
  await expect(field(page, 'alternators/alternator-1/regulatorV')).not.toHaveValue(/^14\.6/)
})
