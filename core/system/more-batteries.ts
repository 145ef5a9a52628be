import { placeInside, type Placed } from '#core/physics/packing'
import type { System } from './system'

/**
 * Where the batteries stand in their place, seen from above; null when they do not fit.
 * @param parallel side by side, where that is not as planned
 */
export const placing = ({ bank, one, rules }: System, parallel?: number): readonly Placed[] | null =>
  bank.each.heightMm > one.place.heightMm
    ? null
    : placeInside(one.place, bank.each, bank.each.series * (parallel ?? bank.each.parallel), rules.airGapMm)

/** Whether this many in parallel are allowed by the maker and have room, as far as the place was measured. */
export const allowsParallel = (parallel: number, system: System): boolean =>
  parallel <= system.bank.each.mostParallel && hasRoomFor(parallel, system)

/** An unmeasured place or battery has room: an unknown value refuses nothing. */
function hasRoomFor(parallel: number, system: System): boolean {
  const { bank, one } = system
  const isMeasured = (['widthMm', 'depthMm', 'heightMm'] as const).every(
    (side) => one.place.$entered(side) !== null && bank.each.$entered(side) !== null,
  )
  return !isMeasured || placing(system, parallel) !== null
}
