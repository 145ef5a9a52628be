import { present } from '#core/collections/held'
import type { FieldPath, PartPath } from '#core/job/document'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { Facts, Input, Origin } from '#core/system/facts'
import type { Reads } from '#core/system/reads'
import { nothingAssumed } from '#core/system/scene'
import { atOnce } from '#core/system/stepwise'
import { explore, type Deciding } from '#core/system/unknowns'
import type { Verdict } from '#core/system/verdict'
import { remediesOf, topicOf, type Compared, type Judgement, type Setting } from './check'
import type { AnyCheck, CheckId } from './checks/index'
import { assumedWords, openSummary } from './finding-words'
import { effortOf, Inquiry, Stage, withoutMadeUp, type Explored, type Subject } from './inquiry'

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

/** This many unknowns are given values together to find a scene in which a check applies. */
const mostTogether = 4

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
interface FindingsIn {
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
