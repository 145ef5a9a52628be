import { elementAt } from '#core/collections/held'
import { copettiChargeEfficiency, copettiGassingV } from '#core/physics/lead'
import type { LeadPlant } from '../plant'
import { batteryAccuracy, fallingRoot } from './roots'
import { Trigger } from './trigger'

/** Points of the tables for each √A, and how far they go. */
const pointsPerRoot = 64
const mostRoot = 64
/** The curves are calculated up to this multiple of the 10 h capacity in A, and linear beyond. */
const mostOverC10 = 3
/** Charge and discharge curves do not meet: between ± this share of C10 a straight line joins them. */
const joinShare = 1 / 400
/**
 * Charge at which it gives nothing any more, and from which it gives again; and to which the curves are used.
 */
const emptySoc = 0.02
const refilledSoc = 0.025
const fullSoc = 0.995
/** Temperatures the curves are good for, °C. */
const coldestC = -20
const hottestC = 50
/** Cell voltage under which a battery never gasses, V: the logarithm is spared. */
const neverGassesV = 2.2

/**
 * A power of the current in Copetti's curves in a table over √I: exact to a tenth of a millivolt, and many
 * times as fast.
 */
const tableOverRoot = (power: (amps: number) => number): Float64Array =>
  Float64Array.from({ length: mostRoot * pointsPerRoot + 2 }, (_, k) => power((k / pointsPerRoot) ** 2))
const chargePowers = tableOverRoot((amps) => 6 / (1 + amps ** 0.86))
const dischargePowers = tableOverRoot((amps) => 4 / (1 + amps ** 1.3))

/**
 * A lead-acid battery after Copetti. A step is tried (`prepare`, `ampsAt`, `settle`) and then taken over
 * (`accept`).
 */
export class Lead {
  soc: number
  amps = 0
  endSoc: number
  endAmps = 0
  inAh = 0
  outAh = 0
  gassingS = 0
  /** Its internal loss, Ah. */
  ownAh = 0
  private readonly c10: number
  private readonly joinA: number
  private readonly mostA: number
  /**
   * Of the step that is tried: voltage without current and resistance terms, both ways, and where the
   * straight line begins and ends.
   */
  private restC = 0
  private restD = 0
  private termC = 0
  private termD = 0
  private factorC = 0
  private factorD = 0
  private lowJoinV = 0
  private highJoinV = 0
  private tempC = 25
  /** Charge gained per second at the end of the last step. */
  private rate = 0
  /**
   * Where the last search of a current ended, its voltage, and the slope there, V/A, below 0; not a number
   * before the first.
   */
  private lastA = 0
  private lastV = 0
  private lastSlope = NaN
  private empty: boolean
  readonly triggers: readonly Trigger[] = [
    new Trigger(
      () => (this.empty ? this.endSoc - refilledSoc : emptySoc - this.endSoc),
      () => {
        this.empty = !this.empty
      },
    ),
  ]

  constructor(
    readonly plant: LeadPlant,
    soc: number,
    tempC: number,
  ) {
    this.soc = this.endSoc = soc
    this.empty = soc <= emptySoc
    this.c10 = plant.c10 * plant.health
    this.joinA = this.c10 * joinShare
    this.mostA = Math.min(mostRoot ** 2, this.c10 * mostOverC10)
    this.prepare(0, tempC)
  }

  /** Begins a step of this many seconds: the curves where its charge goes by the rate of the last one. */
  prepare(dt: number, placeC: number): void {
    this.tempC = placeC > hottestC ? hottestC : placeC < coldestC ? coldestC : placeC
    const ahead = this.soc + this.rate * dt
    const s = ahead < emptySoc ? emptySoc : ahead > fullSoc ? fullSoc : ahead
    const scale = (this.plant.resistance * this.plant.ageing) / this.c10
    this.restC = 2 + 0.16 * s
    this.restD = 2.085 - 0.12 * (1 - s)
    // (1 - s) ** -1.2 and s ** -1.5, in half the time.
    this.termC = 0.48 * Math.exp(-1.2 * Math.log(1 - s)) + 0.036
    this.termD = 0.27 / (s * Math.sqrt(s)) + 0.02
    this.factorC = scale * (1 - 0.025 * (this.tempC - 25))
    this.factorD = scale * (1 - 0.007 * (this.tempC - 25))
    this.lowJoinV = this.curve(-this.joinA)
    this.highJoinV = this.curve(this.joinA)
  }

