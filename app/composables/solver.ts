import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import type { Adjustment, Answer, Answers } from '#core/solve/answer'
import type { Outcome } from '#core/solve/solve'
import type { JobDocument } from '#core/job/document'
import type { RuleOverrides } from '#core/rules/rules'
import type { ShelfPart } from '#core/shelf/kinds'
import type { DisplayUnits } from '#core/units/display'
import type { SolveNews, SolveOrder } from '../workers/solve.worker'

/** Workers that share a search: as many as there are cores to spare, one at least. */
const workerCount = Math.min(4, Math.max(1, (globalThis.navigator?.hardwareConcurrency ?? 2)))

/** Searches for answers in workers: how far it has come, a stop that takes at once, the answers, and answers changed by hand. */
export function useSolver() {
  let workers: Worker[] = []
  const state = ref<'idle' | 'searching' | 'judging' | 'done' | 'stopped'>('idle')
  const count = ref(0)
  const looked = ref(0)
  const answers = shallowRef<Answers | null>(null)
  const problem = ref('')
  let outcomes: Outcome[] = []
  let searching = 0
  let orders = 0
  const adjusting = new Map<number, (answer: Answer) => void>()

  function end(): void {
    for (const worker of workers) worker.terminate()
    workers = []
  }
  function stop(): void {
    end()
    if (state.value === 'searching' || state.value === 'judging') state.value = 'stopped'
  }
  function hear(worker: Worker, news: SolveNews): void {
    switch (news.kind) {
      case 'planned': count.value = news.count; break
      case 'found':
        outcomes.push(...news.outcomes)
        looked.value = outcomes.length
        break
      case 'searched':
        searching--
        // The one that is done last judges: it has the plan, and the others can go.
        if (searching === 0) {
          state.value = 'judging'
          for (const other of workers) if (other !== worker) other.terminate()
          workers = [worker]
          worker.postMessage({ kind: 'judge', outcomes: outcomes.toSorted((a, b) => a.index - b.index) } satisfies SolveOrder)
        }
        break
      case 'answers':
        answers.value = news.answers
        state.value = 'done'
        break
      case 'adjusted':
        adjusting.get(news.id)?.(news.answer)
        adjusting.delete(news.id)
        break
      case 'failed':
        problem.value = news.error
        stop()
    }
  }
  function start(job: JobDocument, rules: RuleOverrides, shelf: readonly ShelfPart[], units: DisplayUnits): void {
    end()
    problem.value = ''
    outcomes = []
    looked.value = count.value = 0
    answers.value = null
    state.value = 'searching'
    searching = workerCount
    // What comes out of a store has proxies inside and cannot be sent.
    const plain = JSON.parse(JSON.stringify({ job, rules, shelf, units })) as { job: JobDocument; rules: RuleOverrides; shelf: ShelfPart[]; units: DisplayUnits }
    workers = Array.from({ length: workerCount }, (_, turn) => {
      const worker = new Worker(new URL('../workers/solve.worker.ts', import.meta.url), { type: 'module' })
      worker.onmessage = ({ data }: MessageEvent<SolveNews>) => hear(worker, data)
      worker.onerror = ({ message }) => {
        problem.value = `The search could not be started: ${message}`
        stop()
      }
      worker.postMessage({ kind: 'search', ...plain, of: workerCount, turn } satisfies SolveOrder)
      return worker
    })
  }
  /** An answer with steps left out or set otherwise, judged anew. Only after a search. */
  const adjusted = (answer: Answer, adjustments: readonly Adjustment[]): Promise<Answer> => new Promise((done) => {
    const id = ++orders
    adjusting.set(id, done)
    workers[0]?.postMessage({ kind: 'adjust', id, answer: JSON.parse(JSON.stringify(answer)) as Answer, adjustments: [...adjustments] } satisfies SolveOrder)
  })
  onScopeDispose(end)
  return { state, count, looked, share: computed(() => (count.value === 0 ? 0 : looked.value / count.value)), answers, problem, start, stop, adjusted }
}
