import type { RunNews, RunOrder } from '../workers/run.worker'
import type { RunResult } from '#core/simulation/runs'

/** Carries out runs in a worker: progress, a stop that takes at once, and the results. */
export function useRunner() {
  let worker: Worker | null = null
  const share = ref<number | null>(null)
  const results = shallowRef<readonly RunResult[]>([])
  const notes = ref<readonly string[]>([])
  const problem = ref('')

  function stop(): void {
    worker?.terminate()
    worker = null
    share.value = null
  }
  function start(order: RunOrder): void {
    stop()
    problem.value = ''
    share.value = 0
    worker = new Worker(new URL('../workers/run.worker.ts', import.meta.url), { type: 'module' })
    worker.onmessage = ({ data }: MessageEvent<RunNews>) => {
      if (data.kind === 'progress') return void (share.value = data.share)
      if (data.kind === 'refused') problem.value = data.error
      else {
        results.value = data.results
        notes.value = data.notes
      }
      stop()
    }
    worker.onerror = (event) => {
      problem.value = `The run could not be started: ${event.message}`
      stop()
    }
    // The plants come out of a store and must lose their proxies; the text of the weather is large and has none.
    worker.postMessage({ ...JSON.parse(JSON.stringify({ ...order, epw: null })), epw: order.epw })
  }
  onScopeDispose(stop)
  return { share, results, notes, problem, start, stop }
}
