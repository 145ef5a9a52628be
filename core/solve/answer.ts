import { entryOf, firstOf, present } from '#core/collections/held'
import { allChecks, checkTopic } from '#core/assessment/checks/index'
import { assess, type Assessment, type CheckResult } from '#core/assessment/assess'
import type { Change } from '#core/job/change'
import { changesBetween } from '#core/job/changes'
import { withField, type JobDocument } from '#core/job/document'
import { costOf, type ListedPart } from '#core/job/specified'
import { caseLimitC } from '#core/physics/alternator'
import { adjustableField, canTry, remedyLabel, sameRemedy, type RemedyRef } from '#core/remedies/catalogue'
import type { Supply } from '#core/remedies/remedy'
import { exchangesFor } from '#core/remedies/supply'
import { factsOf, usualSystem, type System } from '#core/system/system'
import { isWorse, type Verdict } from '#core/system/verdict'
import { judgeJob } from '#core/verdict/job'
import { measureNext, type Measurement } from '#core/verdict/measure-next'
import { AnswerDraft, withBattery } from './draft'
import { bankParts, Evaluator, settledBy, type Evaluation, type Figures } from './evaluate'
import { beats, bestOf, nearestOf, search, type Outcome } from './front'
import type { Battery } from './option'
import { isBlocking, isAccepted } from '#core/assessment/finding'
import { conditionsOf, type Condition } from './open'
import type { Plan } from './plan'
import { withoutDoubles, type AnswerStep } from './step'
import { settingsCards, type SettingsCard } from './settings'
import { withoutWiredParts, withWiringSteps, wiringOfAnswer, wiringWorkOf, type WiringWork } from './wiring'
import type { WiredNetwork } from '#core/assessment/wired'

/** A complete answer after a full check: steps, parts, settled checks and remaining ones. */
export interface Answer {
  readonly id: string
  readonly name: string
  readonly steps: readonly AnswerStep[]
  readonly battery: Battery | null
  readonly bank: readonly ListedPart[]
  /** Its wiring in hours and cost, with parts from the shelf. */
  readonly wiring: WiringWork
  readonly figures: Figures
  readonly verdict: Verdict
  readonly headline: string
  /** Values it depends on, with their suitable ranges; empty if it suits for all plausible values. */
  readonly conditions: readonly Condition[]
  /** Checks that still block it. */
  readonly inTheWay: readonly CheckResult[]
  /** Accepted findings, in words for the customer's paper. */
  readonly accepted: readonly string[]
  readonly cautions: readonly string[]
  readonly measure: readonly Measurement[]
  /** What the runs say of it: hours to full, heat, a driving day. */
  readonly foreseen: readonly string[]
  readonly cards: readonly SettingsCard[]
  /** What the checks are about that its steps settle, by id. */
  readonly topics: Readonly<Record<string, string>>
  /** What differs from the survey. */
  readonly changes: readonly Change[]
}

const foretelling = new Set(allChecks.filter(({ foretells }) => foretells).map(({ id }) => id))

/** What is left of a result is a line on the customer's paper, or nothing at all. */
const isLeft = (check: CheckResult): boolean => isBlocking(check) && !isAccepted(check)

interface Done {
  readonly id: string
  readonly name: string
  readonly job: JobDocument
  readonly steps: readonly AnswerStep[]
  readonly battery: Battery | null
  readonly wiring: WiredNetwork
}

