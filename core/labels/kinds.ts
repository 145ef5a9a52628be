import type { PartKindId } from '#core/job/fields'
import type { ShelfKindId } from '#core/shelf/kinds'

/** Kinds of parts whose rating plates are read: those that have rules. */
export const labelledKinds: readonly PartKindId[] = [
  'candidate',
  'alternatives',
  'houseBank',
  'startingBatteries',
  'chargers',
  'links',
  'solar',
  'inverters',
  'alternators',
]

/** Kinds of the shelf whose parts have a rating plate. */
export const labelledShelfKinds: readonly ShelfKindId[] = [
  'batteries',
  'chargers',
  'dcdc',
  'controllers',
  'relays',
  'inverters',
]
