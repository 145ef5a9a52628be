import { fieldOfLearnt, withLearnt, type Learnt } from '#core/diagnosis/learnt'
import { asFitted } from '#core/job/as-fitted'
import {
  knownOf,
  listParts,
  surveyOf,
  withField,
  withPart,
  type FieldPath,
  type JobDocument,
} from '#core/job/document'
import { partKinds, type Known } from '#core/job/fields'
import { provingOf } from '#core/job/proving-edits'

/** A path that was changed, or the part that it is in. */
const isIn = (path: FieldPath, changed: ReadonlySet<string>): boolean =>
  changed.has(path) || changed.has(path.slice(0, path.lastIndexOf('/')))

/** A job with each of its known values changed. */
const withEach = (
  job: JobDocument,
  change: (path: FieldPath, known: Known<unknown>) => Known<unknown>,
): JobDocument =>
  listParts(job).reduce<JobDocument>(
    (parts, { kind, path, part }) =>
      Object.keys(partKinds[kind].fields).reduce<JobDocument>((next, field) => {
        const known = knownOf(part, field)
        if (!known || known.value === null) return next
        const at = `${path}/${field}`
        // A part that nobody touched before is not there yet.
        return withField(
          withPart(next, path, (there) => there),
          at,
          change(at, known),
        )
      }, parts),
    job,
  )

/**
 * A new job for a craft that is like another: everything as fitted there, and assumed here until somebody looks.
 * Notes stay with the other craft.
 */
export function likeJob(other: JobDocument, number: string): JobDocument {
  const from = `job ${other.job.number}, ${other.job.name || 'similar craft'}`
  const survey = surveyOf(asFitted(other))
  const alike = withEach(survey, (_path, { value }) => ({ value, how: 'assumed', from }))
  const { usePattern } = other.job
  return {
    ...alike,
    notes: {},
    job: { number, name: '', stage: 'enquiry', ...(usePattern ? { usePattern } : {}) },
  }
}

/**
 * A new job for a craft that returns. Its survey is the last job as fitted, with the values learnt from readings.
 * Each value names the job it comes from, and its source there.
 * @param last the newest job of the craft
 * @param learnt values that the newest record of that job learnt from its readings
 */
export function returningJob(last: JobDocument, learnt: readonly Learnt[], number: string): JobDocument {
  const { dueDate: _due, ...head } = last.job
  const fitted = withLearnt(surveyOf(asFitted(last)), learnt)
  const survey = surveyOf(fitted)
  const name = `job ${last.job.number}`
  const changed = {
    learnt: new Set(learnt.map(fieldOfLearnt)),
    fitted: new Set(provingOf(last).fitted.map(({ path }) => path)),
    specified: new Set((last.specified?.changes ?? []).map(({ path }) => path)),
  }
  const originOf = (path: FieldPath, known: Known<unknown>): string => {
    if (isIn(path, changed.learnt)) return `${name}, learnt from readings`
    if (isIn(path, changed.fitted)) return `${name}, as fitted`
    if (isIn(path, changed.specified)) return `${name}, as specified`
    return known.from ?? `${name}, survey`
  }
  const known = withEach(survey, (at, one) => ({ ...one, from: originOf(at, one) }))
  return { ...known, job: { ...head, number, stage: 'enquiry' } }
}
