import { present } from '#core/collections/held'
import type { CheckResult } from '#core/assessment/result'
import {
  fieldAt,
  partAt,
  partName,
  type FieldPath,
  type JobDocument,
  type PartPath,
} from '#core/job/document'

/** A value to measure, with the checks that it would settle. */
export interface Measurement {
  readonly path: FieldPath
  readonly part: string
  readonly label: string
  readonly how: string
  /** Keys of the checks that any value of it would settle. */
  readonly settles: readonly string[]
  /** Keys of all Measure first checks that depend on it. */
  readonly bearsOn: readonly string[]
}

/**
 * The name of a part: its own, or, if only the proposed wiring has it, the name in its checks.
 * @param checks of the same job
 */
export function namesOfParts(job: JobDocument, checks: readonly CheckResult[]): (path: PartPath) => string {
  const subjects = new Map(checks.map(({ on, subject }) => [on, subject]))
  return (path) => (partAt(job, path) ? partName(job, path) : (subjects.get(path) ?? partName(job, path)))
}

/** The unknown values that checks depend on, in the order of how many checks each would settle. */
export function measureNext(job: JobDocument, checks: readonly CheckResult[]): Measurement[] {
  const nameOf = namesOfParts(job, checks)
  const found = new Map<FieldPath, { score: number; settles: string[]; bearsOn: string[] }>()
  for (const { key, deciding } of checks) {
    for (const { path, settles } of deciding) {
      const entry = found.get(path) ?? { score: 0, settles: [], bearsOn: [] }
      entry.score += settles
      entry.bearsOn.push(key)
      if (settles === 1) entry.settles.push(key)
      found.set(path, entry)
    }
  }
  return [...found]
    .sort(([, a], [, b]) => b.score - a.score || b.bearsOn.length - a.bearsOn.length)
    .map(([path, { settles, bearsOn }]) => {
      const { field, partPath } = present(fieldAt(path))
      return { path, part: nameOf(partPath), label: field.label, how: field.measure, settles, bearsOn }
    })
}
