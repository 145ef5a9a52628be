import { expect, type Page } from '@playwright/test'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { completeJob } from '#core/job/complete'
import { partsOf, type AnyPart, type JobDocument } from '#core/job/document'
import { stationIds, type Known } from '#core/job/fields'
import { ask } from './api-client'
import { root } from '../scripts/lib/machine.mjs'
import type { Effort } from './typist'
import type { StoredJob } from '../server/repositories/jobs'

interface Server {
  readonly url: string
}

/** The whole survey of a demo job unchanged on paper. */
export const paperOf = (file: string): JobDocument =>
  completeJob(JSON.parse(readFileSync(join(root, 'demo/jobs', `${file}.json`), 'utf8')) as JobDocument)

/** A job to type it into: a blank one, or one begun as the typical vehicle or vessel of a name. */
export const newJob = async (app: Server, typical?: string): Promise<StoredJob> =>
  (await ask<StoredJob>(app, 'POST', '/api/jobs', { who: 'Test', ...(typical && { typical }) })).body

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

/** Opens a job, types a paper into it, and compares the stored values with the paper. */
export async function typed(
  page: Page,
  app: Server,
  { id, document: start }: StoredJob,
  paper: JobDocument,
  type: (start: JobDocument) => Promise<Effort>,
): Promise<Effort> {
  await page.goto(`${app.url}/jobs/${id}`)
  await expect(page.getByTestId('headline')).toBeVisible()
  const effort = await type(completeJob(start))
  await expect(page.getByTestId('save-state')).toHaveAttribute('data-state', 'saved')
  const { document } = (await ask<StoredJob>(app, 'GET', `/api/jobs/${id}`)).body
  // Values of the new job that the paper does not mention stay, as assumed.
  const wanted = new Set(valuesOf(paper))
  const begun = new Set(valuesOf(start))
  expect(valuesOf(document).filter((words) => wanted.has(words) || !begun.has(words))).toEqual([...wanted])
  return effort
}
