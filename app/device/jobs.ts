import type { RecentJob } from '../../server/repositories/job-list'
import type { StoredJob } from '../../server/repositories/jobs'
import { withDevice, type KeptJob } from './database'

export const keptJob = (id: string): Promise<KeptJob | undefined> =>
  withDevice((database) => database.get('jobs', id), undefined)

export const keptJobs = (): Promise<readonly KeptJob[]> =>
  withDevice((database) => database.getAll('jobs'), [])

/** Changes a stored job in one step. False if the browser has no room. */
const change = (id: string, make: (before: KeptJob | undefined) => KeptJob | null): Promise<boolean> =>
  withDevice(async (database) => {
    const transaction = database.transaction('jobs', 'readwrite')
    const next = make(await transaction.store.get(id))
    await (next ? transaction.store.put(next) : transaction.store.delete(id))
    await transaction.done
    return true
  }, false)

/** Keeps a job as it stands on the server. */
export const keepJob = (stored: StoredJob, row: RecentJob | null = null): Promise<boolean> =>
  change(stored.id, (before) => ({
    id: stored.id,
    stored,
    row: row ?? before?.row ?? null,
    isPinned: before?.isPinned ?? false,
  }))

/** Keeps a job however long ago it was changed, or no longer. */
export const pinJob = (stored: StoredJob, isPinned: boolean): Promise<boolean> =>
  change(stored.id, (before) => ({ id: stored.id, row: null, ...before, stored, isPinned }))

export const forgetJob = (id: string): Promise<boolean> => change(id, () => null)
