import { entryOf, present } from '#core/collections/held'
import { caseLimitC } from '#core/physics/alternator'
import { sameRemedy, type RemedyRef } from '#core/remedies/catalogue'
import { judgeJob } from '#core/verdict/job'
import { fullAnswer, isSure, type Answer } from './answer'
import { Evaluator } from './evaluate'
import { beats, bestOf, isKeptForSure, nearestOf, search, type Outcome } from './front'
import type { Condition } from './open'
import type { Plan } from './plan'

/** Possible saving of a measurement: the cheapest answer that depends on it against the cheapest sure one. */
export interface Worth {
  readonly conditions: readonly Condition[]
  readonly answer: string
  readonly cost: number
  readonly hours: number
}

export interface Answers {
  readonly answers: readonly Answer[]
  /** Worth of each measurement, the most first. */
  readonly worth: readonly Worth[]
  /** The closest answers if nothing settles the job. */
  readonly nearest: Answer | null
  /** Why no answer keeps the battery that was chosen, in a sentence; null if one does. */
  readonly batteryGoes: string | null
}

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
const isValid = ({ inTheWay, verdict, figures }: Answer): boolean =>
  inTheWay.length === 0 && verdict !== 'does-not-suit' && (figures.alternatorPeakC ?? 0) <= caseLimitC

/** Answers that no other beats by its full figures, wiring included. One with open values never beats a sure one. */
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

/**
 * The reason why no answer keeps the job’s battery: the findings that block the nearest one; null if one keeps it.
 */
function whyBatteryGoes(
  answers: readonly Answer[],
  outcomes: readonly Outcome[],
  full: FullAnswers,
): string | null {
  if (answers.some(({ battery }) => battery === null)) return null
  const own = nearestOf(outcomes.filter(({ keepsBattery }) => keepsBattery))
  return own ? (full.at(own.index).inTheWay[0]?.summary ?? '') : null
}

/** Answers checked in full, each once. */
export class FullAnswers {
  private readonly known = new Map<number, Answer>()
  constructor(readonly evaluator: Evaluator) {}

  at(index: number): Answer {
    const answer = this.known.get(index) ?? fullAnswer(this.evaluator, this.evaluator.evaluate(index))
    this.known.set(index, answer)
    return answer
  }
}

const mostRounds = 12

/**
 * The answers of a search, checked in full with their runs. If the runs of an answer find a fault that the
 * quick checks missed (a heater too weak, an alternator too hot), the next best takes its place. If they leave
 * something open, the answer is no longer sure.
 * @param outcomes of all combinations, or of all that keep the battery
 * @returns null if no sure answer keeps the battery: then the other combinations must be searched too
 */
export function answersOf(full: FullAnswers, outcomes: readonly Outcome[]): Answers | null {
  const { plan } = full.evaluator
  const areAll = outcomes.length === plan.count
  const inOrder = outcomes.toSorted((a, b) => a.index - b.index)
  const answered = (answers: readonly Answer[]): Answers => ({
    answers: proposedFirst(answers, plan),
    worth: worthOf(answers),
    nearest: null,
    batteryGoes: whyBatteryGoes(answers, inOrder, full),
  })
  const asked = new Set<number>()
  const failing = new Set<number>()
  const open = new Set<number>()
  for (let round = 0; round < mostRounds; round++) {
    const left = inOrder
      .filter(({ index }) => !failing.has(index))
      .map((outcome) => (open.has(outcome.index) ? { ...outcome, sure: false } : outcome))
    if (!areAll && !isKeptForSure(left)) return null
    const front = bestOf(left).map(({ index, sure }) => ({ index, sure, answer: full.at(index) }))
    for (const { index } of front) asked.add(index)
    const bad = front.filter(({ answer }) => !isValid(answer))
    const turned = front.filter(({ sure, answer }) => sure && isValid(answer) && !isSure(answer))
    if (bad.length === 0 && turned.length === 0 && front.length > 0) {
      return answered(unbeaten(front.map(({ answer }) => answer)))
    }
    if (bad.length === 0 && turned.length === 0) break
    for (const { index } of bad) failing.add(index)
    for (const { index } of turned) open.add(index)
  }
  const standing = unbeaten([...asked].map((index) => full.at(index)).filter(isValid))
  if (standing.length > 0) return answered(standing)
  return { answers: [], worth: [], nearest: nearestAnswer(full, inOrder, failing), batteryGoes: null }
}

/** The answer that comes nearest where none stands up: of those checked in full, else of all. */
function nearestAnswer(
  full: FullAnswers,
  outcomes: readonly Outcome[],
  failing: ReadonlySet<number>,
): Answer | null {
  const [nearest] = [...failing]
    .map((index) => full.at(index))
    .toSorted((a, b) => a.inTheWay.length - b.inTheWay.length)
  const least = nearestOf(outcomes)
  return nearest ?? (least && full.at(least.index))
}

/**
 * Searches a plan in one go, and gives its answers. Combinations with another battery are only looked at where no
 * sure answer keeps the one that was chosen.
 */
export function searchAnswers(plan: Plan): Answers {
  const evaluator = new Evaluator(plan)
  const full = new FullAnswers(evaluator)
  const keeping = [...search(evaluator, plan.keeping)]
  return (
    answersOf(full, keeping) ?? present(answersOf(full, [...keeping, ...search(evaluator, plan.exchanging)]))
  )
}
