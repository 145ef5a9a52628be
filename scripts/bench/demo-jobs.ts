import { readdirSync, readFileSync } from 'node:fs'
import { emptyJob, withNewPart, type JobDocument } from '#core/job/document'

const folder = new URL('../../demo/jobs/', import.meta.url)
const readDemo = (file: string): JobDocument =>
  JSON.parse(readFileSync(new URL(file, folder), 'utf8')) as JobDocument

/** Name and document of every demo job. */
export const demoJobs = readdirSync(folder).map(
  (file) => [file.replace('.json', ''), readDemo(file)] as const,
)

export const demoJob = (number: string): JobDocument => demoJobs.find(([name]) => name.startsWith(number))![1]

/** A job of two sources of which nothing is known. */
export const unknownJob = withNewPart(withNewPart(emptyJob('1'), 'chargers').job, 'alternators').job

/** Milliseconds, small ones in microseconds. */
export const ms = (value: number): string =>
  value < 0.1 ? `${(value * 1000).toFixed(2)} µs` : `${value.toFixed(3)} ms`

export const median = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[values.length >> 1]!
