import { shelfKind, type ShelfPart } from '#core/shelf/kinds'
import { formatQuantity } from '#core/units/format'
import { shownValue } from './survey'

/** What tells a part from its neighbours, in a line, with its price. */
export function shelfBrief({ kind, values }: Pick<ShelfPart, 'kind' | 'values'>): string {
  const { brief, fields } = shelfKind(kind)
  const words = brief.flatMap((name) => shownValue(fields[name]!, values[name]) || [])
  const price = typeof values.price === 'number' && values.price > 0 ? [formatQuantity(values.price, 'money')] : []
  return [...words, ...price].join(' · ')
}
