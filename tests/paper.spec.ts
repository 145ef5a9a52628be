import { readFileSync } from 'node:fs'
import { completeJob } from '#core/job/complete'
import { partsOf, type AnyPart, type JobDocument } from '#core/job/document'
import { stationIds, type Known } from '#core/job/fields'
import { ask } from './api-client'
import { expect, expectSaved, headline, test, type App } from './bench-test'
import { surveyByTouch, Typist } from './typist'
import type { StoredJob } from '../server/repositories/jobs'

// A whole survey typed from paper, as an installer does in the evening: what it costs, and that every value
// arrives to the last digit.

const paper = completeJob(
  JSON.parse(
    readFileSync(new URL('../demo/jobs/0417-oyster-workboat.json', import.meta.url), 'utf8'),
  ) as JobDocument,
)

const blankJob = async (app: App): Promise<StoredJob> =>
  (await ask<StoredJob>(app, 'POST', '/api/jobs', { who: 'Test' })).body

/** JSON whose keys are in order, whatever order a database gives them back in. */
const inOrder = (value: unknown): string =>
  JSON.stringify(value, (_, inner: unknown) =>
    inner !== null && typeof inner === 'object' && !Array.isArray(inner)
      ? Object.fromEntries(Object.entries(inner).toSorted(([a], [b]) => (a < b ? -1 : 1)))
      : inner,
  )

/** Every value of a job with how it is known, by station, part and field. */
const valuesOf = (job: JobDocument): string[] =>
  stationIds
    .flatMap((kind) =>
      partsOf(job, kind).flatMap(({ part }, i) =>
        Object.entries(part as AnyPart).flatMap(([name, known]) => {
          const { value, how } = (known ?? {}) as Known<unknown>
          return value == null ? [] : [`${kind} ${i + 1} ${name}: ${inOrder(value)}, ${how}`]
        }),
      ),
    )
    .toSorted()

test('a whole survey is typed with the keys alone, on a processor slowed four times', async ({
  page,
  app,
}) => {
  test.setTimeout(240_000)
  const { id } = await blankJob(app)
  await page.goto(`${app.url}/jobs/${id}`)
  await expect(headline(page)).toBeVisible()
  const browser = await page.context().newCDPSession(page)
  await browser.send('Emulation.setCPUThrottlingRate', { rate: 4 })
  const { tabs, scrolledPx, ...effort } = await new Typist(page, paper).survey()
  await browser.send('Emulation.setCPUThrottlingRate', { rate: 1 })
  await expectSaved(page)
  const typed = (await ask<StoredJob>(app, 'GET', `/api/jobs/${id}`)).body.document
  expect(valuesOf(typed)).toEqual(valuesOf(paper))
  console.log(`typed on the laptop: ${JSON.stringify({ tabs, scrolledPx, ...effort })}`)
  expect(tabs).toBeLessThan(130)
  expect(scrolledPx).toBeLessThan(6000)
})

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })
  test('a whole survey is typed by touch alone', async ({ page, app }) => {
    test.setTimeout(240_000)
    const { id } = await blankJob(app)
    await page.goto(`${app.url}/jobs/${id}`)
    await expect(headline(page)).toBeVisible()
    const { taps, scrolledPx, ...effort } = await surveyByTouch(page, paper)
    await expectSaved(page)
    const typed = (await ask<StoredJob>(app, 'GET', `/api/jobs/${id}`)).body.document
    expect(valuesOf(typed)).toEqual(valuesOf(paper))
    console.log(`typed on the phone: ${JSON.stringify({ taps, scrolledPx, ...effort })}`)
    expect(taps / stationIds.length).toBeLessThanOrEqual(12)
    expect(scrolledPx).toBeLessThan(12_000)
  })
})
