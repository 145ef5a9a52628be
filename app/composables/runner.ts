import { onScopeDispose, ref, shallowRef } from 'vue'
import type { RunResult } from '#core/simulation/runs'
import { asCallback, plain, startEngine, type OwnEngine } from '../engine/client'
import type { RunOrder } from '../engine/engine'

/** Runs simulations in a separate engine: progress, immediate stop, results. */
export function useRunner() {
  let own: OwnEngine | null = null
  const share = ref<number | null>(null)
  const results = shallowRef<readonly RunResult[]>([])
  const notes = ref<readonly string[]>([])
  const problem = ref('')

  function stop(): void {
    own?.end()
    own = null
    share.value = null
  }
  async function start(order: RunOrder): Promise<void> {
    stop()
    problem.value = ''
    share.value = 0
    const mine = (own = startEngine((message) => {
      fail(mine, `Cannot start the run: ${message}`)
    }))
    const plainOrder = { ...plain({ ...order, epw: null }), epw: order.epw }
    try {
      const outcome = await mine.engine.run(
        plainOrder,
        asCallback((done: number) => {
          if (own === mine) share.value = done
        }),
      )
      if (own !== mine) return
      if (!outcome.ok) return void fail(mine, outcome.error)
      results.value = outcome.results
      notes.value = outcome.notes
      stop()
    } catch (cause) {
      fail(mine, `The run stopped: ${(cause as Error).message}`)
    }
  }
  function fail(which: OwnEngine, words: string): void {
    if (own !== which) return
    problem.value = words
    stop()
  }
  onScopeDispose(stop)
  return { share, results, notes, problem, start, stop }
}
