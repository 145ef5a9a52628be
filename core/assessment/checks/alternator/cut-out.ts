import type { RemedyRef } from '#core/remedies/catalogue'
import type { AlternatorLane } from '#core/system/lanes'
import { batteryOnOutput } from '#core/system/output'
import type { View } from '#core/system/scene'
import type { System } from '#core/system/system'

/** Cold cranking amperes for each Ah of a starting battery of lead (engineering default). */
const crankingAPerAh = 8
/** Of a starting battery of whose size nothing is known, Ah (engineering default). */
const usualLeadAh = 60

/** Size of the lead battery that stays on an alternator, Ah: as entered, else by its cranking label. */
function leadAh(starting: View<'startingBatteries'>): number {
  const [ah, cca] = [starting.$entered('ah'), starting.$entered('cca')]
  if (typeof ah === 'number') return ah
  return typeof cca === 'number' ? Math.ceil(cca / crankingAPerAh / 5) * 5 : usualLeadAh
}

/** The output of an alternator when its battery cuts out. */
interface AfterCutOut {
  /** The battery that is left there. */
  readonly left: string | null
  /** Whether the link opens under load and leaves none. */
  readonly opens: boolean
  /** A shunting regulator holds the voltage of its machine without a battery, as far as its maker says. */
  readonly isShunted: boolean
  readonly isSafe: boolean
  /** The part that takes the spike. */
  readonly by: string
}

export function afterCutOut(lane: AlternatorLane, system: System): AfterCutOut {
  const { alternator, link } = lane
  const left = batteryOnOutput(lane, system)
  const isShunted = alternator.$entered('machine') === 'magnet'
  const opens = !left && (link.kind === 'vsr' || link.kind === 'duty')
  const at = { left, opens, isShunted }
  if (left) return { ...at, isSafe: true, by: left }
  if (isShunted) return { ...at, isSafe: true, by: 'its shunting regulator holds the voltage' }
  if (alternator.surgeProtector === 'yes')
    return { ...at, isSafe: !opens, by: 'a surge protector takes the spike' }
  if (alternator.chargeStopWire === 'yes')
    return { ...at, isSafe: !opens, by: 'the battery’s charge-stop signal ends the charge first' }
  return { ...at, isSafe: false, by: 'nothing' }
}

/** Protection from the spike for all connected parts: a battery that stays, or a protector if no relay opens. */
export function spikeRemedies({ alternator, link, starting }: AlternatorLane, opens: boolean): RemedyRef[] {
  const keep: RemedyRef = {
    id: 'start.keep-lead',
    on: starting.$path,
    values: { nominalV: alternator.nominalV, ah: leadAh(starting) },
  }
  const protectors: readonly RemedyRef[] = [
    { id: 'alternator.surge-protector', on: alternator.$path },
    { id: 'alternator.charge-stop-wire', on: alternator.$path },
  ]
  // A battery switch may be turned so that none is left.
  return [...(link.kind === 'switch' ? [] : [keep]), ...(opens ? [] : protectors)]
}
