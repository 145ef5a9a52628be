import { canBeHeld, limitTo } from '#core/remedies/arrangements'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { System } from '#core/system/system'
import type { Run } from '#core/wiring/network'
import type { Wiring } from '#core/wiring/wiring'

/** Share of its rating from which a unit counts as delivering all it can. */
const fullShare = 0.97
/** A unit set to less than this share of its rating is better replaced. */
const leastShare = 1 / 3

/**
 * A DC-DC or charger set to a lower current, if it can be set and delivers its full current now. Its input current
 * falls at least as much as its output, since less voltage is lost on the way.
 * @param share of the present current that may flow in the run
 */
export function lessCurrentIn(run: Run, wiring: Wiring, share: number, { many }: System): RemedyRef[] {
  const link = many.links.find(({ $path, kind }) => $path === run.of && kind === 'dcdc')
  const unit = link ?? many.chargers.find(({ $path }) => $path === run.of)
  if (!unit || !canBeHeld(unit)) return []
  const output = link
    ? wiring.network.runs.find(
        ({ of, side, role }) => of === run.of && side === 'output' && role === 'charge',
      )
    : run
  const flowsA = output ? (wiring.solved.design.get(output.id)?.amps ?? 0) : 0
  if (flowsA < fullShare * unit.ratedA) return []
  const value = Math.floor(unit.ratedA * share)
  return value >= leastShare * unit.ratedA ? [limitTo(unit, value)] : []
}
