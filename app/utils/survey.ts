import { isAsked, partsOf, valueOf, type AnyPart, type JobDocument, type PartRef } from '#core/job/document'
import { partKinds, type Field, type How, type PartKind, type PartKindId, type Range } from '#core/job/fields'
import type { DisplayUnits } from '#core/units/display'
import { formatRange, writerIn, type Write } from '#core/units/format'
import { shownValue } from '#core/job/shown'
import { limitsAt } from '#core/job/limits'
import { parseField } from '#core/job/parse-field'
import type { Unit } from '#core/units/units'

/** The fields of a part that are asked, in walking order. */
export const askedFields = (kind: PartKindId, part: AnyPart): [string, Field][] =>
  Object.entries((partKinds[kind] as PartKind).fields).filter(([, field]) => isAsked(part, field))

/**
 * Fields of a part that are folded away when its station opens: seldom needed, not entered and deciding nothing.
 * Folded fields stay folded until the person unfolds them, even after typing or a new check.
 */
export const foldedNames = (
  kind: PartKindId,
  part: AnyPart,
  matters: (name: string) => boolean,
): ReadonlySet<string> =>
  new Set(
    Object.entries((partKinds[kind] as PartKind).fields).flatMap(([name, field]) =>
      field.detail && !isKnown(part, name) && !matters(name) ? [name] : [],
    ),
  )

export { shownValue }

const optionsOf = (field: Field): readonly string[] =>
  field.type === 'choice' ? Object.values(field.options) : []
const lengthOf = (words: readonly string[]): number => words.reduce((sum, word) => sum + word.length, 0)

/** Whether the options of a choice are buttons: four at most, or a few more in a line of short words. */
export const asButtons = (field: Field): boolean =>
  lengthOf(optionsOf(field)) <= (optionsOf(field).length <= 4 ? 90 : optionsOf(field).length <= 6 ? 34 : 0)
/** Whether they stand in two lines on a phone. */
export const inTwoLines = (field: Field): boolean =>
  optionsOf(field).length === 4 && lengthOf(optionsOf(field)) > 64
/** Whether they do in a cell of a table: two short words. */
export const fitsShortButtons = (field: Field): boolean =>
  optionsOf(field).length === 2 && lengthOf(optionsOf(field)) <= 6
/** Whether an entry needs the room of two. */
export const isWide = (field: Field): boolean =>
  field.type === 'rows' ||
  (asButtons(field) ? lengthOf(optionsOf(field)) > 20 : optionsOf(field).some((word) => word.length > 16))

/** Whether an entry needs the whole width of a phone. */
export const isBroad = (field: Field): boolean =>
  field.type === 'rows' || (asButtons(field) && lengthOf(optionsOf(field)) > 32)

/** One letter for how a value is known. */
export const howLetter: Readonly<Record<How, string>> = {
  measured: 'M',
  maker: 'D',
  label: 'L',
  customer: 'C',
  assumed: 'A',
}

/**
 * Whether a value lies so far outside its plausible range that it looks like a slip: by more than the width of
 * that range, and at least by half its nearer end. All that there can be at all is none: 24 hours a day.
 */
export function isUnusual(value: number, [low, high]: Range, limits: Range): boolean {
  const width = high - low
  if (limits.includes(value)) return false
  return value < low - Math.max(width, low / 2) || value > high + Math.max(width, high / 2)
}

type ReadValue<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: string }

/** Reads a quantity for a field of a part, within possible limits. */
export function readQuantity(
  field: Field,
  input: string,
  units: DisplayUnits,
  part: AnyPart = {},
): ReadValue<number> {
  if (field.type !== 'quantity') return { ok: false, error: 'Not a number' }
  const parsed = ageOfYear(parseField(field, input, units), field.unit)
  const [least, most] = limitsAt(part, field)
  if (parsed.ok && parsed.value > most && most < field.limits[1])
    return {
      ok: false,
      error: `Must be at most ${writerIn(units)(most, field.unit)} at this nominal voltage. Check both`,
    }
  if (parsed.ok && (parsed.value < least || parsed.value > most))
    return {
      ok: false,
      error: `Must be ${formatRange(least, most, field.unit, writerIn(units))}`,
    }
  return parsed
}

/** From this year on a number of years is the year in which something was made. */
const firstYearMade = 1970

/** A year of make as an age in years. */
function ageOfYear(parsed: ReadValue<number>, unit: Unit): ReadValue<number> {
  if (!parsed.ok || unit !== 'years' || parsed.value < firstYearMade) return parsed
  return { ok: true, value: Math.max(0, new Date().getFullYear() - parsed.value) }
}

export type StationState = 'done' | 'gaps' | 'matters' | 'empty'
export const stationStateWord: Record<StationState, string> = {
  done: 'done',
  empty: 'nothing entered',
  gaps: 'gaps that do not matter',
  matters: 'something to measure',
}

const isKnown = (part: AnyPart, name: string): boolean => valueOf(part, name) !== null

/** The state of a station: missing values, and whether they decide anything. */
export function stationState(job: JobDocument, kind: PartKindId, toMeasure: readonly string[]): StationState {
  if (toMeasure.some((path) => path.startsWith(`${kind}/`))) return 'matters'
  if (partsOf(job, kind).length === 0) return 'empty'
  const complete = partsOf(job, kind).every(({ part }) =>
    askedFields(kind, part).every(
      ([name, field]) => isKnown(part, name) || field.type === 'rows' || field.otherwise !== undefined,
    ),
  )
  return complete ? 'done' : 'gaps'
}

const brief: Readonly<Partial<Record<PartKindId, readonly string[]>>> = {
  use: ['daysAway', 'dailyAh', 'dcAtOnceA'],
  solar: ['panelW'],
  sources: ['largestA'],
  generators: ['watts'],
  loads: [],
  houseBank: ['parallel', 'ahEach', 'chemistry'],
  startingBatteries: ['ah', 'chemistry'],
  alternators: ['ratedA', 'regulatorV'],
  links: ['kind'],
  chargers: ['ratedA', 'absorptionV'],
  inverters: ['continuousW'],
  place: ['where', 'coldestC', 'hottestC'],
  candidate: ['ahEach', 'chemistry'],
  devices: ['tripV'],
  conductors: [],
}

/** The content of a station, in a few words. */
export function stationSummary(job: JobDocument, kind: PartKindId, q: Write): string {
  const refs = partsOf(job, kind)
  if (refs.length === 0) return 'none'
  if (kind === 'conductors' || kind === 'loads' || refs.length > 1) return `${refs.length} entered`
  return partSummary(refs[0]!, q)
}

function partSummary({ kind, part }: PartRef, q: Write): string {
  const fields = (partKinds[kind] as PartKind).fields
  const words = (brief[kind] ?? []).flatMap((name) => {
    const shown = shownValue(fields[name]!, valueOf(part, name), q)
    return shown === '' ? [] : [name === 'parallel' ? `${shown} ×` : shown]
  })
  const own = part.name ? [part.name] : []
  return [...own, ...words].join(', ').replace('×,', '×') || 'no values yet'
}
