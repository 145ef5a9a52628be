import 'fake-indexeddb/auto'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { goodJob } from '#core/testing'
import type { RecentJob, StoredJob } from '../utils/api'
import { readChanged, readKept } from './answers'
import type { QueuedPhoto } from './database'
import { forgetKept } from './database'
import { keepJob, keptJob, keptJobs, pinJob } from './jobs'
import { dropPhoto, queuedPhotos, queuePhoto } from './photos'

const stored = (id: string, version = 1): StoredJob => ({
  id,
  version,
  epoch: 'e',
  document: goodJob(),
  updatedAt: '2026-11-20T08:00:00Z',
  updatedBy: 'Phone',
})
const row = (id: string, version = 1): RecentJob =>
  ({ id, version, epoch: 'e', number: id, name: id, headline: 'Suits' }) as RecentJob

/** A server with some jobs and a shelf of two pages; null cannot be reached. */
let jobs: Map<string, number> | null
let asked: string[]
const shelf = [
  { parts: [{ kind: 'batteries', code: 'A-1', name: 'Brindle 100', maker: 'Brindle' }], next: 'p2' },
  { parts: [{ kind: 'chargers', code: 'C-1', name: 'Brindle 20', maker: 'Brindle' }], next: null },
]
function answer(path: string): Response {
  if (!jobs) throw new TypeError('no network')
  asked.push(path)
  if (path.startsWith('/api/shelf')) return Response.json(shelf[path.includes('p2') ? 1 : 0])
  const wanted = /recent\?also=(.*)$/.exec(path)
  if (wanted) {
    const also = wanted[1]!.split(',')
    const rows = [...jobs].filter(([id, version]) => version > 0 || also.includes(id))
    return Response.json(rows.map(([id, version]) => row(id, Math.abs(version))))
  }
  const id = path.split('/').at(-1)!
  return Response.json(stored(id, Math.abs(jobs.get(id)!)))
}

/** The keeper as a page that was just opened has it: it waits between its rounds. */
async function newKeeper() {
  vi.resetModules()
  return import('./keeper')
}

beforeEach(async () => {
  jobs = new Map([
    ['a', 1],
    ['b', 1],
  ])
  asked = []
  vi.stubGlobal('window', {})
  vi.stubGlobal('fetch', (path: string) => Promise.resolve().then(() => answer(path)))
  await forgetKept()
})

describe('the jobs of a device', () => {
  it('are those that the server lists, fetched only where they changed', async () => {
    await (await newKeeper()).keepRecentJobs()
    expect((await keptJobs()).map(({ id }) => id)).toEqual(['a', 'b'])
    asked = []
    jobs!.set('b', 2)
    await (await newKeeper()).keepRecentJobs()
    expect(asked).toEqual(['/api/jobs/recent?also=', '/api/jobs/b'])
    expect((await keptJob('b'))?.stored.version).toBe(2)
  })

  it('go when the server lists them no more, unless they are pinned', async () => {
    await (await newKeeper()).keepRecentJobs()
    await pinJob(stored('a'), true)
    // A negative version stands for a job that changed long ago.
    jobs = new Map([
      ['a', -1],
      ['b', -1],
    ])
    await (await newKeeper()).keepRecentJobs()
    expect((await keptJobs()).map(({ id, isPinned }) => [id, isPinned])).toEqual([['a', true]])
  })

  it('stay where the server cannot be reached', async () => {
    await keepJob(stored('a'))
    jobs = null
    await (await newKeeper()).keepRecentJobs()
    expect(await keptJob('a')).toBeDefined()
  })
})

describe('the shelf of a device', () => {
  it('is searched by kind and words once it was fetched, and is null before', async () => {
    const keeper = await newKeeper()
    expect(await keeper.keptShelf('batteries', '')).toBeNull()
    await keeper.keepShelf()
    jobs = null
    expect((await keeper.keptShelf('batteries', 'brindle 100'))?.map(({ code }) => code)).toEqual(['A-1'])
    expect(await keeper.keptShelf('chargers', 'brindle 100')).toEqual([])
  })
})

describe('an answer', () => {
  it('is that of the server, or the last one where it cannot be reached', async () => {
    expect(await readKept('/api/shelf/whole?')).toMatchObject({ kind: 'ok' })
    jobs = null
    expect(await readKept('/api/shelf/whole?')).toMatchObject({ kind: 'ok', data: shelf[0] })
    expect(await readKept('/api/shelf/other')).toEqual({ kind: 'unreachable' })
  })

  it('is waited for as long as it takes where the device keeps none, and not for long where it does', async () => {
    const limits: boolean[] = []
    vi.stubGlobal('fetch', (path: string, { signal }: RequestInit = {}) => {
      limits.push(signal !== undefined)
      return Promise.resolve(answer(path))
    })
    await readKept('/api/shelf/whole?')
    await readKept('/api/shelf/whole?')
    expect(limits).toEqual([false, true])
  })

  it('is never the stored copy if the server has just changed', async () => {
    await readKept('/api/shelf/whole?')
    jobs = null
    expect(await readChanged('/api/shelf/whole?')).toEqual({ kind: 'unreachable' })
  })
})

describe('photos that wait', () => {
  const photo = (id: string, owner: string, takenAt: string): QueuedPhoto => ({
    id,
    owner,
    takenAt,
    job: 'a',
    station: 'place',
    name: 'plate.jpg',
    takenBy: 'Phone',
    picture: new Blob(['bytes']),
    refused: null,
  })

  it('are of the person who took them, oldest first, until they are sent', async () => {
    await queuePhoto(photo('1', 'ann', '2026-11-20T09:00:00Z'))
    await queuePhoto(photo('2', 'ann', '2026-11-20T08:00:00Z'))
    await queuePhoto(photo('3', 'ben', '2026-11-20T07:00:00Z'))
    expect((await queuedPhotos('ann')).map(({ id }) => id)).toEqual(['2', '1'])
    await dropPhoto('2')
    expect((await queuedPhotos('ann')).map(({ id }) => id)).toEqual(['1'])
    await forgetKept()
    expect(await queuedPhotos('ben')).toHaveLength(1)
  })
})
