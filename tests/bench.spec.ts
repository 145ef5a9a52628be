import {
  check,
  choose,
  closeStation,
  expect,
  expectSaved,
  field,
  headline,
  openStation,
  saveState,
  sheet,
  station,
  test,
} from './bench-test'

test('the workboat: the answer is there before a click, and turning equalise off moves it at once', async ({
  page,
  app,
}) => {
  await page.goto(await app.job('0417'))
  await expect(headline(page)).toHaveText('Suits after 3 changes')
  await expect(page.getByTestId('reason')).toContainText(
    'Shore charger equalises at 15.5 V; the battery allows 14.8 V.',
  )
  await expect(page.getByTestId('reason')).toContainText(
    'The diode isolator drops 0.7 V. The battery gets 13.67 V and needs 14.2 V.',
  )
  await expect(page.getByTestId('next')).toContainText('Switch equalise off', { ignoreCase: true })
  await expect(check(page, 'charger.equalise@chargers/charger-1')).toHaveAttribute(
    'data-verdict',
    'suits-once-changed',
  )
  await expect(
    page.getByRole('img', {
      name: /Shore charger: charge window 14\.2 V to 14\.6 V.*equalise 15\.5 V: Suits after changes/,
    }),
  ).toBeVisible()
  await expect(page.getByRole('table', { name: 'Currents of Alternator' })).toContainText(
    'limited by alternator all day',
  )

  await openStation(page, 'chargers')
  await choose(page, 'chargers/charger-1/equaliseStage', 'off')
  await closeStation(page)
  await expect(check(page, 'charger.equalise@chargers/charger-1')).toHaveAttribute('data-verdict', 'suits')
  await expect(headline(page)).toHaveText('Suits after 2 changes')
  await expectSaved(page)

  await page.reload()
  await expect(headline(page)).toHaveText('Suits after 2 changes')
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled()
  await page.keyboard.press('Control+z')
  await expect(headline(page)).toHaveText('Suits after 3 changes')
  await expectSaved(page)
})

test('undo and redo go over the whole job', async ({ page, app }) => {
  await page.goto(await app.job('0417'))
  await openStation(page, 'chargers')
  await choose(page, 'chargers/charger-1/equaliseStage', 'off')
  await field(page, 'chargers/charger-1/absorptionV').fill('14,9')
  await openStation(page, 'place')
  await field(page, 'place/coldestC').fill('-4 F')
  await field(page, 'place/coldestC').blur()
  await expect(field(page, 'place/coldestC')).toHaveValue('−20 °C')
  await expect(check(page, 'charger.absorption@chargers/charger-1')).toHaveAttribute(
    'data-verdict',
    'does-not-suit',
  )
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(field(page, 'place/coldestC')).toHaveValue('6 °C')
  await closeStation(page)
  await page.locator('h1').click()
  await page.keyboard.press('Control+z')
  await expect(check(page, 'charger.absorption@chargers/charger-1')).toHaveAttribute('data-verdict', 'suits')
  await page.keyboard.press('Control+z')
  await expect(headline(page)).toHaveText('Suits after 3 changes')
  await page.keyboard.press('Control+Shift+z')
  await page.keyboard.press('Control+Shift+z')
  await expect(check(page, 'charger.absorption@chargers/charger-1')).toHaveAttribute(
    'data-verdict',
    'does-not-suit',
  )
  await expectSaved(page)
})

test('the rescue van: two reasons, and the cold @long', async ({ page, app }) => {
  await page.goto(await app.job('0421'))
  await expect(headline(page)).toHaveText('Does not suit')
  for (const id of ['link.vsr-never-opens', 'alternator.computer-controlled'])
    await expect(check(page, `${id}@links/link-1`)).toHaveAttribute('data-verdict', 'does-not-suit')
  await expect(page.getByRole('article', { name: 'Station charger' })).toContainText(
    'At −18 °C the BMS refuses all charge from Station charger',
  )
})

test('one missing voltage becomes the first measurement, with the values that decide', async ({
  page,
  app,
}) => {
  await page.goto(await app.job('0417'))
  await openStation(page, 'alternators')
  await field(page, 'alternators/alternator-1/regulatorV').fill('')
  const measure = page.getByTestId('measure-next').getByRole('listitem')
  await expect(measure.first()).toContainText('Alternator: regulator voltage')
  await expect(measure.first()).toContainText('settles 5 of 5')
  await expect(page.getByTestId('next')).toContainText('It settles 5 checks.')
  await closeStation(page)
  await expect(check(page, 'alternator.voltage@links/link-1')).toHaveAttribute(
    'data-verdict',
    'measure-first',
  )
  await expect(check(page, 'charger.absorption@chargers/charger-1')).toHaveAttribute('data-verdict', 'suits')

  await check(page, 'alternator.voltage@links/link-1').click()
  const why = page.getByRole('region', { name: /^Why/ })
  await expect(why).toContainText('Verdict by value')
  await expect(why).toContainText(/14\.\d+ to 14\.\d+ V: Suits/)
})

