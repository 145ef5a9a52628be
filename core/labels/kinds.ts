import type { PartKindId } from '#core/job/fields'

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
