import ELK from 'elkjs/lib/elk-api'
import workerUrl from 'elkjs/lib/elk-worker.min.js?url'
import type { WiredJob } from '#core/assessment/wired'
import { layoutOf, type Layout } from '#core/network/layout'

/** A wiring with its drawing laid out. */
export interface DrawnWiring {
  readonly wired: WiredJob
  readonly layout: Layout
}

/** The wiring of the job on the bench, following its changes: judged in the engine, laid out in a worker of its own. */
export function useWiring(isReady: () => boolean) {
  const bench = useJob()
  const elk = new ELK({ workerUrl })
  onScopeDispose(() => {
    elk.terminateWorker()
  })
  const { result, pending, problem } = useAsked(
    async (engine, job, shop): Promise<DrawnWiring> => {
      const wired = await engine.wiring(job, shop)
      return { wired, layout: await layoutOf(wired.drawing, elk) }
    },
    () => (isReady() ? bench.document : null),
  )
  return { drawn: result, pending, problem }
}
