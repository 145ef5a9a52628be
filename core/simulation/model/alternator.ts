import { caseLimitC, hotOutputA, steadyCaseC, warmLossV } from '#core/physics/alternator'
import type { Happening } from '../events'
import type { AlternatorPlant } from '../plant'
import { Trigger } from './trigger'

/** Resistance of a machine and its lead to its battery as the regulator sees it, Ω (engineering default). */
const machineOhm = 0.003
/**
 * A regulator that folds back begins so far below the limit, K, and keeps at least this share of the output.
 */
const foldSpanK = 10
const leastShare = 0.2
/**
 * An external regulator goes to float when the house takes less than this share of its capacity at full
 * voltage, and back from so far under it, V.
 */
const floatShare = 0.05
const fullWithinV = 0.2
const floatLostV = 0.3

/** Values that an external regulator measures: its current to the house, the voltage there, and the capacity. */
interface HouseSeen {
  readonly amps: () => number
  readonly volts: () => number
  readonly ah: number
}

/**
 * An alternator: its output at a speed, its regulated voltage, and its case temperature. The latter is not a
 * number if its heat hardly depends on the current.
 */
export class Alternator {
  amps = 0
  endAmps = 0
  caseC: number
  endCaseC: number
  peakC: number
  hotS = 0
  readonly triggers: readonly Trigger[]
  private mostA = 0
  private rpm = 0
  private standsAtC: number
  private floats = false
  private heldV = 0
  private readonly scale: number

  /** @param nominalV of its side, V */
  constructor(
    readonly plant: AlternatorPlant,
    nominalV: number,
    startC: number,
    house: HouseSeen,
    tell: (event: Happening) => void,
  ) {
    this.scale = nominalV / 12
    this.caseC = this.endCaseC = this.peakC = plant.heat ? startC : NaN
    this.standsAtC = startC
    this.triggers = [
      ...(plant.heat ? [this.overheating(tell)] : []),
      ...(plant.floatV === null ? [] : [this.floating(plant.floatV, house)]),
    ]
  }

  private overheating(tell: (event: Happening) => void): Trigger {
    let over = false
    return new Trigger(
      () => (over ? caseLimitC - this.endCaseC : this.endCaseC - caseLimitC),
      () => {
        over = !over
        tell({ kind: 'alternator', over, amps: this.endAmps, limitC: caseLimitC })
      },
    )
  }

  private floating(floatV: number, house: HouseSeen): Trigger {
    const lowOutput = (): number =>
      Math.min(floatShare * house.ah - house.amps(), house.volts() - this.plant.regulatorV + fullWithinV)
    return new Trigger(
      () => {
        if (this.rpm === 0) return this.floats ? 1 : -1
        return this.floats ? floatV - floatLostV - house.volts() : lowOutput()
      },
      () => {
        this.floats = !this.floats
      },
    )
  }

  get runs(): boolean {
    return this.mostA > 0
  }

  /**
   * How its engine goes from now on.
   * @param traceV voltage of a computer-controlled machine at this moment, V; null for any other
   */
  drive(engine: 'off' | 'idle' | 'cruise', traceV: number | null, standsAtC: number): void {
    const { idleRpm, cruiseRpm, regulatorV, floatV } = this.plant
    this.rpm = engine === 'off' ? 0 : engine === 'idle' ? idleRpm : cruiseRpm
    this.standsAtC = standsAtC
    this.heldV = traceV ?? (floatV !== null && this.floats ? floatV : regulatorV)
  }

  /** Begins a step: its possible output and voltage at the temperature expected from the last step. */
  prepare(): void {
    const { ratedA, hotShare, foldsBack, limitA, regulator, regulatorV, floatV } = this.plant
    if (this.rpm === 0) {
      this.mostA = 0
      return
    }
    const fold = foldsBack ? Math.min(1, Math.max(leastShare, (caseLimitC - this.endCaseC) / foldSpanK)) : 1
    const hotA = hotOutputA(ratedA, this.rpm, hotShare) * fold
    this.mostA = limitA === null ? hotA : Math.min(hotA, limitA)
    if (regulator === 'external' && floatV !== null) this.heldV = this.floats ? floatV : regulatorV
    if (regulator === 'compensated') this.heldV = regulatorV - warmLossV(this.regulatorC, this.scale)
  }

  /** Temperature of its regulator, °C: that of its case, or of the air if the case is unknown. */
  private get regulatorC(): number {
    return this.plant.heat ? this.endCaseC : this.plant.ambientC
  }

  /** Current at the voltage of its side, A. */
  ampsAt(v: number): number {
    if (this.mostA <= 0) return 0
    const wanted = (this.heldV - v) / machineOhm
    return wanted <= 0 ? 0 : wanted < this.mostA ? wanted : this.mostA
  }

  settle(sideV: number, dt: number, endShare: number): void {
    this.endAmps = this.ampsAt(sideV)
    const mean = this.amps * (1 - endShare) + this.endAmps * endShare
    const { ratedA, ambientC, heat } = this.plant
    if (!heat) return
    const settlesC = this.rpm > 0 ? steadyCaseC(mean, ratedA, this.rpm, ambientC, heat) : this.standsAtC
    this.endCaseC = settlesC + (this.caseC - settlesC) * Math.exp(-dt / (heat.tauMin * 60))
  }

  /** Error of the case temperature in the step that is tried, K: from a current that changes on the way. */
  errorK(dt: number): number {
    const { ratedA, ambientC, heat } = this.plant
    if (!heat || this.rpm === 0 || this.endAmps === this.amps) return 0
    const apart =
      steadyCaseC(this.endAmps, ratedA, this.rpm, ambientC, heat) -
      steadyCaseC(this.amps, ratedA, this.rpm, ambientC, heat)
    return (Math.abs(apart) * (1 - Math.exp(-dt / (heat.tauMin * 60)))) / 2
  }

  accept(dt: number): void {
    this.amps = this.endAmps
    if (this.caseC > caseLimitC) this.hotS += dt
    this.caseC = this.endCaseC
    if (this.caseC > this.peakC) this.peakC = this.caseC
  }
}
