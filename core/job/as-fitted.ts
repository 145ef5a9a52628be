import { asSpecified } from './as-specified'
import { applyChanges } from './changes'
import { withPart, type JobDocument } from './document'
import type { Specified } from './specified'
import { provingOf } from './proving-edits'

/** An answer without its runs and fuses: as fitted, these are done, and the fitted ones replace them. */
const withoutWiring = (specified: Specified): Specified => ({
  ...specified,
  changes: specified.changes.filter(({ path }) => !/^(runs|fittings|branches)\//.test(path)),
})

/** The job as fitted: as specified, with the differences found during fitting. */
export function asFitted(job: JobDocument): JobDocument {
  const { fitted } = provingOf(job)
  const paths = new Set(fitted.map(({ path }) => path.split('/').slice(0, 2).join('/')))
  // A run that nobody touched before has no part yet to be changed.
  const ready = [...paths].reduce<JobDocument>(
    (next, path) => withPart(next, path, (part) => part),
    asSpecified(job),
  )
  const done = applyChanges(ready, fitted)
  return job.specified ? { ...done, specified: withoutWiring(job.specified) } : done
}
