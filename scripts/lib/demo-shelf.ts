import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { readShelfCsv } from '#core/formats/shelf-csv'
import { withSpecified } from '#core/job/as-specified'
import type { JobDocument } from '#core/job/document'
import { shelfKindIds, type ShelfPart } from '#core/shelf/kinds'
import { searchAnswers } from '#core/solve/answers'
import { planOf } from '#core/solve/plan'
import { specifiedBy } from '#core/solve/specify'

/**
 * The shelf in a folder of tables, one a kind, as its first version. A kind without a table has no parts.
 * @param refuse is called with words where a row cannot be read
 */
export const shelfIn = (folder: string, refuse: (words: string) => never): ShelfPart[] =>
  shelfKindIds.flatMap((kind) => {
    const file = join(folder, `${kind}.csv`)
    if (!existsSync(file)) return []
    const { parts, problems } = readShelfCsv(readFileSync(file, 'utf8'), kind)
    const [problem] = problems
    if (problem) refuse(`${file}, line ${problem.line}, ${problem.column}: ${problem.reason}`)
    return parts.map(({ code, name, maker, values }) => ({ kind, version: 1, code, name, maker, values }))
  })

const demoFolder = fileURLToPath(new URL('../../demo/shelf', import.meta.url))
/** The shelf of the demo. */
export const demoShelf = (): ShelfPart[] =>
  shelfIn(demoFolder, (words) => {
    throw new Error(words)
  })

const specified = new Map<string, JobDocument>()

/** A job with the first answer that is found for it; as it is where none is found. Searched once for equal jobs. */
export function specifiedJob(job: JobDocument): JobDocument {
  const key = JSON.stringify(job)
  const known = specified.get(key)
  if (known) return known
  const [answer] = searchAnswers(planOf(job, {}, demoShelf())).answers
  const done = answer ? withSpecified(job, specifiedBy(answer, 'Demo', '2026-01-01T00:00:00.000Z')) : job
  specified.set(key, done)
  return done
}
