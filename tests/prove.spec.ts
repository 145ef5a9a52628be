import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { Diagnosis } from '../core/diagnosis/diagnosis'
import { hiddenCause } from '../core/diagnosis/stream'
import { expect, expectSaved, test } from './bench-test'

const workboat = JSON.parse(
  readFileSync(new URL('../demo/jobs/0417-oyster-workboat.json', import.meta.url), 'utf8'),
) as never

/** A seed by which the stand-in hides a cause, of a size that is wanted. */
function seedOf(cause: string, isWanted: (size: number) => boolean): number {
  const { causes } = new Diagnosis(workboat)
  for (let seed = 1; seed < 20_000; seed++) {
    const found = hiddenCause(causes, seed)
    if (found.cause.id === cause && isWanted(found.size)) return seed
  }
  throw new Error(`No seed hides ${cause}`)
}

const part = (page: Page, name: RegExp) =>
  page.getByRole('navigation', { name: 'Parts of proving' }).getByRole('button', { name })
const title = (page: Page) => page.getByTestId('test-title')
const reading = (page: Page) => page.getByTestId('reading')
const verdict = (page: Page) => page.getByTestId('test-verdict')

/** Opens the workboat's job for proving, with a stand-in that hides the named fault. */
async function opened(page: Page, address: string, standIn = { seed: 1, hidden: false }): Promise<void> {
  const id = address.split('/').at(-1)!
  await page.addInitScript(
    ([key, value]) => {
      if (!localStorage.getItem(key!)) localStorage.setItem(key!, value!)
    },
    [`jovial-anchor.stand-in.${id}`, JSON.stringify(standIn)],
  )
  await page.goto(`${address}/prove`)
  await expect(part(page, /^Work/)).toBeVisible()
}

/** Holds the stand-in to the test that is shown, until its reading is kept. */
async function readLive(page: Page): Promise<void> {
  const stand = page.getByTestId('hold').or(page.getByRole('button', { name: 'Simulate' }))
  await stand.first().click()
  await expect(verdict(page)).toBeVisible()
}

test.describe('on the phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })

  test('from the first tick to the signed record: a fault is found, repaired and proved @long', async ({
    page,
    app,
  }) => {
    await opened(page, await app.job('0417'), {
      seed: seedOf('lead-failing@starting-1', (size) => size > 0.7),
      hidden: true,
    })
    const first = page.locator('[data-step=safe-photos]')
    await first.getByRole('checkbox').click()
    await expect(first.getByTestId('tick')).toContainText('Done')
    await first.getByRole('button', { name: 'Skip or add a note' }).click()
    await first.getByPlaceholder('Reason or note').fill('Six pictures')
    await first.getByRole('button', { name: 'Done, with note' }).click()
    await expect(first.getByTestId('tick')).toContainText('Six pictures')
    const second = page.locator('[data-step=safe-mains]')
    await second.getByRole('button', { name: 'Skip or add a note' }).click()
    await second.getByPlaceholder('Reason or note').fill('No key to the post')
    await second.getByRole('button', { name: 'Skip', exact: true }).click()
    await expect(second.getByTestId('tick')).toContainText('Skipped')

    await part(page, /^Tests/).click()
    await expect(title(page)).toHaveText('Polarity at every unit')
    await readLive(page)
    await expect(verdict(page)).toHaveText('As expected')
    await expect(page.getByTestId('worth')).toContainText(/^1 of \d+ essential tests done\. Chance that/)
    await page.getByTestId('next-test').click()
    await expect(title(page)).toHaveText('Walk-round: sizes, settings and lugs')
    await expect(page.getByTestId('walk')).toContainText('W1 50 mm²')
    await page.getByRole('button', { name: 'Everything matches' }).click()
    await expect(verdict(page)).toHaveText('As expected')
    await page.getByText('All tests', { exact: true }).click()
    const more = page.getByRole('region', { name: 'More tests' })
    await more.getByRole('button', { name: 'Resting voltage of the starting battery' }).click()
    await expect(title(page)).toHaveText('Resting voltage of the starting battery')
    await readLive(page)
    await expect(verdict(page)).toHaveText('Lower than expected')
    const causes = page.getByTestId('causes')
    await expect(causes.getByRole('listitem').first()).toContainText('Failing lead-acid battery')
    await expect(causes.getByRole('listitem').first()).toContainText(
      'Evidence for it: Resting voltage of the starting battery',
    )

    await causes.getByTestId('mended').click()
    await expect(reading(page)).toHaveText('—')
    await readLive(page)
    await expect(verdict(page)).toHaveText('As expected')
    await expect(causes).toContainText('No fault found so far')
    await expectSaved(page)
    await page.reload()
    await part(page, /^Tests/).click()
    await expect(part(page, /^Tests/)).toContainText('0/')
    await expect(part(page, /^Work/)).toContainText('1/')

    await part(page, /^As fitted/).click()
    await expect(page.getByTestId('fitted-verdict')).toBeVisible()
    await page.getByTestId('fitted-part').selectOption('runs/main-lead')
    await page.getByLabel('Length').fill('0.4')
    await page.getByRole('button', { name: 'Add difference' }).click()
    await expect(page.getByText(/^\s*W1, .*: length 0.4 m/)).toBeVisible()
    await expectSaved(page)
    await expect(page.getByText('Failing lead-acid battery at the starting battery')).toBeVisible()
    await page.getByTestId('sign-name').fill('Ida Brell')
    await page.getByTestId('sign').click()
    await expect(page.getByText(/essential tests have no reading\./)).toBeVisible()
    await expect(page.getByTestId('sign')).toBeDisabled()
    await page.getByTestId('sign-reason').fill('The customer needs the boat; the rest follows on Friday')
    await page.getByTestId('sign').click()
    await page.getByRole('link', { name: /^0417-1: Fitted and proved, signed by Ida Brell/ }).click()
    const record = page.getByTestId('sheet')
    await expect(record).toContainText('Fitted and proved 0417-1')
    await expect(record).toContainText('1 of 1 as expected')
    await expect(record).toContainText('Missing at signing')
    await expect(record).toContainText('Signed anyway: The customer needs the boat')
    await expect(record).toContainText('Failing lead-acid battery at the starting battery: repaired')
    await expect(record).toContainText('No key to the post')
    await expect(record).toContainText('W1, One-way length: 0.4 m')
    const pdf = await page.request.get(
      `${await app.job('0417')}/sheets/1/pdf`.replace('/jobs/', '/api/jobs/'),
    )
    expect(pdf.status()).toBe(200)
    expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-')
  })

  test('the case’s temperature goes on over a lost connection, and nothing of it is lost @long', async ({
    page,
    app,
  }) => {
    await opened(page, await app.job('0417'))
    await part(page, /^Tests/).click()
    // By the table of the laptop it is nearer than by going through the order.
    await page.setViewportSize({ width: 1280, height: 800 })
    await page.locator('[data-row=case-alternator-1] button').click()
    await page.setViewportSize({ width: 390, height: 844 })
    const curve = page.getByTestId('case-curve')
    const count = async (): Promise<number> => Number(await curve.getAttribute('data-readings'))
    await page.getByTestId('hold').click()
    await expect.poll(count).toBeGreaterThan(15)
    await app.stop()
    await expect(page.getByText('Connection lost. Readings so far are saved')).toBeVisible()
    const before = await count()
    await app.start()
    await expect.poll(count).toBeGreaterThan(before)
    await expect(verdict(page)).toBeVisible()
    expect(await count()).toBe(121)
    await expect(reading(page)).toHaveText(/^\d+(\.\d)? °C$/)
    await expectSaved(page)
  })
})

