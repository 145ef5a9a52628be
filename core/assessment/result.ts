import { elementAt, present } from '#core/collections/held'
import { fieldAt, partInSentence, type FieldPath, type JobDocument, type PartPath } from '#core/job/document'
import type { RemedyRef } from '#core/remedies/catalogue'
import { Unsolvable } from '#core/physics/unsolvable'
import type { Facts, Input, Origin } from '#core/system/facts'
import { Reads } from '#core/system/reads'
import { nothingAssumed, type Assumed } from '#core/system/scene'
import { judge, judgeAgain, type JudgeAgain, type Judged, type System } from '#core/system/system'
import { joinsVoltages } from '#core/system/lanes'
import { atOnce } from '#core/system/stepwise'
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
import { shownValue } from '#core/job/shown'
import { listInSentence, capital, inSentence, type Write } from '#core/units/format'
import { remediesOf, topicOf, type Compared, type Judgement, type Setting, type Subjects } from './check'
import { subjectAt, SubjectsOnce } from './subjects'
import type { AnyCheck, CheckId } from './checks/index'
import { unsolvable } from './unsolvable'

/** One check of one part, checked. */
export interface CheckResult {
  /** `id` of the check and path of the part: one of a kind in an assessment. */
  readonly key: string
  readonly id: CheckId
  readonly title: string
  /** The title as a thing inside a sentence: `float`, `how the charge is watched`. */
  readonly topic: string
  readonly on: PartPath
  readonly subject: string
  /** Path of the charger or link whose lane it belongs to; null for the battery's own. */
  readonly lane: PartPath | null
  readonly verdict: Verdict
  readonly compared: readonly [Compared, Compared]
  readonly limit: Origin
  readonly formula: string
  readonly summary: string
  readonly why: string
  readonly remedies: readonly RemedyRef[]
  readonly cautions: readonly string[]
  readonly settings: readonly Setting[]
  /** Everything the check read, with how each is known. */
  readonly inputs: readonly Input[]
  /** Unknowns on which the verdict hangs; empty unless it is Measure first. */
  readonly deciding: readonly Deciding[]
}

/** The result of a check, without its words. */
export interface Finding {
  readonly id: CheckId
  readonly on: PartPath
  readonly verdict: Verdict
  readonly remedies: readonly RemedyRef[]
  /** Unknowns on which the verdict hangs; empty unless it is Measure first. */
  readonly deciding: readonly Pick<Deciding, 'path'>[]
}

/**
 * The result of a check with the values it read. `result` is null if the check does not
 * apply.
 */
export interface Noted<T> {
  readonly result: T | null
  readonly reads: Reads
}

/** Key of a finding: its check and its part. */
export const keyOf = (id: CheckId, on: PartPath): string => `${id}@${on}`

type Subject = Subjects[keyof Subjects]

interface Seen {
  readonly subject: Subject
  readonly judgement: Judgement | null
}

/**
 * The effect of the unknowns on a check: its verdict if that is the same for all of them, otherwise those on which it
 * hangs.
 */
interface Explored {
  readonly verdict: Verdict | null
  readonly deciding: readonly Deciding[]
}

