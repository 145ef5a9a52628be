import { withSpecified } from '#core/job/as-specified'
import type { Change } from '#core/job/change'
import type { ListedPart, Specified } from '#core/job/specified'
import { hoursOfWiring, partsOfWiring, type Wanted } from '#core/network/lists'
import { networkOf } from '#core/network/of-job'
import { listed } from '#core/remedies/listed'
import { resolveRules } from '#core/rules/rules'
import type { ShelfPart } from '#core/shelf/kinds'
import type { Plan } from './plan'

/** What the wiring of an answer takes. */
export interface WiringWork {
  /** Cable, fuses, switches and what else is new, from the shelf where it has them. */
  readonly parts: readonly ListedPart[]
  readonly hours: number
}

export function wiringWorkOf({ job, shop, shelf }: Plan, changes: readonly Change[]): WiringWork {
  const specified: Specified = { name: '', at: '', by: '', battery: [], steps: [], accepted: [], changes }
  const network = networkOf(withSpecified(job, specified), shop)
  const parts = partsOfWiring(network).map(({ what, quantity, unit, wanted }) => {
    const part = wanted && cheapestOf(shelf, wanted)
    if (!part) return { kind: null, code: '', version: 0, name: what, quantity, unit, price: null }
    return listed(part, quantity, unit, priceOf(part))
  })
  return { parts, hours: hoursOfWiring(network, resolveRules(shop.rules ?? {}, job.rules)) }
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
