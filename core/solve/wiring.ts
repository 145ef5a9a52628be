import { withSpecified } from '#core/job/as-specified'
import type { Change } from '#core/job/change'
import type { ListedPart, Specified } from '#core/job/specified'
import { partsOfWiring, type Wanted } from '#core/network/lists'
import { networkOf } from '#core/network/of-job'
import { listed } from '#core/remedies/listed'
import type { ShelfPart } from '#core/shelf/kinds'
import type { Plan } from './plan'

/** What the wiring of an answer takes: cable, fuses, switches and what else is new, from the shelf where it has them. */
export function wiringPartsOf({ job, shop, shelf }: Plan, changes: readonly Change[]): ListedPart[] {
  const specified: Specified = { name: '', at: '', by: '', battery: [], steps: [], accepted: [], changes }
  return partsOfWiring(networkOf(withSpecified(job, specified), shop)).map(
    ({ what, quantity, unit, wanted }) => {
      const part = wanted && cheapestOf(shelf, wanted)
      if (!part) return { kind: null, code: '', version: 0, name: what, quantity, unit, price: null }
      return listed(part, quantity, unit, priceOf(part))
    },
  )
}

const priceOf = ({ values }: ShelfPart) => values.pricePerM ?? values.price

/** The cheapest part of the shelf that does; null where it has none. */
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
