import type { DisplayUnits } from '#core/units/display'
import { parseQuantity, type Parsed } from '#core/units/parse'
import { isCount, type QuantityField } from './field'

/**
 * Reads a quantity for a field: {@link parseQuantity}, and a whole number where things are counted. Its limits are
 * not looked at.
 */
export function parseField(
  field: Pick<QuantityField, 'unit' | 'step'>,
  text: string,
  units: DisplayUnits,
): Parsed {
  const parsed = parseQuantity(text, field.unit, units)
  if (!parsed.ok || !isCount(field) || Number.isInteger(parsed.value)) return parsed
  return { ok: false, error: 'Enter a whole number' }
}
