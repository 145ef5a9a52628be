import { partsOf, withNewPart, type JobDocument } from './document'

/** A copy of the job in which every alternator has a link, if only an unknown one, so that it has a lane. */
export function completeLinks(job: JobDocument): JobDocument {
  const linked = new Set(partsOf(job, 'links').map((ref) => ref.part.from))
  return partsOf(job, 'alternators').filter((ref) => !linked.has(ref.path)).reduce((next, ref) => withNewPart(next, 'links', { from: ref.path }).job, job)
}
