import type { Happening, SimEvent } from './events'
import { Bms } from './model/bms'
import { Lead } from './model/lead'
import { Lfp, type PlaceCourse } from './model/lfp'
import { darkBelowV, fadedA } from './model/loads'
import { fallingRoot } from './model/roots'
import { bufferS, Side } from './model/side'
import { Staged } from './model/staged'
import { Trigger } from './model/trigger'
import type { Plant } from './plant'

/** What happens around the system, the same all through a stretch of time. */
export interface Surroundings {
  /** Hour of the day, 0 to 24, in the middle of the stretch. */
  readonly hour: number
  readonly engine: 'off' | 'idle' | 'cruise'
  /** Seconds since the engine started, in the middle of the stretch: clear of where the drive trace moves. */
  readonly engineS: number
  readonly mains: boolean
  readonly airC: number
  readonly sunWm2: number
  readonly loads: boolean
}

/** How finely time is stepped. */
export interface Pace {
  /** Longest step, s. */
  readonly mostS: number
  /**
   * Error a step may make: of charge, share of the capacity; of a temperature, K; of the voltage, V at 12 V.
   */
  readonly errorShare: number
  readonly errorK: number
  readonly errorV: number
  /** A moment of switching is located to this, s. */
  readonly eventS: number
}
export const usualPace: Pace = { mostS: 3600, errorShare: 2e-5, errorK: 0.01, errorV: 0.002, eventS: 0.5 }
/** For a year, whose small errors are made good day by day. */
export const longPace: Pace = { mostS: 3600, errorShare: 2e-4, errorK: 0.05, errorV: 0.02, eventS: 1 }
/** Every second by itself: what the others are held against. */
export const everySecond: Pace = { mostS: 1, errorShare: 1, errorK: 1, errorV: 1, eventS: 0.5 }

/** The least time between two switchings, s: nothing chatters faster. */
const leastS = 1
const mostTries = 40
const triesBeforeHalving = 12
/** The first step after something switched is no longer than this, s. */
const afterEventS = 60
/** A moment of switching is tried so far beside where a straight line has it, s. */
const besideS = 0.2
/** A step grows by no more than this, and shrinks by no less. */
const mostGrowth = 6
const leastShrink = 0.1
const safety = 0.8
/** An error that is not worth another try. */
const justGood = 2

/** Powers that hang on voltages are found by repeating the solution until they move less than this, A. */
const powerToleranceA = 1e-3
const mostRepeats = 6
/** No power is counted at less than this, V. */
const leastV = 6

/** Hours from one hour of the day to the next time it is another, 0 to 24. */
export const hoursSince = (from: number, hour: number): number =>
  hour < from ? hour - from + 24 : hour - from
/** Hour of the day from which other sources run. */
export const sourcesFrom = 10
const sourceOhm = 0.01

/**
 * Solar: a cell's temperature rises with the sun by NOCT, and its power falls by this a kelvin; what a
 * tracking controller loses.
 */
const noctC = 45
const powerPerK = -0.0035
const trackingEfficiency = 0.96

/**
 * How a place follows the air outside, time constant in s; and how warm an engine makes its space: so far
 * above the air, and at least, °C.
 */
const followsS = { cabin: 6 * 3600, locker: 3 * 3600, bilge: 3 * 3600, engine: 3600 } as const
const engineWarmsK = 25
const engineWarmsToC = 45

/** A moment inside a stretch, not too near to either end. */
const between = (low: number, high: number, at: number): number => {
  const margin = Math.min(besideS, (high - low) / 4)
  return Math.min(high - margin, Math.max(low + margin, at))
}

/**
 * The whole system in time: a house bus, and the sides of a star around it. The step follows the system: long
 * while little changes, short at a corner; the moment of a switching is located, not stepped over.
 * Deterministic.
 */
export class Simulation {
  t = 0
  houseV: number
  placeC: number
  readonly lfp: Lfp | null
  readonly bms: Bms | null
  readonly houseLead: Lead | null
  readonly sides: readonly Side[]
  readonly chargers: readonly Staged[]
  readonly solar: readonly Staged[]
  readonly sourceA: number[]
  readonly sourceAh: number[]
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
  steps = 0

