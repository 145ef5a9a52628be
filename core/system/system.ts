import { completeJob } from '#core/job/complete'
import { type JobDocument, type PartPath } from '#core/job/document'
import { partKindIds, partKinds, type ManyKindId, type OneKindId, type PartKindId } from '#core/job/fields'
import { resolveRules, type RuleOverrides, type ShopRules } from '#core/rules/rules'
import { metric, type DisplayUnits } from '#core/units/display'
import { writerIn, type Write } from '#core/units/format'
import { Bank } from './bank'
import { Facts } from './facts'
import type { Lane } from './lanes'
import type { Reads, Slots } from './reads'
import { nothingAssumed, Scene, type Assumed, type SceneOptions, type View } from './scene'

export type { Bank } from './bank'

/** A shop's settings: the rules it changed, and its units. */
export interface ShopSettings {
  readonly rules?: RuleOverrides
  readonly units?: DisplayUnits
}

/**
 * The facts of a job under the rules in force.
 * @param slots see {@link Facts}
 * @param inForce the rules in force, where they are worked out already
 */
export const factsOf = (
  job: JobDocument,
  { rules = {}, units = metric }: ShopSettings = {},
  slots?: Slots,
  inForce = resolveRules(rules, job.rules),
): Facts => new Facts(completeJob(job), inForce, writerIn(units), slots)

type Ones = { readonly [K in OneKindId]: View<K> }
type Collections = { readonly [K in ManyKindId]: readonly View<K>[] }

/** The parts of a scene by kind, each seen when it is first asked for. */
class Parts {
  /** By the place of their kind: a lookup by name would be the slowest thing in a check. */
  private readonly seen: unknown[] = partKindIds.map(() => undefined)
  constructor(private readonly scene: Scene) {}
  get(kind: PartKindId, place: number): unknown {
    return (this.seen[place] ??= partKinds[kind].many ? this.all(kind) : this.all(kind)[0])
  }
  private all(kind: PartKindId): readonly unknown[] {
    const { facts, reads } = this.scene
    reads.note(facts.slots.kind(kind))
    return facts.partsOf(kind).map((part) => this.scene.view(kind, part))
  }
}
partKindIds.forEach((kind, place) => {
  Object.defineProperty(Parts.prototype, kind, {
    get(this: Parts) {
      return this.get(kind, place)
    },
  })
})

/** The job as checks see it: every part as a view of one scene. */
export class System {
  readonly one: Ones
  readonly many: Collections
  readonly rules: ShopRules
  /** Writes quantities as the shop does. */
  readonly q: Write
  private laneList: readonly Lane[] | undefined
  private theBank: Bank | undefined

  constructor(readonly scene: Scene) {
    const parts = new Parts(scene)
    this.one = parts as unknown as Ones
    this.many = parts as unknown as Collections
    this.rules = scene.rules
    this.q = scene.facts.q
  }

  /**
   * One part of a kind of which there may be hundreds, without a view of each.
   * @param which its place in walking order, or its path
   */
  part<K extends ManyKindId>(kind: K, which: number | PartPath): View<K> | undefined {
    const { facts, reads } = this.scene
    reads.note(facts.slots.kind(kind))
    const all = facts.partsOf(kind)
    const part = typeof which === 'number' ? all[which] : all.find(({ ref }) => ref.path === which)
    return part && this.scene.view(kind, part)
  }

  get bank(): Bank {
    return (this.theBank ??= new Bank(this.one.candidate, this.rules))
  }
  /** Every way by which charge reaches the house bank, chargers first. */
  get lanes(): readonly Lane[] {
    return (this.laneList ??= lanesOf(this.many))
  }
  /** The kind of vessel or vehicle; undefined while unknown. */
  get craft(): JobDocument['job']['craft'] {
    return this.scene.craft
  }

  /**
   * The same system with typical values for unknowns: for a run, which needs a whole system although only some
   * values decide. Its scene holds the typical values.
   * @param reads where its reads are noted; with those of this one unless someone wants them apart
   */
  asUsual(reads: Reads = this.scene.reads): System {
    const { facts, assumed } = this.scene
    return new System(new Scene(facts, assumed, { reads, asUsual: true }))
  }
}

/** The result of some work in a scene, and its reads there. */
export interface Judged<T> {
  readonly value: T
  readonly scene: Scene
}

/** Does some work in a separate scene. */
export function judge<T>(
  facts: Facts,
  assumed: Assumed,
  work: (system: System) => T,
  options?: SceneOptions,
): Judged<T> {
  const scene = new Scene(facts, assumed, options)
  return { value: work(new System(scene)), scene }
}

/** Does several pieces of work, each in a separate scene. */
export type JudgeAgain = <T>(assumed: Assumed, work: (system: System) => T) => Judged<T>

/**
 * The same as {@link judge} for many scenes: the system is built once. Read the result before the next scene,
 * because a view shows the current scene.
 */
export function judgeAgain(facts: Facts, reads: Reads): JudgeAgain {
  const scene = new Scene(facts, nothingAssumed, { reads })
  const system = new System(scene)
  return (assumed, work) => {
    scene.assume(assumed)
    return { value: work(system), scene }
  }
}

/** A system with typical values for unknowns: for drawings, runs and cards. */
export const usualSystem = (facts: Facts): System =>
  new System(new Scene(facts, nothingAssumed, { asUsual: true }))

/** The result of a piece of work; null if it needs an unknown value. */
export function ifKnown<T>(facts: Facts, work: (system: System) => T): T | null {
  const { value, scene } = judge(facts, nothingAssumed, work)
  return scene.missing.length === 0 ? value : null
}

function lanesOf({
  chargers,
  alternators,
  startingBatteries,
  links,
  solar,
  sources,
  conductors,
}: Collections): Lane[] {
  const own = ({ $path, $name }: View<'chargers' | 'solar' | 'sources'>) => ({
    id: $path,
    name: $name,
    cables: cablesOf($path),
  })
  const cablesOf = (path: PartPath): readonly View<'conductors'>[] =>
    conductors.filter((cable) => cable.$of === path)
  const linked = links.flatMap((link): Lane[] => {
    const alternator = alternators.find((view) => view.$path === link.$of)
    const starting = startingBatteries.find((view) => view.$of === link.$of)
    if (!alternator || !starting || link.$entered('kind') === 'none') return []
    const cables = cablesOf(link.$path)
    return [
      { kind: 'alternator', id: link.$path, name: alternator.$name, alternator, starting, link, cables },
    ]
  })
  return [
    ...chargers
      .filter((charger) => charger.$entered('feeds') !== 'starting')
      .map((charger) => ({ kind: 'charger', charger, ...own(charger) }) as const),
    ...linked,
    ...solar.map((controller) => ({ kind: 'solar', solar: controller, ...own(controller) }) as const),
    ...sources.map((source) => ({ kind: 'source', source, ...own(source) }) as const),
  ]
}
