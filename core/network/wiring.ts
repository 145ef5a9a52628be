import { asSpecified } from '#core/job/as-specified'
import type { JobDocument } from '#core/job/document'
import { Reads } from '#core/system/reads'
import { nothingAssumed, Scene } from '#core/system/scene'
import { System, type ShopSettings } from '#core/system/system'
import type { Network, Post, Run, Unit } from './network'
import { sizeRulesOf, networkIn, networkOf } from './of-job'
import { fuseOf, sourceBeyond, wayOf } from './paths'
import { Solved, type Design } from './solved'
import { dropShare, type SizeRules } from './size'

/** The wiring of a system with what checks and drawings ask of it. */
export class Wiring {
  readonly solved: Solved
  private readonly posts: ReadonlyMap<string, Post>
  private readonly runs: ReadonlyMap<string, Run>

  constructor(
    readonly network: Network,
    private readonly rules: SizeRules,
  ) {
    this.solved = new Solved(network)
    this.posts = new Map(network.posts.map((post) => [post.id, post]))
    this.runs = new Map(network.runs.map((run) => [run.id, run]))
  }

  post(id: string): Post | null {
    return this.posts.get(id) ?? null
  }
  run(id: string): Run | null {
    return this.runs.get(id) ?? null
  }
  /** The run that brings the current of another back; null where it comes back by the chassis or with others. */
  returnOf(id: string): Run | null {
    return this.network.runs.find(({ returnOf, role }) => returnOf === id && role !== 'main') ?? null
  }
  /** What a run must be made for: what flows in it in any case, and no less than its source can give. */
  design(run: Run): Design {
    const design = this.solved.design.get(run.id)!
    return run.leastA > design.amps ? { ...design, amps: run.leastA } : design
  }
  fuseOf(run: Run): Post | null {
    return fuseOf(run, this.network)
  }
  /** The runs of the way without branches that a run is part of, itself included. */
  wayOf(run: Run): readonly Run[] {
    return wayOf(run, this.network)
  }
  /** What stands beyond each end of a run: a battery or a bar, and a fuse before it. */
  sourcesBeyond(run: Run): readonly { readonly source: boolean; readonly fuse: boolean }[] {
    return [run.from, run.to].map((end) => sourceBeyond(end, run, this.network))
  }
  /** Share of the voltage that may be lost on the way of a run, there and back. */
  dropShare(run: Run): number {
    return dropShare(run, this.network, this.rules)
  }
  unitAt(post: string): Unit | null {
    return (
      this.network.units.find(
        (unit) => unit.plus === post || (unit.kind === 'dcdc' && unit.inPlus === post),
      ) ?? null
    )
  }
  /** The runs that a post is joined by. */
  runsAt(post: string): readonly Run[] {
    return this.network.runs.filter(({ from, to }) => from === post || to === post)
  }
  /** The largest current for hours at a post, A. */
  throughA(post: string): number {
    return Math.max(0, ...this.runsAt(post).map((run) => this.design(run).amps))
  }
}

/**
 * The wiring of a system, worked out once for a job: unknowns are taken as usual, whatever a scene assumes of them,
 * since what is proposed is bought before they are known.
 */
export function wiringIn(system: System): Wiring {
  const { facts, reads } = system.scene
  const { wiring, from } = facts.once(['wiring'], () => {
    const own = new Reads(facts.slots)
    const usual = new System(new Scene(facts, nothingAssumed, { reads: own, asUsual: true }))
    return { wiring: new Wiring(networkIn(usual, facts.job), sizeRulesOf(usual.rules)), from: own.slots }
  })
  reads.noteAll(from)
  return wiring
}

/**
 * A job as it is specified, with a part for each run and each fitting of its wiring: so they are judged, and what of
 * them is not known is asked for.
 */
export function wired(
  job: JobDocument,
  shop: ShopSettings,
): { readonly job: JobDocument; readonly network: Network } {
  const network = networkOf(job, shop)
  const name = (id: string): string => network.posts.find((post) => post.id === id)!.name
  const runs = network.runs.map((run) => [
    run.id,
    { name: `${run.number}, ${name(run.from)} to ${name(run.to)}`, ...job.runs[run.id] },
  ])
  const fittings = network.posts.flatMap((post) =>
    post.fitting
      ? [[post.id, { name: `${post.fitting.number} ${post.name}`.trim(), ...job.fittings[post.id] }]]
      : [],
  )
  return {
    network,
    job: {
      ...asSpecified(job),
      // What is fitted in place of what is told from the answer itself.
      ...(job.specified ? { specified: job.specified } : {}),
      runs: { ...job.runs, ...Object.fromEntries(runs) },
      fittings: { ...job.fittings, ...Object.fromEntries(fittings) },
    },
  }
}