  private readonly scale: number
  private readonly darkV: number
  private readonly mostV: number
  private readonly triggers: Trigger[]
  /** How the place of the batteries goes from where the last step ended. */
  private placeCourse: PlaceCourse
  private around: Surroundings = {
    hour: 0,
    engine: 'off',
    engineS: 0,
    mains: false,
    airC: 20,
    sunWm2: 0,
    loads: true,
  }
  private pace: Pace
  /** Step to try next, s. */
  private nextS = leastS
  private slope: number
  private lastSiemens = 0
  private endShare = 0.5
  private dark = false
  // Of the step that is tried.
  private endV: number
  private endPlaceC: number
  private loadsA = 0
  private loadsW = 0
  private wantedA = 0
  private endLoadA = 0
  private endWantedA = 0
  private residualA = 0
  private readonly solarMostA: Float64Array
  private readonly solarW: Float64Array
  private readonly sourceOn: boolean[]
  private readonly endSourceA: Float64Array
  /** What an ampere at a volt of the bus takes from the supply, A, by charger. */
  private readonly supplyShare: readonly number[]

  constructor(
    readonly plant: Plant,
    start: { readonly soc: number; readonly tempC: number; readonly leadSoc?: number },
    pace: Pace = usualPace,
  ) {
    const { place } = plant
    this.pace = pace
    this.scale = (plant.lfp?.nominalV ?? (plant.houseLead ? plant.houseLead.cells * 2 : 12)) / 12
    this.darkV = darkBelowV(plant.loadsOffV, this.scale)
    this.mostV = 20 * this.scale
    this.slope = plant.lfp ? -1 / plant.lfp.ohm : -30
    this.placeC = this.endPlaceC = start.tempC
    this.placeCourse = this.courseOfPlace(this.around)
    this.lfp = plant.lfp && new Lfp(plant.lfp, start.soc, start.tempC, place.insulated)
    this.houseLead = plant.houseLead && new Lead(plant.houseLead, start.leadSoc ?? start.soc, start.tempC)
    this.houseV = this.endV = this.lfp?.restV ?? this.houseLead?.voltsAt(0) ?? 0
    const busV = (): number => this.endV
    const house = {
      volts: busV,
      ah: plant.lfp?.ah ?? plant.houseLead?.c10 ?? 100,
      loadsOffV: plant.loadsOffV,
      scale: this.scale,
    }
    const named = plant.sides.length > 1
    this.bms = this.lfp && new Bms(this.lfp, busV, () => this.wantsCharge, this.tell())
    this.sides = plant.sides.map(
      (side) =>
        new Side(
          side,
          start.tempC,
          house,
          this.tell({ side: side.id, ...(named ? { name: side.name } : {}) }),
        ),
    )
    this.chargers = plant.chargers.map((charger) => new Staged(charger.stages, charger.ohm, busV))
    this.solar = plant.solar.map((array) => new Staged(array.stages, array.ohm, busV))
    this.solarMostA = new Float64Array(plant.solar.length)
    this.solarW = new Float64Array(plant.solar.length)
    this.sourceOn = plant.sources.map(() => false)
    this.sourceA = plant.sources.map(() => 0)
    this.sourceAh = plant.sources.map(() => 0)
    this.endSourceA = new Float64Array(plant.sources.length)
    this.supplyShare = plant.chargers.map(
      ({ efficiency, powerFactor, supplyV }) => 1 / (efficiency * powerFactor * supplyV),
    )
    this.triggers = [
      ...(this.bms?.triggers ?? []),
      ...(this.houseLead?.triggers ?? []),
      ...[...this.chargers, ...this.solar, ...this.sides].flatMap(({ triggers }) => triggers),
      this.darkness(),
    ]
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
    return this.mainsThere || this.sunThere || this.engineThere
  }
  get engineThere(): boolean {
    return this.sides.some(({ wouldCharge }) => wouldCharge)
  }

