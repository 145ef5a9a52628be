import { readFileSync } from 'node:fs'
import AxeBuilder from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { expect, expectSaved, test } from './bench-test'

const paperRow = (page: Page, kind: string) => page.locator(`[data-paper="${kind}"]`)

test('the workboat gets every paper: issued, opened as page and PDF, replaced, read by the customer @long', async ({
  page,
  app,
  browser,
}) => {
  await page.goto(`${app.url}/letterhead`)
  await page.getByLabel('Phone').fill('+44 1632 960417')
  await page.getByTestId('logo-file').setInputFiles({
    name: 'logo.svg',
    mimeType: 'image/svg+xml',
    buffer: Buffer.from(
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 300 90"><script>document.title="run"</script><rect width="300" height="90" fill="#24505e"/></svg>',
    ),
  })
  await expect(page.getByAltText('Logo of the workshop')).toHaveAttribute('src', /^data:image\/png/)
  await page.getByTestId('logo-file').setInputFiles({
    name: 'logo.png',
    mimeType: 'image/png',
    buffer: Buffer.from('no picture'),
  })
  await expect(page.getByRole('alert')).toHaveText('This is not a PNG or SVG picture.')
  await page.getByRole('button', { name: 'Save letterhead' }).click()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()

  const job = await app.job('0417')
  await page.goto(`${job}/papers`)
  for (const kind of ['quotation', 'specification', 'cards', 'booklet'])
    await expect(paperRow(page, kind)).toContainText('Choose an answer under Specify first.')
  await expect(paperRow(page, 'booklet').getByRole('button', { name: 'Issue' })).toBeDisabled()
  await page.getByRole('link', { name: 'Specify', exact: true }).click()
  await expect(page.getByTestId('solve-state')).toHaveAttribute('data-state', 'done')
  await page.getByRole('button', { name: 'Choose this answer' }).first().click()
  await expectSaved(page)
  await page.getByRole('link', { name: 'Papers', exact: true }).click()

  // A draft shows the paper before it is issued; it gets no number.
  await paperRow(page, 'booklet').getByRole('link', { name: 'Preview' }).click()
  await expect(page.getByTestId('paper')).toContainText('Your lithium battery on Marigold Tern')
  await expect(page.getByTestId('paper')).toContainText('Never jump-start an engine from this battery.')
  await expect(page.getByTestId('paper')).toContainText('Customer’s booklet, draft, job 0417')
  await page.getByRole('link', { name: 'Back to papers' }).click()

  for (const [kind, name] of [
    ['summary', 'Summary 0417-1'],
    ['specification', 'Specification 0417-2'],
    ['wiring', 'Wiring papers 0417-3'],
    ['labels', 'Labels 0417-4'],
    ['cards', 'Settings cards 0417-5'],
    ['booklet', 'Customer’s booklet 0417-6'],
  ] as const) {
    if (kind === 'labels') await paperRow(page, kind).getByLabel('Label sheet').selectOption('a4-65')
    await paperRow(page, kind).getByRole('button', { name: 'Issue' }).click()
    await expect(paperRow(page, kind).getByRole('link', { name })).toBeVisible()
    await expect(paperRow(page, kind).getByTestId('paper-state')).toHaveText('Issued')
  }
  expect((await new AxeBuilder({ page }).setLegacyMode().analyze()).violations).toEqual([])
  const api = job.replace('/jobs/', '/api/jobs/')
  for (const count of [1, 2, 3, 4, 5, 6]) {
    const pdf = await page.request.get(`${api}/sheets/${count}/pdf`)
    expect(pdf.headers()['content-type']).toContain('application/pdf')
    expect(
      Buffer.compare(await pdf.body(), await (await page.request.get(`${api}/sheets/${count}/pdf`)).body()),
    ).toBe(0)
  }

  // A photo with a caption is frozen in the next booklet, and stays there after it is deleted.
  const photo = await page.request.post(`${api}/photos?who=Ida&station=place&name=Locker`, {
    headers: { 'content-type': 'image/png' },
    data: readFileSync(new URL('./pixel.png', import.meta.url)),
  })
  const { id } = (await photo.json()) as { id: string }
  await page.reload()
  const chooser = page.getByRole('list', { name: 'Photos for papers' })
  await chooser.getByLabel('Caption').fill('The new battery in its locker')
  await chooser.getByLabel('Caption').press('Tab')
  await chooser.getByLabel('Booklet').check()
  await expectSaved(page)
  await paperRow(page, 'booklet').getByRole('link', { name: 'Preview' }).click()
  await expect(page.getByRole('figure')).toContainText('The new battery in its locker')
  await page.getByRole('link', { name: 'Back to papers' }).click()
  await paperRow(page, 'booklet').getByRole('button', { name: 'Replace' }).click()
  await paperRow(page, 'booklet').getByRole('link', { name: 'Customer’s booklet 0417-7' }).click()
  await expect(page.getByTestId('sheet')).toBeVisible()
  expect((await page.request.delete(`${api}/photos/${id}`)).status()).toBe(200)
  await page.reload()
  await expect(page.getByRole('figure').getByRole('img')).toHaveAttribute('src', /^data:image\/jpeg;base64,/)
  expect((await page.request.get(`${api}/sheets/7/pdf`)).status()).toBe(200)
  await page.getByRole('link', { name: 'Back to the job' }).click()

  // A newer one replaces the older, which stays as it was.
  await paperRow(page, 'booklet').getByRole('link', { name: 'Customer’s booklet 0417-7' }).click()
  const frozen = await page.getByTestId('paper').innerText()
  await page.getByRole('link', { name: 'Back to the job' }).click()
  await paperRow(page, 'booklet').getByRole('button', { name: 'Replace' }).click()
  await expect(paperRow(page, 'booklet')).toContainText('Replaced: 0417-7, 0417-6')
  await paperRow(page, 'booklet').getByRole('link', { name: '0417-7', exact: true }).click()
  await expect(page.getByTestId('paper')).toBeVisible()
  expect(await page.getByTestId('paper').innerText()).toBe(frozen)

  // The record lists the missing items, and is signed with the reason.
  await page.goto(`${job}/prove`)
  await page.getByRole('button', { name: /^As fitted/ }).click()
  await page.getByTestId('sign-name').fill('Ida Brell')
  await page.getByTestId('sign').click()
  await expect(page.getByTestId('sign')).toBeDisabled()
  await page.getByTestId('sign-reason').fill('The tests follow on Friday')
  await page.getByTestId('sign').click()
  await expect(page.getByRole('link', { name: /^0417-9: Fitted and proved/ })).toBeVisible()

  // The quotation, with an option.
  await page.goto(`${job}/quotation`)
  await page.getByLabel('New line').fill('Travel')
  await page.getByRole('button', { name: 'Add line' }).click()
  const travel = page.locator('[data-line]').filter({ hasText: 'Travel' })
  await travel.getByLabel('Price').fill('48.50')
  await travel.getByLabel('Price').press('Tab')
  await travel.getByLabel('Option').check()
  await expectSaved(page)
  await page.getByRole('button', { name: 'Issue quotation' }).click()
  await expect(page.getByTestId('quotation-state')).toHaveText('Sent')
  await page.goto(`${job}/papers`)
  for (const [kind, name] of [
    ['record', '0417-9'],
    ['quotation', '0417-10'],
  ] as const)
    await expect(paperRow(page, kind)).toContainText(name)

  // The customer reads the newest of each, and no labels; takes the option, and accepts.
  await page.goto(`${job}/papers`)
  await page.getByRole('button', { name: 'Make link' }).click()
  const link = await page.getByTestId('link').innerText()
  const phone = await browser.newContext({ viewport: { width: 390, height: 844 } })
  const theirs = await phone.newPage()
  await theirs.goto(link)
  const papers = theirs.getByRole('navigation', { name: 'Papers' })
  await expect(papers.getByRole('button', { name: 'Customer’s booklet 0417-8' })).toBeVisible()
  await expect(papers.getByRole('button', { name: /Labels/ })).toHaveCount(0)
  await papers.getByRole('button', { name: 'Customer’s booklet 0417-8' }).click()
  await expect(theirs.getByTestId('paper')).toContainText('Come back to us')
  await expect(theirs.getByTestId('paper')).toContainText('+44 1632 960417')
  expect(await theirs.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  await papers.getByRole('button', { name: 'Quotation 0417-10' }).click()
  await theirs.getByRole('group', { name: 'Options' }).getByLabel('Travel').check()
  await theirs.getByLabel('Your name').fill('Wren Tolhurst')
  await theirs.getByRole('button', { name: 'Accept quotation' }).click()
  await expect(theirs.getByText('Accepted by Wren Tolhurst')).toBeVisible()
  await page.reload()
  await expect(paperRow(page, 'quotation').getByTestId('paper-state')).toHaveText('Accepted')
  await phone.close()
})
