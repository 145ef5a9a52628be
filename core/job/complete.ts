import { partsOf, withNewPart, withPart, type JobDocument } from './document'

/**
 * A copy of the job in which every alternator has a link, so that it has a lane, and a starting battery: the
 * first that is nobody's yet, else one of which nothing is known.
 */
export function completeJob(job: JobDocument): JobDocument {
  return partsOf(job, 'alternators').reduce(
    (next, { path }) => withStartingBattery(withLink(next, path), path),
    job,
  )
}

const isFrom =
  (alternator: string) =>
  ({ part }: { part: { readonly from?: string } }): boolean =>
    part.from === alternator

function withLink(job: JobDocument, alternator: string): JobDocument {
  return partsOf(job, 'links').some(isFrom(alternator))
    ? job
    : withNewPart(job, 'links', { from: alternator }).job
}

function withStartingBattery(job: JobDocument, alternator: string): JobDocument {
  const batteries = partsOf(job, 'startingBatteries')
  if (batteries.some(isFrom(alternator))) return job
  const free = batteries.find(({ part }) => part.from === undefined)
  if (free) return withPart(job, free.path, (part) => ({ ...part, from: alternator }))
  return withNewPart(job, 'startingBatteries', { from: alternator }).job
}
