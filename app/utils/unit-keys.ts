import { unitName, type DisplayUnits } from '#core/units/display'
import type { Unit } from '#core/units/units'

/** Text after a number for each unit that a keypad of digits has no letters for. */
const written: Readonly<Partial<Record<Unit, readonly string[]>>> = {
  V: ['V', 'mV'],
  A: ['A', 'mA'],
  mA: ['mA', 'A'],
  W: ['W', 'kW'],
  Wh: ['Wh', 'kWh'],
  mΩ: ['mΩ', 'Ω'],
  'mm²': ['mm²', 'AWG', '/0'],
  m: ['m', 'cm', 'ft', 'in'],
  mm: ['mm', 'cm', 'in'],
  kg: ['kg', 'lb'],
  '°C': ['°C', '°F'],
  h: ['h', 'min'],
  s: ['s', 'min'],
  min: ['min', 'h'],
  days: ['days', 'weeks'],
  weeks: ['weeks', 'months'],
  years: ['years', 'months'],
}

/** Units a number may be written in besides the one it has in this shop, as keys to press. */
export const unitKeys = (unit: Unit, units: DisplayUnits): readonly string[] =>
  (written[unit] ?? []).filter((name) => name !== unitName(unit, units))

/** A text with its sign turned round. */
export const signTurned = (text: string): string =>
  /^\s*[-−]/.test(text) ? text.replace(/^\s*[-−]\s*/, '') : `−${text.trimStart()}`

/** A text with a unit in place of the one it may have. */
export const withUnit = (text: string, unit: string): string => {
  const number = text.replace(/[\p{L}°²Ω/%\s]+\d*$/u, '').trimEnd()
  return unit === '/0' ? `${number}/0` : `${number} ${unit}`
}
