import { Lead } from './model/lead'
import { Lfp } from './model/lfp'
import { fallingRoot } from './model/roots'
import type { LeadPlant, LfpPlant } from './plant'

/**
 * Who carries a current in a bank of lead and lithium on one bus. Currents into the battery are positive, A.
 */
export interface Sharing {
  /** State of charge of the lithium, 0 to 1. */
  readonly soc: number
  readonly busV: number
  readonly lfpA: number
  readonly leadA: number
  /** Whether a stop has taken the lithium off the bus. */
  readonly off: boolean
}

/** With lithium above 20 % charge the lead-acid carries no load and is nearly full. */
export const restedLeadSoc = 0.9

/**
 * Solves the bus of a mixed bank for a current into it (positive) or out of it (negative). The models are those of
 * a run: resting curve and resistance for lithium, Copetti for lead-acid. Both currents rise with the voltage, so a
 * search inside a bracket always finds the one voltage at which they sum to the given current.
 * @param externalA A into the bank; −500 to 500
 * @param soc charge of the lithium, 0 to 1; the lead stands at {@link restedLeadSoc}
 */
export function shareOf(lfp: LfpPlant, lead: LeadPlant, soc: number, externalA: number, tempC = 25): Sharing {
  const lithium = new Lfp(lfp, soc, tempC, false)
  const acid = new Lead(lead, restedLeadSoc, tempC)
  const solve = (withLithium: boolean): number =>
    fallingRoot(
      (v) => externalA - (withLithium ? lithium.ampsAt(v) : 0) - acid.ampsAt(v),
      lithium.restV,
      0,
      20 * (lfp.nominalV / 12),
      -1 / lithium.ohmNow,
    ).at
  const joinedV = solve(true)
  const off = lfp.stops !== null && (joinedV >= lfp.stops.chargeV || joinedV <= lfp.stops.dischargeV)
  const busV = off ? solve(false) : joinedV
  return { soc, busV, lfpA: off ? 0 : lithium.ampsAt(busV), leadA: acid.ampsAt(busV), off }
}

/** {@link shareOf} over the whole charge of the lithium, in steps of 5 %. */
export const sharingOver = (lfp: LfpPlant, lead: LeadPlant, externalA: number): Sharing[] =>
  Array.from({ length: 21 }, (_, i) =>
    shareOf(lfp, lead, Math.min(0.999, Math.max(0.001, i / 20)), externalA),
  )
