import type { SolarPlant } from '../plant'
import { Staged } from './staged'

/** A cell's temperature rises with the sun by NOCT, °C, and its power falls by this a kelvin. */
const noctC = 45
const powerPerK = -0.0035
/** Loss of a tracking controller. */
const trackingEfficiency = 0.96
/** No power is counted at less than this, V; and no sun at less than this, W/m². */
const leastV = 6
const leastWm2 = 1
/** Below this it does not count as charging, A. */
const chargesFromA = 0.5

/** An array and its controller: a PWM controller passes its panels' current, a tracking one their power. */
export class SolarArray {
  readonly unit: Staged
  /** Possible output in the present sun: amperes, and for a tracking controller watts. */
  private mostA = 0
  private watts = 0

  /** @param busV voltage at the end of the step that is tried, V */
  constructor(
    private readonly plant: SolarPlant,
    busV: () => number,
  ) {
    this.unit = new Staged(plant.stages, plant.ohm, busV)
  }

  get amps(): number {
    return this.unit.amps
  }
  get ah(): number {
    return this.unit.ah
  }

  /** The sun, W/m² on the panels, and the air around them, °C, from now on. */
  shine(sunWm2: number, airC: number): void {
    const { stages, pwm, impA, watts, shade, derate } = this.plant
    const sun = sunWm2 <= leastWm2 ? 0 : (sunWm2 / 1000) * (1 - shade)
    const cellC = airC + ((noctC - 20) / 800) * sunWm2
    this.watts = Math.max(0, watts * sun * derate * trackingEfficiency * (1 + powerPerK * (cellC - 25)))
    this.mostA = sun === 0 ? 0 : pwm ? Math.min(stages.maxA, impA * sun * derate) : stages.maxA
    this.unit.run(this.mostA > 0 && (pwm || this.watts > 0))
  }
  /** Whether it would charge a bus at a voltage. */
  wouldCharge(v: number): boolean {
    return this.mostA > 0 && (this.plant.pwm ? this.mostA : this.watts / v) > chargesFromA
  }

  private mostAt(v: number): number {
    if (this.plant.pwm) return this.mostA
    const amps = this.watts / (v > leastV ? v : leastV)
    return amps < this.mostA ? amps : this.mostA
  }
  /** Current into the bus at a voltage, A. */
  ampsAt(v: number): number {
    return this.mostA > 0 ? this.unit.ampsAt(v, this.mostAt(v)) : 0
  }
  settle(v: number): void {
    this.unit.settle(v, this.mostAt(v))
  }
}
