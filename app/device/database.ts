import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import type { RecentJob } from '../../server/repositories/job-list'
import type { StoredJob } from '../../server/repositories/jobs'

/** Where the service worker keeps pictures of photos. `nuxt.config.ts` names it too. */
const photoCache = 'photos'

/** A job that is kept for work without signal. */
export interface KeptJob {
  readonly id: string
  readonly stored: StoredJob
  /** The job as the list shows it; null until the server has listed it. */
  readonly row: RecentJob | null
  /** Kept however long ago it was changed. */
  readonly isPinned: boolean
}

/** A photo that waits to be sent. Its id goes with it, so that it is added once however often it is sent. */
export interface QueuedPhoto {
  readonly id: string
  readonly job: string
  readonly station: string
  readonly name: string
  readonly takenBy: string
  readonly takenAt: string
  /** The person who took it; empty on one machine. */
  readonly owner: string
  readonly picture: Blob
  /** Why the server does not take it; null while it waits. */
  readonly refused: string | null
}

interface Schema extends DBSchema {
  jobs: { key: string; value: KeptJob }
  /** Answers of the server by their address. */
  answers: { key: string; value: { readonly path: string; readonly data: unknown } }
  /** Photos that wait to be sent, with their bytes. */
  photos: { key: string; value: QueuedPhoto }
}
type DeviceDatabase = IDBPDatabase<Schema>

const version = 1
let opening: Promise<DeviceDatabase> | undefined

function open(): Promise<DeviceDatabase> {
  return openDB<Schema>('jovial-anchor', version, {
    upgrade(database) {
      database.createObjectStore('jobs', { keyPath: 'id' })
      database.createObjectStore('answers', { keyPath: 'path' })
      database.createObjectStore('photos', { keyPath: 'id' })
    },
    // A newer version of the application in another window waits for this one to let go.
    blocking: (_now, _wanted, event) => {
      ;(event.target as IDBDatabase).close()
      opening = undefined
    },
    terminated: () => {
      opening = undefined
    },
  })
}

/**
 * Does something with the data that this device keeps.
 * @param otherwise the answer where the browser keeps nothing, or has no room left
 */
export async function withDevice<T>(
  work: (database: DeviceDatabase) => Promise<T>,
  otherwise: T,
): Promise<T> {
  try {
    return await work(await (opening ??= open()))
  } catch {
    opening = undefined
    return otherwise
  }
}

/** Forgets everything that came from the server: another person must not find it. Unsent photos stay. */
export async function forgetKept(): Promise<void> {
  await withDevice(async (database) => {
    await Promise.all([database.clear('jobs'), database.clear('answers')])
  }, undefined)
  if ('caches' in window) await caches.delete(photoCache)
}
