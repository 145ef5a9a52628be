import { shownValue } from '#core/job/shown'
import { shelfKind, type ShelfPart } from '#core/shelf/kinds'
import type { Write } from '#core/units/format'

/** Distinguishing figures of a part in a line, with its price. */
export function shelfBrief({ kind, values }: Pick<ShelfPart, 'kind' | 'values'>, q: Write): string {
  const { brief, fields } = shelfKind(kind)
  const words = brief.flatMap((name) => shownValue(fields[name]!, values[name], q) || [])
  const price = typeof values.price === 'number' && values.price > 0 ? [q(values.price, 'money')] : []
  return [...words, ...price].join(' · ')
}
