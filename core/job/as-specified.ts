import { applyChanges, inverseOf } from './changes'
import type { JobDocument } from './document'
import type { Specified } from './specified'

/**
 * The job as it will be once it is done; the survey as it is where nothing was chosen. The chosen answer
 * itself is left out.
 */
export function asSpecified(job: JobDocument): JobDocument {
  const { specified, proving: _proving, ...found } = job
  return specified ? applyChanges(found as JobDocument, specified.changes) : job
}

/** The job as it was surveyed, whether the changes of its answer are made in it already or not. */
export function asFound(job: JobDocument): JobDocument {
  const { specified } = job
  return specified ? applyChanges(job, inverseOf(specified.changes)) : job
}

/** The job with an answer chosen for it, or with none. The survey stays untouched next to it. */
export function withSpecified(job: JobDocument, specified: Specified | null): JobDocument {
  const { specified: _old, ...found } = job
  return specified ? ({ ...found, specified } as JobDocument) : (found as JobDocument)
}
