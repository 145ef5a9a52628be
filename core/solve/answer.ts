import { assess, systemFor, type Assessment, type CheckResult, type Measurement } from '#core/assessment/assess'
import { canTry, remedyLabel, type RemedyRef } from '#core/remedies/catalogue'
import { isWorse, type Verdict } from '#core/system/verdict'
import type { Change } from '#core/job/change'
import { changesBetween } from '#core/job/changes'
import { withField, type FieldPath, type JobDocument } from '#core/job/document'
import type { ListedPart, Specified } from '#core/job/specified'
import { ruleCatalogue, ruleIds, resolveRules, type RuleOverrides } from '#core/rules/rules'
import { inSentence } from '#core/units/format'
import { bankParts, bestOf, Draft, evaluate, figuresOf, inTheWayOf, isAccepted, nearestOf, outcomeOf, settledBy, withoutDoubles, type Battery, type Evaluation, type Figures, type Outcome, type Plan, type Step } from './solve'
import { settingsCards, type SettingsCard } from './settings'

/** A complete answer, judged in full: what it is, what it takes, what it settles and what remains. */
export interface Answer {
  readonly id: string
  readonly name: string
  readonly steps: readonly Step[]
  readonly battery: Battery | null
  readonly bank: readonly ListedPart[]
  readonly figures: Figures
  readonly verdict: Verdict
  readonly headline: string
  /** Checks that stand in the way even so. */
  readonly inTheWay: readonly CheckResult[]
  /** What is accepted as it is, in words for the customer's paper. */
  readonly accepted: readonly string[]
  readonly cautions: readonly string[]
  readonly measure: readonly Measurement[]
  /** What the runs say of it: hours to full, heat, a driving day. */
  readonly foreseen: readonly string[]
  readonly cards: readonly SettingsCard[]
  /** What differs from the survey. */
  readonly changes: readonly Change[]
}

const foreseenIds = ['charger.time', 'alternator.heat', 'dcdc.daily', 'cold.heater', 'mixed.gassing', 'mixed.takeover']

/** What is left of a result is a line on the customer's paper, or nothing at all. */
const isLeft = (check: CheckResult): boolean => inTheWayOf(check) && !isAccepted(check)

function answerOf(plan: Plan, id: string, name: string, job: JobDocument, steps: readonly Step[], battery: Battery | null, assessment: Assessment): Answer {
  const { checks } = assessment
  const remains = checks.filter(isLeft)
  const accepted = checks.filter((check) => inTheWayOf(check) && isAccepted(check))
  const open = checks.some((check) => check.verdict === 'measure-first')
  const worstLeft = remains.reduce<Verdict>((worst, check) => (isWorse(check.verdict, worst) ? check.verdict : worst), 'suits')
  const verdict: Verdict = open && !isWorse(worstLeft, 'measure-first') ? 'measure-first' : worstLeft
  const system = systemFor(job, plan.shopRules)
  return {
    id, name, steps, battery, bank: bankParts(plan, battery), figures: figuresOf(plan, job, steps, battery, system), verdict,
    headline: verdict === 'suits' ? (accepted.length > 0 ? 'Suits, with a word to the customer' : 'Suits') : verdict === 'measure-first' ? 'Suits, once what is open is measured and holds' : verdict === 'suits-once-changed' ? 'Something is still to be changed' : 'Does not suit',
    inTheWay: remains, accepted: accepted.map((check) => `${remedyLabel(check.remedies[0]!)}. ${check.summary}`),
    cautions: [...new Set(checks.flatMap((check) => check.cautions))], measure: assessment.measureNext,
    foreseen: checks.filter((check) => foreseenIds.includes(check.id)).map((check) => check.summary),
    cards: settingsCards(system), changes: changesBetween(plan.job, job),
  }
}

/** Judged in full, with its runs; what a step settles counts only where it holds there too. */
function full(plan: Plan, e: Evaluation): Answer {
  const assessment = assess(e.job, plan.shopRules)
  return answerOf(plan, String(e.index), e.name, e.job, e.steps.map((step) => ({ ...step, settles: settledBy(step, plan.before, assessment.checks) })), e.battery, assessment)
}

export interface Answers {
  readonly answers: readonly Answer[]
  /** Where nothing settles the job: what comes nearest. */
  readonly nearest: Answer | null
}

/**
 * The answers of a search, judged in full with their runs. One whose runs find something that the quick judging did not
 * (a heater too weak, an alternator too hot by its readings) stands back, and the next best takes its place.
 */
export function answersOf(plan: Plan, outcomes: readonly Outcome[]): Answers {
  const failing = new Map<number, Answer>()
  const known = new Map<number, Answer>()
  for (let round = 0; round < 6; round++) {
    const front = bestOf(outcomes.filter((o) => !failing.has(o.index)))
    for (const { index } of front) if (!known.has(index)) known.set(index, full(plan, evaluate(plan, index)))
    const bad = front.filter(({ index }) => known.get(index)!.inTheWay.length > 0)
    if (bad.length === 0 && front.length > 0) return { answers: front.map(({ index }) => known.get(index)!), nearest: null }
    if (bad.length === 0) break
    for (const { index } of bad) failing.set(index, known.get(index)!)
  }
  const nearest = [...failing.values()].toSorted((a, b) => a.inTheWay.length - b.inTheWay.length)[0]
  const least = nearestOf(outcomes)
  return { answers: [], nearest: nearest ?? (least ? full(plan, evaluate(plan, least.index)) : null) }
}

