import { entryOf } from '#core/collections/held'
import type { JobDocument, PartPath } from '#core/job/document'
import type { RuleOverrides } from '#core/rules/rules'
import type { Facts } from '#core/system/facts'
import type { Reads } from '#core/system/reads'
import { factsOf, usualSystem, type ShopSettings, type System } from '#core/system/system'
import { worst, type Verdict } from '#core/system/verdict'
import type { Subjects } from './check'
import { allChecks, type AnyCheck } from './checks/index'
import { findingsIn, judgeCheck, type CheckResult, type Finding } from './result'
import { subjectsOf } from './subjects'

export type { CheckResult, Finding } from './result'

interface LaneResult {
  readonly id: PartPath
  readonly name: string
  readonly verdict: Verdict
  readonly checks: readonly string[]
}

/** The checks of a survey by subject. `Judgement` combines them. */
export interface Assessment {
  readonly checks: readonly CheckResult[]
  readonly lanes: readonly LaneResult[]
  readonly battery: Omit<LaneResult, 'id' | 'name'>
  /** Rules this job overrides. */
  readonly overrides: RuleOverrides
}

/** One question to be checked: a check about one of its subjects. */
export interface Question {
  readonly check: AnyCheck
  /** Which of the subjects of its kind. */
  readonly place: number
  readonly on: PartPath
}

/** Every question about a job or, once its wiring is calculated, about its wiring; in the order of the checks. */
function questionsAbout(system: System, isWanted: (check: AnyCheck) => boolean): Question[] {
  const kinds = Object.keys(subjectsOf) as (keyof Subjects)[]
  const pathsOf = new Map(kinds.map((kind) => [kind, subjectsOf[kind](system).map(({ path }) => path)]))
  return allChecks
    .filter(isWanted)
    .flatMap((check) => entryOf(pathsOf, check.about).map((on, place) => ({ check, place, on })))
}
const isOfWiring = ({ id }: AnyCheck): boolean => id.startsWith('wiring.')

/** Every check with each of its subjects in the survey. */
export const questionsOf = (facts: Facts): Question[] => notedQuestionsOf(facts).questions

/** The same, with everything that was read to find them. */
export function notedQuestionsOf(facts: Facts): { readonly questions: Question[]; readonly reads: Reads } {
  const system = usualSystem(facts)
  const questions = questionsAbout(system, (check) => !isOfWiring(check))
  return { questions, reads: system.scene.reads }
}

const questionsOfWiring = (facts: Facts): Question[] => questionsAbout(usualSystem(facts), isOfWiring)

const takesTime = ({ check }: Question): boolean => check.takesTime === true

/** An assessment from its results. */
export function assessmentOf(facts: Facts, checks: readonly CheckResult[]): Assessment {
  const own = checks.filter((c) => c.lane === null)
  return {
    checks,
    lanes: usualSystem(facts).lanes.map(({ id, name }) =>
      laneResult(
        id,
        name,
        checks.filter((c) => c.lane === id),
      ),
    ),
    battery: { verdict: worst(own.map((c) => c.verdict)), checks: own.map((c) => c.key) },
    overrides: facts.job.rules,
  }
}

/**
 * Checks every check of a job. Pure: the same job and settings give the same assessment.
 * @param job a valid job document; unknown values are allowed everywhere
 * @param shop the shop's changes to the default rules, and its units; the job's own changes override
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

/** Results about the wiring of a job whose wiring is calculated. */
export const wiringResults = (facts: Facts): CheckResult[] => resultsOf(facts, questionsOfWiring(facts))

/** Results of the checks alone that need a run of the system. */
export const resultsAhead = (facts: Facts): CheckResult[] =>
  resultsOf(facts, questionsOf(facts).filter(takesTime))

/**
 * The verdicts of every check that needs no run, without words or evidence: several times as fast as {@link
 * assess}, and the same verdicts.
 */
export const findingsOf = (facts: Facts): Finding[] =>
  foundBy(
    facts,
    questionsOf(facts).filter((question) => !takesTime(question)),
  )

/** The same of the wiring of a job whose wiring is calculated. */
export const wiringFindings = (facts: Facts): Finding[] => foundBy(facts, questionsOfWiring(facts))

function foundBy(facts: Facts, questions: readonly Question[]): Finding[] {
  const { find } = findingsIn(facts)
  return questions.flatMap(({ check, place }) => find(check, place) ?? [])
}

const laneResult = (id: PartPath, name: string, checks: readonly CheckResult[]): LaneResult => ({
  id,
  name,
  verdict: worst(checks.map((c) => c.verdict)),
  checks: checks.map((c) => c.key),
})
