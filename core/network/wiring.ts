import { asSpecified } from '#core/job/as-specified'
import type { JobDocument } from '#core/job/document'
import { Reads } from '#core/system/reads'
import { nothingAssumed, Scene } from '#core/system/scene'
import { System, type ShopSettings } from '#core/system/system'
import type { Case } from './cases'
import type { InverterUnit, Network, Run } from './network'
import { draftOf, sizeRulesOf, solvedIn } from './of-job'
import type { Beyond, Ways } from './paths'
import { isLaidWithItsRun, type Conductors, type Sizes } from './run-ohm'
import type { Design, Solved } from './solved'
import { dropShare, type SizeRules } from './size'

/** The wiring of a system with what checks and drawings ask of it. */
export class Wiring {
  private theHeldBack: readonly InverterUnit[] | undefined

  constructor(
    readonly solved: Solved,
    private readonly rules: SizeRules,
  ) {}

  get network(): Network {
    return this.solved.network
  }
  get ways(): Ways {
    return this.solved.ways
  }
  /** What a run must be made for: what flows in it in any case, and no less than its source can give. */
  design(run: Run): Design {
    const design = this.solved.design.get(run.id)!
    return run.leastA > design.amps ? { ...design, amps: run.leastA } : design
  }
  /** What flows in a run at most, A: for hours, or, where it turns an engine, for its seconds. */
  flowsA(run: Run): number {
    const { amps, crankingA } = this.design(run)
    return run.role === 'cranking' ? crankingA : amps
  }
  /** Inverters that get less than all their power while everything draws: wiring or battery can carry no more. */
  get heldBack(): readonly InverterUnit[] {
    return (this.theHeldBack ??= this.network.units.filter(
      (unit): unit is InverterUnit =>
        unit.kind === 'inverter' &&
        this.loaded.some((at) => {
          const { volts } = this.solved.in(at)
          return volts.get(unit.plus)! - volts.get(unit.minus)! < unit.lowestV
        }),
    ))
  }
  private get loaded(): readonly Case[] {
    return this.solved.cases.filter(({ kind }) => kind === 'loads')
  }
  /** The inverter that is held back and hangs on a run; null where none does. */
  heldBackBy(run: Run): InverterUnit | null {
    return this.heldBack.find(({ of }) => run.role === 'main' || run.of === of) ?? null
  }
  /** A run of another size, and its return where that is laid with it. */
  sizesOf(run: Run, size: Conductors): Sizes {
    const back = this.ways.returnOf(run.id)
    return new Map([run, ...(back && isLaidWithItsRun(back) ? [back] : [])].map(({ id }) => [id, size]))
  }
  /**
   * What would flow in a run at most, A, were runs of other sizes: an inverter that is held back draws more the less is
   * lost on its way.
   */
  flowsWith(run: Run, sizes: Sizes): number {
    if (sizes.size === 0 || !this.heldBackBy(run)) return this.flowsA(run)
    const other = this.solved.withSizes(sizes)
    const flows = this.loaded.map((at) => Math.abs(other.in(at).amps.get(run.id)!))
    return Math.max(this.flowsA(run), ...flows)
  }
  /** What stands beyond each end of a run: a battery or a bar, and a fuse before it. */
  sourcesBeyond(run: Run): readonly [near: Beyond, far: Beyond] {
    return [this.ways.sourceBeyond(run.from, run), this.ways.sourceBeyond(run.to, run)]
  }
  /** Share of the voltage that may be lost on the way of a run, there and back. */
  dropShare(run: Run): number {
    return dropShare(run, this.network, this.rules)
  }
  /** The largest current for hours at a post, A. */
  throughA(post: string): number {
    return Math.max(0, ...this.ways.runsAt(post).map((run) => this.design(run).amps))
  }
}

/** Whether the wiring of a system is judged at all: its runs have parts in the job. */
export const hasRuns = ({ many }: System): boolean => many.runs.length > 0

/**
 * The wiring of a system, worked out once for a job: unknowns are taken as usual, whatever a scene assumes of them,
 * since what is proposed is bought before they are known.
 */
export function wiringIn(system: System): Wiring {
  const { facts, reads } = system.scene
  const { wiring, from } = facts.once(['wiring'], () => {
    const own = new Reads(facts.slots)
    const usual = new System(new Scene(facts, nothingAssumed, { reads: own, asUsual: true }))
    return { wiring: new Wiring(solvedIn(usual, facts.job), sizeRulesOf(usual.rules)), from: own.slots }
  })
  reads.noteAll(from)
  return wiring
}

/**
 * A job as it is specified, with a part for each run and each fitting of its wiring: so they are judged, and what of
 * them is not known is asked for.
 */
export function wired(job: JobDocument, shop: ShopSettings): JobDocument {
  const { runs, posts } = draftOf(job, shop)
  const names = new Map(posts.map(({ id, name }) => [id, name]))
  const named = runs.map(({ id, number, from, to }) => [
    id,
    { name: `${number}, ${names.get(from)} to ${names.get(to)}`, ...job.runs[id] },
  ])
  const fittings = posts.flatMap(({ id, name, fitting }) =>
    fitting ? [[id, { name: `${fitting.number} ${name}`.trim(), ...job.fittings[id] }]] : [],
  )
  return {
    ...asSpecified(job),
    // What is fitted in place of what is told from the answer itself.
    ...(job.specified ? { specified: job.specified } : {}),
    runs: { ...job.runs, ...Object.fromEntries(named) },
    fittings: { ...job.fittings, ...Object.fromEntries(fittings) },
  }
}