/** A step left out of an answer, or done with another value. */
export interface Adjustment {
  readonly step: number
  readonly off?: boolean
  readonly value?: number
}

/** The field a remedy's value goes to, where it has one that can be set by hand. */
const valueFields: Partial<Record<RemedyRef['id'], string>> = { 'charger.set-absorption': 'absorptionV', 'charger.set-float': 'floatV', 'charger.limit-current': 'ratedA', 'alternator.set-regulator': 'regulatorV', 'alternator.limit-current': 'limitA', 'link.duty': 'opensAboveA', 'battery.more-parallel': 'parallel' }
export const adjustableField = (ref: RemedyRef): FieldPath | null => (valueFields[ref.id] ? `${ref.on}/${valueFields[ref.id]!}` : null)

/** An answer changed by hand, carried out and judged anew. Steps that hang on one left out are carried out as they are. */
export function adjust(plan: Plan, answer: Answer, adjustments: readonly Adjustment[]): Answer {
  const draft = new Draft(plan.job, plan)
  if (answer.battery) draft.swap(answer.battery)
  answer.steps.forEach((step, i) => {
    const own = adjustments.find((a) => a.step === i)
    if (own?.off || !canTry(step.ref)) return
    const ref = own?.value === undefined ? step.ref : { ...step.ref, value: own.value }
    draft.take(ref, step.settles, { parts: step.parts, values: step.values, words: null }, systemFor(draft.job, plan.shopRules))
    const field = own?.value === undefined ? null : adjustableField(ref)
    if (field) draft.job = withField(draft.job, field, { value: own!.value, how: 'assumed' })
  })
  const assessment = assess(draft.job, plan.shopRules)
  const steps = withoutDoubles(draft.steps).map((step) => ({ ...step, settles: settledBy(step, plan.before, assessment.checks) }))
  const touched = adjustments.some((a) => a.off || a.value !== undefined)
  return answerOf(plan, `${answer.id.split('~')[0]}${touched ? '~' : ''}`, touched ? `${answer.name.replace(/ \(by hand\)$/, '')} (by hand)` : answer.name, draft.job, steps, answer.battery, assessment)
}

/** An answer as the specification of its job. */
export const specifiedBy = (answer: Answer, by: string, at: string): Specified => ({
  name: answer.name, at, by, battery: answer.bank, accepted: answer.accepted, changes: answer.changes,
  steps: answer.steps.map(({ label, on, parts, hours, settles }) => ({ label, on, parts, hours, settles })),
})

/** What the job would come to under the other school of a question. */
export interface SchoolView {
  readonly rule: keyof typeof ruleCatalogue
  readonly question: string
  readonly chosen: string
  readonly own: boolean
  readonly others: readonly { readonly option: string; readonly words: string; readonly verdict: Verdict; readonly headline: string; readonly differs: readonly string[] }[]
}

/** Every question on which workshops differ, the school in force, and what each other one would say of this job. Without runs. */
export function schoolsOf(job: JobDocument, shopRules: RuleOverrides): SchoolView[] {
  const rules = resolveRules(shopRules, job.rules)
  const now = assess(job, shopRules, [])
  const before = new Map(now.checks.map((check) => [check.key, check]))
  return ruleIds.flatMap((rule) => {
    const catalogued = ruleCatalogue[rule]
    if (catalogued.kind !== 'school') return []
    const options = catalogued.options as Readonly<Record<string, string>>
    return [{
      rule, question: catalogued.label, chosen: options[rules[rule] as string]!, own: Object.hasOwn(job.rules, rule),
      others: Object.keys(options).filter((option) => option !== rules[rule]).map((option) => {
        const other = assess({ ...job, rules: { ...job.rules, [rule]: option } }, shopRules, [])
        const differs = other.checks.filter((check) => { const was = before.get(check.key); return was === undefined ? check.verdict !== 'suits' : was.verdict !== check.verdict || was.remedies[0]?.id !== check.remedies[0]?.id })
        return { option, words: options[option]!, verdict: other.verdict, headline: other.headline, differs: differs.map((check) => { const was = before.get(check.key); return was?.verdict === check.verdict && check.remedies[0] ? `${check.title}: ${inSentence(remedyLabel(check.remedies[0]))} first` : check.summary }) }
      }),
    }]
  })
}

/** Searches a plan from end to end in one go, and gives its answers. */
export function solve(plan: Plan): Answers {
  const outcomes = Array.from({ length: plan.count }, (_, index) => outcomeOf(evaluate(plan, index)))
  return answersOf(plan, outcomes)
}
