import { fieldAt, partName, type FieldPath, type JobDocument, type PartPath } from '#core/job/document'
import type { RemedyRef } from '#core/remedies/catalogue'
import { firstRemedies, settlingOf } from './settling'
import type { RuleOverrides } from '#core/rules/rules'
import type { Facts } from '#core/system/facts'
import { factsOf, usualSystem, type ShopSettings } from '#core/system/system'
import { verdictWords, worst, type Verdict } from '#core/system/verdict'
import type { Check, Subjects } from './check'
import { allChecks } from './checks/index'
import { findingsIn, judgeCheck, keyOf, needsToDecide, type CheckResult, type Finding } from './result'
import { subjectsOf } from './subjects'

export type { CheckResult, Finding } from './result'

/** Something to measure, with what it would settle. */
export interface Measurement {
  readonly path: FieldPath
  readonly part: string
  readonly label: string
  readonly how: string
  /** Keys of the checks it would settle whatever it turns out to be. */
  readonly settles: readonly string[]
  /** Keys of all Measure first checks it bears on. */
  readonly bearsOn: readonly string[]
}

export interface LaneResult {
  readonly id: PartPath
  readonly name: string
  readonly verdict: Verdict
  readonly checks: readonly string[]
}

export interface Assessment {
  readonly verdict: Verdict
  /** The verdict in words, with the number of changes where it suits once these are made. */
  readonly headline: string
  /** Key of the check that decides the verdict; null when there is nothing to decide. */
  readonly decidedBy: string | null
  /** What decides it, in a sentence or two. */
  readonly reason: string
  readonly checks: readonly CheckResult[]
  readonly lanes: readonly LaneResult[]
  readonly battery: Omit<LaneResult, 'id' | 'name'>
  /** What to measure next: most verdicts settled first. */
  readonly measureNext: readonly Measurement[]
  /** The changes that the Suits once changed verdicts ask for, each once. */
  readonly changes: readonly RemedyRef[]
  /** Rules this job overrides. */
  readonly overrides: RuleOverrides
}

/** One question to be judged: a check about one of its subjects. */
export interface Question {
  readonly check: Check<keyof Subjects>
  /** Which of the subjects of its kind. */
  readonly place: number
  readonly on: PartPath
}

/** Every question there is about a job, in the order of the checks. */
export function questionsOf(facts: Facts): Question[] {
  const system = usualSystem(facts)
  const kinds = Object.keys(subjectsOf) as (keyof Subjects)[]
  const pathsOf = new Map(kinds.map((kind) => [kind, subjectsOf[kind](system).map(({ path }) => path)]))
  return allChecks.flatMap((check) => pathsOf.get(check.about)!.map((on, place) => ({ check, place, on })))
}

const takesTime = ({ check }: Question): boolean => check.takesTime === true

/** An assessment from its results. */
export function assessmentOf(facts: Facts, checks: readonly CheckResult[]): Assessment {
  const lanes = usualSystem(facts).lanes.map(({ id, name }) =>
    laneResult(
      id,
      name,
      checks.filter((c) => c.lane === id),
    ),
  )
  const own = checks.filter((c) => c.lane === null)
  const overall = overallOf(facts, checks, lanes.length)
  const { verdict } = overall
  const deciding = checks.filter((c) => c.verdict === verdict)
  return {
    ...overall,
    checks,
    lanes,
    decidedBy: verdict === 'suits' ? null : (deciding[0]?.key ?? null),
    reason: reasonOf(verdict, deciding, lanes.length),
    battery: { verdict: worst(own.map((c) => c.verdict)), checks: own.map((c) => c.key) },
    measureNext: measureNext(facts.job, checks),
    overrides: facts.job.rules,
  }
}

/** What all findings come to. A job that nothing charges has something left to measure. */
function overallOf(
  facts: Facts,
  findings: readonly Finding[],
  lanes: number,
): Pick<Assessment, 'verdict' | 'headline' | 'changes'> {
  const all = findings.map(({ verdict }) => verdict)
  const verdict = worst(lanes === 0 ? ['measure-first', ...all] : all)
  // Only a job that suits once changed is judged again with its changes.
  if (verdict !== 'suits-once-changed')
    return { verdict, changes: firstRemedies(findings), headline: verdictWords[verdict] }
  const { changes, settles } = settlingOf(facts, findings, findingsOf)
  return { verdict, changes, headline: headlineOf(settles ? changes.length : 0) }
}

/**
 * Judges every check of a job. Pure: the same job and settings give the same assessment.
 * @param job a valid job document; unknown values are allowed everywhere
 * @param shop what the shop has changed of the default rules, and its units; the job's own changes win over
 * it
 * @param quick leaves out the checks that need a run of the system
 */
