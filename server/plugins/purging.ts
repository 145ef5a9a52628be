import { purge } from '../db/purge'
import { database } from '../utils/database'
import { logProblem } from '../running/log'

const everyMs = 6 * 3_600_000

/** Removes rows that were deleted long enough ago, several times a day. */
export default defineNitroPlugin(() => {
  const purging = (): void => {
    purge(database()).catch((cause: unknown) => {
      logProblem('Removing deleted jobs:', cause)
    })
  }
  purging()
  setInterval(purging, everyMs).unref()
})
