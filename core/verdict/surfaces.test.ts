import fc from 'fast-check'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { assess } from '#core/assessment/assess'
import type { JobDocument } from '#core/job/document'
import { summaryOf } from '#core/papers/summary'
import { sheetInputs, sheetOf } from '#core/papers/sheet'
import { answeredWith, anyJobFrom, goodJob, long, withValues } from '#core/testing'
import { usualLetterhead } from '#core/quotation/terms'
import { metric } from '#core/units/display'
import { Engine, type JudgedJob } from '../../app/engine/engine'
import { verdict as listVerdict } from '../../server/judging/work'
import { withChanges } from './changes'
import { intended, judgeJob, type JobJudgement } from './job'

// One judgement of a job, whichever screen, list or paper shows it.

const folder = new URL('../../demo/jobs/', import.meta.url)
const demos = readdirSync(folder).map(
  (name) => JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument,
)
/** Random jobs on all surfaces: a few of those in `npm run test:long`. */
const randomJobs = Number(process.env.RANDOM_SURFACES ?? 10)
const shop = { rules: {}, units: metric }
const madeAt = '2026-11-21T09:00:00.000Z'

/** A job whose chosen answer is the changes that its survey asks for. */
function answered(job: JobDocument): JobDocument {
  return answeredWith(job, withChanges(job, judgeJob(job, shop).found.changes))
}

type Shown = readonly [found: string, specified: string | null]
const shownOf = ({ found, specified }: JobJudgement): Shown => [
  `${found.verdict}: ${found.headline}`,
  specified && `${specified.verdict}: ${specified.headline}`,
]

function onTheList(job: JobDocument): Shown {
  const row = listVerdict({ document: job, ...shop })
  return [
    `${row.verdict}: ${row.headline}`,
    row.specified_verdict && `${row.specified_verdict}: ${row.specified_headline}`,
  ]
}

function onTheSummary(job: JobDocument): Shown {
  const [answer] = summaryOf(job, { ...shop, name: '', madeAt }).sections
  const said = answer!.blocks.flatMap((block) =>
    block.kind === 'answer' ? [`${block.verdict}: ${block.text.replace(/^As (found|specified): /, '')}`] : [],
  )
  return [said[0]!, said[1] ?? null]
}

function onTheSheet(job: JobDocument): Shown {
  const inputs = sheetInputs(
    job,
    { ...shop, name: '', letterhead: usualLetterhead },
    { number: '1', issuedAt: madeAt, issuedBy: 'Ida' },
  )
  const { found, specified } = sheetOf(inputs).result
  return [`${found.verdict}: ${found.headline}`, `${specified.verdict}: ${specified.headline}`]
}

/** What the bench shows once it has checked everything. */
async function onTheBench(job: JobDocument): Promise<JudgedJob> {
  let last: JudgedJob | null = null
  await new Engine().judge('job', job, shop, (judged) => (last = judged))
  return last!
}

async function expectOneTruth(job: JobDocument): Promise<void> {
  const judged = judgeJob(job, shop)
  const expected = shownOf(judged)
  expect(onTheList(job)).toEqual(expected)
  expect(onTheSummary(job)).toEqual(expected)
  if (job.specified) expect(onTheSheet(job)).toEqual(expected)
  const bench = await onTheBench(job)
  expect(shownOf(bench)).toEqual(expected)
  expect(bench.found.changes).toEqual(judged.found.changes)
  expect(bench.found.measureNext).toEqual(judged.found.measureNext)
}

describe('every surface shows the same judgement', () => {
  it.each(demos.map((job) => [job.job.number, job] as const))(
    'of demo job %s',
    long,
    async (_number, job) => {
      await expectOneTruth(job)
      await expectOneTruth(answered(job))
    },
  )

  it('of random jobs, with and without a chosen answer', async () => {
    await fc.assert(
      fc.asyncProperty(anyJobFrom([...demos, goodJob()]), fc.boolean(), async (job, isAnswered) => {
        await expectOneTruth(isAnswered ? answered(job) : job)
      }),
      { numRuns: randomJobs, seed: 20261129 },
    )
  })
})

describe('the judgement', () => {
  const blown = withValues(goodJob(), { 'fittings/main-fuse/ratedA': 30 })

  it('counts the wiring once it is decided', () => {
    expect(assess(blown).checks.every(({ verdict }) => verdict === 'suits')).toBe(true)
    const { found } = judgeJob(blown)
    expect(found.verdict).toBe('suits-once-changed')
    expect(found.decidedBy).toMatch(/^wiring\./)
    expect(found.reason).toMatch(/fuse/)
    expect(found.changes.length).toBeGreaterThan(0)
  })

  it('counts the wiring of an answer in the verdict as specified alone', () => {
    const { found, specified } = judgeJob(answeredWith(blown, blown))
    expect(found.verdict).toBe('suits')
    expect(specified!.verdict).toBe('suits-once-changed')
    expect(intended({ found, specified })).toBe(specified)
  })

  it('says the number of changes where these make it suit', () => {
    const job = demos.find(({ job: { number } }) => number === '0417')!
    const { found } = judgeJob(job)
    expect(found.headline).toBe(`Suits after ${found.changes.length} changes`)
    const { found: after } = judgeJob(withChanges(job, found.changes))
    expect(after.verdict).toBe('suits')
  })
})
