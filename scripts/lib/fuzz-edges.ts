import { completeJob } from '#core/job/complete'
import { listParts, withField, type JobDocument } from '#core/job/document'
import { partKinds, type PartKind, type QuantityField } from '#core/job/fields'
import { judgeJob } from '#core/verdict/job'
import { demoJobs } from '../bench/demo-jobs'
import { chanceOf } from './hostile'

const mostEdits = 12
/** Words that a number without meaning leaves in a sentence. */
const brokenNumber = /NaN|Infinity|undefined/

export interface EdgesFound {
  readonly thrown: number
  readonly broken: number
  readonly slowestMs: number
}

/**
 * Checks valid jobs with field values at their limits: a demo job with one to twelve random fields set to the
 * lowest, the highest, zero or the smallest number. Prints exceptions and findings without a number.
 */
export function fuzzEdges(count: number, seed: number): EdgesFound {
  const chance = chanceOf(seed)
  const found = { thrown: 0, broken: 0, slowestMs: 0 }
  for (let i = 0; i < count; i++) {
    const { job, edits } = atEdges(demoJobs[i % demoJobs.length]![1], chance)
    const begun = performance.now()
    try {
      const { assessment } = judgeJob(job)
      const text = assessment.checks.map(({ summary, formula }) => `${summary} ${formula}`)
      if (text.some((words) => brokenNumber.test(words))) {
        found.broken++
        console.error(`A number without meaning: ${edits.join(' ')}`)
      }
    } catch (cause) {
      found.thrown++
      console.error(`Judging threw: ${edits.join(' ')}`, cause)
    }
    const ms = performance.now() - begun
    if (ms > found.slowestMs) found.slowestMs = ms
  }
  return found
}

function atEdges(
  start: JobDocument,
  chance: () => number,
): { readonly job: JobDocument; readonly edits: readonly string[] } {
  const pick = <T>(from: readonly T[]): T => from[Math.floor(chance() * from.length)]!
  const edits: string[] = []
  let job = completeJob(start)
  for (let left = 1 + Math.floor(chance() * mostEdits); left > 0; left--) {
    const part = pick(listParts(job))
    const fields = Object.entries((partKinds[part.kind] as PartKind).fields).filter(
      (entry): entry is [string, QuantityField] => entry[1].type === 'quantity',
    )
    if (fields.length === 0) continue
    const [name, { limits }] = pick(fields)
    const value = pick([...limits, 0, Number.MIN_VALUE].filter((one) => one >= limits[0] && one <= limits[1]))
    edits.push(`${part.path}/${name}=${value}`)
    job = withField(job, `${part.path}/${name}`, { value, how: 'measured' })
  }
  return { job, edits }
}
