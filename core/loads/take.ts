import { elementAt, fieldOf } from '#core/collections/held'
import {
  mostParts,
  partsOf,
  valueOf,
  withNewPart,
  withPart,
  type AnyPart,
  type JobDocument,
  type PartPath,
} from '#core/job/document'

/** A load as a table states it. */
export interface LoadRow {
  readonly name: string
  readonly values: Readonly<Record<string, number | string>>
}

export interface TakenLoads {
  readonly job: JobDocument
  readonly added: number
  /** Loads of the same name that got other values. */
  readonly changed: number
  readonly same: number
  /** Loads there was no room for. */
  readonly left: number
}

/**
 * Copies the loads of a table into a job. A load with an existing name gets the values of the table, so that
 * copying a table twice, or again after a correction, doubles nothing. If a name occurs several times, the first of
 * the table is the first of the job. Values that the table lacks stay.
 */
export function takeLoads(job: JobDocument, rows: readonly LoadRow[]): TakenLoads {
  const waiting = new Map<string, PartPath[]>()
  for (const { part, path } of partsOf(job, 'loads')) {
    const name = nameKey(part.name ?? '')
    waiting.set(name, [...(waiting.get(name) ?? []), path])
  }
  const counts = { added: 0, changed: 0, same: 0, left: 0 }
  let taken = job
  for (const { name, values } of rows) {
    const path = waiting.get(nameKey(name))?.shift()
    if (path !== undefined) {
      const part = fieldOf(taken.loads as Record<string, AnyPart>, elementAt(path.split('/'), 1))
      const other = Object.entries(values).filter(([field, value]) => valueOf(part, field) !== value)
      counts[other.length > 0 ? 'changed' : 'same']++
      if (other.length > 0) taken = withPart(taken, path, () => ({ ...part, ...told(other) }))
    } else if (Object.keys(taken.loads).length >= mostParts) counts.left++
    else {
      taken = withNewPart(taken, 'loads', { name, ...told(Object.entries(values)) }).job
      counts.added++
    }
  }
  return { job: taken, ...counts }
}

const nameKey = (name: string): string => name.trim().toLowerCase()

const told = (values: readonly (readonly [string, number | string])[]): AnyPart =>
  Object.fromEntries(values.map(([field, value]) => [field, { value, how: 'customer' }]))
