import { present } from '#core/collections/held'
import { findingsOf, resultsAhead, type CheckResult, type Finding } from '#core/assessment/assess'
import { keyOf } from '#core/assessment/result'
import { namesOfParts } from '#core/verdict/measure-next'
import {
  fieldAt,
  partAt,
  partInSentence,
  withField,
  type FieldPath,
  type JobDocument,
} from '#core/job/document'
import { minutesToFind, type Range } from '#core/job/fields'
import { factsOf, type ShopSettings } from '#core/system/system'
import type { Band } from '#core/system/unknowns'
import { isWorse } from '#core/system/verdict'
import { isBlocking, isAccepted } from '#core/assessment/finding'

/**
 * Possible outcomes of an open check: each value in its worst band, so that a search can act on it before it is
 * measured.
 * @param checks of the job unchanged
 */
export function possibleFindings(
  job: JobDocument,
  shop: ShopSettings,
  checks: readonly CheckResult[],
): Finding[] {
  const open = checks.filter(({ verdict }) => verdict === 'measure-first')
  const worst = new Map<FieldPath, Band>()
  for (const { deciding } of open)
    for (const { path, bands } of deciding)
      for (const band of bands) {
        const known = worst.get(path)
        if (!known || isWorse(band.verdict, known.verdict)) worst.set(path, band)
      }
  const keys = new Set(open.map(({ key }) => key))
  return [...worst].flatMap(([path, band]) => {
    const facts = factsOf(withField(job, path, { value: within(band), how: 'measured' }), shop)
    return [...findingsOf(facts), ...resultsAhead(facts)].filter(
      (finding) => isBlocking(finding) && keys.has(keyOf(finding.id, finding.on)),
    )
  })
}

/** A value inside a band, clear of its edges. */
const within = ({ from, to }: Band): number | string =>
  typeof from === 'number' && typeof to === 'number' ? (from + to) / 2 : from

/** A value that an answer depends on: it suits if the value is in a range or one of some options. */
export interface Condition {
  readonly path: FieldPath
  readonly part: string
  /** The part as a sentence names it. */
  readonly partInSentence: string
  readonly label: string
  /** How long it takes to measure, min. */
  readonly minutes: number
  /** Null if the value is a choice. */
  readonly range: Range | null
  readonly options: readonly string[]
}

/** Whether an answer is acceptable with such a finding. */
const stands = (verdict: Band['verdict'], check: CheckResult): boolean =>
  verdict === 'suits' || (verdict === 'suits-once-changed' && isAccepted(check))

/**
 * The values that decide a checked job, each with the range in which it suits every check that it decides; null if
 * there is no such value.
 */
export function conditionsOf(job: JobDocument, checks: readonly CheckResult[]): readonly Condition[] | null {
  const nameOf = namesOfParts(job, checks)
  const found = new Map<FieldPath, Condition>()
  for (const check of checks) {
    for (const { path, bands } of check.deciding) {
      const { field, partPath } = present(fieldAt(path))
      const good = bands.filter(({ verdict }) => stands(verdict, check))
      const isNumber = field.type === 'quantity'
      const range: Range | null = isNumber ? widest(good) : null
      const options = isNumber ? [] : good.map(({ from }) => String(from))
      const own: Condition = {
        path,
        part: nameOf(partPath),
        partInSentence: partAt(job, partPath) ? partInSentence(job, partPath) : nameOf(partPath),
        label: field.label,
        minutes: minutesToFind(field),
        range,
        options,
      }
      const known = found.get(path)
      found.set(path, known ? both(known, own) : own)
    }
  }
  const all = [...found.values()]
  return all.every(({ range, options }) => (range ? range[1] > range[0] : options.length > 0)) ? all : null
}

/** The widest stretch that suits; an empty one where none does. */
function widest(bands: readonly Band[]): Range {
  const stretches = bands.map(({ from, to }): Range => [Number(from), Number(to)])
  return stretches.reduce((a, b) => (b[1] - b[0] > a[1] - a[0] ? b : a), [0, 0])
}

const both = (a: Condition, b: Condition): Condition => ({
  ...a,
  range: a.range && b.range ? [Math.max(a.range[0], b.range[0]), Math.min(a.range[1], b.range[1])] : null,
  options: a.options.filter((option) => b.options.includes(option)),
})
