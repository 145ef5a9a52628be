import type { Migration } from './migration'

/** Version 3 knew nothing of the wiring: nothing of it is set by hand yet. */
export const threeToFour: Migration = {
  job: (job) => ({ runs: {}, fittings: {}, branches: {}, ...job, version: 4 }),
  path: (path) => path,
}
