import { metric, shownUnit, unitName, type DisplayUnits } from './display'
import { areaByAwg, type Unit } from './units'

/** Two digits that say something, however small the value, and no decimals once it has two before the point. */
const twoDigits = (size: number): number => (size < 0.1 ? 3 : size < 1 ? 2 : size < 10 ? 1 : 0)
const one = (): number => 1

/** Most decimals that make sense for a value of this unit; zeros at the end are left out. */
const decimals: Record<Unit, (size: number) => number> = {
  V: () => 2,
  A: twoDigits,
  mA: twoDigits,
  Ah: twoDigits,
  W: twoDigits,
  Wh: twoDigits,
  mΩ: twoDigits,
  'mm²': (size) => (size < 10 ? 2 : 1),
  m: (size) => (size < 1 ? 2 : 1),
  mm: () => 0,
  kg: one,
  '°C': one,
  'Δ°C': one,
  h: (size) => (size < 1 ? 2 : 1),
  s: (size) => (size < 1 ? 2 : size < 10 ? 1 : 0),
  min: (size) => (size < 10 ? 1 : 0),
  days: one,
  weeks: one,
  rpm: () => 0,
  'mV/°C': one,
  '%/°C': () => 2,
  '°': () => 0,
  years: one,
  '%': (size) => (size > 0 && size < 1 ? 1 : 0),
  money: (size) => (size < 20 ? 2 : 0),
  '×': () => 2,
  '': () => 2,
}

/** Most decimals of a value that is shown as it was entered. */
const mostEntered = 3

/** Units whose last digit is kept even when it is a zero: people read 14.0 V, not 14 V. */
const leastDecimals: Partial<Record<Unit, number>> = { V: 1 }

/**
 * Writes a value with its unit and sensible digits, in the units of the shop. Any finite value; a
 * value that is not finite is written as a dash. A share is written in per cent by giving it as `%`
 * of 0 to 100.
 * @param exact keeps the entered digits, to three decimals: 80.5 A stays 80.5 A
 *
 * @example formatQuantity(14.4, 'V', metric) // '14.4 V'
 */
export function formatQuantity(value: number, unit: Unit, units: DisplayUnits, exact = false): string {
  const gauge = gaugeOf(value, unit, units)
  if (gauge) return `${gauge} AWG`
  const number = formatNumber(value, unit, units, exact)
  const plural = unit === 'mm²' ? unit : unitName(unit, units)
  const name = number === '1' && /^(days|weeks|years)$/.test(unit) ? plural.slice(0, -1) : plural
  return unit === '' || !Number.isFinite(value) ? number : `${number} ${name}`
}

/**
 * A stretch of time in words: minutes up to two hours, then hours.
 * @param hours at least 0
 *
 * @example durationWords(24.95) // '25 h'
 */
export const durationWords = (hours: number): string =>
  hours <= 2 ? formatQuantity(hours * 60, 'min', metric) : formatQuantity(hours, 'h', metric)

/**
 * The number of {@link formatQuantity} without its unit. Thousands of amperes are known to three digits at
 * best.
 */
export function formatNumber(value: number, unit: Unit, units: DisplayUnits, exact = false): string {
  if (!Number.isFinite(value)) return '–'
  const shown = shownUnit(unit, units)
  const inShown = shown
    ? (value - shown.offset) / shown.factor
    : unit === 'A' && Math.abs(value) > 1000 && !exact
      ? Number(value.toPrecision(3))
      : value
  const sensible = decimals[unit](Math.abs(value))
  const fixed = inShown.toFixed(shown ? shown.decimals : exact ? Math.max(sensible, mostEntered) : sensible)
  const point = fixed.indexOf('.')
  let end = fixed.length
  if (point >= 0) {
    const kept = point + 1 + (unit === 'money' ? 2 : (leastDecimals[unit] ?? 0))
    while (end > kept && fixed[end - 1] === '0') end--
    if (end === point + 1) end = point
  }
  if (fixed[0] !== '-') return fixed.slice(0, end)
  const size = fixed.slice(1, end)
  return /[1-9]/.test(size) ? `−${size}` : size
}

/** The trade size of an area where the shop thinks in gauges and there is one. */
function gaugeOf(areaMm2: number, unit: Unit, units: DisplayUnits): string | null {
  if (unit !== 'mm²' || units.system !== 'imperial') return null
  return (
    Object.entries(areaByAwg).find(([gauge, area]) => area === areaMm2 && !/^0+$/.test(gauge))?.[0] ?? null
  )
}

/** Writes a value with its unit: {@link formatQuantity} in the units of one shop. */
export type Write = (value: number, unit: Unit, exact?: boolean) => string
export const writerIn =
  (units: DisplayUnits): Write =>
  (value, unit, exact) =>
    formatQuantity(value, unit, units, exact)

/** A share of 0 to 1 in per cent. */
/** A range, its unit once: `13.6 to 14.2 V`. */
export const formatRange = (from: number, to: number, unit: Unit, q: Write): string =>
  `${q(from, unit).replace(/\s.*/, '')} to ${q(to, unit)}`
export const formatShare = (share: number): string => formatQuantity(share * 100, '%', metric)

/** A label inside a sentence: its first letter small, unless it is an abbreviation. */
export const inSentence = (label: string): string =>
  /^[A-Z][A-Z-]/.test(label) ? label : label.charAt(0).toLowerCase() + label.slice(1)

const counts = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'] as const
/** A small count in words, for sentences. */
export const inWords = (count: number): string => counts[count] ?? String(count)

/** A sentence from its pieces, one after another: long ones are written a piece a line. */
export const joinText = (...pieces: readonly string[]): string => pieces.join('')

/** Words that begin a line: their first letter large. */
export const capital = (words: string): string => words.replace(/^./, (first) => first.toUpperCase())

const list = new Intl.ListFormat('en-GB')
/** Names in a row: “the charger, the DC-DC and the panel”. */
export const listInSentence = (names: readonly string[]): string => list.format(names)

/** A part’s name inside a sentence: “The alternator” becomes “the alternator”, a name of its own stays. */
export const nameInSentence = (name: string): string => name.replace(/^The /, 'the ')
