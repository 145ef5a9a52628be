import type { View } from './scene'

/** A charge ends so far under the voltage at which the BMS cuts, V of 12 (engineering default). */
const underCutV = 0.1

/** The voltages a battery is charged within, V, of one battery. */
export interface ChargeWindow {
  readonly lowV: number
  readonly highV: number
  /** Where a setting is aimed: the maker's recommended voltage, else the middle of the window. */
  readonly middleV: number
  readonly absoluteV: number
  readonly bmsOverV: number
  readonly maxFloatV: number
  /** The field of its data which the highest comes from. */
  readonly highField: 'chargeHighV' | 'absoluteHighV' | 'bmsOverV'
}

/**
 * The charge window of a battery by its data. Entered values limit assumed ones: a battery with a cut-out at 14.4 V
 * is not charged at the usual 14.6 V. Of two entered values the stricter counts.
 */
export function windowOf(each: View<'candidate'>): ChargeWindow {
  const entered = (field: keyof ChargeFields): number | null => each.$entered(field) as number | null
  const known = (field: keyof ChargeFields): number => entered(field) ?? -Infinity
  const chargeHighV =
    entered('chargeHighV') ?? Math.max(each.chargeHighV, known('chargeLowV'), known('chargeRecommendedV'))
  const cutV = entered('bmsOverV')
  const upperLimits = [
    { field: 'chargeHighV', volts: chargeHighV },
    { field: 'absoluteHighV', volts: entered('absoluteHighV') ?? Infinity },
    { field: 'bmsOverV', volts: cutV === null ? Infinity : cutV - (underCutV * Number(each.nominalV)) / 12 },
  ] as const
  const most = upperLimits.reduce((a, b) => (b.volts < a.volts ? b : a))
  const highV = most.volts
  const lowV = Math.min(each.chargeLowV, highV)
  const aimedV = entered('chargeRecommendedV') ?? (lowV + highV) / 2
  const absoluteV = entered('absoluteHighV') ?? Math.max(each.absoluteHighV, highV)
  return {
    lowV,
    highV,
    middleV: Math.min(highV, Math.max(lowV, aimedV)),
    absoluteV,
    bmsOverV: cutV ?? Math.max(each.bmsOverV, highV),
    maxFloatV: Math.min(each.maxFloatV, highV),
    highField: most.field,
  }
}
type ChargeFields = Pick<
  View<'candidate'>,
  'chargeLowV' | 'chargeHighV' | 'chargeRecommendedV' | 'absoluteHighV' | 'bmsOverV'
>