test('trying a remedy shows the verdicts that would follow and changes nothing', async ({ page, app }) => {
  await page.goto(await app.job('0421'))
  await expect(headline(page)).toHaveText('Does not suit')
  await page.keyboard.press('t')
  const why = page.getByRole('region', { name: /^Why/ })
  await expect(why.getByRole('status')).toContainText('Suits after')
  await expect(why.getByRole('status')).toContainText(
    'No longer applies: The alternator, opening of the relay at rest',
  )
  await expect(why.getByRole('status')).toContainText('6 checks solved, 6 remain.')
  await expect(headline(page)).toHaveText('Does not suit')
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
  await page.keyboard.press('t')
  await expect(why.getByRole('status')).toHaveCount(0)
})

test('the library bus has two system voltages, and an automatic charger must be measured @long', async ({
  page,
  app,
}) => {
  await page.goto(await app.job('0424'))
  await expect(page.getByRole('banner').or(page.locator('main > header')).first()).toContainText(
    '24 V chassis, 12 V house',
  )
  await check(page, 'dcdc.voltages@links/link-1').click()
  await expect(page.getByRole('region', { name: /^Why/ })).toContainText('24 → 12 V')
  await expect(headline(page)).toHaveText('Measure first')
  await page.keyboard.press('m')
  await expect(field(page, 'chargers/charger-1/absorptionV')).toBeFocused()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('14,4')
  await page.getByLabel('How absorption voltage is known').selectOption('measured')
  await openStation(page, 'chargers')
  await field(page, 'chargers/charger-1/floatV').fill('13.5')
  await page.getByLabel('How float voltage is known').selectOption('measured')
  await expect(headline(page)).toHaveText('Suits')
  await expect(page.getByTestId('next')).toContainText('Print the summary')
})

test('values are read as people write them, and shown as understood @long', async ({ page, app }) => {
  await page.goto(await app.job('0417'))
  await openStation(page, 'conductors')
  const size = field(page, 'conductors/cable-1/areaMm2')
  for (const [typed, shown] of [
    ['10 AWG', '5.26 mm²'],
    ['2x16', '32 mm²'],
    ['6mm2', '6 mm²'],
  ] as const) {
    await size.fill(typed)
    await expect(sheet(page)).toContainText(`read as ${shown}`)
    await size.blur()
    await expect(size).toHaveValue(shown)
  }
  const length = field(page, 'conductors/cable-1/lengthM')
  await length.fill('50 ft')
  await length.blur()
  await expect(length).toHaveValue('15.24 m')
  await length.fill('about five')
  await expect(sheet(page)).toContainText('Not a number of m. Not used until it can be read.')
  await expect(length).toHaveAttribute('aria-invalid', 'true')
  await length.fill('900 m')
  await expect(sheet(page)).toContainText('Must be 0.05 to 100 m')
  await page.reload()
  await openStation(page, 'conductors')
  await expect(length).toHaveValue('900 m')
  await length.fill('3')
  await length.press('ArrowUp')
  await expect(length).toHaveValue('3.5 m')
  await expectSaved(page)
})

test('keys find, step and go, and none fires while typing', async ({ page, app }) => {
  await page.goto(await app.job('0417'))
  await expect(headline(page)).toBeVisible()
  const why = page.getByRole('heading', { name: /^Why/ })
  const first = await why.textContent()
  await page.keyboard.press(']')
  await expect(why).not.toHaveText(first!)
  await page.keyboard.press('[')
  await expect(why).toHaveText(first!)
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('/')
  await page.getByRole('combobox').fill('drop of the isol')
  await page.keyboard.press('Enter')
  await expect(field(page, 'links/link-1/dropV')).toBeFocused()
  await page.keyboard.press('t')
  await page.keyboard.press('m')
  await expect(page.getByRole('region', { name: /^Why/ }).getByRole('status')).toHaveCount(0)
  await expect(field(page, 'links/link-1/dropV')).toBeFocused()
  await page.locator('h1').click()
  await page.keyboard.press('g')
  await page.keyboard.press('s')
  await expect(page).toHaveURL(/papers$/)
  await page.keyboard.press('g')
  await page.keyboard.press('b')
  // The bench itself: the head with the verdict is on every view.
  await expect(why).toBeVisible()
  await page.keyboard.press('g')
  await page.keyboard.press('j')
  await expect(page.getByRole('heading', { name: 'Jobs' })).toBeVisible()
})

