import type { JobDocument } from '#core/job/document'
import { Evaluator } from '#core/solve/evaluate'
import { search } from '#core/solve/front'
import { planOf, type Plan } from '#core/solve/plan'
import { demoShelf } from '../lib/demo-shelf'
import { demoJobs } from './demo-jobs'

/** The workboat with three like chargers and a larger alternator: several hundred combinations settle it. */
export function manyAnswers(): { readonly job: JobDocument; readonly plan: Plan } {
  const first = demoJobs[0]![1]
  const like = first.chargers['charger-1']!
  const job: JobDocument = {
    ...first,
    job: { ...first.job, number: '0499' },
    alternators: {
      'alternator-1': { ...first.alternators['alternator-1']!, ratedA: { value: 200, how: 'measured' } },
    },
    chargers: {
      'charger-1': like,
      'charger-2': { ...like, name: 'Second charger' },
      'charger-3': { ...like, name: 'Third charger' },
    },
  }
  return { job, plan: planOf(job, {}, demoShelf()) }
}

/**
 * How long a search for answers takes in one thread, the runs of 72 h of those that settle the job among
 * them.
 */
export function benchAnswers(): void {
  const { plan } = manyAnswers()
  const begun = performance.now()
  const settling = [...search(new Evaluator(plan))].filter(({ short }) => short === 0).length
  const seconds = (performance.now() - begun) / 1000
  console.log(
    `Search in one thread: ${plan.count} combinations judged, the ${settling} that settle the job run for 72 h each, in ${seconds.toFixed(2)} s`,
  )
}
