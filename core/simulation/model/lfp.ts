import { elementAt } from '#core/collections/held'
import {
  batteryHeat,
  coulombicEfficiency,
  openCircuitBy,
  openCircuitV,
  resistanceFactor,
} from '#core/physics/lfp'
import type { LfpPlant } from '../plant'

const ocvSteps = 200
/** Share of the capacity over which a battery that comes to full takes less and less. */
const lastRoom = 0.01

/**
 * How the place of a battery warms or cools in a step: from one temperature towards another, °C, with a time
 * constant, s.
 */
interface PlaceCourse {
  fromC: number
  readonly towardsC: number
  readonly followsS: number
}

/** A resting curve of 12 V in steps of half a per cent, on which all its corners lie: exact between them. */
const tableOf = (openCircuitAt: (soc: number) => number): Float64Array =>
  Float64Array.from({ length: ocvSteps + 2 }, (_, i) => openCircuitAt(Math.min(1, i / ocvSteps)))
const usualTable = tableOf((soc) => openCircuitV(soc, 12))

/**
 * A lithium battery: a resting curve, a resistance that grows in the cold, and gates. A step is tried (`prepare`,
 * `ampsAt`, `settle`) and then accepted (`accept`); a trial changes nothing.
 *
 * The current at the end of a step is implicit in the charge that it leaves: with V = OCV(SoC) + I·R and a
 * straight piece of the curve the charge relaxes exponentially, so that the share of the step's end in its
 * mean current, θ, is the one that is exact for an exponential (½ where the step is short against it, 1 where
 * it is long).
 */
export class Lfp {
  /** State at the end of the last step. */
  soc: number
  tempC: number
  amps = 0
  /** State at the end of the trial step. */
  endSoc: number
  endTempC: number
  endAmps = 0
  chargeGate = true
  dischargeGate = true
  heating = false
  inAh = 0
  outAh = 0
  heaterWh = 0
  /** Charge pushed into cells below their limit, Ah. */
  coldAh = 0
  /** The BMS draw and the self-discharge, Ah. */
  ownAh = 0
  /** Charge requested in a step while it was empty, Ah. */
  spiltAh = 0

  private readonly ocv: Float64Array
  private readonly heatOhm: number
  /**
   * For the tried step: charge without the current at its end, resting voltage there, resistances, and the charge
   * from one ampere at its end.
   */
  private baseSoc = 0
  private baseV = 0
  private baseSlope = 0
  private ohm = 0
  private stiffOhm = 0
  private endFill = 0
  /** Shares of the initial place and cell temperatures left at its end. */
  private placeLeft = 1
  private cellsLeft = 1
  /** Share of its current left at the end at constant voltage. */
  private faded = 1
  private readonly perAmpS: number
  private readonly cellsFollowS: number

  constructor(
    readonly plant: LfpPlant,
    soc: number,
    tempC: number,
    insulated: boolean,
  ) {
    this.soc = this.endSoc = soc
    this.tempC = this.endTempC = tempC
    const { curve, nominalV } = plant
    const table = curve ? tableOf((share) => openCircuitBy(curve, share, 12)) : usualTable
    this.ocv = table.map((volts) => (volts * nominalV) / 12)
    const { joulePerK, kPerW } = batteryHeat(plant.kg, insulated)
    this.heatOhm = kPerW
    this.perAmpS = coulombicEfficiency / 3600 / plant.ah
    this.cellsFollowS = joulePerK * kPerW
    this.prepare(0, 0.5, { fromC: tempC, towardsC: tempC, followsS: this.cellsFollowS })
  }

  /** Voltage at rest at a charge, V. */
  private restAt(soc: number): number {
    const at = soc * ocvSteps
    const k = at | 0
    return elementAt(this.ocv, k) + (elementAt(this.ocv, k + 1) - elementAt(this.ocv, k)) * (at - k)
  }
  /** Slope of the resting curve, V for the whole charge. */
  private slopeAt(soc: number): number {
    const k = Math.min(ocvSteps - 1, (soc * ocvSteps) | 0)
    return (elementAt(this.ocv, k + 1) - elementAt(this.ocv, k)) * ocvSteps
  }
  /** Slope between two points of the curve; at one point if they hardly differ. */
  private chordFrom(soc: number, endSoc: number): number {
    const end = endSoc > 1 ? 1 : endSoc < 0 ? 0 : endSoc
    const apart = end - soc
    return apart > 1e-6 || apart < -1e-6 ? (this.restAt(end) - this.baseV) / apart : this.slopeAt(soc)
  }
  /** Open-circuit voltage at the end of the trial step, V. */
  get restV(): number {
    return this.restAt(this.endSoc)
  }
  /** Resistance in the step that is tried, Ω. */
  get ohmNow(): number {
    return this.ohm
  }

  /** How its current follows the voltage of the bus in the step that is tried, A/V. */
  get siemens(): number {
    return 1 / this.stiffOhm
  }

