import { purge } from '../db/purge'
import { database } from '../utils/database'

const everyMs = 6 * 3_600_000

/** What was deleted long enough ago goes, some times a day. */
export default defineNitroPlugin(() => {
  const purging = (): void => {
    purge(database()).catch((cause: unknown) => {
      console.error('Removing deleted jobs:', cause)
    })
  }
  purging()
  setInterval(purging, everyMs).unref()
})