function answerOf(
  evaluator: Evaluator,
  { id, name, job, steps, battery, wiring: { network, checks: wiringChecks } }: Done,
  { checks }: Assessment,
): Answer {
  const { plan } = evaluator
  const changes = changesBetween(plan.job, job)
  const all = [...checks, ...wiringChecks]
  const remains = all.filter(isLeft)
  const accepted = all.filter((check) => isBlocking(check) && isAccepted(check))
  const conditions = conditionsOf(job, all)
  const verdict = conditions === null ? 'does-not-suit' : verdictOf(all, remains)
  const system = usualSystem(factsOf(job, plan.shop))
  const wiring = wiringWorkOf(plan, network)
  return {
    id,
    name,
    steps: steps.map((step) => ({ ...step, exchanges: exchangesOf(step, job, system, plan) })),
    battery,
    verdict,
    bank: bankParts(plan, battery),
    wiring,
    figures: withWiring(evaluator.figuresOf({ job, steps, battery, system }), wiring, system),
    headline: headlineOf(verdict, accepted.length > 0),
    conditions: conditions ?? [],
    inTheWay: remains,
    accepted: accepted.map((check) => `${remedyLabel(firstOf(check.remedies), system.q)}. ${check.summary}`),
    cautions: [...new Set(all.flatMap((check) => check.cautions))],
    measure: measureNext(job, all),
    foreseen: checks.filter((check) => foretelling.has(check.id)).map((check) => check.summary),
    cards: settingsCards(system),
    topics: Object.fromEntries(
      steps.flatMap(({ settles }) => settles.map((check) => [check, checkTopic(check)])),
    ),
    changes,
  }
}

/** The parts among which a step can choose. */
function exchangesOf(
  { ref, parts }: AnswerStep,
  job: JobDocument,
  system: System,
  { shelf }: Plan,
): ListedPart[] {
  if (!parts[0]?.code) return []
  const ways = exchangesFor(ref, job, system, shelf).flatMap((way) => way.parts.slice(0, 1))
  return ways.length > 1 ? ways : []
}

/** The figures including the wiring; parts without a price are counted. */
function withWiring(figures: Figures, { parts, hours }: WiringWork, { rules }: System): Figures {
  const partsCost = costOf(parts)
  const unpriced = parts.filter(({ price }) => price === null).length
  return {
    ...figures,
    hours: figures.hours + hours,
    partsCost: figures.partsCost + partsCost,
    cost: figures.cost + partsCost + hours * rules.labourPerH,
    unpriced: figures.unpriced + unpriced,
  }
}

/** The worst remaining verdict; open if only a measurement decides. */
function verdictOf(checks: readonly CheckResult[], remains: readonly CheckResult[]): Verdict {
  const open = checks.some(({ verdict }) => verdict === 'measure-first')
  const worstLeft = remains.reduce<Verdict>(
    (worst, { verdict }) => (isWorse(verdict, worst) ? verdict : worst),
    'suits',
  )
  return open && !isWorse(worstLeft, 'measure-first') ? 'measure-first' : worstLeft
}

function headlineOf(verdict: Verdict, withAWord: boolean): string {
  switch (verdict) {
    case 'suits':
      return withAWord ? 'Suits, with a note for the customer' : 'Suits'
    case 'measure-first':
      return 'Suits if the open values turn out right'
    case 'suits-once-changed':
      return 'Changes are still needed'
    case 'does-not-suit':
      return 'Does not suit'
  }
}

/** Full check with runs; a step settles a check only if that still holds here. */
function full(evaluator: Evaluator, found: Evaluation): Answer {
  const { index, name, battery } = found
  const { plan } = evaluator
  const { draft, wiring } = withWiringSteps(plan, found)
  const { job } = draft
  const steps = withoutWiredParts(draft.steps, wiring.network)
  const assessment = assess(job, plan.shop)
  const settled = steps.map((step) => ({
    ...step,
    settles: [...new Set([...wiringOf(step), ...settledBy(step, plan.before, assessment.checks)])],
  }))
  return answerOf(evaluator, { id: String(index), name, job, steps: settled, battery, wiring }, assessment)
}

/** What a step settles in the wiring: it was taken for that. */
const wiringOf = ({ settles }: AnswerStep): string[] => settles.filter((id) => id.startsWith('wiring.'))

/** What measuring something could save: the cheapest answer that hangs on it against the cheapest sure one. */
export interface Worth {
  readonly conditions: readonly Condition[]
  readonly answer: string
  readonly cost: number
  readonly hours: number
}

export interface Answers {
  readonly answers: readonly Answer[]
  /** What a measurement is worth, the most first. */
  readonly worth: readonly Worth[]
  /** The closest answers if nothing settles the job. */
  readonly nearest: Answer | null
  /** Why no answer keeps the battery that was chosen, in a sentence; null if one does. */
  readonly batteryGoes: string | null
}

