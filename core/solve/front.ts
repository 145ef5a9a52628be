import type { Evaluation, Evaluator, Figures } from './evaluate'

/** Answers shown at most. */
export const mostAnswers = 8

/** The figures of a combination kept during the search. */
export interface Outcome {
  readonly index: number
  /** Null if something still blocks it. */
  readonly figures: Figures | null
  /** Equal for the same system with the same parts, even after other steps. */
  readonly key: string
  /** Whether it keeps the battery that was chosen. */
  readonly keepsBattery: boolean
  /** Whether nothing is open; otherwise it suits only if the open values are right. */
  readonly sure: boolean
  /** Distance from settling the job: 0 if nothing blocks it. */
  readonly short: number
}

export function outcomeOf({
  index,
  job,
  figures,
  steps,
  battery,
  settles,
  inTheWay,
  open,
}: Evaluation): Outcome {
  const parts = steps.flatMap((step) => step.parts.map(({ code }) => code)).sort()
  const weight = inTheWay.reduce((sum, { verdict }) => sum + (verdict === 'does-not-suit' ? 10 : 1), 0)
  return {
    index,
    figures,
    keepsBattery: battery === null,
    sure: open.length === 0,
    key: figures ? writtenInOrder([job, parts, battery?.part.code, battery?.parallel]) : '',
    short: settles ? 0 : weight * 100 + steps.length,
  }
}

/** Data that was written before. Jobs of one search share most of their parts. */
const writtenBefore = new WeakMap<object, string>()

/** Plain, immutable data as text with its fields in order, so that two that hold the same are written the same. */
function writtenInOrder(value: unknown): string {
  if (typeof value !== 'object' || value === null) return String(JSON.stringify(value))
  const before = writtenBefore.get(value)
  if (before !== undefined) return before
  const written = Array.isArray(value)
    ? `[${value.map(writtenInOrder).join()}]`
    : `{${Object.entries(value)
        .filter(([, own]) => own !== undefined)
        .toSorted(([a], [b]) => (a < b ? -1 : 1))
        .map(([name, own]) => `${JSON.stringify(name)}:${writtenInOrder(own)}`)
        .join()}}`
  writtenBefore.set(value, written)
  return written
}

/** Figures for comparing answers, less is better; an answer that never fills comes after all that do. */
const measures = {
  cost: { of: (f: Figures): number => f.cost, noticeable: 1 },
  hoursToFull: { of: (f: Figures): number => f.hoursToFull ?? Infinity, noticeable: 0.1 },
  alternatorPeakC: { of: (f: Figures): number => f.alternatorPeakC ?? 0, noticeable: 0.5 },
  givesUpW: { of: (f: Figures): number => f.givesUpW, noticeable: 1 },
  changes: { of: (f: Figures): number => f.changes, noticeable: 0 },
  unseen: { of: (f: Figures): number => f.unseen, noticeable: 0 },
} as const

/**
 * Whether one answer is at least as good in everything, and better in something. One that rests on something
 * unseen never beats one that does not.
 */
export function beats(a: Figures, b: Figures): boolean {
  const rows = Object.values(measures).map(({ of, noticeable }) => ({
    mine: of(a),
    theirs: of(b),
    noticeable,
  }))
  const isNoWorse = rows.every(({ mine, theirs, noticeable }) => mine <= theirs + noticeable)
  return isNoWorse && rows.some(({ mine, theirs, noticeable }) => mine < theirs - noticeable)
}

/** Most answers with open values among those shown, if certain ones exist. */
const mostConditional = 3
/** Extra cost of an answer, as a share, that is accepted before an inverter is limited instead. */
const likePrice = 1.2

/**
 * Whether a sure answer keeps the battery that was chosen. Then nobody asked for another one: those that take one
 * need not be looked at.
 */
export const isKeptForSure = (outcomes: readonly Outcome[]): boolean =>
  outcomes.some(({ figures, keepsBattery, sure }) => figures !== null && keepsBattery && sure)

/** Those that settle the job. The same set of steps counts once. */
function settledOf(outcomes: readonly Outcome[]): readonly Settled[] {
  const seen = new Set<string>()
  return outcomes.filter(
    ({ figures, key }) => figures && seen.size < seen.add(key).size,
  ) as readonly Settled[]
}

/**
 * The outcomes that no other beats on cost, hours to full, alternator peak temperature, inverter power given up and
 * number of changes, the cheapest first: the sure ones, then those that depend on an open value and are better in
 * something. An outcome that leaves loads unserved is dropped where another serves them, and one that limits an
 * inverter where another costs no more. Of more than eight, the best in each figure stay, then the cheapest.
 */
export function bestOf(outcomes: readonly Outcome[]): Outcome[] {
  const distinct = settledOf(outcomes)
  const settled = isKeptForSure(distinct) ? distinct.filter(({ keepsBattery }) => keepsBattery) : distinct
  const sure = frontOf(settled.filter(({ sure: isSure }) => isSure))
  const ifs = frontOf(settled.filter(({ sure: isSure }) => !isSure)).filter(
    (one) => !sure.some((other) => beats(other.figures, one.figures)),
  )
  if (ifs.length === 0) return thinned(sure, mostAnswers)
  if (sure.length === 0) return thinned(ifs, mostAnswers)
  const shownIfs = thinned(ifs, mostConditional)
  return [...thinned(sure, mostAnswers - shownIfs.length), ...shownIfs]
}

function frontOf(outcomes: readonly Settled[]): Settled[] {
  const serving = outcomes.filter(({ figures }) => figures.unservedAh < 1)
  const served = serving.length > 0 ? serving : outcomes
  const whole = served.filter(({ figures }) => figures.givesUpW === 0)
  const cheapest = Math.min(...whole.map(({ figures }) => figures.cost))
  const kept = served.filter(({ figures }) => figures.givesUpW === 0 || figures.cost * likePrice < cheapest)
  return kept
    .filter((one) => !kept.some((other) => other !== one && beats(other.figures, one.figures)))
    .toSorted((a, b) => a.figures.cost - b.figures.cost || a.index - b.index)
}
type Settled = Outcome & { readonly figures: Figures }

function thinned(front: readonly Settled[], most: number): Outcome[] {
  if (front.length <= most) return [...front]
  const least = (of: (f: Figures) => number): Settled =>
    front.reduce((a, b) => (of(b.figures) < of(a.figures) ? b : a))
  const { cost, hoursToFull, alternatorPeakC, changes } = measures
  const stays = new Set([
    ...[cost, hoursToFull, alternatorPeakC, changes].map(({ of }) => least(of)),
    least((f) => f.unseen * 1e6 + f.cost),
  ])
  for (const one of front) if (stays.size < most) stays.add(one)
  return front.filter((one) => stays.has(one)).slice(0, most)
}

/** Where nothing settles the job: the combination that comes nearest. Null when nothing was looked at. */
export const nearestOf = (outcomes: readonly Outcome[]): Outcome | null =>
  outcomes.reduce<Outcome | null>((a, b) => (a === null || b.short < a.short ? b : a), null)

/**
 * Looks at combinations of a plan, one after the other: yields each outcome, so that the caller can show progress
 * and stop.
 * @param combinations their numbers; all of them where none are named
 */
export function* search(
  evaluator: Evaluator,
  combinations: Iterable<number> = Array.from({ length: evaluator.plan.count }).keys(),
): Generator<Outcome, void, void> {
  for (const index of combinations) yield outcomeOf(evaluator.evaluate(index))
}
