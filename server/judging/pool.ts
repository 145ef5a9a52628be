import { existsSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { dirname, join } from 'node:path'
import { Piscina } from 'piscina'
import { judgeHere, type Judge } from './judge'

/** Written beside the server's entry when it is built. */
const threadFile = join(dirname(process.argv[1] ?? ''), 'judging.mjs')
const idleMs = 60_000

function pooled(): Judge {
  const pool = new Piscina({
    filename: threadFile,
    minThreads: 1,
    maxThreads: Math.max(1, availableParallelism() - 1),
    idleTimeout: idleMs,
  })
  return {
    verdict: (job) => pool.run(job, { name: 'verdict' }),
    sheet: (inputs) => pool.run(inputs, { name: 'sheet' }),
    summary: (job) => pool.run(job, { name: 'summary' }),
  }
}

let judge: Judge | undefined

/**
 * A pool of threads, opened at first use; on the spot while the server is developed, which builds no thread.
 */
export const judgeOfServer = (): Judge => (judge ??= existsSync(threadFile) ? pooled() : judgeHere)