/** Whether an answer suits for all plausible open values. */
export const isSure = ({ verdict }: Answer): boolean => verdict === 'suits'

/** A saving under this is not worth a visit, in money. */
const worthTelling = 20

function worthOf(answers: readonly Answer[]): Worth[] {
  const sure = answers.filter(isSure).toSorted((a, b) => a.figures.cost - b.figures.cost)[0]
  if (!sure) return []
  const known = new Set<string>()
  return answers
    .filter((answer) => !isSure(answer))
    .map((answer) => ({
      conditions: answer.conditions,
      answer: answer.id,
      cost: sure.figures.cost - answer.figures.cost,
      hours: sure.figures.hours - answer.figures.hours,
    }))
    .filter(({ cost }) => cost >= worthTelling)
    .toSorted((a, b) => b.cost - a.cost)
    .filter(({ conditions }) => known.size < known.add(conditions.map(({ path }) => path).join()).size)
}

/** Whether an answer holds: nothing blocks it, and its run exceeds no limit. */
const standsUp = ({ inTheWay, verdict, figures }: Answer): boolean =>
  inTheWay.length === 0 && verdict !== 'does-not-suit' && (figures.alternatorPeakC ?? 0) <= caseLimitC

/** Those that no other beats by its full figures, its wiring counted: one that hangs on something beats none that is sure. */
const unbeaten = (answers: readonly Answer[]): readonly Answer[] =>
  answers.filter(
    (one) => !answers.some((other) => (isSure(other) || !isSure(one)) && beats(other.figures, one.figures)),
  )

/** Similarity of an answer to the changes on the bench: one point for each change, one more for the same value. */
const sharedWith = (changes: readonly RemedyRef[], { steps }: Answer): number =>
  changes.reduce((sum, change) => {
    const step = steps.find(({ ref }) => sameRemedy(ref, change))
    return sum + (step ? 1 : 0) + (step && step.ref.value === change.value ? 1 : 0)
  }, 0)

/** The answers with the certain one first that is most similar to the bench; the others keep their order. */
function proposedFirst(answers: readonly Answer[], { job, shop }: Plan): readonly Answer[] {
  const { changes } = judgeJob(job, shop).found
  const shared = new Map(answers.map((answer) => [answer, sharedWith(changes, answer)]))
  const [first] = answers.filter(isSure).toSorted((a, b) => entryOf(shared, b) - entryOf(shared, a))
  return first ? [first, ...answers.filter((answer) => answer !== first)] : answers
}

/** Why no answer keeps the job’s battery: what blocks the nearest that does; null where one keeps it. */
function whyBatteryGoes(
  answers: readonly Answer[],
  outcomes: readonly Outcome[],
  answerAt: (index: number) => Answer,
): string | null {
  if (answers.some(({ battery }) => battery === null)) return null
  const own = nearestOf(outcomes.filter(({ keepsBattery }) => keepsBattery))
  return own ? (answerAt(own.index).inTheWay[0]?.summary ?? '') : null
}

/**
 * The answers of a search, checked in full with their runs. One whose runs find something that the quick
 * checking did not (a heater too weak, an alternator too hot) stands back, and the next best takes its place; one
 * whose runs leave something open counts among those that are not sure.
 */
