import type { ListedPart } from '#core/job/specified'
import type { Wanted, WiringPart } from '#core/wiring/lists'
import type { ShelfPart } from '#core/shelf/kinds'
import { listed } from './listed'

/**
 * A part of the wiring from the shelf: the cheapest that does; by its own name, without a price, if there is none.
 */
export function boughtFrom(
  shelf: readonly ShelfPart[],
  { what, quantity, unit, wanted }: WiringPart,
): ListedPart {
  const part = wanted && cheapestOf(shelf, wanted)
  if (!part) return { kind: null, code: '', version: 0, name: what, quantity, unit, price: null }
  return listed(part, quantity, unit, priceOf(part))
}

const priceOf = ({ values }: ShelfPart) => values.pricePerM ?? values.price

/** The cheapest part of the shelf that does; null if it has none. */
function cheapestOf(shelf: readonly ShelfPart[], { kind, exactly, least }: Wanted): ShelfPart | null {
  const fitting = shelf.filter(
    (part) =>
      part.kind === kind &&
      Object.entries(exactly).every(([name, value]) => String(part.values[name]) === String(value)) &&
      Object.entries(least).every(([name, value]) => Number(part.values[name] ?? 0) >= value),
  )
  const price = (part: ShelfPart): number => Number(priceOf(part) ?? Infinity)
  return fitting.toSorted((a, b) => price(a) - price(b))[0] ?? null
}