export function assess(job: JobDocument, shop: ShopSettings = {}, { quick = false } = {}): Assessment {
  const facts = factsOf(job, shop)
  const questions = questionsOf(facts).filter((question) => !quick || !takesTime(question))
  return assessmentOf(facts, resultsOf(facts, questions))
}

const resultsOf = (facts: Facts, questions: readonly Question[]): CheckResult[] =>
  questions.flatMap(({ check, place }) => judgeCheck(check, place, facts).result ?? [])

/** Results of some checks alone. */
export const resultsAmong = (facts: Facts, isWanted: (question: Question) => boolean): CheckResult[] =>
  resultsOf(facts, questionsOf(facts).filter(isWanted))

/** Results of the checks alone that need a run of the system. */
export const resultsAhead = (facts: Facts): CheckResult[] => resultsAmong(facts, takesTime)

/**
 * The verdicts of every check that needs no run, without words or evidence: several times as fast as {@link
 * assess}, and the same verdicts.
 */
export function findingsOf(facts: Facts): Finding[] {
  const { find } = findingsIn(facts)
  return questionsOf(facts)
    .filter((question) => !takesTime(question))
    .flatMap(({ check, place }) => find(check, place) ?? [])
}

/** A check that is worse than Suits, in a sentence. */
export interface Shortcoming {
  readonly key: string
  readonly verdict: Verdict
  readonly words: string
}

/**
 * What an assessment comes to, and what is worse than Suits in a sentence each: the same as {@link assess} says
 * of them, in half the time.
 */
export function shortcomingsOf(
  facts: Facts,
): Pick<Assessment, 'verdict' | 'headline'> & { readonly against: readonly Shortcoming[] } {
  const { find, say } = findingsIn(facts)
  const judged = questionsOf(facts).flatMap((question) => {
    const finding = find(question.check, question.place)
    return finding ? [{ question, finding }] : []
  })
  const { verdict, headline } = overallOf(
    facts,
    judged.map(({ finding }) => finding),
    usualSystem(facts).lanes.length,
  )
  const against = judged.filter(({ finding }) => finding.verdict !== 'suits')
  return {
    verdict,
    headline,
    against: against.map(({ question: { check, place }, finding }) => ({
      key: keyOf(finding.id, finding.on),
      verdict: finding.verdict,
      words:
        finding.deciding.length > 0 ? openWords(check.title, finding.deciding.length) : say(check, place),
    })),
  }
}

const openWords = (title: string, values: number): string =>
  needsToDecide(title, values === 1 ? '1 value' : `${values} values`)

const laneResult = (id: PartPath, name: string, checks: readonly CheckResult[]): LaneResult => ({
  id,
  name,
  verdict: worst(checks.map((c) => c.verdict)),
  checks: checks.map((c) => c.key),
})

const counted = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'] as const

/** @param changes how many it suits once they are made; 0 where no number can be promised */
function headlineOf(changes: number): string {
  if (changes === 0) return verdictWords['suits-once-changed']
  return changes === 1
    ? 'Suits once one thing is changed'
    : `Suits once ${counted[changes] ?? changes} things are changed`
}

function reasonOf(verdict: Verdict, deciding: readonly CheckResult[], lanes: number): string {
  if (lanes === 0)
    return 'No charging source is entered yet. Start the walk-round with what charges the house bank.'
  if (verdict === 'suits') return 'Every source stays inside the battery’s limits.'
  const sentences = new Map(deciding.map((c) => [c.id, c.summary]))
  return [...sentences.values()].slice(0, 2).join(' ')
}

/** Unknowns by how many open verdicts measuring each would settle. */
function measureNext(job: JobDocument, checks: readonly CheckResult[]): Measurement[] {
  const found = new Map<FieldPath, { score: number; settles: string[]; bearsOn: string[] }>()
  for (const { key, deciding } of checks) {
    for (const { path, settles } of deciding) {
      const entry = found.get(path) ?? { score: 0, settles: [], bearsOn: [] }
      entry.score += settles
      entry.bearsOn.push(key)
      if (settles === 1) entry.settles.push(key)
      found.set(path, entry)
    }
  }
  return [...found]
    .sort(([, a], [, b]) => b.score - a.score || b.bearsOn.length - a.bearsOn.length)
    .map(([path, { settles, bearsOn }]) => {
      const { field, partPath } = fieldAt(path)!
      return { path, part: partName(job, partPath), label: field.label, how: field.measure, settles, bearsOn }
    })
}
