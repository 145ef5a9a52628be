import { elementAt } from '#core/collections/held'
import type { Charging, Happening, SimEvent } from './events'
import { Bms } from './model/bms'
import { Lead } from './model/lead'
import { Lfp } from './model/lfp'
import { darkBelowV, fadedA } from './model/loads'
import { BatteryPlace } from './model/place'
import { fallingRoot } from './model/roots'
import { bufferS, Side } from './model/side'
import { SolarArray } from './model/solar'
import { OtherSource } from './model/source'
import { Staged } from './model/staged'
import { Trigger } from './model/trigger'
import { usualPace, type Pace } from './pace'
import type { Plant } from './plant'
import { Stepper, type Stepped } from './stepper'
import { atRest, type Surroundings } from './surroundings'

/** Voltage-dependent powers: the solution is repeated until they change less than this, A. */
const powerToleranceA = 1e-3
const mostRepeats = 6
/** Error allowed for a starting battery, as a multiple of that of a house battery, because its current is small. */
const startingErrorShares = 5
/** No power is counted at less than this, V. */
const leastV = 6

/** The whole system in time: a house bus, and the sides of a star around it. Deterministic. */
export class Simulation implements Stepped {
  t = 0
  houseV: number
  readonly place: BatteryPlace
  readonly lfp: Lfp | null
  readonly bms: Bms | null
  readonly houseLead: Lead | null
  readonly sides: readonly Side[]
  readonly chargers: readonly Staged[]
  readonly solar: readonly SolarArray[]
  readonly sources: readonly OtherSource[]
  readonly events: SimEvent[] = []
  loadA = 0
  loadAh = 0
  unservedAh = 0
  coldRefusedS = 0
  acSupplyA = 0
  /** Currents at the house bus that do not sum to zero, A: the largest seen. */
  worstResidualA = 0
  mainsThere = false
  sunThere = false
  sourceThere = false
  steps = 0

  private readonly scale: number
  private readonly darkV: number
  private readonly mostV: number
  readonly triggers: Trigger[]
  private readonly stepper: Stepper
  private around = atRest
  private slope: number
  private lastSiemens = 0
  private endShare = 0.5
  private dark = false
  // Of the step that is tried.
  private endV: number
  private loadsA = 0
  private loadsW = 0
  private wantedA = 0
  private endLoadA = 0
  private endWantedA = 0
  private residualA = 0
  /** Supply current for an ampere at a volt of the bus, A, by charger. */
  private readonly supplyShare: readonly number[]

  constructor(
    readonly plant: Plant,
    start: { readonly soc: number; readonly tempC: number; readonly leadSoc?: number },
    private readonly pace: Pace = usualPace,
  ) {
    this.stepper = new Stepper(this, pace)
    this.scale = (plant.lfp?.nominalV ?? (plant.houseLead ? plant.houseLead.cells * 2 : 12)) / 12
    this.darkV = darkBelowV(plant.loadsOffV, this.scale)
    this.mostV = 20 * this.scale
    this.slope = plant.lfp ? -1 / plant.lfp.ohm : -30
    this.place = new BatteryPlace(plant.place, start.tempC)
    this.lfp = plant.lfp && new Lfp(plant.lfp, start.soc, start.tempC, plant.place.insulated)
    this.houseLead = plant.houseLead && new Lead(plant.houseLead, start.leadSoc ?? start.soc, start.tempC)
    this.houseV = this.endV = this.lfp?.restV ?? this.houseLead?.voltsAt(0) ?? 0
    const busV = (): number => this.endV
    this.bms = this.lfp && new Bms(this.lfp, busV, () => this.wantsCharge, this.tell())
    this.sides = this.sidesOf(plant, start.tempC, busV)
    this.chargers = plant.chargers.map((charger) => new Staged(charger.stages, charger.ohm, busV))
    this.solar = plant.solar.map((array) => new SolarArray(array, busV))
    this.sources = plant.sources.map((source) => new OtherSource(source))
    this.supplyShare = plant.chargers.map(
      ({ efficiency, powerFactor, supplyV }) => 1 / (efficiency * powerFactor * supplyV),
    )
    const switching = [...this.chargers, ...this.solar.map(({ unit }) => unit), ...this.sides]
    this.triggers = [
      ...(this.bms?.triggers ?? []),
      ...(this.houseLead?.triggers ?? []),
      ...switching.flatMap(({ triggers }) => triggers),
      this.darkness(),
    ]
  }

  /** The sides around the house bus; events name them where there are several. */
  private sidesOf({ sides, lfp, houseLead, loadsOffV }: Plant, tempC: number, volts: () => number): Side[] {
    const house = { volts, ah: lfp?.ah ?? houseLead?.c10 ?? 100, loadsOffV, scale: this.scale }
    return sides.map((side) => {
      const of = { side: side.id, ...(sides.length > 1 ? { name: side.name } : {}) }
      return new Side(side, tempC, house, this.tell(of))
    })
  }

