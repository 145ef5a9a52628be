import type { Write } from '#core/units/format'
import type { Change } from './change'
import { fieldAt, partName, type AnyPart, type JobDocument } from './document'
import { partKinds, type Field, type Known, type PartKindId } from './fields'
import { formatRows } from './rows'

/** A value as it was entered; empty when unknown. */
export function shownValue(field: Field, value: unknown, q: Write): string {
  if (value == null) return ''
  switch (field.type) {
    case 'choice':
      return field.options[value as string] ?? String(value)
    case 'rows':
      return formatRows(value as never, field)
    case 'quantity':
      return q(value as number, field.unit, true)
  }
}

/** One field that differs between two states of a job, in words. */
export interface ChangedField {
  readonly part: string
  readonly label: string
  readonly before: string
  readonly after: string
}

const knownWords = (field: Field, known: unknown, q: Write): string =>
  shownValue(field, (known as Known<unknown> | undefined)?.value, q) || 'unknown'

/** The fields of a part that came or went, each against nothing. */
function fieldsOfPart(
  kind: PartKindId,
  part: AnyPart,
  name: string,
  came: boolean,
  q: Write,
): ChangedField[] {
  const fields: Readonly<Record<string, Field>> = partKinds[kind].fields
  return Object.entries(part).flatMap(([key, known]): ChangedField[] => {
    const field = fields[key]
    if (!field || (known as Known<unknown>).value == null) return []
    const words = knownWords(field, known, q)
    return [{ part: name, label: field.label, before: came ? '–' : words, after: came ? words : 'taken out' }]
  })
}

/**
 * Differences, field by field, in the words of the survey. Names of parts and notes are left out.
 */
export function changedFields(
  before: JobDocument,
  after: JobDocument,
  changes: readonly Change[],
  q: Write,
): ChangedField[] {
  return changes.flatMap((change): ChangedField[] => {
    const at = fieldAt(change.path)
    if (at) {
      const [was, is] = [knownWords(at.field, change.before, q), knownWords(at.field, change.after, q)]
      return was === is
        ? []
        : [{ part: partName(after, at.partPath), label: at.field.label, before: was, after: is }]
    }
    const kind = change.path.split('/')[0] as PartKindId
    if (!Object.hasOwn(partKinds, kind) || !partKinds[kind].many || change.path.split('/').length !== 2)
      return []
    return change.after === undefined
      ? fieldsOfPart(kind, change.before as AnyPart, partName(before, change.path), false, q)
      : fieldsOfPart(kind, change.after as AnyPart, partName(after, change.path), true, q)
  })
}
