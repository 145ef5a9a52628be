import { oneHeldBack } from '#core/remedies/arrangements'
import type { RemedyRef } from '#core/remedies/catalogue'
import { houseLeadOf, lfpOf } from '#core/simulation/plant-of-job'
import { shareOf } from '#core/simulation/sharing'
import { laneCurrentA } from '#core/system/currents'
import type { System } from '#core/system/system'

/** A charge stop that opens under load before this charge keeps the lithium from charging. */
export const stopsFrom = 0.8
/** States of charge of the lithium at which the currents are compared. */
export const charges = [0.2, 0.5, stopsFrom]

/** The charge at which all sources lift the bus over the charge stop, where that is too early; else null. */
export function passesStopAt(amps: number, system: System): number | null {
  const [lfp, lead] = [lfpOf(system), houseLeadOf(system)]
  const early = charges.find((soc) => shareOf(lfp, lead, soc, amps).off)
  return early ?? null
}

/** Whether the lithium stays on the bus while all sources give a current, until it is nearly full. */
export const staysJoined = (amps: number, system: System): boolean =>
  !shareOf(lfpOf(system), houseLeadOf(system), stopsFrom, amps).off

/** The highest total current of all sources, A, up to their limits, for which a condition holds. */
export function mostTogetherA(amps: number, holds: (amps: number) => boolean): number {
  let [low, high] = [0, amps]
  for (let i = 0; i < 12; i++) {
    const middle = (low + high) / 2
    if (holds(middle)) low = middle
    else high = middle
  }
  return Math.floor(low)
}

/** One source held back so that all give no more than a current together, A. */
export const lessTogether = (mostA: number, system: System): RemedyRef[] =>
  oneHeldBack(
    system.lanes.map((lane) => ({ lane, amps: laneCurrentA(lane, system) })),
    mostA,
    system,
  )
