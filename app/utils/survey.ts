import { isAsked, partsOf, type AnyPart, type JobDocument, type PartRef } from '../../core/job/document'
import { partKinds, type Field, type How, type Known, type PartKind, type PartKindId } from '../../core/job/fields'
import { formatRows } from '../../core/job/rows'
import { formatQuantity } from '../../core/units/format'

/** The fields of a part that are asked, in walking order. */
export const askedFields = (kind: PartKindId, part: AnyPart): [string, Field][] =>
  Object.entries((partKinds[kind] as PartKind).fields).filter(([, field]) => isAsked(part, field))

/** A value as it is shown; empty when not known. */
export function shownValue(field: Field, value: unknown): string {
  if (value == null) return ''
  switch (field.type) {
    case 'choice': return field.options[value as string] ?? String(value)
    case 'rows': return formatRows(value as never, field)
    case 'quantity': return formatQuantity(value as number, field.unit)
  }
}

/** How a value is usually known when it is found the way its field says. */
export function usualHow(field: Field): How {
  if (field.measure.startsWith('Maker')) return 'maker'
  if (/^(Label|Print|Moulded)/.test(field.measure)) return 'label'
  return field.measure.startsWith('Ask') ? 'customer' : 'measured'
}

export type StationState = 'done' | 'gaps' | 'matters'
export const stationStateWord: Record<StationState, string> = { done: 'done', gaps: 'gaps that do not matter', matters: 'something to measure' }

const isKnown = (part: AnyPart, name: string): boolean => (part[name] as Known<unknown> | undefined)?.value != null

/** How a station stands: what is missing there, and whether it decides anything. */
export function stationState(job: JobDocument, kind: PartKindId, toMeasure: readonly string[]): StationState {
  if (toMeasure.some((path) => path.startsWith(`${kind}/`))) return 'matters'
  const complete = partsOf(job, kind).every(({ part }) => askedFields(kind, part).every(([name, field]) => isKnown(part, name) || field.type === 'rows' || field.otherwise !== undefined))
  return complete ? 'done' : 'gaps'
}

const brief: Readonly<Partial<Record<PartKindId, readonly string[]>>> = {
  use: ['dcAtOnceA'], houseBank: ['parallel', 'ahEach', 'chemistry'], startingBattery: ['ah', 'chemistry'],
  alternators: ['ratedA', 'regulatorV'], links: ['kind'], chargers: ['ratedA', 'absorptionV'], inverters: ['continuousW'],
  place: ['where', 'coldestC', 'hottestC'], candidate: ['ahEach', 'chemistry'], devices: ['tripV'], conductors: [],
}

/** What a station holds, in a few words. */
export function stationSummary(job: JobDocument, kind: PartKindId): string {
  const refs = partsOf(job, kind)
  if (refs.length === 0) return 'none entered'
  if (kind === 'conductors' || refs.length > 1) return `${refs.length} entered`
  return partSummary(refs[0]!)
}

function partSummary({ kind, part }: PartRef): string {
  const fields = (partKinds[kind] as PartKind).fields
  const words = (brief[kind] ?? []).flatMap((name) => {
    const shown = shownValue(fields[name]!, (part[name] as Known<unknown> | undefined)?.value)
    return shown === '' ? [] : [name === 'parallel' ? `${shown} ×` : shown]
  })
  const own = part.name ? [part.name] : []
  return [...own, ...words].join(', ').replace('×,', '×') || 'nothing known yet'
}