test('a job from nothing, by keyboard alone, to a verdict', async ({ page, app }) => {
  await page.goto(app.url)
  await page.getByRole('button', { name: 'New job' }).press('Enter')
  await expect(page.getByRole('heading', { name: 'Three questions to start with' })).toBeVisible()
  await expect(headline(page)).toHaveText('Enter what charges the house bank')
  await page.getByRole('button', { name: 'Mains charger', exact: true }).press('Enter')
  await expect(headline(page)).toHaveText('Enter the house bank')
  await page.getByRole('button', { name: '2 × 110 Ah flooded' }).press('Enter')
  await expect(headline(page)).toHaveText('Choose the new battery')
  await page.getByRole('button', { name: 'Choose from the shelf' }).press('Enter')
  await page.getByRole('button', { name: /^Brindle 200 H/ }).press('Enter')
  await expect(page.getByRole('heading', { name: 'Three questions to start with' })).toHaveCount(0)
  await expect(headline(page)).toHaveText('Measure first')
  await expect(station(page, 'chargers')).toContainText('something to measure')
  await expectSaved(page)
})

test('a part can be added, named and taken away again @long', async ({ page, app }) => {
  await page.goto(await app.job('0417'))
  await openStation(page, 'devices')
  await page.getByRole('button', { name: 'Add device' }).click()
  const added = page.getByRole('rowgroup', { name: 'Device 2' })
  await added.getByLabel('Name', { exact: true }).fill('Bilge alarm <b>')
  await expect(page.getByRole('rowgroup', { name: 'Bilge alarm <b>' })).toBeVisible()
  await page.getByRole('button', { name: 'Remove Wheelhouse gauge' }).click()
  await expect(page.getByRole('rowgroup', { name: 'Wheelhouse gauge' })).toHaveCount(0)
  await expectSaved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('rowgroup', { name: 'Wheelhouse gauge' })).toBeVisible()
  await expect(saveState(page)).toHaveAttribute('data-state', 'saved')
})

test('a slip is noticed without stopping, “m” goes on from where it led, and the page itself never scrolls @long', async ({
  page,
  app,
}) => {
  await page.goto(await app.job('0424'))
  await expect(headline(page)).toHaveText('Measure first')
  await page.keyboard.press('m')
  const first = field(page, 'chargers/charger-1/absorptionV')
  await expect(first).toBeFocused()
  await page.keyboard.press('m')
  await expect(first).not.toBeFocused()
  await expect(first).toHaveValue('14.4 V')
  await openStation(page, 'alternators')
  await field(page, 'alternators/alternator-1/regulatorV').fill('1.44')
  await expect(page.getByTestId('hint')).toContainText(
    '1.44 V is unusual here, where 27.2 to 29.2 V is common',
  )
  await page.getByRole('button', { name: 'Keep it' }).click()
  await expect(page.getByTestId('hint')).not.toContainText('unusual')
  expect(await page.evaluate(() => document.documentElement.scrollHeight)).toBeLessThanOrEqual(800)
})

test('a whole line in the find box is shown as understood, set by Enter, and followed by the next @long', async ({
  page,
  app,
}) => {
  await page.goto(await app.job('0417'))
  await expect(headline(page)).toBeVisible()
  await page.keyboard.press('/')
  const dialog = page.getByRole('dialog', { name: 'Find' })
  await page.keyboard.type('regulator 14.2 measured')
  await expect(dialog.getByRole('option').first()).toHaveText(
    /Alternator: regulator voltage 14.2 V, measured\s*now 14.4 V/,
  )
  await page.keyboard.press('Enter')
  await expect(dialog.getByRole('status')).toHaveText('Set: Alternator: regulator voltage 14.2 V, measured.')
  await page.keyboard.type('charger float 13,4')
  await page.keyboard.press('Enter')
  await expect(dialog.getByRole('status')).toContainText('float voltage 13.4 V')
  // A field is found by its hint, and by its value.
  await page.keyboard.type('14.2 V')
  await expect(dialog.getByRole('option', { name: /regulator voltage/ })).toBeVisible()
  await page.keyboard.press('Escape')
  await openStation(page, 'alternators')
  await expect(field(page, 'alternators/alternator-1/regulatorV')).toHaveValue('14.2 V')
  await openStation(page, 'chargers')
  await expect(field(page, 'chargers/charger-1/floatV')).toHaveValue('13.4 V')
  // Loaded again, the page goes on where it was.
  await field(page, 'chargers/charger-1/floatV').focus()
  await expectSaved(page)
  await page.reload()
  await expect(field(page, 'chargers/charger-1/floatV')).toBeFocused()
  expect(await page.getByTestId('station').count()).toBe(1)
})

test('find and the shelf open with the cursor where one types, and a space stays there @long', async ({
  page,
  app,
}) => {
  await page.goto(await app.job('0417'))
  await expect(headline(page)).toBeVisible()
  await page.keyboard.press('/')
  await page.keyboard.type('float voltage')
  await expect(page.getByRole('combobox', { name: /^Find/ })).toHaveValue('float voltage')
  await page.keyboard.press('Escape')
  await openStation(page, 'chargers')
  await page.getByRole('button', { name: 'Choose from shelf' }).click()
  await page.keyboard.type('a 30')
  await expect(page.getByLabel('Search the shelf')).toHaveValue('a 30')
})
