import { KeptAssessment } from '#core/assessment/kept'
import { partKinds, type PartKind } from '#core/job/fields'
import { listParts, withField, type JobDocument } from '#core/job/document'
import type { Known } from '#core/job/field'
import { demoJobs, median, ms } from './demo-jobs'

const repeats = 3

/** Another value of a field that could as well be known; null for one that has none. */
function otherValue({ value }: Known<unknown>): unknown {
  if (typeof value === 'number') return value * 1.01 + 0.01
  if (value === 'yes') return 'no'
  if (value === 'no') return 'yes'
  return null
}

/** Checks a job to the end, runs and all. */
function judge(kept: KeptAssessment, job: JobDocument): void {
  kept.take(job)
  for (const _ of kept.lookAhead()) continue
}

/** Milliseconds of the fastest of some tries. */
const fastest = (work: () => void): number =>
  Math.min(
    ...Array.from({ length: repeats }, () => {
      const begun = performance.now()
      work()
      return performance.now() - begun
    }),
  )

function sharesOf(job: JobDocument): { changed: number; whole: number }[] {
  return listParts(job).flatMap(({ kind, path, part }) =>
    Object.keys((partKinds[kind] as PartKind).fields).flatMap((name) => {
      const known = part[name] as Known<unknown> | undefined
      const value = known ? otherValue(known) : null
      if (!known || value === null) return []
      const next = withField(job, `${path}/${name}`, { ...known, value } as Known<unknown>)
      const whole = fastest(() => {
        judge(new KeptAssessment(), next)
      })
      const kept = new KeptAssessment()
      // There and back: each time one value is another than before.
      const turns = [next, job]
      judge(kept, job)
      let turn = 0
      const changed = fastest(() => {
        judge(kept, turns[turn++ % 2]!)
      })
      return [{ changed, whole }]
    }),
  )
}

/** Time of one changed value against a full check, over every known value of every demo job. */
export function benchKept(): void {
  const all = demoJobs.flatMap(([, job]) => sharesOf(job))
  const shares = all.map(({ changed, whole }) => changed / whole)
  const under = shares.filter((share) => share <= 0.25).length
  console.log(
    `One changed value, median of ${all.length}: ${ms(median(all.map(({ changed }) => changed)))} of ${ms(median(all.map(({ whole }) => whole)))} for a full judging, ${(median(shares) * 100).toFixed(0)} %; at most a quarter for ${under} of them`,
  )
}
