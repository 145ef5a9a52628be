import { checkJudging, judgeOfServer } from '../judging/pool'
import { judgingQueue } from '../utils/database'
import { logProblem } from '../running/log'

/** As soon as the server is up, it checks the jobs that an earlier server left. Without its threads it ends. */
export default defineNitroPlugin(() => {
  // The entry of the server is known only once all of its files are loaded.
  setImmediate(() => {
    checkJudging()
      .then(() => {
        judgingQueue().wake()
        // Papers can wait: a request for one before that takes longer.
        judgeOfServer()
          .warm()
          .catch(() => undefined)
      })
      .catch((cause: unknown) => {
        logProblem(`The server cannot start: ${cause instanceof Error ? cause.message : String(cause)}`)
        process.exit(1)
      })
  })
})
