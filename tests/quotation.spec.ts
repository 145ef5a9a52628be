import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect, expectSaved, test } from './bench-test'

const lineOf = (page: Page, name: string) => page.locator('[data-line]').filter({ hasText: name })

test('a specified workboat gets a quotation: prices, an option, tax, and the customer’s answer @long', async ({
  page,
  app,
  browser,
}) => {
  await page.goto(`${app.url}/letterhead`)
  await page.getByLabel('Address').fill('3 Larkspur Slip\nWharf End')
  await page.getByLabel('Terms').fill('Payment within 14 days.')
  await page.getByLabel('Numbers').selectOption('de-DE')
  await page.getByRole('group', { name: 'Tax rates' }).getByLabel('Name').fill('VAT')
  await page.getByRole('group', { name: 'Tax rates' }).getByLabel('Rate').fill('19')
  await page.getByLabel('Deposit').fill('30')
  await page.getByLabel('Protection and wiring').fill('12,5')
  await page.getByRole('button', { name: 'Save letterhead' }).click()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()

  const job = await app.job('0417')
  await page.goto(`${job}/quotation`)
  await expect(page.getByText('This job has no chosen answer yet.')).toBeVisible()
  await page.getByRole('link', { name: 'Choose an answer' }).click()
  await page.getByRole('button', { name: 'Choose this answer' }).first().click()
  await expectSaved(page)
  await page.getByRole('link', { name: 'Quotation', exact: true }).click()
  const totals = page.getByTestId('quotation-totals')
  await expect(totals).toContainText('VAT 19 %')
  await expect(totals).toContainText('Deposit')

  // A line of the workshop’s own: it misses a price until one is typed.
  await page.getByLabel('New line').fill('Travel')
  await page.getByRole('button', { name: 'Add line' }).click()
  await expect(page.getByTestId('missing-prices')).toHaveText('1 price is missing: Travel.')
  await expect(page.getByRole('button', { name: 'Issue quotation' })).toBeDisabled()
  await lineOf(page, 'Travel').getByLabel('Price').fill('48,50')
  await lineOf(page, 'Travel').getByLabel('Price').press('Tab')
  await expect(lineOf(page, 'Travel')).toContainText('48,50 €')
  await lineOf(page, 'Travel').getByLabel('Discount').fill('150')
  await lineOf(page, 'Travel').getByLabel('Discount').press('Tab')
  await expect(page.getByRole('alert')).toContainText('Enter 0 to 100.')
  await lineOf(page, 'Travel').getByLabel('Discount').fill('10')
  await lineOf(page, 'Travel').getByLabel('Discount').press('Tab')
  await expect(lineOf(page, 'Travel')).toContainText('43,65 €')
  const withTravel = await totals.innerText()
  await lineOf(page, 'Travel').getByLabel('Option').check()
  await expect(totals).not.toHaveText(withTravel)
  await page.getByLabel('Message to the customer').fill('Thank you for your visit.')
  await page.getByLabel('Message to the customer').press('Tab')
  await expectSaved(page)
  expect((await new AxeBuilder({ page }).setLegacyMode().analyze()).violations).toEqual([])

  await page.getByRole('button', { name: 'Issue quotation' }).click()
  const issued = page.getByRole('list', { name: 'Issued quotations' })
  await expect(issued).toContainText('Quotation 0417-1')
  await expect(page.getByTestId('quotation-state')).toHaveText('Sent')
  await issued.getByRole('link', { name: 'Quotation 0417-1' }).click()
  const sheet = page.getByTestId('sheet')
  for (const words of [
    'Thank you for your visit.',
    'What we do',
    '3 Larkspur Slip, Wharf End',
    'Options',
    'Travel',
  ])
    await expect(sheet).toContainText(words)
  await expect(sheet).toContainText('Payment within 14 days.')
  const frozen = await sheet.innerText()
  const api = `${job.replace('/jobs/', '/api/jobs/')}/sheets/1`
  expect((await page.request.get(`${api}/pdf`)).headers()['content-type']).toContain('application/pdf')
  expect(await (await page.request.get(`${api}/csv`)).text()).toContain(
    '0417-1,other,Travel,1,,48.50,10,43.65,19,yes,',
  )

  // The customer opens the link, takes the option and accepts; the quotation itself stays as it was issued.
  await page.getByRole('link', { name: 'Back to the job' }).click()
  await page.getByRole('button', { name: 'Make link' }).click()
  const link = await page.getByTestId('link').innerText()
  const phone = await (
    await browser.newContext({ viewport: { width: 390, height: 844 }, isMobile: true, hasTouch: true })
  ).newPage()
  await phone.goto(link)
  await expect(phone.getByRole('heading', { name: 'Your papers for Marigold Tern' })).toBeVisible()
  await expect(phone.getByRole('navigation', { name: 'Main' })).toHaveCount(0)
  await expect(phone.getByTestId('paper')).toContainText('Quotation 0417-1')
  await phone.getByRole('group', { name: 'Options' }).getByLabel('Travel').check()
  await phone.getByLabel('Your name').fill('Wren Tolhurst')
  expect((await new AxeBuilder({ page: phone }).setLegacyMode().analyze()).violations).toEqual([])
  await phone.getByRole('button', { name: 'Accept quotation' }).click()
  await expect(phone.getByText('Accepted by Wren Tolhurst')).toBeVisible()
  await phone.getByLabel('Message', { exact: true }).fill('When can you begin?')
  await phone.getByRole('button', { name: 'Send message' }).click()
  await expect(phone.getByText('Your message is sent.')).toBeVisible()
  await page.reload()
  await expect(page.getByRole('list', { name: 'Messages from the customer' })).toContainText(
    'When can you begin?',
  )
  await expect(page.getByTestId('quotation-state')).toHaveText('Accepted')
  await expect(issued).toContainText('Accepted by Wren Tolhurst')
  await expect(page.getByTestId('link-state')).toContainText('Opened')
  await page.getByRole('button', { name: 'End link' }).click()
  await expect(page.getByRole('button', { name: 'Make link' })).toBeVisible()
  await phone.reload()
  await expect(phone.getByRole('alert')).toContainText('This link is not valid any more.')
  await page.goto(`${app.url}/letterhead`)
  await page.getByRole('group', { name: 'Tax rates' }).getByLabel('Rate').fill('7')
  await page.getByRole('button', { name: 'Save letterhead' }).click()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.goto(`${job}/sheets/1`)
  await expect(sheet).toContainText('Thank you for your visit.')
  expect(await sheet.innerText()).toBe(frozen)

  // A newer one leaves the answer to the older.
  await page.goto(`${job}/quotation`)
  await page.getByRole('button', { name: 'Issue quotation' }).click()
  await expect(page.getByTestId('quotation-state')).toHaveText(['Sent', 'Accepted'])

  // Or the customer answers by telephone, and the workshop enters it.
  await page.getByRole('button', { name: 'Enter answer' }).click()
  await page.getByLabel('Name of the customer').fill('Wren Tolhurst')
  await page.getByLabel('Note or reason').fill('Next year')
  await page.getByRole('button', { name: 'Mark as declined' }).click()
  await expect(page.getByTestId('quotation-state')).toHaveText(['Declined', 'Accepted'])
})

