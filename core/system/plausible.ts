import { partAt, partsOf, valueOf, type AnyPart, type JobDocument, type PartRef } from '#core/job/document'
import { partKinds, type PartKind, type Range } from '#core/job/fields'

/**
 * The value of a field of a part where it is known, else null. A caller that notes reads passes its own function.
 */
export type Look = (ref: PartRef, field: string) => unknown

const lookUp: Look = ({ part }, field) => valueOf(part, field)

/**
 * Range an unknown quantity may lie in for this kind of part, in the field's unit. Voltages of 12 V systems
 * are scaled to the part's own nominal voltage.
 */
export function plausibleRange(job: JobDocument, ref: PartRef, name: string, look: Look = lookUp): Range {
  const field = (partKinds[ref.kind] as PartKind).fields[name]
  if (field?.type !== 'quantity') return [0, 0]
  const scale = field.scales ? scaleOf(job, ref, name, look) : 1
  if (typeof field.plausible !== 'function') return [field.plausible[0] * scale, field.plausible[1] * scale]
  const [low, high] = field.plausible({
    number: (sibling) => {
      const known = look(ref, sibling)
      return typeof known === 'number' ? known / scale : null
    },
    choice: (sibling) => look(ref, sibling) as string | null,
  })
  return [low * scale, Math.max(low, high) * scale]
}

const sensedByLink = ['closesV', 'opensV', 'dropV', 'lowestInputV']

/** Nominal voltage of the part's system, ÷ 12. */
export function scaleOf(job: JobDocument, ref: PartRef, name: string, look: Look = lookUp): number {
  const nominal = (other: PartRef | null | undefined, field = 'nominalV'): number | null => {
    const value = other && look(other, field)
    return value == null ? null : Number(value)
  }
  const one = (kind: 'houseBank' | 'candidate'): PartRef => ({
    kind,
    id: null,
    path: kind,
    part: job[kind] as AnyPart,
  })
  const house = (): number => nominal(one('houseBank')) ?? nominal(one('candidate')) ?? 12
  const starting = (battery: PartRef): number | null =>
    nominal(battery) ??
    nominal(partAt(job, battery.part.from ?? '')) ??
    nominal(partsOf(job, 'alternators')[0])
  const labelled = (): number | null => (look(ref, 'nominalV') === 'same' ? null : nominal(ref))
  switch (ref.kind) {
    case 'alternators':
      return (nominal(ref) ?? house()) / 12
    // One battery by itself: its default is 12 V, however many the house puts in series.
    case 'candidate':
    case 'alternatives':
      return (nominal(ref) ?? 12) / 12
    case 'startingBatteries':
      return (starting(ref) ?? house()) / 12
    case 'links':
      return (
        (sensedByLink.includes(name)
          ? (nominal(partAt(job, ref.part.from ?? '')) ?? house())
          : (nominal(ref, 'outputV') ?? house())) / 12
      )
    case 'chargers': {
      const [first] = partsOf(job, 'startingBatteries')
      const fed = first && look(ref, 'feeds') === 'starting' ? starting(first) : null
      return (labelled() ?? fed ?? house()) / 12
    }
    case 'solar':
    case 'inverters':
      return (labelled() ?? house()) / 12
    default:
      return house() / 12
  }
}
