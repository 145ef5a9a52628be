// A share of a search, in a thread of its own: for npm run bench.
import { parentPort, workerData } from 'node:worker_threads'
import type { JobDocument } from '../../core/job/document'
import type { ShelfPart } from '../../core/shelf/kinds'
import { evaluate, planOf } from '../../core/solve/solve'

const { job, shelf, turn, of, most, settling } = workerData as { job: JobDocument; shelf: ShelfPart[]; turn: number; of: number; most: number; settling: boolean }
const plan = planOf(job, {}, shelf)
// Where only those that settle count, they are gone through again and again until there are enough.
const indices = settling ? Array.from({ length: plan.count }, (_, i) => i).filter((i) => evaluate(plan, i).settles) : Array.from({ length: plan.count }, (_, i) => i)
const begun = performance.now()
let [looked, settled] = [0, 0]
for (let k = turn; k < (settling ? most : Math.min(most, indices.length)); k += of) {
  looked++
  if (evaluate(plan, indices[k % indices.length]!).settles) settled++
}
parentPort!.postMessage({ count: plan.count, looked, settled, ms: performance.now() - begun })
