import type { JobDocument } from '#core/job/document'
import { chanceOf, type Chance } from '#core/commissioning/chance'

/** A server's answers under load. */
export interface Loaded {
  readonly requests: number
  readonly seconds: number
  /** How long each save that was taken took, ms. */
  readonly savesMs: readonly number[]
  readonly readsMs: readonly number[]
  /** Answers that were neither taken nor a conflict. */
  readonly failed: number
}

interface Stored {
  readonly id: string
  readonly version: number
  readonly document: JobDocument
}

const saveShare = 0.3

/** A client with a job of its own: three saves in ten requests, the others lists and jobs. */
async function client(
  url: string,
  job: Stored,
  chance: Chance,
  untilMs: number,
): Promise<Omit<Loaded, 'seconds'>> {
  const savesMs: number[] = []
  const readsMs: number[] = []
  let { version } = job
  let failed = 0
  while (performance.now() < untilMs) {
    const saves = chance() < saveShare
    const begun = performance.now()
    const response = saves
      ? await fetch(`${url}/api/jobs/${job.id}`, {
          method: 'PUT',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ version, who: 'Bench', document: changed(job.document, chance) }),
        })
      : await fetch(`${url}/api/jobs${chance() < 0.5 ? '' : `/${job.id}`}`)
    const body = (await response.json()) as { readonly version?: number }
    ;(saves ? savesMs : readsMs).push(performance.now() - begun)
    if (!response.ok) failed++
    else if (saves) version = body.version!
  }
  return { requests: savesMs.length + readsMs.length, savesMs, readsMs, failed }
}

/** The same job with another value, so that it has to be checked. */
const changed = (document: JobDocument, chance: Chance): JobDocument => ({
  ...document,
  use: { ...document.use, dailyAh: { value: Math.round(20 + 100 * chance()), how: 'measured' } },
})

/** Jobs of a server for this many clients: copies of the demo jobs, one after the other. */
async function jobsFor(url: string, count: number, demo: readonly JobDocument[]): Promise<Stored[]> {
  const jobs: Stored[] = []
  for (let i = 0; i < count; i++) {
    const document = demo[i % demo.length]!
    const made = await fetch(`${url}/api/jobs`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ who: 'Bench' }),
    })
    const { id, version, document: empty } = (await made.json()) as Stored
    jobs.push({ id, version, document: { ...document, job: { ...document.job, number: empty.job.number } } })
  }
  return jobs
}

/** This many clients at a server for so long. */
export async function underLoad(
  url: string,
  demo: readonly JobDocument[],
  { clients, seconds }: { readonly clients: number; readonly seconds: number },
): Promise<Loaded> {
  const jobs = await jobsFor(url, clients, demo)
  const begun = performance.now()
  const all = await Promise.all(
    jobs.map((job, i) => client(url, job, chanceOf(i + 1), begun + 1000 * seconds)),
  )
  return {
    seconds: (performance.now() - begun) / 1000,
    requests: all.reduce((sum, { requests }) => sum + requests, 0),
    failed: all.reduce((sum, { failed }) => sum + failed, 0),
    savesMs: all.flatMap(({ savesMs }) => savesMs),
    readsMs: all.flatMap(({ readsMs }) => readsMs),
  }
}