  private readonly tell =
    (of: { readonly side?: string; readonly name?: string } = {}) =>
    (event: Happening): void => {
      this.events.push({ t: this.t, ...of, ...event })
    }

  private darkness(): Trigger {
    const served = (): number => (this.endWantedA > 0.05 ? this.endLoadA / this.endWantedA - 0.5 : 0.5)
    return new Trigger(
      () => (this.dark ? served() : -served()),
      () => {
        this.dark = !this.dark
        this.tell()({ kind: 'dark', dark: this.dark })
      },
    )
  }

  /** Watches for something besides: the moment it turns is located as any other. */
  watch(trigger: Trigger): void {
    this.triggers.push(trigger)
  }

  /** Whether any source would charge if the battery let it. */
  get wantsCharge(): boolean {
    return this.mainsThere || this.sunThere || this.engineThere || this.sourceThere
  }
  /** The kinds of sources that would charge now. */
  chargingNow(): Charging[] {
    const { mainsThere, engineThere, sunThere, sourceThere } = this
    return [
      ...(mainsThere ? (['mains'] as const) : []),
      ...(engineThere ? (['engine'] as const) : []),
      ...(sunThere ? (['sun'] as const) : []),
      ...(sourceThere ? (['source'] as const) : []),
    ]
  }
  get engineThere(): boolean {
    return this.sides.some(({ wouldCharge }) => wouldCharge)
  }

  /**
   * Continues for this many seconds in the same surroundings.
   * @param each called at the end of each step, also of the one that starts new surroundings; true ends it
   * there
   * @returns whether it was ended
   */
  advance(seconds: number, around: Surroundings, each: (dt: number) => boolean = () => false): boolean {
    if (this.enter(around)) {
      this.stepper.restart()
      if (each(0)) return true
    }
    let left = seconds
    while (left > 1e-6) {
      const dt = this.stepper.step(left)
      left -= dt
      if (each(dt)) return true
    }
    return false
  }

  /**
   * Sets the surroundings.
   * @returns whether a current may jump by it: the air alone moves none
   */
  private enter(around: Surroundings): boolean {
    const { plant } = this
    const before = this.around
    let jumps =
      this.steps === 0 ||
      around.engine !== before.engine ||
      around.engineS !== 0 ||
      around.mains !== before.mains ||
      around.supplyShare !== before.supplyShare ||
      around.sunWm2 !== before.sunWm2
    this.around = around
    this.place.follow(around)
    const hour = (around.hour | 0) % 24
    const loadsA = around.loads ? elementAt(plant.dcA, hour) : 0
    const loadsW = around.loads
      ? elementAt(plant.acW, hour) / plant.inverterEfficiency + elementAt(plant.idleW, hour)
      : 0
    jumps ||= loadsA !== this.loadsA || loadsW !== this.loadsW
    this.loadsA = loadsA
    this.loadsW = loadsW
    this.mainsThere = around.mains && this.chargers.length > 0
    for (const charger of this.chargers) charger.run(around.mains)
    this.sunThere = false
    for (const array of this.solar) {
      array.shine(around.sunWm2, around.airC)
      if (array.wouldCharge(this.houseV)) this.sunThere = true
    }
    this.sourceThere = false
    for (const source of this.sources) {
      if (source.run(around.hour)) jumps = true
      if (source.runs) this.sourceThere = true
    }
    for (const side of this.sides) side.drive(around.engine, around.engineS, this.place.fromC)
    return jumps
  }

  errorOf(dt: number): number {
    const { errorShare, errorK, errorV } = this.pace
    const { lfp } = this
    let worst = lfp
      ? Math.max(
          lfp.errorAh(dt) / (errorShare * lfp.plant.ah),
          lfp.errorV / (errorV * this.scale),
          lfp.errorK / errorK,
        )
      : 0
    if (this.houseLead) worst = Math.max(worst, this.houseLead.errorAh(dt) / (errorShare * this.houseLead.ah))
    for (const { lead, alternator } of this.sides) {
      if (lead) worst = Math.max(worst, lead.errorAh(dt) / (startingErrorShares * errorShare * lead.ah))
      if (alternator) worst = Math.max(worst, alternator.errorK(dt) / errorK)
    }
    return worst
  }

  attempt(dt: number): void {
    const { place } = this
    this.endShare = this.lfp ? this.lfp.endShareIn(dt) : 0.5
    place.prepare(dt)
    this.lfp?.prepare(dt, this.endShare, place)
    this.houseLead?.prepare(dt, place.endC)
    for (const side of this.sides) side.prepare(dt, place.endC)
    this.begunSlope()
    this.solve()
    this.settle(dt)
  }

  /** The initial slope of a search: the last one, corrected for the battery in this step. */
  private begunSlope(): void {
    const siemens = this.lfp ? this.lfp.siemens : 0
    this.slope += this.lastSiemens - siemens
    this.lastSiemens = siemens
  }