  /**
   * Goes on by so many seconds in the same surroundings.
   * @param each called where each step ends, the one that takes up the new surroundings too; true ends it
   * there
   * @returns whether it was ended
   */
  advance(seconds: number, around: Surroundings, each: (dt: number) => boolean = () => false): boolean {
    if (this.enter(around)) {
      this.restart()
      if (each(0)) return true
    }
    let left = seconds
    while (left > 1e-6) {
      const dt = this.step(left)
      left -= dt
      if (each(dt)) return true
    }
    return false
  }

  /**
   * Takes up what is around from now on.
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
      around.sunWm2 !== before.sunWm2
    this.around = around
    this.placeCourse = this.courseOfPlace(around)
    const hour = (around.hour | 0) % 24
    const loadsA = around.loads ? plant.dcA[hour]! : 0
    const loadsW = around.loads ? plant.acW[hour]! / plant.inverterEfficiency + plant.idleW[hour]! : 0
    jumps ||= loadsA !== this.loadsA || loadsW !== this.loadsW
    this.loadsA = loadsA
    this.loadsW = loadsW
    this.mainsThere = around.mains && this.chargers.length > 0
    for (const charger of this.chargers) charger.run(around.mains)
    this.sunThere = false
    for (let i = 0; i < plant.solar.length; i++) {
      const array = plant.solar[i]!
      this.shine(array, i)
      const gives = this.solarMostA[i]! > 0 && (array.pwm || this.solarW[i]! > 0)
      this.solar[i]!.run(gives)
      if (gives && (array.pwm ? this.solarMostA[i]! : this.solarW[i]! / this.houseV) > 0.5)
        this.sunThere = true
    }
    for (let i = 0; i < this.sourceOn.length; i++) {
      const on = hoursSince(sourcesFrom, around.hour) < plant.sources[i]!.hours
      jumps ||= on !== this.sourceOn[i]
      this.sourceOn[i] = on
    }
    for (const side of this.sides) side.drive(around.engine, around.engineS, this.placeC)
    return jumps
  }

  /** What an array gives: a PWM controller its panels' current, a tracking one their power. */
  private shine({ stages, pwm, impA, watts, shade, derate }: Plant['solar'][number], i: number): void {
    const { sunWm2, airC } = this.around
    const sun = sunWm2 <= 1 ? 0 : (sunWm2 / 1000) * (1 - shade)
    const cellC = airC + ((noctC - 20) / 800) * sunWm2
    this.solarW[i] = Math.max(0, watts * sun * derate * trackingEfficiency * (1 + powerPerK * (cellC - 25)))
    this.solarMostA[i] = sun === 0 ? 0 : pwm ? Math.min(stages.maxA, impA * sun * derate) : stages.maxA
  }

  /** Takes the system as it is after something switched: no time passes. */
  private restart(): void {
    this.attempt(0)
    this.look()
    this.take(0)
  }

  /** One step, at most so long. @returns its length, s */
  private step(mostS: number): number {
    let dt = Math.min(this.nextS, this.pace.mostS, mostS, this.dueS())
    for (let tries = 0; ; tries++) {
      this.attempt(dt)
      const error = this.errorOf(dt)
      if (error <= justGood || dt <= leastS || tries === mostTries) {
        this.nextS = Math.min(
          this.pace.mostS,
          Math.max(dt < this.nextS ? this.nextS : 0, dt * this.growth(error)),
        )
        break
      }
      this.nextS = dt = Math.max(leastS, dt * this.growth(error))
    }
    if (this.look() && dt > this.pace.eventS) dt = this.locate(dt)
    this.t += dt
    if (this.take(dt)) {
      this.nextS = Math.min(this.nextS, afterEventS)
      this.restart()
    }
    return dt
  }

  private growth(error: number): number {
    return Math.min(mostGrowth, Math.max(leastShrink, safety / Math.sqrt(error + 1e-9)))
  }
  /** Seconds until the first of what waits is due. */
  private dueS(): number {
    let least = Infinity
    for (const trigger of this.triggers) {
      const due = trigger.dueIn(leastS)
      if (due < least) least = due
    }
    return least
  }

