import { firstOf, present } from '#core/collections/held'
import { allChecks, checkTopic } from '#core/assessment/checks/index'
import { assess, type Assessment, type CheckResult } from '#core/assessment/assess'
import type { Change } from '#core/job/change'
import { changesBetween } from '#core/job/changes'
import { withField, type JobDocument } from '#core/job/document'
import { costOf, type ListedPart } from '#core/job/specified'
import { adjustableField, canTry, remedyLabel, type RemedyRef } from '#core/remedies/catalogue'
import type { Supply } from '#core/remedies/remedy'
import { exchangesFor } from '#core/remedies/supply'
import { factsOf, usualSystem, type System } from '#core/system/system'
import { isWorse, type Verdict } from '#core/system/verdict'
import { measureNext, type Measurement } from '#core/verdict/measure-next'
import { AnswerDraft, withBattery } from './draft'
import { bankParts, settledBy, type Evaluation, type Evaluator, type Figures } from './evaluate'
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
  /** Results of its runs: hours to full, heat, a driving day. */
  readonly foreseen: readonly string[]
  readonly cards: readonly SettingsCard[]
  /** Topics of the checks that its steps settle, by id. */
  readonly topics: Readonly<Record<string, string>>
  /** Differences from the survey. */
  readonly changes: readonly Change[]
}

const foretelling = new Set(allChecks.filter(({ foretells }) => foretells).map(({ id }) => id))

/** The rest is a line on the customer's paper, or nothing at all. */
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

/** A full check of a search result, with its runs; a step settles a check only if that still holds here. */
export function fullAnswer(evaluator: Evaluator, found: Evaluation): Answer {
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

/** The wiring checks that a step settles: the step was chosen for them. */
const wiringOf = ({ settles }: AnswerStep): string[] => settles.filter((id) => id.startsWith('wiring.'))

/** Whether an answer suits for all plausible open values. */
export const isSure = ({ verdict }: Answer): boolean => verdict === 'suits'

/** A step left out of an answer, or done with another value or another part. */
export interface Adjustment {
  readonly step: number
  readonly off?: boolean
  readonly value?: number
  /** Code of the shelf part that replaces the proposed one. */
  readonly part?: string
}

/**
 * A remedy with another part of the shelf, by its code; null if no part with that code fits. The remedy's own
 * decision stays, whatever the data sheet of that part says.
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
 * An answer changed by hand, applied and checked again. Steps that depend on an omitted one are applied unchanged.
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
