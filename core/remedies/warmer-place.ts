import type { System } from '#core/system/system'
import type { RemedyRef } from './catalogue'

/** A place of the same craft is warmer by at most this, K: nobody has a room at 10 °C in a van at −18 °C. */
export const mostWarmerK = 20

/**
 * A warmer place for the battery, where the craft may have one: none on a trailer or a motorcycle.
 * @param celsius lowest temperature that the place must keep, °C
 */
export function warmerPlace(celsius: number, { craft, one }: System): RemedyRef[] {
  const isOpen = craft === 'trailer' || craft === 'motorcycle'
  if (isOpen || celsius - one.place.coldestC > mostWarmerK) return []
  return [{ id: 'cold.warmer-place', on: 'place', value: celsius }]
}