/** One system reused for many scenes, with all reads and subjects. */
class Stage {
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
class Inquiry implements Explorable {
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

/** This many unknowns are given values together to find a scene in which a check applies. */
const mostTogether = 4

/** Sources of a job that is checked as finely as any, and of one that is checked in few scenes. */
const usualSources = 8
const manySources = 20

/** How finely unknowns are explored: in fewer scenes if each needs a run or has many sources. */
function effortOf({ takesTime }: AnyCheck, { facts, reads }: Inquiry): Effort {
  const efforts = [manyScenes, fewScenes, fewestScenes] as const
  let sources = 0
  for (const kind of ['alternators', 'chargers', 'solar', 'sources'] as const) {
    reads.note(facts.slots.kind(kind))
    sources += facts.partsOf(kind).length
  }
  const crowd = sources > manySources ? 2 : sources > usualSources ? 1 : 0
  return elementAt(efforts, Math.min(2, crowd + (takesTime ? 1 : 0)))
}

/**
 * Checks a check about one of its subjects, with words and evidence. Yields between its scenes.
 * @param place which of the subjects of its kind
 */
export function* judging(
  check: AnyCheck,
  place: number,
  facts: Facts,
): Generator<void, Noted<CheckResult>, void> {
  const inquiry = new Inquiry(check, place, new Stage(facts))
  const { value: first, scene } = inquiry.in(nothingAssumed, true)
  const inputs = [...present(scene.inputs)]
  const effort = effortOf(check, inquiry)
  const overUnknowns: Explored =
    scene.missing.length === 0
      ? { verdict: first.judgement?.verdict ?? 'suits', deciding: [] }
      : yield* inquiry.explored(effort)
  const explored = yield* withoutMadeUp(inquiry, overUnknowns, effort)
  const judgement =
    first.judgement ??
    (explored.verdict === null ? inquiry.firstThatApplies(explored.deciding.slice(0, mostTogether)) : null)
  const result =
    judgement && resultOf(check, first.subject, judgement, explored, inputs, scene.missing, facts)
  return { result, reads: inquiry.reads }
}

/** A bad verdict that rests on a value nobody entered is not one: the value is to be measured first. */
function* withoutMadeUp<T extends Pick<Explored, 'verdict'>>(
  inquiry: Inquiry,
  explored: T,
  effort: Effort,
): Generator<void, T | Explored, void> {
  const { verdict } = explored
  if (verdict !== 'suits-once-changed' && verdict !== 'does-not-suit') return explored
  const deciding = yield* inquiry.doubts(verdict, effort)
  return deciding.length > 0 ? { verdict: null, deciding } : explored
}

/** The same without yielding. */
export const judgeCheck = (check: AnyCheck, place: number, facts: Facts): Noted<CheckResult> =>
  atOnce(judging(check, place, facts))

function resultOf(
  check: AnyCheck,
  subject: Subject,
  judgement: Judgement,
  explored: Explored,
  inputs: readonly Input[],
  unknown: readonly FieldPath[],
  { job, q }: Facts,
): CheckResult {
  const open = explored.verdict === null
  return {
    key: keyOf(check.id, subject.path),
    id: check.id,
    title: check.title,
    topic: topicOf(check),
    on: subject.path,
    subject: subject.name,
    lane: 'lane' in subject ? (subject.lane?.id ?? null) : null,
    verdict: explored.verdict ?? 'measure-first',
    compared: judgement.compared,
    limit: judgement.limit,
    formula: judgement.formula(),
    summary: open
      ? openSummary(explored.deciding, job)
      : `${judgement.summary()}${assumedWords(inputs, unknown, q)}`,
    why: check.why,
    inputs,
    remedies: open ? [] : remediesOf(judgement),
    cautions: judgement.cautions?.() ?? [],
    settings: judgement.settings?.() ?? [],
    deciding: judgement.asks ? askedFor(judgement) : explored.deciding,
  }
}

/** Values that a finding asks for again, with the range in which each would suit. */
const askedFor = ({ asks = [] }: Judgement): readonly Deciding[] =>
  asks.map(({ path, from, to }) => ({ path, settles: 1, bands: [{ from, to, verdict: 'suits' }] }))

/**
 * The verdict of a check about one of its subjects, without words or evidence: several times as fast as
 * {@link judgeCheck}.
 */
export function findingOf(check: AnyCheck, place: number, facts: Facts): Noted<Finding> {
  const inquiry = new Inquiry(check, place, new Stage(facts))
  return { result: foundBy(inquiry, check), reads: inquiry.reads }
}

/** Checks one after another on the same facts in one system, without the reads of each. */
export interface FindingsIn {
  readonly find: (check: AnyCheck, place: number) => Finding | null
  /** The finding of a check that applies, in a sentence. */
  readonly say: (check: AnyCheck, place: number) => string
}
export function findingsIn(facts: Facts): FindingsIn {
  const stage = new Stage(facts)
  const ask = (check: AnyCheck, place: number): Inquiry => new Inquiry(check, place, stage)
  return {
    find: (check, place) => foundBy(ask(check, place), check),
    say: (check, place) => {
      const { value, scene } = ask(check, place).in(nothingAssumed, true)
      return `${present(value.judgement).summary()}${assumedWords([...present(scene.inputs)], scene.missing, facts.q)}`
    },
  }
}

function foundBy(inquiry: Inquiry, check: AnyCheck): Finding | null {
  const { value, scene } = inquiry.now(nothingAssumed)
  const { subject, judgement } = value
  const { id } = check
  const on = subject.path
  const finding = (verdict: Verdict): Finding | null =>
    judgement && { id, on, verdict, remedies: remediesOf(judgement), deciding: askedFor(judgement) }
  const known = judgement && finding(judgement.verdict)
  const effort = effortOf(check, inquiry)
  const overUnknowns =
    scene.missing.length === 0
      ? { verdict: known?.verdict ?? ('suits' as const), deciding: [] }
      : atOnce(explore(inquiry, effort))
  const { verdict, deciding } = atOnce(withoutMadeUp(inquiry, overUnknowns, effort))
  if (verdict === null) return { id, on, verdict: 'measure-first', remedies: [], deciding }
  return scene.missing.length === 0 ? known : finding(verdict)
}

const mostAssumed = 3

/** The values that nobody knows and a sentence uses all the same, as a sentence behind it. */
function assumedWords(inputs: readonly Input[], unknown: readonly FieldPath[], q: Write): string {
  const used = inputs.filter(({ path }) => unknown.includes(path))
  if (used.length === 0) return ''
  const words = used.slice(0, mostAssumed).map(({ path, label, value }) => {
    const { field } = present(fieldAt(path))
    const words = shownValue(field, value, q)
    return `${inSentence(label)} ${field.type === 'choice' ? inSentence(words) : words}`
  })
  const more = used.length > mostAssumed ? ` and ${used.length - mostAssumed} more` : ''
  return ` Assumed: ${words.join(', ')}${more}.`
}

/** Names the values that can be measured first. */
function openSummary(deciding: readonly Deciding[], job: JobDocument): string {
  const named = deciding.slice(0, mostNamed).map(({ path }) => {
    const { field, partPath, kind } = present(fieldAt(path))
    const part = partInSentence(job, partPath)
    const isQuantity = field.type === 'quantity'
    const label = isQuantity ? `the ${inSentence(field.label)}` : `“${field.label}”`
    return {
      verb: isQuantity ? 'measure' : 'find out',
      words: kind === 'use' || kind === 'place' ? label : `${label} of ${part}`,
    }
  })
  const orders = ['measure', 'find out'].flatMap((verb) => {
    const words = named.filter((one) => one.verb === verb).map((one) => one.words)
    return words.length > 0 ? [`${verb} ${listInSentence(words)}`] : []
  })
  const more = deciding.length > mostNamed ? `, and ${deciding.length - mostNamed} more` : ''
  return capital(`${orders.join(', and ')}${more}.`)
}
const mostNamed = 3

/** How many values a check still needs, behind its title. */
export const missingValues = (title: string, values: number): string =>
  `${title}${title.endsWith('?') ? '' : ':'} ${values === 1 ? '1 value is' : `${values} values are`} missing`