  /** Terminal voltage at a current into it, V. Rising with the current. */
  voltsAt(amps: number): number {
    if (amps >= this.joinA || amps <= -this.joinA) return this.curve(amps)
    return this.lowJoinV + ((this.highJoinV - this.lowJoinV) * (amps + this.joinA)) / (2 * this.joinA)
  }
  private curve(amps: number): number {
    const size = amps < 0 ? -amps : amps
    const at = Math.sqrt(size < this.mostA ? size : this.mostA) * pointsPerRoot
    const k = at | 0
    const powers = amps >= 0 ? chargePowers : dischargePowers
    const power = elementAt(powers, k) + (elementAt(powers, k + 1) - elementAt(powers, k)) * (at - k)
    return amps >= 0
      ? this.plant.cells * (this.restC + amps * (power + this.termC) * this.factorC)
      : this.plant.cells * (this.restD + amps * (power + this.termD) * this.factorD)
  }

  /**
   * Current into it at a bus voltage, A: the curve turned round. On the straight line at once, else by a
   * bracketed search from the last current.
   */
  ampsAt(v: number): number {
    const { empty } = this
    if (v >= this.lowJoinV && v <= this.highJoinV) {
      if (empty && v < (this.lowJoinV + this.highJoinV) / 2) return 0
      return -this.joinA + (2 * this.joinA * (v - this.lowJoinV)) / (this.highJoinV - this.lowJoinV)
    }
    const charging = v > this.highJoinV
    if (!charging && empty) return 0
    return this.search(v, charging)
  }
  private search(v: number, charging: boolean): number {
    const low = charging ? this.joinA : -this.mostA
    const high = charging ? this.mostA : -this.joinA
    // From the last current along its slope: the next is seldom far.
    const likely = this.lastA - (v - this.lastV) / this.lastSlope
    const known = likely > low && likely < high
    const begin = known ? likely : charging ? 2 * low : 2 * high
    this.soughtV = v
    const slope = known ? this.lastSlope : (this.curve(begin) - this.curve(begin * 1.001)) / (begin * 0.001)
    const root = fallingRoot(this.missingV, begin, low, high, slope, batteryAccuracy)
    this.lastA = root.at
    this.lastV = v - root.left
    this.lastSlope = root.slope
    return root.at
  }
  private soughtV = 0
  private readonly missingV = (amps: number): number => this.soughtV - this.curve(amps)

  settle(busV: number, dt: number, endShare: number): void {
    this.endAmps = this.ampsAt(busV)
    const rate = this.rate * (1 - endShare) + this.rateAt(this.endAmps, this.soc + this.rate * dt) * endShare
    const soc = this.soc + rate * dt
    this.endSoc = soc > 1 ? 1 : soc < 0 ? 0 : soc
  }
  /** Charge it gains each second at a current. */
  private rateAt(amps: number, soc: number): number {
    const stored = amps > 0 ? amps * copettiChargeEfficiency(amps / (this.c10 / 10), soc > 1 ? 1 : soc) : amps
    return (stored - this.plant.ownA) / 3600 / this.c10
  }

  /** Error of its charge in the step that is tried, Ah, by the embedded lower order. */
  errorAh(dt: number): number {
    return (Math.abs(this.endAmps - this.amps) * dt) / 7200
  }
  get ah(): number {
    return this.c10
  }

  accept(busV: number, dt: number, endShare: number): void {
    const mean = this.amps * (1 - endShare) + this.endAmps * endShare
    const ah = (mean * dt) / 3600
    if (ah > 0) this.inAh += ah
    else this.outAh -= ah
    this.ownAh += (this.plant.ownA * dt) / 3600
    this.gassingS += dt * this.gassingShare(this.gassingMarginV(busV))
    this.soc = this.endSoc
    this.amps = this.endAmps
    this.rate = this.rateAt(this.amps, this.soc)
  }
  /** How far a cell is above the voltage from which it gasses, V. */
  private gassingMarginV(busV: number): number {
    const cellV = busV / this.plant.cells
    if (cellV <= neverGassesV || this.endAmps <= this.joinA) return cellV - neverGassesV - 1
    return cellV - copettiGassingV(this.endAmps, this.c10, this.tempC)
  }
  /** Share of a step in which it gasses, by a straight line between its ends. */
  private gassingShare(afterV: number): number {
    const beforeV = this.lastMarginV
    this.lastMarginV = afterV
    if (beforeV <= 0 && afterV <= 0) return 0
    if (beforeV > 0 && afterV > 0) return 1
    return Math.max(beforeV, afterV) / Math.abs(afterV - beforeV)
  }
  private lastMarginV = -1
}