  /** The bus voltages at which the currents at each bus sum to zero. */
  private solve(): void {
    for (let i = 0; i < mostRepeats; i++) {
      const wanted = this.loadsAt(this.endV)
      this.wantedA = wanted
      const root = fallingRoot(this.inAt, this.endV, 0, this.mostV, this.slope)
      this.endV = root.at
      this.slope = root.slope
      this.residualA = Math.abs(root.left)
      let off = 0
      const givenBackA = this.givenBackAt(this.endV)
      for (const side of this.sides) if (!side.contact.closed) off = Math.max(off, side.alone(this.endV))
      off = Math.max(off, Math.abs(this.givenBackAt(this.endV) - givenBackA))
      if (Math.max(off, Math.abs(this.loadsAt(this.endV) - wanted)) < powerToleranceA) return
    }
  }

  /** Current demand on the house bus at a voltage, A: loads, the inverter's power, the heater. */
  private loadsAt(v: number): number {
    const held = v > leastV ? v : leastV
    const heaterW = this.lfp?.heating ? (this.lfp.plant.heater?.watts ?? 0) : 0
    return this.loadsA + (this.loadsW + heaterW) / held
  }

  /** Current to parked starting batteries from a house at a voltage, A there. */
  private givenBackAt(v: number): number {
    let sum = 0
    for (const side of this.sides) sum += (side.backFeedAt(v) * side.scale) / this.scale
    return sum
  }

  /** Sum of the currents into the house bus at a voltage, A. Falls with the voltage. */
  private readonly inAt = (v: number): number => {
    let sum =
      -fadedA(this.wantedA, v, this.darkV, this.scale) - this.givenBackAt(v) - bufferS * (v - this.houseV)
    if (this.around.mains)
      for (const charger of this.chargers)
        sum += charger.ampsAt(v, charger.stages.maxA * this.around.supplyShare)
    for (const array of this.solar) sum += array.ampsAt(v)
    for (const source of this.sources) sum += source.ampsAt(v)
    for (const side of this.sides) {
      if (side.contact.closed) sum += side.intoHouse(v)
      else if (side.dcdcMostA > 0) sum += side.dcdc?.ampsAt(v, side.dcdcMostA) ?? 0
    }
    if (this.lfp) sum -= this.lfp.ampsAt(v)
    if (this.houseLead) sum -= this.houseLead.ampsAt(v)
    return sum
  }
  private settle(dt: number): void {
    const { endV: v, endShare } = this
    this.lfp?.settle(v, dt, endShare, this.place)
    this.houseLead?.settle(v, dt, endShare)
    for (const side of this.sides) side.settle(v, dt, endShare)
    for (const charger of this.chargers) charger.settle(v, charger.stages.maxA * this.around.supplyShare)
    for (const array of this.solar) array.settle(v)
    for (const source of this.sources) source.settle(v)
    const givenBackA = this.givenBackAt(v)
    this.endWantedA = this.wantedA + givenBackA
    this.endLoadA = fadedA(this.wantedA, v, this.darkV, this.scale) + givenBackA
  }

  take(dt: number): boolean {
    const { endShare } = this
    this.t += dt
    this.steps++
    this.account(dt / 3600)
    if (this.wantsCharge && this.bms?.refusesForCold) this.coldRefusedS += dt
    this.lfp?.accept(dt, endShare)
    this.houseLead?.accept(this.endV, dt, endShare)
    for (const side of this.sides) side.accept(dt, endShare)
    for (const charger of this.chargers) charger.accept(dt, endShare)
    for (const array of this.solar) array.unit.accept(dt, endShare)
    for (const source of this.sources) source.accept(dt, endShare)
    this.houseV = this.endV
    this.place.accept()
    if (this.residualA > this.worstResidualA) this.worstResidualA = this.residualA
    let fired = false
    for (const trigger of this.triggers) if (trigger.take(dt)) fired = true
    if (fired) for (const trigger of this.triggers) if (trigger.isDue && trigger.value() > 0) trigger.fire()
    return fired
  }

  /** Total of the loads in the step, and the share of the mains. */
  private account(h: number): void {
    const endH = h * this.endShare
    const beginH = h - endH
    this.loadAh += this.loadA * beginH + this.endLoadA * endH
    this.unservedAh += (this.lastWantedA - this.loadA) * beginH + (this.endWantedA - this.endLoadA) * endH
    this.loadA = this.endLoadA
    this.lastWantedA = this.endWantedA
    if (!this.around.mains) return
    let supply = 0
    for (let i = 0; i < this.chargers.length; i++)
      supply += elementAt(this.chargers, i).endAmps * elementAt(this.supplyShare, i)
    if (supply * this.endV > this.acSupplyA) this.acSupplyA = supply * this.endV
  }
  private lastWantedA = 0
}
