import { sharesBus } from './energy'
import type { AlternatorLane } from './lanes'
import type { System } from './system'

/**
 * The lead battery that is left on an alternator's output when the lithium cuts out, in words; null where there is
 * none. A battery switch may be turned so that none is.
 */
export function leftOnOutput({ alternator, link, starting }: AlternatorLane, system: System): string | null {
  if (link.kind === 'switch') return null
  const isLead = starting.present === 'yes' && starting.chemistry !== 'lithium'
  const own = starting.$entered('nominalV')
  const sameVoltage = own === null || own === alternator.nominalV
  if (isLead && sameVoltage && link.kind !== 'direct') return 'the lead starting battery stays on its output'
  const stays = link.kind !== 'dcdc' && link.kind !== 'vsr' && link.kind !== 'duty' && sharesBus(system)
  return stays ? 'the lead of the house bank stays on its output' : null
}