export function answersOf(evaluator: Evaluator, outcomes: readonly Outcome[]): Answers {
  const known = new Map<number, Answer>()
  const answerAt = (index: number): Answer => {
    const answer = known.get(index) ?? full(evaluator, evaluator.evaluate(index))
    known.set(index, answer)
    return answer
  }
  const answered = (answers: readonly Answer[]): Answers => ({
    answers: proposedFirst(answers, evaluator.plan),
    worth: worthOf(answers),
    nearest: null,
    batteryGoes: whyBatteryGoes(answers, outcomes, answerAt),
  })
  const failing = new Set<number>()
  const open = new Set<number>()
  for (let round = 0; round < mostRounds; round++) {
    const left = outcomes
      .filter(({ index }) => !failing.has(index))
      .map((outcome) => (open.has(outcome.index) ? { ...outcome, sure: false } : outcome))
    const front = bestOf(left).map(({ index, sure }) => ({ index, sure, answer: answerAt(index) }))
    const bad = front.filter(({ answer }) => !standsUp(answer))
    const turned = front.filter(({ sure, answer }) => sure && standsUp(answer) && !isSure(answer))
    if (bad.length === 0 && turned.length === 0 && front.length > 0) {
      return answered(unbeaten(front.map(({ answer }) => answer)))
    }
    if (bad.length === 0 && turned.length === 0) break
    for (const { index } of bad) failing.add(index)
    for (const { index } of turned) open.add(index)
  }
  const standing = unbeaten([...known.values()].filter(standsUp))
  if (standing.length > 0) return answered(standing)
  const [nearest] = [...failing].map(answerAt).toSorted((a, b) => a.inTheWay.length - b.inTheWay.length)
  const least = nearestOf(outcomes)
  return {
    answers: [],
    worth: [],
    nearest: nearest ?? (least ? answerAt(least.index) : null),
    batteryGoes: null,
  }
}
const mostRounds = 12

/** A step left out of an answer, or done with another value or another part. */
export interface Adjustment {
  readonly step: number
  readonly off?: boolean
  readonly value?: number
  /** Code of the shelf part that replaces the proposed one. */
  readonly part?: string
}

/**
 * A remedy with another part of the shelf, by its code; null if none of that code fits. What the remedy decides
 * itself stays, whatever the sheet of that part says.
 */
function suppliedBy(
  code: string,
  ref: RemedyRef,
  job: JobDocument,
  system: System,
  { shelf }: Plan,
): Supply | null {
  const way = exchangesFor(ref, job, system, shelf).find(({ parts }) => parts[0]?.code === code)
  if (!way) return null
  const own = Object.entries(way.values).filter(([name]) => !Object.hasOwn(ref.values ?? {}, name))
  return { parts: way.parts, values: Object.fromEntries(own) }
}

/**
 * An answer changed by hand, carried out and checked again. Steps that hang on one left out are carried out as
 * they are.
 */
export function adjust(evaluator: Evaluator, answer: Answer, adjustments: readonly Adjustment[]): Answer {
  const { plan } = evaluator
  const draft = new AnswerDraft(withBattery(plan.job, answer.battery), plan.shelf)
  answer.steps.forEach(({ ref: found, settles, parts, values }, i) => {
    const { off, value, part } = adjustments.find(({ step }) => step === i) ?? {}
    if (off || !canTry(found)) return
    const ref = value === undefined ? found : { ...found, value }
    const system = usualSystem(factsOf(draft.job, plan.shop))
    const other = part === undefined ? null : suppliedBy(part, found, draft.job, system, plan)
    draft.take(ref, settles, other ?? { parts, values }, system)
    const field = value === undefined ? null : adjustableField(ref)
    if (field) draft.job = withField(draft.job, field, { value: present(value), how: 'assumed' })
  })
  const assessment = assess(draft.job, plan.shop)
  const steps = withoutDoubles(draft.steps).map((step) => ({
    ...step,
    settles: [...new Set([...wiringOf(step), ...settledBy(step, plan.before, assessment.checks)])],
  }))
  const touched = adjustments.some(({ off, value, part }) => off || value !== undefined || part !== undefined)
  const index = firstOf(answer.id.split('~'))
  const id = `${index}${touched ? '~' : ''}`
  const name = touched ? `${evaluator.nameWith(Number(index), steps)} (by hand)` : answer.name
  const wiring = wiringOfAnswer(plan, draft.job)
  return answerOf(evaluator, { id, name, job: draft.job, steps, battery: answer.battery, wiring }, assessment)
}

/** Searches a plan from end to end in one go, and gives its answers. */
export function searchAnswers(plan: Plan): Answers {
  const evaluator = new Evaluator(plan)
  return answersOf(evaluator, [...search(evaluator)])
}
