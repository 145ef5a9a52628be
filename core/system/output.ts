import { sharesBus } from './energy'
import type { AlternatorLane } from './lanes'
import type { System } from './system'

/** Whether an alternator has a lead starting battery of its voltage, whatever joins the house bank to it. */
export function keepsOwnLead({ alternator, starting }: AlternatorLane): boolean {
  const own = starting.$entered('nominalV')
  const isLead = starting.present === 'yes' && starting.chemistry !== 'lithium'
  return isLead && (own === null || own === alternator.nominalV)
}

/**
 * The lead battery that is left on an alternator's output when the lithium cuts out, in words; null if there is
 * none. A battery switch may be turned so that none is.
 */
export function batteryOnOutput(lane: AlternatorLane, system: System): string | null {
  const { link } = lane
  if (link.kind === 'switch') return null
  if (keepsOwnLead(lane) && link.kind !== 'direct') return 'the lead starting battery stays on its output'
  const stays = link.kind !== 'dcdc' && link.kind !== 'vsr' && link.kind !== 'duty' && sharesBus(system)
  return stays ? 'the lead of the house bank stays on its output' : null
}
