import { readFileSync } from 'node:fs'
import { readShelfCsv } from '#core/formats/shelf-csv'
import { withSpecified } from '#core/job/as-specified'
import type { JobDocument } from '#core/job/document'
import { shelfKindIds, type ShelfPart } from '#core/shelf/kinds'
import { solve } from '#core/solve/answer'
import { planOf } from '#core/solve/plan'
import { specifiedBy } from '#core/solve/specify'

/** The shelf of the demo, as its first version. */
export const demoShelf = (): ShelfPart[] =>
  shelfKindIds.flatMap((kind) =>
    readShelfCsv(
      readFileSync(new URL(`../../demo/shelf/${kind}.csv`, import.meta.url), 'utf8'),
      kind,
    ).parts.map(({ code, name, maker, values }) => ({ kind, version: 1, code, name, maker, values })),
  )

/** A job with the first answer that is found for it; as it is where none is found. */
export function specifiedJob(job: JobDocument): JobDocument {
  const [answer] = solve(planOf(job, {}, demoShelf())).answers
  return answer ? withSpecified(job, specifiedBy(answer, 'Demo', '2026-01-01T00:00:00.000Z')) : job
}