test('on the laptop readings are typed, taken from a file and told apart, and a typed one in words is refused', async ({
  page,
  app,
}) => {
  await opened(page, await app.job('0417'))
  await part(page, /^Tests/).click()
  await page.getByTestId('more-tests').click()
  await page.locator('[data-row=drop-main-lead] button').click()
  await page.getByTestId('type-reading').fill('a lot')
  await page.getByRole('button', { name: 'Keep' }).click()
  await expect(page.getByRole('alert')).toBeVisible()
  await page.getByTestId('type-reading').fill('350 mV')
  await page.getByRole('button', { name: 'Keep' }).click()
  await expect(reading(page)).toHaveText('0.350 V')
  await expect(verdict(page)).toHaveText('Higher than expected')
  const causes = page.getByTestId('causes')
  await expect(causes.getByRole('listitem').first()).toContainText('Poor joint in W1')
  await expect(page.getByTestId('worth')).toHaveCount(0)
  await expect(page.locator('[data-row=drop-main-lead]')).toContainText('0.350 V')

  await page.getByText('Instruments and files').click()
  const file = (text: string) => ({ name: 'readings.csv', mimeType: 'text/csv', buffer: Buffer.from(text) })
  await page.setInputFiles('input[type=file]', file('test,value\nrested-bank,13.31\nno-such-test,4\n'))
  await expect(page.getByRole('alert')).toContainText('line 3')
  await page.setInputFiles('input[type=file]', file('test,value\nrested-bank,13.31\ndrop-main-lead,0.04\n'))
  await expect(page.locator('[data-row=rested-bank]')).toContainText('13.31 V')
  await expect(causes).toContainText('No fault found so far')
  await expectSaved(page)
})

test('practice hides a fault, tells how an economical hand goes about it, and changes nothing in the job @long', async ({
  page,
  app,
}) => {
  await opened(page, await app.job('0433'))
  const undo = page.getByRole('button', { name: 'Undo' })
  await part(page, /^Practice/).click()
  await expect(page.getByTestId('practise')).toBeEnabled()
  await page.getByTestId('practise').click()
  await page.getByTestId('practice-test').selectOption({ index: 1 })
  await page.getByRole('button', { name: 'Read', exact: true }).click()
  await expect(
    page.getByRole('list', { name: 'Readings of this practice' }).getByRole('listitem'),
  ).toHaveCount(1)
  await page.getByTestId('practice-guess').selectOption({ index: 1 })
  await page.getByRole('button', { name: 'Check answer' }).click()
  await expect(page.getByTestId('practice-end')).toContainText('efficient search')
  await expect(undo).toBeDisabled()
})
