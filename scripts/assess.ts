// npm run --silent assess -- FILE.json: the judgement of a job file as JSON, with the checks behind it, from the core
// alone.
import { wiringVerdictOf } from '#core/assessment/wired'
import { isWired } from '#core/job/wired'
import { asSpecified } from '#core/job/as-specified'
import { metric } from '#core/units/display'
import { writerIn } from '#core/units/format'
import { judgeJob } from '#core/verdict/job'
import type { Judgement } from '#core/verdict/judgement'
import { changesToMake } from '#core/verdict/to-change'
import { fail, jobFromFile } from './lib/job-argument'

const job = await jobFromFile(
  process.argv[2] ?? fail('Name a job file: npm run --silent assess -- FILE.json'),
)
const q = writerIn(metric)
const { found, specified, assessment, specifiedAssessment, wiring } = judgeJob(job)

/** A judgement with its changes in words. */
const inWords = (judgement: Judgement, checks: typeof assessment.checks, of = job) => ({
  ...judgement,
  changes: changesToMake(judgement, checks, of, q).map(({ remedy, ...words }) => ({ ...remedy, ...words })),
})
const wiringChecks = wiring?.checks ?? []
const asFound = inWords(found, [...assessment.checks, ...(specified ? [] : wiringChecks)])
const asAnswered =
  specified && inWords(specified, [...specifiedAssessment!.checks, ...wiringChecks], asSpecified(job))
const printed = {
  ...asFound,
  specified: asAnswered,
  ...assessment,
  specifiedChecks: specifiedAssessment?.checks ?? null,
  wiring: { decided: isWired(job), ...(wiring ?? wiringVerdictOf(job)) },
}
process.stdout.write(`${JSON.stringify(printed, null, 2)}\n`)
