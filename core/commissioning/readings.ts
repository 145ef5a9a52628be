import type { Unit } from '#core/units/units'
import type { Write } from '#core/units/format'
import type { Measured } from './tests/test'

/** A voltage drop is shown to the millivolt. */
const smallV = 1

/** A reading in words: `13.62 V`, `42 mV`, `yes`. */
export function readingWords(value: number, quantity: Measured, unit: Unit, q: Write): string {
  if (quantity === 'answer') return value >= 0.5 ? 'yes' : 'no'
  if (quantity === 'size') return q(value, unit)
  if (unit === 'V') return `${value.toFixed(Math.abs(value) < smallV ? 3 : 2)} V`
  if (unit === 'A') return `${value.toFixed(Math.abs(value) < 10 ? 2 : 1)} A`
  return q(value, unit)
}

/** The expected reading in words: `14.05 ± 0.12 V`, `yes`, or the print on a part. */
export function expectedWords(
  expected: number,
  tolerance: number,
  quantity: Measured,
  unit: Unit,
  q: Write,
): string {
  if (quantity === 'answer' || quantity === 'size') return readingWords(expected, quantity, unit, q)
  if (unit !== 'V' && unit !== 'A') return `${q(expected, unit)} ± ${q(tolerance, unit)}`
  const digits = unit === 'V' ? (Math.abs(expected) < smallV ? 3 : 2) : Math.abs(expected) < 10 ? 2 : 1
  return `${expected.toFixed(digits)} ± ${tolerance.toFixed(digits)} ${unit}`
}
