import type { View } from './scene'
import type { System } from './system'

/**
 * Nominal voltage of a starting battery, V: by its label, else that of its alternator, else that of the bank. Where
 * nobody says which alternator it stands on, the first.
 */
export function startingV(starting: View<'startingBatteries'>, { many, bank }: System): number {
  const own = many.alternators.find(({ $path }) => $path === starting.$of) ?? many.alternators[0]
  return Number(starting.$entered('nominalV') ?? own?.$entered('nominalV') ?? bank.nominalV)
}
