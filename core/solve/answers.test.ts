import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { assess } from '#core/assessment/assess'
import { completeJob } from '#core/job/complete'
import { applyChanges } from '#core/job/changes'
import { withField, type JobDocument } from '#core/job/document'
import { caseLimitC } from '#core/physics/alternator'
import { evenly, long } from '#core/testing'
import { isSure, type Answer } from './answer'
import { searchAnswers } from './answers'
import { isAccepted } from '#core/assessment/finding'
import { planOf } from './plan'
import { demoShelf } from '../../scripts/lib/demo-shelf'

const at = (path: string): URL => new URL(`../../demo/${path}`, import.meta.url)
const demos = readdirSync(at('jobs')).map(
  (name) => JSON.parse(readFileSync(at(`jobs/${name}`), 'utf8')) as JobDocument,
)
const shelf = demoShelf()

/** Words of limits that a figure next to them must not pass where something suits. */
const isMost = /at most$|carries$|^rated$|^plug$|cuts at$|battery allows$|supply gives$|generator gives$/

/** What is wrong with an answer that is shown: nothing, for one that an installer can sign. */
function faultsOf(answer: Answer, job: JobDocument): string[] {
  const found = completeJob(job)
  const before = assess(found)
  const done = assess(applyChanges(found, answer.changes))
  const faults: string[] = []
  const left = done.checks.filter((check) => check.verdict !== 'suits' && !isAccepted(check))
  if (isSure(answer) && left.length > 0)
    faults.push(`said to suit, with ${left.map(({ key, verdict }) => `${key} ${verdict}`).join(', ')}`)
  for (const check of done.checks) {
    const was = before.checks.find(({ key }) => key === check.key)?.verdict
    if (check.verdict === 'does-not-suit' && was !== 'does-not-suit') faults.push(`adds ${check.key}`)
    const [a, b] = check.compared
    if (
      check.verdict === 'suits' &&
      isMost.test(b.label) &&
      !/BMS cuts/.test(b.label) &&
      typeof a.value === 'number' &&
      typeof b.value === 'number' &&
      a.value > b.value + 0.051
    )
      faults.push(`${check.key} suits with ${a.value} beside ${b.label} ${b.value}`)
  }
  const { alternatorPeakC } = answer.figures
  if (alternatorPeakC !== null && alternatorPeakC > caseLimitC)
    faults.push(`alternator at ${alternatorPeakC} °C`)
  return faults
}

const shownFaults = (job: JobDocument): string[] =>
  searchAnswers(planOf(job, {}, shelf)).answers.flatMap((answer) =>
    faultsOf(answer, job).map((fault) => `${answer.name}: ${fault}`),
  )

/** Random surveys whose answers are walked: a few of those in `npm run test:long`. */
const surveys = Number(process.env.RANDOM_SURVEYS ?? 3)

/** A survey with some of its figures otherwise, and one unknown. */
const varied = fc
  .record({
    job: fc.constantFrom(...demos),
    ratedA: evenly(40, 200),
    chargerA: evenly(5, 80),
    absorptionV: fc.option(evenly(13.6, 15)),
    coldestC: evenly(-15, 10),
    ah: evenly(60, 300),
    riseK: fc.option(evenly(45, 75)),
  })
  .map(({ job, ratedA, chargerA, absorptionV, coldestC, ah, riseK }) => {
    const known = (next: JobDocument, path: string, value: number | null): JobDocument =>
      withField(
        next,
        path,
        value === null ? { value } : { value: Number(value.toPrecision(3)), how: 'measured' },
      )
    const [alternator, charger] = [Object.keys(job.alternators)[0], Object.keys(job.chargers)[0]]
    let next = known(known(job, 'place/coldestC', coldestC), 'candidate/ahEach', ah)
    if (charger) {
      next = known(next, `chargers/${charger}/ratedA`, chargerA)
      next = known(next, `chargers/${charger}/absorptionV`, absorptionV)
    }
    if (!alternator) return next
    next = withField(next, `alternators/${alternator}/temperatureReadings`, undefined)
    return known(
      known(next, `alternators/${alternator}/ratedA`, ratedA),
      `alternators/${alternator}/riseK`,
      riseK,
    )
  })

describe(
  'no answer says that it suits with a figure over its limit, nor adds a finding that does not suit',
  { timeout: 600_000, ...long },
  () => {
    it.each(demos.map((job) => [job.job.number, job] as const))('of job %s', (_, job) => {
      expect(shownFaults(job)).toEqual([])
    })
    it(`of ${surveys} surveys at random`, long, () => {
      for (const job of fc.sample(varied, { numRuns: surveys, seed: 417 }))
        expect({ job: job.job.number, faults: shownFaults(job) }).toEqual({ job: job.job.number, faults: [] })
    })
  },
)
