import { existsSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { dirname, join } from 'node:path'
import { Piscina } from 'piscina'
import { judgeHere, TooLarge, type Judge } from './judge'
import type { ListVerdict } from './work'

/** Written beside the server's entry when it is built. */
const threadFile = join(dirname(process.argv[1] ?? ''), 'judging.mjs')
const idleMs = 60_000
/** Memory of one thread, MB. */
const mostMb = 256
/** What one judging may take; then its thread is ended, ms. */
const budgetMs = 5000

function pooled(): Judge {
  const pool = new Piscina({
    filename: threadFile,
    minThreads: 1,
    maxThreads: Math.max(2, availableParallelism() - 1),
    idleTimeout: idleMs,
    resourceLimits: { maxOldGenerationSizeMb: mostMb },
  })
  return {
    async verdict(job) {
      const signal = AbortSignal.timeout(budgetMs)
      try {
        return (await pool.run(job, { name: 'verdict', signal })) as ListVerdict
      } catch (cause) {
        throw signal.aborted ? new TooLarge('This job is too large to judge at once') : cause
      }
    },
    sheet: (inputs) => pool.run(inputs, { name: 'sheet' }),
    summaryPdf: (job) => pool.run(job, { name: 'summaryPdf' }),
    sheetPdf: (issued) => pool.run(issued, { name: 'sheetPdf' }),
  }
}

let judge: Judge | undefined

/**
 * A pool of threads, opened at first use; on the spot while the server is developed, which builds no thread.
 */
export const judgeOfServer = (): Judge => (judge ??= existsSync(threadFile) ? pooled() : judgeHere)
