import type { Change } from '../change'
import type { Group, Migration } from './migration'
import { oneToTwo } from './1-to-2'
import { twoToThree } from './2-to-3'
import { threeToFour } from './3-to-4'

/** Each brings a job from one version of the format to the next. */
const migrations: readonly Migration[] = [oneToTwo, twoToThree, threeToFour]

/**
 * A job of any older version, migrated step by step. Other documents stay unchanged.
 */
export function upToDate(job: Group): Group {
  const { version } = job
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) return job
  return migrations.slice(version - 1).reduce((next, { job: bring }) => bring(next), job)
}

/** A change that was noted in an older version, as it reads now. */
export const changeUpToDate = (change: Change): Change =>
  migrations.reduce((next, { path }) => ({ ...next, path: path(next.path) }), change)
