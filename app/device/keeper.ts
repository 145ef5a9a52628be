import type { ShelfKindId, ShelfPart } from '#core/shelf/kinds'
import type { RecentJob, StoredJob, WholePage } from '../utils/api'
import { ask } from '../utils/api'
import { keptAnswer, readKept } from './answers'
import { forgetJob, keepJob, keptJobs } from './jobs'

/** How often the shelf is fetched for work without signal, ms. */
const shelfEveryMs = 6 * 3_600_000
let shelfKeptAt = -Infinity
/** How often the recent jobs are, ms. */
const jobsEveryMs = 60_000
let jobsKeptAt = -Infinity

/** Keeps the jobs of the last days and the pinned ones on this device, and forgets the others. */
export async function keepRecentJobs(): Promise<void> {
  if (performance.now() - jobsKeptAt < jobsEveryMs) return
  const kept = await keptJobs()
  const pinned = kept.filter(({ isPinned }) => isPinned).map(({ id }) => id)
  const answer = await ask<readonly RecentJob[]>(`/api/jobs/recent?also=${pinned.join(',')}`)
  if (answer.kind !== 'ok') return
  const known = new Map(kept.map((job) => [job.id, job]))
  for (const row of answer.data) {
    const before = known.get(row.id)
    known.delete(row.id)
    const isCurrent = before?.stored.version === row.version && before.stored.epoch === row.epoch
    if (isCurrent && before.row?.headline === row.headline) continue
    const stored = isCurrent ? before.stored : await fetched(row.id)
    if (stored === 'unreachable') return
    if (stored && !(await keepJob(stored, row))) return
  }
  for (const { id } of known.values()) await forgetJob(id)
  jobsKeptAt = performance.now()
}

async function fetched(id: string): Promise<StoredJob | 'unreachable' | null> {
  const answer = await ask<StoredJob>(`/api/jobs/${id}`)
  if (answer.kind === 'unreachable') return 'unreachable'
  return answer.kind === 'ok' ? answer.data : null
}

/**
 * The parts of the whole shelf, page by page; null where a page is missing.
 * @param read the page of an address
 */
export async function wholeShelf(
  read: (path: string) => Promise<WholePage | undefined>,
): Promise<readonly ShelfPart[] | null> {
  const parts: ShelfPart[] = []
  for (let after: string | null = ''; after !== null;) {
    const page = await read(`/api/shelf/whole?${new URLSearchParams(after === '' ? {} : { after })}`)
    if (!page) return null
    parts.push(...page.parts)
    after = page.next
  }
  return parts
}

/** A page of the shelf from the server, or as this device keeps it. */
export async function shelfPage(path: string): Promise<WholePage | undefined> {
  const answer = await readKept<WholePage>(path)
  return answer.kind === 'ok' ? answer.data : undefined
}

/** Keeps the shelf on this device. */
export async function keepShelf(): Promise<void> {
  if (performance.now() - shelfKeptAt < shelfEveryMs) return
  if (await wholeShelf(shelfPage)) shelfKeptAt = performance.now()
}

/** Parts of a kind in which all words occur, from the shelf that this device keeps; null if it keeps none. */
export async function keptShelf(kind: ShelfKindId, words: string): Promise<readonly ShelfPart[] | null> {
  const parts = await wholeShelf(keptAnswer<WholePage>)
  const wanted = words.toLowerCase().split(/\s+/)
  return (
    parts
      ?.filter((part) => part.kind === kind)
      .filter(({ code, name, maker }) =>
        wanted.every((word) => `${code} ${name} ${maker}`.toLowerCase().includes(word)),
      ) ?? null
  )
}