  /** Error of a step against what it may be. */
  private errorOf(dt: number): number {
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
      if (lead) worst = Math.max(worst, lead.errorAh(dt) / (errorShare * lead.ah))
      if (alternator) worst = Math.max(worst, alternator.errorK(dt) / errorK)
    }
    return worst
  }

  /**
   * The end of the step just behind the first switching in it, found along a straight line from both sides.
   * @returns its length, s
   */
  private locate(dt: number): number {
    let [low, high] = [0, dt]
    let behind = true
    for (const trigger of this.triggers) trigger.begin()
    for (let i = 0; high - low > this.pace.eventS && i < mostTries; i++) {
      // Just before the line where the last try was behind it, just behind it where it was before; at length
      // halved.
      const share = i < triesBeforeHalving ? this.crossingShare() : 0.5
      const middle = between(low, high, low + (high - low) * share + (behind ? -besideS : besideS))
      this.attempt(middle)
      behind = this.look()
      for (const trigger of this.triggers) trigger.bracket(behind)
      if (behind) high = middle
      else low = middle
    }
    if (!behind) {
      this.attempt(high)
      this.look()
    }
    return high
  }
  private crossingShare(): number {
    let least = 1
    for (const trigger of this.triggers) least = Math.min(least, trigger.crossing)
    return least
  }

  /** Tries a step of so many seconds: where everything would stand at its end. Nothing is changed by it. */
  private attempt(dt: number): void {
    const { placeCourse: place } = this
    this.endShare = this.lfp ? this.lfp.endShareIn(dt) : 0.5
    this.endPlaceC = place.towardsC + (place.fromC - place.towardsC) * Math.exp(-dt / place.followsS)
    this.lfp?.prepare(dt, this.endShare, place)
    this.houseLead?.prepare(dt, this.endPlaceC)
    for (const side of this.sides) side.prepare(dt, this.endPlaceC)
    this.begunSlope()
    this.solve()
    this.settle(dt)
  }

  /** Whether something begins to hold, in the step that is tried, that a trigger waits for. */
  private look(): boolean {
    let turns = false
    for (const trigger of this.triggers) if (trigger.look()) turns = true
    return turns
  }

  /** The slope to begin a search with: the last one found, but for what the battery does otherwise in this step. */
  private begunSlope(): void {
    const siemens = this.lfp ? this.lfp.siemens : 0
    this.slope += this.lastSiemens - siemens
    this.lastSiemens = siemens
  }

  /** How the place goes from now on: after the air, or after a warm engine. */
  private courseOfPlace({ engine, airC }: Surroundings): PlaceCourse {
    const { kind } = this.plant.place
    const towardsC =
      kind === 'engine' && engine !== 'off' ? Math.max(airC + engineWarmsK, engineWarmsToC) : airC
    return { fromC: this.placeC, towardsC, followsS: followsS[kind] }
  }

  /** The bus voltages at which the currents at each bus sum to nought. */
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

  /** What is asked of the house bus at a voltage, A: loads, the inverter's power, the heater. */
  private loadsAt(v: number): number {
    const held = v > leastV ? v : leastV
    const heaterW = this.lfp?.heating ? this.lfp.plant.heater!.watts : 0
    return this.loadsA + (this.loadsW + heaterW) / held
  }

  /** What parked starting batteries are given from a house at a voltage, A there. */
  private givenBackAt(v: number): number {
    let sum = 0
    for (const side of this.sides) sum += (side.backFeedAt(v) * side.scale) / this.scale
    return sum
  }

  /** Sum of the currents into the house bus at a voltage, A. Falls with the voltage. */
  private readonly inAt = (v: number): number => {
    let sum =
      -fadedA(this.wantedA, v, this.darkV, this.scale) - this.givenBackAt(v) - bufferS * (v - this.houseV)
    if (this.around.mains) for (const charger of this.chargers) sum += charger.ampsAt(v, charger.stages.maxA)
    for (let i = 0; i < this.solar.length; i++)
      if (this.solarMostA[i]! > 0) sum += this.solar[i]!.ampsAt(v, this.solarGives(i, v))
    for (let i = 0; i < this.sourceOn.length; i++) if (this.sourceOn[i]) sum += this.sourceAt(i, v)
    for (const side of this.sides) {
      if (side.contact.closed) sum += side.intoHouse(v)
      else if (side.dcdcMostA > 0) sum += side.dcdc!.ampsAt(v, side.dcdcMostA)
    }
    if (this.lfp) sum -= this.lfp.ampsAt(v)
    if (this.houseLead) sum -= this.houseLead.ampsAt(v)
    return sum
  }
  private solarGives(i: number, v: number): number {
    const most = this.solarMostA[i]!
    if (this.plant.solar[i]!.pwm) return most
    const amps = this.solarW[i]! / (v > leastV ? v : leastV)
    return amps < most ? amps : most
  }
  private sourceAt(i: number, v: number): number {
    const { amps, volts } = this.plant.sources[i]!
    const wanted = (volts - v) / sourceOhm
    return wanted <= 0 ? 0 : wanted < amps ? wanted : amps
  }

  private settle(dt: number): void {
    const { endV: v, endShare } = this
    this.lfp?.settle(v, dt, endShare, this.placeCourse)
    this.houseLead?.settle(v, dt, endShare)
    for (const side of this.sides) side.settle(v, dt, endShare)
    for (const charger of this.chargers) charger.settle(v, charger.stages.maxA)
    for (let i = 0; i < this.solar.length; i++) this.solar[i]!.settle(v, this.solarGives(i, v))
    for (let i = 0; i < this.sourceOn.length; i++)
      this.endSourceA[i] = this.sourceOn[i] ? this.sourceAt(i, v) : 0
    const givenBackA = this.givenBackAt(v)
    this.endWantedA = this.wantedA + givenBackA
    this.endLoadA = fadedA(this.wantedA, v, this.darkV, this.scale) + givenBackA
  }

  /** Takes the step over that was tried. @returns whether something switched at its end */
  private take(dt: number): boolean {
    const { endShare } = this
    const h = dt / 3600
    this.steps++
    this.account(h)
    if (this.wantsCharge && this.bms?.refusesForCold) this.coldRefusedS += dt
    this.lfp?.accept(dt, endShare)
    this.houseLead?.accept(this.endV, dt, endShare)
    for (const side of this.sides) side.accept(dt, endShare)
    for (const charger of this.chargers) charger.accept(dt, endShare)
    for (const array of this.solar) array.accept(dt, endShare)
    this.houseV = this.endV
    this.placeC = this.placeCourse.fromC = this.endPlaceC
    if (this.residualA > this.worstResidualA) this.worstResidualA = this.residualA
    let fired = false
    for (const trigger of this.triggers) if (trigger.take(dt)) fired = true
    if (fired) for (const trigger of this.triggers) if (trigger.isDue && trigger.value() > 0) trigger.fire()
    return fired
  }

  /** What the loads and other sources came to in the step, and what mains had to give. */
  private account(h: number): void {
    const endH = h * this.endShare
    const beginH = h - endH
    this.loadAh += this.loadA * beginH + this.endLoadA * endH
    this.unservedAh += (this.lastWantedA - this.loadA) * beginH + (this.endWantedA - this.endLoadA) * endH
    this.loadA = this.endLoadA
    this.lastWantedA = this.endWantedA
    for (let i = 0; i < this.sourceOn.length; i++) {
      this.sourceAh[i]! += this.sourceA[i]! * beginH + this.endSourceA[i]! * endH
      this.sourceA[i] = this.endSourceA[i]!
    }
    if (!this.around.mains) return
    let supply = 0
    for (let i = 0; i < this.chargers.length; i++) supply += this.chargers[i]!.endAmps * this.supplyShare[i]!
    if (supply * this.endV > this.acSupplyA) this.acSupplyA = supply * this.endV
  }
  private lastWantedA = 0
}
