import { valueOf, type AnyPart } from './document'
import type { QuantityField, Range } from './field'

/** No voltage of a part is above this share of its nominal voltage: an equalise stage comes nearest, with 1.4. */
const mostShareOfNominal = 1.75

/** The nominal voltage entered for a part, V; null if none is. */
function nominalV(part: AnyPart): number | null {
  const entered = Number(valueOf(part, 'nominalV') ?? NaN)
  return Number.isFinite(entered) && entered > 0 ? entered : null
}

/**
 * Range in which a value of a part can lie at all, in the field's unit. A voltage that follows the system is
 * limited by the nominal voltage of its own part: 28 V cannot be on a 12 V alternator.
 */
export function limitsAt(part: AnyPart, { limits: [least, most], scales }: QuantityField): Range {
  const nominal = nominalV(part)
  return scales && nominal !== null ? [least, Math.min(most, nominal * mostShareOfNominal)] : [least, most]
}
