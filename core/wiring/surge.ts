import { withId } from '#core/collections/held'
import type { InverterUnit, LoadUnit, Network, WiringUnit } from './network'

/** Current through a fuse during a start, A, and its duration, s. */
export interface Surge {
  readonly amps: number
  readonly seconds: number
}

/** A motor starts in a second or two (engineering default); an inverter’s maker says how long its surge lasts. */
const startsInS = 2

/** Starting current of a unit above its running current, A. */
function extraA(unit: WiringUnit, network: Pick<Network, 'posts'>): number {
  if (unit.kind === 'load') return unit.amps * (unit.surge - 1)
  if (unit.kind !== 'inverter') return 0
  const { nominalV } = withId(network.posts, unit.plus)
  return (unit.surgeW - unit.takesW) / nominalV
}

const secondsOf = (unit: LoadUnit | InverterUnit): number =>
  unit.kind === 'inverter' ? unit.surgeS : startsInS

/**
 * The hardest start through a fuse: of the unit of its branch, and for the main fuse of the hardest of all.
 * @param amps continuous current through it, A
 */
export function surgeThrough(
  fuse: string,
  amps: number,
  network: Pick<Network, 'posts' | 'units'>,
): Surge | null {
  const starting = network.units.filter(
    (unit): unit is LoadUnit | InverterUnit =>
      (unit.kind === 'load' || unit.kind === 'inverter') &&
      (fuse === 'main-fuse' || fuse === `${unit.id}-fuse`),
  )
  const hardest = starting.toSorted((a, b) => extraA(b, network) - extraA(a, network))[0]
  if (!hardest || extraA(hardest, network) <= 0) return null
  return { amps: amps + extraA(hardest, network), seconds: secondsOf(hardest) }
}
