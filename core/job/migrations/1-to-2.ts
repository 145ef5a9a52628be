import type { Migration } from './migration'

const added = ['solar', 'sources', 'generators', 'loads', 'alternatives']

/** Version 1 knew fewer kinds of parts, and no notes: a job of that version has none of them. */
export const oneToTwo: Migration = {
  job: (job) => ({
    ...job,
    version: 2,
    notes: job.notes ?? {},
    ...Object.fromEntries(added.map((kind) => [kind, job[kind] ?? {}])),
  }),
  path: (path) => path,
}
