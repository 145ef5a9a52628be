import { asSpecified } from './as-specified'
import { applyChanges } from './changes'
import { withPart, type JobDocument } from './document'
import type { Specified } from './specified'
import { provingOf } from './proving-edits'

/** An answer without what it sets of runs and fuses: as fitted, these are made, and what was fitted replaces them. */
const withoutWiring = (specified: Specified): Specified => ({
  ...specified,
  changes: specified.changes.filter(({ path }) => !/^(runs|fittings|branches)\//.test(path)),
})

/** The job as it was really fitted: as specified, with what was fitted otherwise. */
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