  /** Relaxation rate of its current at constant voltage, 1/s. */
  private get relaxation(): number {
    const filling =
      this.amps > 0 && 1 - this.soc < 2 * lastRoom
        ? (this.amps * this.perAmpS) / Math.max(1e-4, 1 - this.soc)
        : 0
    return (this.slopeAt(this.soc) * this.perAmpS) / this.ohm + filling
  }
  /**
   * θ: weight of the end of a step of this many seconds in its mean current, so that a relaxation is exact, ½ to 1.
   */
  endShareIn(dt: number): number {
    const constants = this.relaxation * dt
    this.faded = Math.exp(-constants)
    if (constants < 1e-3) return 0.5
    return constants > 40 ? 1 - 1 / constants : 1 / (1 - this.faded) - 1 / constants
  }

  /**
   * Begins a step of this many seconds, with the end temperature from its initial current.
   * @param endShare θ: weight of the end of the step in its mean current
   */
  prepare(dt: number, endShare: number, place: PlaceCourse): void {
    this.placeLeft = Math.exp(-dt / place.followsS)
    this.cellsLeft = Math.exp(-dt / this.cellsFollowS)
    this.ohm = this.plant.ohm * resistanceFactor(this.warmedBy(this.amps, place))
    const fill = this.perAmpS * dt
    const own = (this.plant.ownA * dt) / 3600 / this.plant.ah
    const base = this.soc + fill * (1 - endShare) * this.amps - own
    this.baseSoc = base < 0 ? 0 : base > 1 ? 1 : base
    this.baseV = this.restAt(this.baseSoc)
    this.endFill = fill * endShare
    this.baseSlope = this.chordFrom(this.baseSoc, this.baseSoc + this.endFill * this.amps)
    this.stiffOhm = this.ohm + this.baseSlope * this.endFill
  }

  /**
   * Current into it at the end of the step at a bus voltage, A. A closed gate blocks its direction; an empty
   * battery gives no current. Over the last per cent the current falls with the remaining room, so that the battery
   * becomes full and stays full.
   */
  ampsAt(v: number): number {
    const amps = (v - this.baseV) / this.stiffOhm
    if (amps <= 0) return this.dischargeGate && this.soc > 0 ? amps : 0
    if (!this.chargeGate) return 0
    const last = (amps * (1 - this.baseSoc)) / (lastRoom + amps * this.endFill)
    return amps < last ? amps : last
  }

  /** Where the step ends at a bus voltage. */
  settle(busV: number, dt: number, endShare: number, place: PlaceCourse): void {
    this.endAmps = this.ampsAt(busV)
    const mean = this.mean(endShare)
    const ah = (mean * dt) / 3600
    const own = (this.plant.ownA * dt) / 3600
    const wanted = this.soc + ((ah > 0 ? ah * coulombicEfficiency : ah) - own) / this.plant.ah
    this.endSoc = wanted > 1 ? 1 : wanted < 0 ? 0 : wanted
    this.endTempC = this.warmedBy(mean, place)
  }
  /**
   * Cell temperature at the end of the step by a current, in a place that itself goes towards another
   * temperature: both first order, in closed form.
   */
  private warmedBy(amps: number, { fromC, towardsC, followsS }: PlaceCourse): number {
    const heat = amps * amps * this.ohm + (this.heating ? (this.plant.heater?.watts ?? 0) : 0)
    const settlesC = towardsC + heat * this.heatOhm
    // Two like time constants have a form of their own; a little apart they come to the same.
    const apart = Math.abs(followsS - this.cellsFollowS) < 1 ? 1 : followsS - this.cellsFollowS
    const lag = ((fromC - towardsC) * followsS) / apart
    return settlesC + lag * this.placeLeft + (this.tempC - settlesC - lag) * this.cellsLeft
  }
  private mean(endShare: number): number {
    return this.amps * (1 - endShare) + this.endAmps * endShare
  }

  /**
   * Error of its charge in the step that is tried, Ah, by embedded lower orders: the current of its beginning
   * held, or fading as it would under a held voltage, whichever the step is nearer to.
   */
  errorAh(dt: number): number {
    const held = Math.abs(this.endAmps - this.amps)
    const fading = Math.abs(this.endAmps - this.amps * this.faded)
    return ((held < fading ? held : fading) * dt) / 7200
  }

  /**
   * How far its voltage in the step that is tried is off the resting curve, V: from a corner of the curve on
   * the way.
   */
  get errorV(): number {
    return Math.abs(this.baseV + this.baseSlope * (this.endSoc - this.baseSoc) - this.restV)
  }

  /** Error of its temperature in the step that is tried, K: from a current that changes on the way. */
  get errorK(): number {
    const apart = this.endAmps * this.endAmps - this.amps * this.amps
    return (Math.abs(apart) * this.ohm * this.heatOhm * (1 - this.cellsLeft)) / 2
  }

  accept(dt: number, endShare: number): void {
    const ah = (this.mean(endShare) * dt) / 3600
    const own = (this.plant.ownA * dt) / 3600
    if (ah > 0) {
      this.inAh += ah
      if (this.tempC < this.plant.coldLimitC) this.coldAh += ah
    } else this.outAh -= ah
    this.ownAh += own
    const wanted = this.soc + ((ah > 0 ? ah * coulombicEfficiency : ah) - own) / this.plant.ah
    this.spiltAh += (wanted - this.endSoc) * this.plant.ah
    if (this.heating) this.heaterWh += ((this.plant.heater?.watts ?? 0) * dt) / 3600
    this.soc = this.endSoc
    this.tempC = this.endTempC
    this.amps = this.endAmps
  }
}
