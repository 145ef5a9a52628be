import { connect } from '../db/connection'
import { database } from '../utils/database'
import { logProblem } from '../running/log'

const everyMs = 5000
/** Looks in a row that find the database up and the pool without an answer before the server gives up. */
const mostLooks = 4

/** A pool that is only busy is not lost. */
async function poolAnswers(): Promise<boolean> {
  try {
    await database()`select 1`
    return true
  } catch (cause) {
    return (cause as { code?: unknown }).code === 'POOL_BUSY'
  }
}

async function databaseAnswers(): Promise<boolean> {
  const sql = connect(process.env.DATABASE_URL!, { max: 1 })
  try {
    await sql`select 1`
    return true
  } catch {
    return false
  } finally {
    await sql.end({ timeout: 1 })
  }
}

/** A server whose pool does not recover while the database is up ends, and `npm start` starts another. */
export default defineNitroPlugin(() => {
  let lost = 0
  const lookLater = (): void => {
    setTimeout(() => void look(), everyMs).unref()
  }
  const look = async (): Promise<void> => {
    lost = !(await poolAnswers()) && (await databaseAnswers()) ? lost + 1 : 0
    if (lost >= mostLooks) {
      logProblem('The database connections do not come back. The server stops.')
      process.exit(1)
    }
    lookLater()
  }
  if (process.env.DATABASE_URL) lookLater()
})
