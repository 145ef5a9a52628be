import type { Plant } from '../plant'
import type { Surroundings } from '../surroundings'

/** How a place follows the air outside, time constant in s. */
const followsIn = { cabin: 6 * 3600, locker: 3 * 3600, bilge: 3 * 3600, engine: 3600 } as const
/** How warm an engine makes its space: so far above the air, K, and at least, °C. */
const engineWarmsK = 25
const engineWarmsToC = 45

/** The place of the batteries: its temperature follows the outside air or a warm engine. */
export class BatteryPlace {
  /** Temperature at the end of the last step and of the trial step, °C. */
  fromC: number
  endC: number
  /** The temperature that it approaches, °C, and the time constant, s. */
  towardsC: number
  readonly followsS: number
  private readonly kind: Plant['place']['kind']

  constructor({ kind }: Plant['place'], startC: number) {
    this.kind = kind
    this.followsS = followsIn[kind]
    this.fromC = this.endC = this.towardsC = startC
  }

  follow({ engine, airC }: Surroundings): void {
    const warmed = this.kind === 'engine' && engine !== 'off'
    this.towardsC = warmed ? Math.max(airC + engineWarmsK, engineWarmsToC) : airC
  }
  prepare(dt: number): void {
    this.endC = this.towardsC + (this.fromC - this.towardsC) * Math.exp(-dt / this.followsS)
  }
  accept(): void {
    this.fromC = this.endC
  }
}
