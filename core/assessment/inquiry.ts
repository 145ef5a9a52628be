import { elementAt, present } from '#core/collections/held'
import type { FieldPath } from '#core/job/document'
import { Unsolvable } from '#core/physics/unsolvable'
import type { Facts } from '#core/system/facts'
import { joinsVoltages } from '#core/system/lanes'
import { Reads } from '#core/system/reads'
import { nothingAssumed, type Assumed } from '#core/system/scene'
import { judge, judgeAgain, type JudgeAgain, type Judged, type System } from '#core/system/system'
import {
  explore,
  fewestScenes,
  fewScenes,
  manyScenes,
  scan,
  sharedAmong,
  type Deciding,
  type Effort,
  type Explorable,
  type Looked,
} from '#core/system/unknowns'
import { isWorse, type Verdict } from '#core/system/verdict'
import type { Judgement, Subjects } from './check'
import type { AnyCheck } from './checks/index'
import { subjectAt, SubjectsOnce } from './subjects'
import { unsolvable } from './unsolvable'

export type Subject = Subjects[keyof Subjects]

interface Seen {
  readonly subject: Subject
  readonly judgement: Judgement | null
}

/**
 * The effect of the unknowns on a check: its verdict if that is the same for all of them, otherwise those on which it
 * hangs.
 */
export interface Explored {
  readonly verdict: Verdict | null
  readonly deciding: readonly Deciding[]
}

/** One system reused for many scenes, with all reads and subjects. */
export class Stage {
  readonly reads: Reads
  readonly again: JudgeAgain
  readonly subjects = new SubjectsOnce()
  constructor(readonly facts: Facts) {
    this.reads = new Reads(facts.slots)
    this.again = judgeAgain(facts, this.reads)
  }
}

/** Whether a subject belongs to a lane whose link joins different voltages. */
const isMisjoined = (subject: Subject, system: System): boolean =>
  'lane' in subject &&
  subject.lane?.kind === 'alternator' &&
  joinsVoltages(subject.lane, system.bank.nominalV)

/** One check about one subject, checked in any scene. Everything it ever reads is noted in one place. */
export class Inquiry implements Explorable {
  readonly facts: Facts
  readonly reads: Reads
  constructor(
    private readonly check: AnyCheck,
    private readonly place: number,
    private readonly stage: Stage,
  ) {
    this.facts = stage.facts
    this.reads = stage.reads
  }

  private seen(subject: Subject, system: System): Seen {
    if (isMisjoined(subject, system) && !this.check.ofMisjoined) return { subject, judgement: null }
    try {
      return { subject, judgement: this.check.judge(subject as never, system) }
    } catch (error) {
      if (!(error instanceof Unsolvable)) throw error
      return { subject, judgement: unsolvable(this.facts, this.reads) }
    }
  }

  /** The judgement in a separate scene, with words on demand. */
  in(assumed: Assumed, evidence = false): Judged<Seen> {
    const { about } = this.check
    const look = (system: System): Seen => this.seen(present(subjectAt(about, system, this.place)), system)
    return judge(this.facts, assumed, look, { reads: this.reads, evidence })
  }

  private readonly lookAgain = (system: System): Seen =>
    this.seen(present(this.stage.subjects.at(this.check.about, system, this.place)), system)

  /** The judgement in the current scene, valid until the next one. */
  now(assumed: Assumed): Judged<Seen> {
    return this.stage.again(assumed, this.lookAgain)
  }
  judge(assumed: Assumed): Looked {
    const { value, scene } = this.now(assumed)
    return { verdict: value.judgement?.verdict ?? 'suits', missing: scene.missing }
  }
  samples(path: FieldPath, count: number): readonly unknown[] {
    return this.facts.samples(path, count, this.reads)
  }
  typical(path: FieldPath): unknown {
    const { part, index } = this.facts.at(path)
    return this.facts.typical(part, index, this.reads)
  }

