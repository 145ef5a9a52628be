import { elementAt, present } from '#core/collections/held'
import { partsOf, type JobDocument, type PartPath } from './document'

/** Most batteries set side by side, the one in question included. */
export const mostCandidates = 4

/** The batteries set side by side on a job: the one in question first, then the others by their number. */
export const candidatePaths = (job: JobDocument): readonly PartPath[] =>
  ['candidate', ...partsOf(job, 'alternatives').map((ref) => ref.path)].slice(0, mostCandidates)

/** The job with another candidate in question; the list of others as it was. */
export function withCandidate(job: JobDocument, path: PartPath): JobDocument {
  const part = path === 'candidate' ? job.candidate : job.alternatives[elementAt(path.split('/'), 1)]
  return part ? { ...job, candidate: part } : job
}

/** The job with one of the other candidates as the current one; the current one takes its place. */
export function chooseCandidate(job: JobDocument, path: PartPath): JobDocument {
  const id = path.split('/')[1]
  const chosen = id === undefined ? undefined : job.alternatives[id]
  if (!chosen) return job
  return { ...job, candidate: chosen, alternatives: { ...job.alternatives, [present(id)]: job.candidate } }
}