test('the customer takes an alternative, which then becomes the chosen answer @long', async ({
  page,
  app,
  browser,
}) => {
  const job = await app.job('0417')
  await page.goto(`${job}/specify`)
  await expect(page.getByTestId('solve-state')).toHaveAttribute('data-state', 'done')
  await expect(page.getByRole('button', { name: 'Offer as alternative' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Choose this answer' }).first().click()
  const specified = page.getByRole('region', { name: /^Specified: / })
  const first = await specified.getByRole('heading').first().innerText()
  const answers = page.getByRole('table', { name: 'Answers' }).getByRole('button')
  await answers.nth(1).click()
  await page.getByRole('button', { name: 'Offer as alternative' }).click()
  await expect(page.getByRole('button', { name: 'Offered as alternative' })).toBeDisabled()
  await expectSaved(page)

  await page.getByRole('link', { name: 'Quotation', exact: true }).click()
  const alternatives = page.getByRole('list', { name: 'Alternatives' })
  await expect(alternatives.getByRole('listitem')).toHaveCount(1)
  await page.getByRole('button', { name: 'Issue quotation' }).click()
  await expect(page.getByTestId('quotation-state')).toHaveText('Sent')
  await page.getByRole('button', { name: 'Make link' }).click()
  const link = await page.getByTestId('link').innerText()
  const phone = await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage()
  await phone.goto(link)
  await expect(phone.getByTestId('paper')).toContainText('Alternative A')
  await phone.getByRole('group', { name: 'What you take' }).getByRole('radio').nth(1).check()
  await phone.getByLabel('Your name').fill('Wren Tolhurst')
  await phone.getByRole('button', { name: 'Accept quotation' }).click()
  await expect(phone.getByText('Accepted by Wren Tolhurst')).toBeVisible()

  await page.reload()
  await expect(page.getByTestId('quotation-state')).toHaveText('Accepted')
  await page.getByRole('button', { name: 'Make it the chosen answer' }).click()
  await expect(page.getByText('The alternative is the chosen answer now.')).toBeVisible()
  await expectSaved(page)
  await page.getByLabel('Views of this job').getByRole('link', { name: 'Specify' }).click()
  await expect(specified).toBeVisible()
  expect(await specified.getByRole('heading').first().innerText()).not.toBe(first)
})
