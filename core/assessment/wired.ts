import type { JobDocument, PartPath } from '#core/job/document'
import { drawingOf, type Drawing } from '#core/network/drawing'
import { figuresOf, type RunFigures } from '#core/network/figures'
import { partsOfWiring, swapsOf, type SwapStep, type WiringPart } from '#core/network/lists'
import type { Network } from '#core/network/network'
import { wired, wiringIn } from '#core/network/wiring'
import { factsOf, usualSystem, type ShopSettings } from '#core/system/system'
import { worst, type Verdict } from '#core/system/verdict'
import { resultsAmong, type CheckResult } from './assess'

/** Figures of a fuse, switch or bar as they stand beside the drawing. */
export interface FittingFigures {
  readonly id: string
  readonly throughA: number
  /** A bolted short there, A; 0 in the negative. */
  readonly shortA: number
}

/** The wiring of a job with all that its view shows: what is drawn, what is judged, what is bought. */
export interface WiredJob {
  readonly network: Network
  readonly drawing: Drawing
  readonly runs: readonly RunFigures[]
  readonly fittings: readonly FittingFigures[]
  readonly verdict: Verdict
  readonly checks: readonly CheckResult[]
  readonly parts: readonly WiringPart[]
  readonly swaps: readonly SwapStep[]
}

/** The worst verdict of each run and fitting by its path, where it is worse than Suits. */
export function worstByPath({ checks }: Pick<WiredJob, 'checks'>): Map<PartPath, Verdict> {
  const worstOf = new Map<PartPath, Verdict>()
  for (const { on, verdict } of checks)
    if (verdict !== 'suits') worstOf.set(on, worst([verdict, worstOf.get(on) ?? verdict]))
  return worstOf
}

/** Proposes the wiring of a job as it is specified, and judges it. */
export function wiredJob(job: JobDocument, shop: ShopSettings): WiredJob {
  const whole = wired(job, shop)
  const facts = factsOf(whole, shop)
  const wiring = wiringIn(usualSystem(facts))
  const { network } = wiring
  const checks = resultsAmong(facts, ({ check }) => check.id.startsWith('wiring.'))
  return {
    network,
    drawing: drawingOf(network, facts.q),
    runs: network.runs.map((run) => figuresOf(run, wiring)),
    fittings: network.posts.flatMap(({ id, fitting }) =>
      fitting ? [{ id, throughA: wiring.throughA(id), shortA: wiring.solved.shortNearA(id) }] : [],
    ),
    verdict: worst(checks.map(({ verdict }) => verdict)),
    checks,
    parts: partsOfWiring(network),
    swaps: swapsOf(network),
  }
}
