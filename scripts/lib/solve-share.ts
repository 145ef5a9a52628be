// A share of a search, in a thread of its own: for npm run bench.
import { parentPort, workerData } from 'node:worker_threads'
import type { JobDocument } from '../../core/job/document'
import type { ShelfPart } from '../../core/shelf/kinds'
import { evaluate, planOf } from '../../core/solve/solve'

const { job, shelf, turn, of, most } = workerData as { job: JobDocument; shelf: ShelfPart[]; turn: number; of: number; most: number }
const plan = planOf(job, {}, shelf)
const begun = performance.now()
let [looked, settled] = [0, 0]
for (let index = turn; index < Math.min(most, plan.count); index += of) {
  looked++
  if (evaluate(plan, index).settles) settled++
}
parentPort!.postMessage({ count: plan.count, looked, settled, ms: performance.now() - begun })
