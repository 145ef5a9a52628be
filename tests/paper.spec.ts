import type { Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { completeJob } from '#core/job/complete'
import { partsOf, type AnyPart, type JobDocument } from '#core/job/document'
import { stationIds, type Known } from '#core/job/fields'
import { ask } from './api-client'
import { expect, expectSaved, headline, test, type App } from './bench-test'
import { Thumb, Typist, type Effort } from './typist'
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

/** The same job begun as the typical workboat: what is usual stands there, assumed, and is corrected or confirmed. */
const typicalJob = async (app: App): Promise<StoredJob> =>
  (await ask<StoredJob>(app, 'POST', '/api/jobs', { who: 'Test', typical: 'workboat' })).body

/** Opens a job, has it typed, and holds what arrived against the paper. */
async function typed(
  page: Page,
  app: App,
  { id, document: start }: StoredJob,
  type: (start: JobDocument) => Promise<Effort>,
): Promise<Effort> {
  await page.goto(`${app.url}/jobs/${id}`)
  await expect(headline(page)).toBeVisible()
  const effort = await type(completeJob(start))
  await expectSaved(page)
  const { document } = (await ask<StoredJob>(app, 'GET', `/api/jobs/${id}`)).body
  // What the job was begun with and the paper is silent of stays, as assumed.
  const wanted = new Set(valuesOf(paper))
  const begun = new Set(valuesOf(start))
  expect(valuesOf(document).filter((words) => wanted.has(words) || !begun.has(words))).toEqual([...wanted])
  return effort
}

const strokes = ({ keys, tabs, taps }: Effort): number => keys + tabs + taps

test('a whole survey is typed with the keys alone, on a processor slowed four times', async ({
  page,
  app,
}) => {
  test.setTimeout(240_000)
  const browser = await page.context().newCDPSession(page)
  const effort = await typed(page, app, await blankJob(app), async (start) => {
    await browser.send('Emulation.setCPUThrottlingRate', { rate: 4 })
    const spent = await new Typist(page, paper, start).survey()
    await browser.send('Emulation.setCPUThrottlingRate', { rate: 1 })
    return spent
  })
  console.log(`typed on the laptop: ${JSON.stringify(effort)}`)
  expect(effort.tabs).toBeLessThan(130)
  expect(effort.scrolledPx).toBeLessThan(6000)
})

test('begun from the typical workboat, the same survey is a matter of correcting and confirming', async ({
  page,
  app,
}) => {
  test.setTimeout(240_000)
  const effort = await typed(page, app, await typicalJob(app), (start) =>
    new Typist(page, paper, start).survey(),
  )
  console.log(`typed on the laptop, from the typical workboat: ${JSON.stringify(effort)}, ${strokes(effort)}`)
})

test.describe('on a phone', () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true })
  test('a whole survey is typed by touch alone', async ({ page, app }) => {
    test.setTimeout(240_000)
    const effort = await typed(page, app, await blankJob(app), (start) =>
      new Thumb(page, paper, start).survey(),
    )
    console.log(`typed on the phone: ${JSON.stringify(effort)}`)
    expect(effort.taps / stationIds.length).toBeLessThan(12)
    expect(effort.scrolledPx).toBeLessThan(12_000)
  })
  test('begun from the typical workboat, the same survey is a matter of correcting and confirming', async ({
    page,
    app,
  }) => {
    test.setTimeout(240_000)
    const effort = await typed(page, app, await typicalJob(app), (start) =>
      new Thumb(page, paper, start).survey(),
    )
    console.log(`typed on the phone, from the typical workboat: ${JSON.stringify(effort)}`)
  })
})
