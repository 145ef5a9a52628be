import { entryOf } from '#core/collections/held'
import { asSpecified } from '#core/job/as-specified'
import type { JobDocument } from '#core/job/document'
import { Reads } from '#core/system/reads'
import { nothingAssumed, Scene } from '#core/system/scene'
import { System, type ShopSettings } from '#core/system/system'
import type { InverterUnit, Network, Run } from './network'
import { draftOf, sizeRulesOf } from './of-job'
import type { Beyond, Ways } from './paths'
import type { WiringDraft } from './propose/builder'
import { propose } from './propose/propose'
import { takesRunSize, type Conductors } from './run-ohm'
import type { Design, Solved } from './solved'
import { sized } from './size'
import { dropShare, type SizeRules } from './size-rules'

/** A least current above this multiple of what flows decides; below, it is the same current. */
const clearlyMore = 1.01

/** The wiring of a system, sized and solved, with the values for checks and drawings. */
export class Wiring {
  readonly solved: Solved
  /** Variants of it with another conductor or fuse, by that change. */
  private readonly others = new Map<string, Wiring>()

  constructor(
    private readonly draft: WiringDraft,
    private readonly rules: SizeRules,
  ) {
    this.solved = sized(draft, rules)
  }

  get network(): Network {
    return this.solved.network
  }
  get ways(): Ways {
    return this.solved.ways
  }
  /**
   * Design current of a run: the largest of any case, and at least the output of its source. It flows in no case where
   * that is clearly more.
   */
  design(run: Run): Design {
    const design = entryOf(this.solved.design, run.id)
    if (run.leastA <= design.amps) return design
    return { ...design, amps: run.leastA, at: run.leastA > clearlyMore * design.amps ? null : design.at }
  }
  /** The case in which the design current flows, or why the run must carry more than flows; null without either. */
  reasonOf(run: Run): string | null {
    const { at } = this.design(run)
    if (at) return at.name
    if (run.leastA === 0) return null
    return run.role === 'main' ? 'Share of the battery’s continuous current' : 'Rated output of its source'
  }
  /** Largest current of a run, A: continuous, or for seconds if it cranks an engine. */
  flowsA(run: Run): number {
    const { amps, crankingA } = this.design(run)
    return run.role === 'cranking' ? crankingA : amps
  }

  /** The runs replaced together with one: those of the same cable, and their returns. */
  replacedWith(run: Run): readonly Run[] {
    const alike = this.network.runs.filter((other) => isAlike(other, run))
    const backs = alike.flatMap(({ id }) => this.ways.returnOf(id) ?? []).filter(takesRunSize)
    return [...new Set([...alike, ...backs])]
  }
  /**
   * The same wiring with another conductor in place of a run: a thin one limits its own current, and its
   * replacement must carry more.
   * @param size null to size it again, ignoring found or set values
   */
  replaced(run: Run, size: Conductors | null): Wiring {
    const key = JSON.stringify([run.cable ?? run.id, size?.areaMm2, size?.count])
    return this.other(key, () => withSize(this.draft, run, size))
  }
  /**
   * The same wiring with another rating of a fuse: one that is far too small holds back, too.
   * @param ratedA null to rate it again, ignoring found or set values
   */
  withFuseRating(fuse: string, ratedA: number | null = null): Wiring {
    return this.other(JSON.stringify([fuse, ratedA]), () => withRating(this.draft, fuse, ratedA))
  }
  private other(key: string, draft: () => WiringDraft): Wiring {
    const other = this.others.get(key) ?? new Wiring(draft(), this.rules)
    this.others.set(key, other)
    return other
  }
  /** The inverter on a run that gets less than all its power while everything draws; null if none does. */
  heldBackBy({ role, of }: Run): InverterUnit | null {
    return this.heldBack.find((unit) => role === 'main' || of === unit.of) ?? null
  }
  private get heldBack(): readonly InverterUnit[] {
    const loaded = this.solved.cases
      .filter(({ kind }) => kind === 'loads')
      .map((at) => this.solved.in(at).volts)
    return this.network.units.filter(
      (unit): unit is InverterUnit =>
        unit.kind === 'inverter' &&
        loaded.some((volts) => entryOf(volts, unit.plus) - entryOf(volts, unit.minus) < unit.lowestV),
    )
  }

  /** The source beyond each end of a run: a battery or a bar, and a fuse before it. */
  sourcesBeyond(run: Run): readonly [near: Beyond, far: Beyond] {
    return [this.ways.sourceBeyond(run.from, run), this.ways.sourceBeyond(run.to, run)]
  }
  /** Share of the voltage that may be lost on the way of a run, there and back. */
  dropShare(run: Run): number {
    return dropShare(run, this.network, this.rules)
  }
  /** The largest current for hours through a post, A. */
  throughA(post: string): number {
    return Math.max(0, ...this.ways.runsThrough(post).map((run) => this.design(run).amps))
  }
}

const isAlike = (one: Pick<Run, 'id' | 'cable'>, run: Run): boolean =>
  one.id === run.id || (one.cable !== null && one.cable === run.cable)

function withSize(draft: WiringDraft, run: Run, size: Conductors | null): WiringDraft {
  const own = size ? { ...size, areaKnown: 'set' as const } : { areaMm2: null, areaKnown: null }
  const runs = draft.runs.map((one) => (isAlike(one, run) ? { ...one, ...own, measuredOhm: null } : one))
  return { ...draft, runs }
}

const withRating = (draft: WiringDraft, fuse: string, ratedA: number | null): WiringDraft => ({
  ...draft,
  posts: draft.posts.map((post) =>
    post.id === fuse && post.fitting ? { ...post, fitting: { ...post.fitting, ratedA } } : post,
  ),
})

/** Whether the wiring of a system is checked at all: its runs have parts in the job. */
export const hasRuns = ({ many }: System): boolean => many.runs.length > 0

/**
 * The wiring of a system, calculated once for a job with typical values for unknowns, whatever a scene assumes,
 * because proposed parts are bought before the unknowns are measured.
 */
export function wiringIn(system: System): Wiring {
  const { facts, reads } = system.scene
  const { wiring, from } = facts.once(['wiring'], () => {
    const own = new Reads(facts.slots)
    const usual = new System(new Scene(facts, nothingAssumed, { reads: own, asUsual: true }))
    return { wiring: new Wiring(propose(usual, facts.job), sizeRulesOf(usual.rules)), from: own.slots }
  })
  reads.noteAll(from)
  return wiring
}

/**
 * A job as specified, with a part for each run and fitting of its wiring: so they are checked, and their unknown
 * values are asked for.
 */
export function wired(job: JobDocument, shop: ShopSettings): JobDocument {
  const { runs, posts } = draftOf(job, shop)
  const done = asSpecified(job)
  const names = new Map(posts.map(({ id, name }) => [id, name]))
  const named = runs.map(({ id, number, from, to }) => [
    id,
    { name: `${number} (${names.get(from)} → ${names.get(to)})`, ...done.runs[id] },
  ])
  const fittings = posts.flatMap(({ id, name, fitting }) =>
    fitting ? [[id, { name: `${fitting.number} ${name}`.trim(), ...done.fittings[id] }]] : [],
  )
  return {
    ...done,
    // The answer itself shows which parts are new.
    ...(job.specified ? { specified: job.specified } : {}),
    runs: { ...done.runs, ...Object.fromEntries(named) },
    fittings: { ...done.fittings, ...Object.fromEntries(fittings) },
  }
}
