import { inside } from '#core/units/format'
import type { Builder } from './builder'

/**
 * Lines by which a battery whose protection is outside the pack stops what charges it: one to each source that can
 * push it too high, the alternator’s regulator included.
 */
export function signalsOf(build: Builder): void {
  const { one, many, lanes } = build.system
  if (one.candidate.warning !== 'stop') return
  for (const lane of lanes) {
    const path = lane.kind === 'alternator' && lane.link.kind !== 'dcdc' ? lane.alternator.$path : lane.id
    const wired = many.alternators.find(({ $path }) => $path === path)?.chargeStopWire === 'yes'
    build.signal('bank-plus', path, path, `Charge stop to ${inside(lane.name)}`, wired ? 'found' : 'new')
  }
}
