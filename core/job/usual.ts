import { isAsked, partsOf, valueOf, withField, type JobDocument } from './document'
import { partKinds, type Field, type PartKind, type PartKindId } from './fields'

/** The usual value of a field that stands in if nothing is entered; undefined where nothing may. */
const usualOf = (field: Field): unknown =>
  field.type !== 'rows' && (typeof field.otherwise === 'number' || field.type === 'choice')
    ? field.otherwise
    : undefined

/**
 * A job with the usual value, as assumed, in each field that was asked and not entered. A field without a safe
 * usual value stays unknown.
 */
export function fieldsWithUsual(job: JobDocument, kind: PartKindId): JobDocument {
  const fields = Object.entries((partKinds[kind] as PartKind).fields)
  return partsOf(job, kind).reduce(
    (next, { path, part }) =>
      fields.reduce((changed, [name, field]) => {
        const value = usualOf(field)
        if (value === undefined || valueOf(part, name) !== null || !isAsked(part, field)) return changed
        return withField(changed, `${path}/${name}`, { value, how: 'assumed' })
      }, next),
    job,
  )
}