  /**
   * The defaults that a judgement rests on: another plausible value of one default gives a better verdict, wherever
   * the unknowns lie.
   */
  *doubts(verdict: Verdict, effort: Effort): Generator<void, Deciding[], void> {
    const doubted = new Set<FieldPath>()
    const { missing } = this.inDoubt(nothingAssumed, doubted)
    const at = (end: number): Assumed => new Map(missing.map((path) => [path, this.samples(path, 2).at(end)]))
    for (const unknowns of missing.length > 0 ? [nothingAssumed, at(0), at(-1)] : [nothingAssumed]) {
      const found: Deciding[] = []
      for (const path of doubted) {
        const doubting = this.doubting(unknowns)
        const coarse = yield* scan(doubting, path, { ...effort, bandPoints: doubtPoints, bisections: 0 })
        if (!coarse.some((band) => isWorse(verdict, band.verdict))) continue
        found.push({ path, settles: 1, bands: yield* scan(doubting, path, effort) })
      }
      if (found.length > 0) return found
    }
    return []
  }

  private inDoubt(assumed: Assumed, doubted: Set<FieldPath>): Looked {
    const look = (system: System): Seen =>
      this.seen(present(subjectAt(this.check.about, system, this.place)), system)
    const { value, scene } = judge(this.facts, assumed, look, { reads: this.reads, doubted })
    return { verdict: value.judgement?.verdict ?? 'suits', missing: scene.missing }
  }
  private doubting(unknowns: Assumed): Explorable {
    return {
      judge: (assumed) => this.inDoubt(new Map([...unknowns, ...assumed]), new Set()),
      samples: (path, count) => this.samples(path, count),
      typical: (path) => this.typical(path),
    }
  }

  /** The bands of each unknown. */
  *explored(effort: Effort): Generator<void, Explored, void> {
    const { verdict, deciding } = yield* explore(this, effort)
    const banded: Deciding[] = []
    const each = sharedAmong(deciding.length, effort)
    for (const { path, settles, bands } of deciding)
      banded.push({ path, settles, bands: bands ?? (yield* scan(this, path, each)) })
    return { verdict, deciding: banded }
  }

  /**
   * A judgement from a scene in which the check does apply, for a check whose very subject is in doubt: it may take
   * values of several unknowns together.
   */
  firstThatApplies(deciding: readonly Deciding[]): Judgement | null {
    const assumed = this.whereItApplies(deciding, nothingAssumed)
    return assumed && this.in(assumed).value.judgement
  }

  private whereItApplies(deciding: readonly Deciding[], assumed: Assumed): Assumed | null {
    return this.now(assumed).value.judgement ? assumed : this.whereMoreIsAssumed(deciding, assumed)
  }
  private whereMoreIsAssumed([next, ...rest]: readonly Deciding[], assumed: Assumed): Assumed | null {
    if (next === undefined) return null
    for (const { from } of next.bands) {
      const found = this.whereItApplies(rest, new Map([...assumed, [next.path, from]]))
      if (found) return found
    }
    return this.whereMoreIsAssumed(rest, assumed)
  }
}

/** Points at which the range of a default is looked at first. */
const doubtPoints = 5

/** Sources of a job that is checked as finely as any, and of one that is checked in few scenes. */
const usualSources = 8
const manySources = 20

/** How finely unknowns are explored: in fewer scenes if each needs a run or has many sources. */
export function effortOf({ takesTime }: AnyCheck, { facts, reads }: Inquiry): Effort {
  const efforts = [manyScenes, fewScenes, fewestScenes] as const
  let sources = 0
  for (const kind of ['alternators', 'chargers', 'solar', 'sources'] as const) {
    reads.note(facts.slots.kind(kind))
    sources += facts.partsOf(kind).length
  }
  const crowd = sources > manySources ? 2 : sources > usualSources ? 1 : 0
  return elementAt(efforts, Math.min(2, crowd + (takesTime ? 1 : 0)))
}

/** A bad verdict that rests on a value nobody entered is not one: the value is to be measured first. */
export function* withoutMadeUp<T extends Pick<Explored, 'verdict'>>(
  inquiry: Inquiry,
  explored: T,
  effort: Effort,
): Generator<void, T | Explored, void> {
  const { verdict } = explored
  if (verdict !== 'suits-once-changed' && verdict !== 'does-not-suit') return explored
  const deciding = yield* inquiry.doubts(verdict, effort)
  return deciding.length > 0 ? { verdict: null, deciding } : explored
}
