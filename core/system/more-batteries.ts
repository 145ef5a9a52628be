import { placeInside } from '#core/physics/packing'
import type { System } from './system'

/** Whether so many batteries in parallel are allowed by the maker and have room in the place, as far as that was measured. */
export const allowsParallel = (parallel: number, system: System): boolean =>
  parallel <= system.bank.each.mostParallel && hasRoomFor(parallel, system)

/** A place or a battery that nobody has measured has room: what is not known refuses nothing. */
function hasRoomFor(parallel: number, { bank, one, rules }: System): boolean {
  const { place } = one
  const measured = (['widthMm', 'depthMm', 'heightMm'] as const).every(
    (side) => place.$entered(side) !== null && bank.each.$entered(side) !== null,
  )
  if (!measured) return true
  if (bank.each.heightMm > place.heightMm) return false
  return placeInside(place, bank.each, parallel * bank.each.series, rules.airGapMm) !== null
}
