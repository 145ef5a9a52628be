import { wiredJob } from '#core/assessment/wired'
import { emptyJob, withNewPart, type JobDocument } from '#core/job/document'
import { casesOf } from '#core/wiring/cases'
import { Joints } from '#core/wiring/joints'
import { networkOf } from '#core/wiring/of-job'
import { searchAnswers } from '#core/solve/answers'
import { planOf } from '#core/solve/plan'
import { demoShelf } from '../lib/demo-shelf'
import { demoJobs, median, ms } from './demo-jobs'

const runs = 15
const timed = (work: () => unknown): number => {
  work()
  return median(
    Array.from({ length: runs }, () => {
      const begun = performance.now()
      work()
      return performance.now() - begun
    }),
  )
}

/** A job whose wiring has some 120 posts: the first demo job with many more branches. */
function largeJob(): JobDocument {
  const first = demoJobs[0]![1]
  const added = Array.from({ length: 33 }, (_, i) => i)
  return added.reduce<JobDocument>(
    (job, i) =>
      withNewPart(job, 'branches', {
        what: { value: 'fans', how: 'assumed' },
        amps: { value: 2 + (i % 5), how: 'assumed' },
      }).job,
    { ...emptyJob('1'), ...first },
  )
}

/** The wiring of a specified demo job: sizes of cable, families of fuses, parts without a price, and its cost. */
function boughtOf(job: JobDocument): Record<string, unknown> {
  const [answer] = searchAnswers(planOf(job, {}, demoShelf())).answers
  if (!answer) return { 'cable sizes': '–' }
  const wanted = answer.wiring.wanted.flatMap((one) => one ?? [])
  const distinct = (kind: string, field: string): number =>
    new Set(wanted.filter((one) => one.kind === kind).map(({ exactly }) => exactly[field])).size
  return {
    'cable sizes': distinct('conductors', 'areaMm2'),
    'fuse families': distinct('fuses', 'fuseKind'),
    'without a price': answer.wiring.parts.filter(({ price }) => price == null).length,
    cost: Math.round(answer.figures.cost),
  }
}

/** How long the wiring of a job takes: proposed and sized, every case solved, checked with all other checks. */
export function benchWiring(): void {
  const rows = [...demoJobs, ['120 posts', largeJob()] as const].map(([name, job]) => {
    const network = networkOf(job)
    return {
      what: name,
      posts: network.posts.length,
      cases: casesOf(network).length,
      'proposed and sized': ms(timed(() => networkOf(job))),
      'every case solved': ms(
        timed(() => {
          const joints = new Joints(network)
          const circuits = joints.circuits(network)
          for (const at of casesOf(network)) joints.solved(circuits.in(at), network, at)
        }),
      ),
      'all of it, judged': ms(timed(() => wiredJob(job, {}))),
    }
  })
  console.table(rows)
  console.table(demoJobs.map(([name, job]) => ({ what: name, ...boughtOf(job) })))
}
