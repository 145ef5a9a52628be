import { fullSoc, socAfterCharge } from '#core/physics/lfp'
import { formatShare, joinText, nameInSentence } from '#core/units/format'

import { cableOhm, type ChargeUnit, type Lane } from '#core/system/lanes'
import type { System } from '#core/system/system'

/** Another source that brings the bank to its window, so that this one need not. */
const toppedUpBy = (lane: Lane, { lanes, bank }: System): Lane | undefined =>
  lanes.find(
    (other) =>
      other.id !== lane.id &&
      other.kind === 'charger' &&
      other.charger.absorptionV >= bank.lowV &&
      other.charger.absorptionV <= bank.highV,
  )

/**
 * How long a unit holds its voltage, h: its absorption, or as long as it is plugged in where it goes on holding
 * the same one.
 */
export function holdH(unit: ChargeUnit, lane: Lane): number {
  const floatsAtAbsorption = unit.floatMode === 'on' && unit.floatV >= unit.absorptionV - 0.05
  return floatsAtAbsorption && lane.kind === 'charger'
    ? Math.max(unit.absorptionH, lane.charger.hours)
    : unit.absorptionH
}

interface LowCharge {
  readonly soc: number
  readonly fills: boolean
  readonly balances: boolean
  readonly topUp: Lane | undefined
  /** Enough under the school that allows it: most of the charge is reached, and another source tops up. */
  readonly enough: boolean
}

/** Result of a voltage below the window: the charge reached in the hold time, and the source that tops up. */
export function lowCharge(
  lane: Lane,
  volts: number,
  limitA: number,
  holdH: number,
  system: System,
): LowCharge {
  const { bank, rules } = system
  const soc = socAfterCharge({
    volts,
    limitA: Math.max(0.1, limitA),
    holdH,
    fromSoc: rules.lowChargeFrom / 100,
    ah: bank.ah,
    nominalV: bank.nominalV,
    ohm: bank.ohm + cableOhm(lane, rules),
  })
  const topUp = toppedUpBy(lane, system)
  // Held lower for life, nothing needs to top up day by day; a full charge a month for balance is on the
  // customer's paper.
  const fills = soc >= fullSoc
  const enough =
    rules.fullSchool === 'held'
      ? soc >= rules.heldReaches / 100
      : fills || (soc >= rules.lowChargeReaches / 100 && topUp !== undefined)
  return { soc, fills, balances: volts >= bank.balanceStartV, topUp, enough }
}

export const lowChargeWords = ({ soc, fills, balances, topUp }: LowCharge): string =>
  joinText(
    fills ? 'it still fills' : `it reaches about ${formatShare(soc)}`,
    balances ? '' : fills ? ', but the cells never balance' : ' and the cells never balance',
    topUp ? `; ${nameInSentence(topUp.name)} can top up` : '; no other source tops up',
  )
