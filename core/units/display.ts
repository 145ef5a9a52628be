import type { Unit } from './units'

/** How a shop writes and reads quantities. Everything is stored and computed in the units of {@link Unit}. */
export interface DisplayUnits {
  readonly system: 'metric' | 'imperial'
  /** Sign or letters of the shop's money. */
  readonly currency: string
}

export const metric: DisplayUnits = { system: 'metric', currency: '€' }

/** A unit that is shown in place of the stored one: shown = (stored − offset) ÷ factor. */
interface ShownUnit {
  readonly name: string
  readonly factor: number
  readonly offset: number
  readonly decimals: number
}

const imperial: Partial<Record<Unit, ShownUnit>> = {
  m: { name: 'ft', factor: 0.3048, offset: 0, decimals: 1 },
  mm: { name: 'in', factor: 25.4, offset: 0, decimals: 2 },
  kg: { name: 'lb', factor: 0.45359237, offset: 0, decimals: 1 },
  '°C': { name: '°F', factor: 5 / 9, offset: -160 / 9, decimals: 1 },
  'Δ°C': { name: '°F', factor: 5 / 9, offset: 0, decimals: 1 },
}

/** The unit in which a shop sees a stored one; null if it is shown as stored. */
export const shownUnit = (unit: Unit, units: DisplayUnits): ShownUnit | null =>
  units.system === 'imperial' ? (imperial[unit] ?? null) : null

/** The suffix of a number in this unit. */
export function unitName(unit: Unit, units: DisplayUnits): string {
  if (unit === 'money') return units.currency
  if (unit === 'Δ°C') return shownUnit(unit, units)?.name ?? '°C'
  if (unit === 'mm²' && units.system === 'imperial') return 'AWG'
  return shownUnit(unit, units)?.name ?? unit
}
