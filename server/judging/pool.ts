import pLimit from 'p-limit'
import { existsSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { fileURLToPath } from 'node:url'
import { Piscina } from 'piscina'
import { judgeHere, TooLarge, type Judge } from './judge'

/** The file of a thread. The build writes it next to the server's entry, whose address this is in every file. */
const threadFile = (): string => fileURLToPath(new URL('judging.mjs', import.meta.url))
/** A thread with nothing to do ends after this: one that prints takes a second to become warm again, ms. */
const judgeIdleMs = 20_000
const printerIdleMs = 300_000
/** Memory of one thread, MB. */
const mostMb = 256
/**
 * Time limit of one task once its thread begins, ms; then the thread is ended. A check takes milliseconds, a paper
 * a second, a record some seconds. It only ends hanging tasks: on a busy machine a thread may get a fiftieth of a
 * core.
 */
const taskMs = 240_000
/** Threads that check leave the server a core; nobody’s paper keeps a checking waiting. */
const judges = Math.max(1, availableParallelism() - 1)
const printers = availableParallelism()
/** Threads give way to the thread that answers requests by this much, where the system knows it. */
const niceLevel = 5

const poolOf = (threads: number, idleMs: number): Piscina =>
  new Piscina({
    filename: threadFile(),
    minThreads: 0,
    maxThreads: threads,
    idleTimeout: idleMs,
    niceIncrement: niceLevel,
    resourceLimits: { maxOldGenerationSizeMb: mostMb },
  })

/**
 * Runs tasks of a pool, each within its time: as many at once as there are threads, so that it begins when they do.
 */
function within(pool: Piscina) {
  const atOnce = pLimit(pool.maxThreads)
  return <T>(name: string, task: unknown): Promise<T> =>
    atOnce(async () => {
      const signal = AbortSignal.timeout(taskMs)
      try {
        return (await pool.run(task, { name, signal })) as T
      } catch (cause) {
        throw signal.aborted ? new TooLarge('This job is too large to check at once') : cause
      }
    })
}

function pooled(): Judge {
  const [judging, printing] = [poolOf(judges, judgeIdleMs), poolOf(printers, printerIdleMs)]
  const judge = within(judging)
  const print = within(printing)
  return {
    check: () => judge('check', null),
    warm: () => print('warm', null),
    verdict: (job) => judge('verdict', job),
    sheet: (inputs) => print('sheet', inputs),
    quotation: (inputs) => print('quotation', inputs),
    record: (inputs) => print('record', inputs),
    standIn: (held) => print('standIn', held),
    plain: (order) => print('plain', order),
    pdf: (paper) => print('pdf', paper),
  }
}

let judge: Judge | undefined

/** Pools of threads, opened at first use. A server under development has no built thread and checks by itself. */
export const judgeOfServer = (): Judge => (judge ??= import.meta.dev ? judgeHere : pooled())

/**
 * Starts a thread and asks it for an answer.
 * @throws when the file of the threads is missing, or a thread cannot start
 */
export async function checkJudging(): Promise<void> {
  if (import.meta.dev) return
  if (!existsSync(threadFile())) throw new Error(`${threadFile()} is missing. Build the application again.`)
  try {
    await judgeOfServer().check()
  } catch (cause) {
    throw new Error(`its judging threads do not start (${String(cause)}).`, { cause })
  }
}
