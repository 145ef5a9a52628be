import { setResponseStatus } from 'h3'
import { appliedSchema, schemaNumber } from '../db/schema'
import { database } from '../utils/database'
import { health } from '../answers/shop'
import { json, route } from '../utils/route'

/** Whether this server can work: the database answers and has the tables of this version. 503 if not. */
export default route({ needs: 'anyone', answer: json(health) }, async (event) => {
  const applied = await appliedSchema(database()).catch(() => null)
  const isReady = applied === schemaNumber
  if (!isReady) setResponseStatus(event, 503)
  return {
    ready: isReady,
    database: applied === null ? 'unreachable' : 'reachable',
    migrations: { applied, wanted: schemaNumber },
  }
})
