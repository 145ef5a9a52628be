import ELK from 'elkjs/lib/elk-api'
import workerUrl from 'elkjs/lib/elk-worker.min.js?url'
import type { WiredJob } from '#core/assessment/wired'
import type { Drawing } from '#core/drawing/drawing'
import { layoutOf, type Layout } from '#core/drawing/layout'

/** A wiring with its drawing laid out. */
interface DrawnWiring {
  readonly wired: WiredJob
  readonly layout: Layout
}

/** The worker that lays drawings out: begun with the first one, and kept. */
let sharedElk: InstanceType<typeof ELK> | null = null
const theElk = (): InstanceType<typeof ELK> => (sharedElk ??= new ELK({ workerUrl }))
/** Gives a drawing its places, in a worker. */
export const layOut = (drawing: Drawing): Promise<Layout> => layoutOf(drawing, theElk())

/** The last drawing, by its job and settings: it is there when the view opens again. */
let last: { readonly of: string; readonly drawn: DrawnWiring } | null = null

/**
 * The wiring of the job on the bench, following its changes: checked in the engine, laid out in a worker of its own.
 */
export function useWiring(isReady: () => boolean) {
  const bench = useJob()
  const { result, pending, problem } = useAsked(
    async (engine, job, shop): Promise<DrawnWiring> => {
      const of = JSON.stringify([job, shop])
      if (last?.of === of) return last.drawn
      const wired = await engine.wiring(job, shop)
      const drawn = { wired, layout: await layOut(wired.drawing) }
      last = { of, drawn }
      return drawn
    },
    () => (isReady() ? bench.document : null),
  )
  return { drawn: result, pending, problem }
}
