import type { JobDocument, PartPath } from '#core/job/document'
import { drawingOf, type Drawing } from '#core/drawing/drawing'
import { figuresOf, type RunFigures } from '#core/wiring/figures'
import { partsOfWiring, swapsOf, type SwapStep, type WiringPart } from '#core/wiring/lists'
import type { Network } from '#core/wiring/network'
import { wired, wiringIn } from '#core/wiring/wiring'
import type { Facts } from '#core/system/facts'
import { factsOf, usualSystem, type ShopSettings } from '#core/system/system'
import { worst, type Verdict } from '#core/system/verdict'
import { wiringFindings, wiringResults, type CheckResult, type Finding } from './assess'

/** Figures of a fuse, switch or bar, shown next to the drawing. */
interface FittingFigures {
  readonly id: string
  readonly throughA: number
  /** A bolted short there, A; 0 in the negative. */
  readonly shortA: number
}

/** The checks of a wiring, and the worst of them. */
export interface WiringVerdict {
  readonly verdict: Verdict
  readonly checks: readonly CheckResult[]
}

/** The wiring of a job for its view: drawing, checks and parts. */
export interface WiredJob extends WiringVerdict {
  readonly network: Network
  readonly drawing: Drawing
  readonly runs: readonly RunFigures[]
  readonly fittings: readonly FittingFigures[]
  readonly parts: readonly WiringPart[]
  readonly swaps: readonly SwapStep[]
}

/** The worst verdict of each run and fitting by path, if worse than Suits. */
export function worstByPath({ checks }: Pick<WiredJob, 'checks'>): Map<PartPath, Verdict> {
  const worstOf = new Map<PartPath, Verdict>()
  for (const { on, verdict } of checks)
    if (verdict !== 'suits') worstOf.set(on, worst([verdict, worstOf.get(on) ?? verdict]))
  return worstOf
}

/** The wiring of a job as specified, with its checks. */
function judged(job: JobDocument, shop: ShopSettings): WiringVerdict & { readonly facts: Facts } {
  const facts = factsOf(wired(job, shop), shop)
  const checks = wiringResults(facts)
  return { facts, checks, verdict: worst(checks.map(({ verdict }) => verdict)) }
}

/** The verdict of the wiring of a job as specified, without drawing and lists. */
export function wiringVerdictOf(job: JobDocument, shop: ShopSettings = {}): WiringVerdict {
  const { verdict, checks } = judged(job, shop)
  return { verdict, checks }
}

/** The network of a job as specified, with its checks. */
export interface WiredNetwork {
  readonly network: Network
  readonly checks: readonly CheckResult[]
}

/** The wiring of a job as specified, calculated once for checks and parts. */
export function wiredNetworkOf(job: JobDocument, shop: ShopSettings = {}): WiredNetwork {
  const { facts, checks } = judged(job, shop)
  return { network: wiringIn(usualSystem(facts)).network, checks }
}

/** The verdicts of the wiring's checks without words: faster than {@link wiringVerdictOf}. */
export const wiringFindingsOf = (job: JobDocument, shop: ShopSettings = {}): Finding[] =>
  wiringFindings(factsOf(wired(job, shop), shop))

/** Proposes the wiring of a job as specified, and checks it. */
export function wiredJob(job: JobDocument, shop: ShopSettings): WiredJob {
  const { facts, verdict, checks } = judged(job, shop)
  const wiring = wiringIn(usualSystem(facts))
  const { network } = wiring
  return {
    network,
    drawing: drawingOf(network, facts.q),
    runs: network.runs.map((run) => figuresOf(run, wiring)),
    fittings: network.posts.flatMap(({ id, fitting }) =>
      fitting ? [{ id, throughA: wiring.throughA(id), shortA: wiring.solved.shortNearA(id) }] : [],
    ),
    verdict,
    checks,
    parts: partsOfWiring(network),
    swaps: swapsOf(network),
  }
}
