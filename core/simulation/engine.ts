import { caseLimitC, hotOutputA, steadyCaseC } from '#core/physics/alternator'
import { deratedShare } from '#core/physics/dcdc'
import { copettiChargeEfficiency, copettiGassingV } from '#core/physics/lead'
import { coulombicEfficiency, openCircuitBy, openCircuitV, resistanceFactor } from '#core/physics/lfp'
import type { LeadPlant, LfpPlant, Plant, Stages } from './plant'

/** What happens around the system in one step. */
export interface Surroundings {
  /** Hour of the day, 0 to 24. */
  readonly hour: number
  readonly engine: 'off' | 'idle' | 'cruise'
  /** Seconds since the engine started; for the drive trace. */
  readonly engineS: number
  readonly mains: boolean
  readonly airC: number
  readonly sunWm2: number
  readonly loads: boolean
}

export interface SimEvent {
  readonly t: number
  readonly kind: string
  readonly words: string
}

const volts = (value: number): number => Math.round(value * 100) / 100
function say(events: SimEvent[], t: number, kind: string, words: string): void {
  events.push({ t, kind, words })
}

/** Currents at a bus sum to nought within this, A; a bus holds a little charge, A for each volt it moves in a step, so that its voltage is defined when nothing on it takes current. */
const bufferS = 3e-4
const toleranceA = 2e-5
const mostIterations = 60
const mostTogether = 8

/** What the last solution left, A, and the slope it found, A/V: where the next one begins. */
let leftOverA = 0
let foundSlope = -1

/**
 * Root of a falling function of a voltage: Newton steps with the slope found on the way (secant), kept inside a bracket
 * that every evaluation narrows; where a step would leave it, the bracket is halved. Never more than a fixed number.
 * @param slope an estimate of the slope to begin with, A/V, below 0
 */
export function solveFalling(f: (v: number) => number, guess: number, low: number, high: number, slope: number): number {
  let a = low
  let b = high
  let v = guess < a ? a : guess > b ? b : guess
  let y = f(v)
  for (let i = 0; i < mostIterations; i++) {
    if (y > toleranceA) a = v
    else if (y < -toleranceA) b = v
    else break
    if (b - a < 1e-9) break
    const step = v - y / slope
    const next = step > a && step < b ? step : (a + b) / 2
    const z = f(next)
    const found = (z - y) / (next - v)
    slope = foundSlope = found < -1e-4 ? found : -1e-4
    // After many steps without an end the function has a kink here: halve from now on.
    if (i > 12) slope = -1e-12
    v = next
    y = z
  }
  leftOverA = y
  return v
}

/** A table that is worked out once for a key; the oldest is forgotten when there are many. */
function remembered<T>(tables: Map<number, T>, key: number, work: () => T): T {
  let table = tables.get(key)
  if (table === undefined) {
    if (tables.size > 200) tables.delete(tables.keys().next().value!)
    tables.set(key, (table = work()))
  }
  return table
}

const ocvSteps = 200
/** The resting curve in steps of half a per cent, on which all its corners lie: exact between them. */
const ocvTable = ({ nominalV, curve }: LfpPlant): Float64Array => (curve ? tableOf(nominalV, curve) : remembered(usualTables, nominalV, () => tableOf(nominalV, null)))
const usualTables = new Map<number, Float64Array>()
const tableOf = (nominalV: number, curve: LfpPlant['curve']): Float64Array => Float64Array.from({ length: ocvSteps + 2 }, (_, i) => (curve ? openCircuitBy(curve, Math.min(1, i / ocvSteps), nominalV) : openCircuitV(Math.min(1, i / ocvSteps), nominalV)))

/** Share of the capacity over which a battery that comes to full takes less and less. */
const lastRoom = 0.01

/** A lithium battery with its gates. */
export class Lfp {
  soc = 0
  tempC = 0
  amps = 0
  chargeGate = true
  dischargeGate = true
  heating = false
  inAh = 0
  outAh = 0
  heaterWh = 0
  /** What the BMS drew and what leaked away inside, Ah. */
  ownAh = 0
  /** What was still asked in the step in which it was empty, Ah. */
  spiltAh = 0
  private ohmNow = 0
  private ohmAtC = NaN
  private room = 1
  private fillPerA = 0
  private overS = 0
  private overCurrentS = 0
  private underS = 0
  private heldCold = false
  private heldOver = false
  private stoppedCharge = false
  private stoppedDischarge = false
  private emf = 0
  private readonly heatCapacity: number
  private readonly heatOhm: number
  private readonly ocv: Float64Array
  private decayDt = 0
  private decay = 1
  constructor(readonly plant: LfpPlant, soc: number, tempC: number, insulated: boolean) {
    this.soc = soc
    this.tempC = tempC
    this.ohmNow = plant.ohm
    this.ocv = ocvTable(plant)
    this.emf = 0
    this.heatCapacity = plant.kg * 1000
    this.heatOhm = ((insulated ? 2.5 : 1) * 24) / plant.kg
    this.begin(1)
  }

  /** Values that hold for a step of so many seconds: voltage at rest, resistance, and what would fill it in the step. */
  begin(dt: number): void {
    const at = this.soc * ocvSteps
    const k = at | 0
    this.emf = this.ocv[k]! + (this.ocv[k + 1]! - this.ocv[k]!) * (at - k)
    if (!(Math.abs(this.tempC - this.ohmAtC) < 0.2)) {
      this.ohmAtC = this.tempC
      this.ohmNow = this.plant.ohm * resistanceFactor(this.tempC)
    }
    this.room = 1 - this.soc
    this.fillPerA = (coulombicEfficiency * dt) / 3600 / this.plant.ah
  }
  get restV(): number { return this.emf }
  get ohm(): number { return this.ohmNow }

  /**
   * Current into it at a bus voltage, A. A gate that is shut passes none its way; empty gives none. Over the last per
   * cent what it takes falls with the room that is left at the end of the step, so that it comes to full and stays there.
   */
  ampsAt(v: number): number {
    const amps = (v - this.emf) / this.ohmNow
    if (amps > 0) {
      if (!this.chargeGate) return 0
      const last = (amps * this.room) / (lastRoom + amps * this.fillPerA)
      return amps < last ? amps : last
    }
    return this.dischargeGate && this.soc > 0 ? amps : 0
  }

  finish(busV: number, dt: number, t: number, placeC: number, wantsCharge: boolean, events: SimEvent[]): void {
    const { plant } = this
    this.amps = this.ampsAt(busV)
    const ah = (this.amps * dt) / 3600
    if (ah > 0) this.inAh += ah
    else this.outAh -= ah
    const own = (plant.ownA * dt) / 3600
    this.ownAh += own
    const wanted = this.soc + ((ah > 0 ? ah * coulombicEfficiency : ah) - own) / plant.ah
    this.soc = wanted > 1 ? 1 : wanted < 0 ? 0 : wanted
    this.spiltAh += (wanted - this.soc) * plant.ah
    const heat = this.amps * this.amps * this.ohmNow + (this.heating ? plant.heater!.watts : 0)
    if (this.heating) this.heaterWh += (plant.heater!.watts * dt) / 3600
    const settles = placeC + heat * this.heatOhm
    if (dt !== this.decayDt) {
      this.decayDt = dt
      this.decay = Math.exp(-dt / (this.heatCapacity * this.heatOhm))
    }
    this.tempC = settles + (this.tempC - settles) * this.decay
    this.watch(busV, dt, t, wantsCharge, events)
  }

  /** The BMS as a state machine: thresholds, delays, returns; charge and discharge apart. */
  private watch(busV: number, dt: number, t: number, wantsCharge: boolean, events: SimEvent[]): void {
    const { bms, heater, stops } = this.plant
    const cellV = this.chargeGate ? Math.max(busV, this.emf) : this.emf
    this.overS = cellV > bms.overV ? this.overS + dt : 0
    if (!this.heldOver && this.overS >= 2) {
      this.heldOver = true
      say(events, t, 'charge-gate', `BMS shut its charge gate at ${volts(cellV)} V, over ${volts(bms.overV)} V`)
    } else if (this.heldOver && this.emf + Math.min(0, this.amps) * this.ohmNow < bms.overReturnV) {
      this.heldOver = false
      say(events, t, 'charge-gate', 'BMS opened its charge gate again, voltage has fallen')
    }
    const cold = bms.coldC !== null && (this.heldCold ? this.tempC < bms.coldReturnC && this.tempC < bms.hotC : this.tempC < bms.coldC)
    const hot = this.heldCold ? this.tempC > bms.hotReturnC : this.tempC > bms.hotC
    if ((cold || hot) !== this.heldCold) {
      this.heldCold = cold || hot
      say(events, t, 'charge-gate', this.heldCold ? `BMS shut its charge gate, cells at ${Math.round(this.tempC * 10) / 10} °C` : `BMS opened its charge gate, cells at ${Math.round(this.tempC * 10) / 10} °C`)
    }
    if (stops) {
      const stopCharge = this.stoppedCharge ? this.emf > stops.chargeV - 0.6 * (this.plant.nominalV / 12) : busV >= stops.chargeV
      const stopDischarge = this.stoppedDischarge ? busV < stops.dischargeV + 0.8 * (this.plant.nominalV / 12) : busV <= stops.dischargeV
      if (stopCharge !== this.stoppedCharge) say(events, t, 'stop', stopCharge ? `Charge stop took the lithium off at ${volts(busV)} V` : 'Charge stop put the lithium back')
      if (stopDischarge !== this.stoppedDischarge) say(events, t, 'stop', stopDischarge ? `Discharge stop took the lithium off at ${volts(busV)} V` : 'Discharge stop put the lithium back')
      this.stoppedCharge = stopCharge
      this.stoppedDischarge = stopDischarge
    }
    this.chargeGate = !this.heldOver && !this.heldCold && !this.stoppedCharge
    this.overCurrentS = -this.amps > bms.maxDischargeA ? this.overCurrentS + dt : 0
    this.underS = (this.dischargeGate && busV < bms.underV) || this.soc <= 0 ? this.underS + dt : 0
    if (this.dischargeGate && (this.underS >= 2 || this.overCurrentS > bms.overCurrentS || this.stoppedDischarge)) {
      this.dischargeGate = false
      if (this.overCurrentS > bms.overCurrentS) say(events, t, 'cut-out', `BMS cut out at ${Math.round(-this.amps)} A, over ${Math.round(bms.maxDischargeA)} A`)
      else if (!this.stoppedDischarge) say(events, t, 'cut-out', `BMS cut out at ${volts(busV)} V, battery empty`)
    } else if (!this.dischargeGate && !this.stoppedDischarge && this.soc > 0.02 && this.emf > bms.underReturnV) {
      this.dischargeGate = true
      say(events, t, 'cut-out', 'BMS switched the battery on again')
    }
    if (heater) {
      const heats = this.heating ? this.tempC < heater.startC + 4 : this.tempC < heater.startC
      const on = heats && wantsCharge
      if (on !== this.heating) say(events, t, 'heater', on ? 'Battery heater on' : 'Battery heater off')
      this.heating = on
    }
  }

  get refusesForCold(): boolean { return this.heldCold }
}

const tablePoints = 512
interface CurrentTerms { readonly charge: Float64Array; readonly discharge: Float64Array }
const currentTables = new Map<number, CurrentTerms>()
/** Powers of the current in Copetti's curves, read from a table in √I: exact to a tenth of a millivolt, and many times as fast. */
const currentTerms = (mostA: number): CurrentTerms => remembered(currentTables, mostA, () => {
  const at = (work: (amps: number) => number): Float64Array => Float64Array.from({ length: tablePoints + 2 }, (_, k) => work(mostA * (k / tablePoints) ** 2))
  return { charge: at((amps) => 6 / (1 + amps ** 0.86)), discharge: at((amps) => 4 / (1 + amps ** 1.3)) }
})

/** A lead-acid battery after Copetti. Charge and discharge curves do not meet: between ±C10/400 a straight line joins them. */
export class Lead {
  soc = 0
  amps = 0
  inAh = 0
  outAh = 0
  gassingS = 0
  /** What it lost inside, Ah. */
  ownAh = 0
  private readonly c10: number
  private readonly join: number
  private readonly mostA: number
  private readonly terms: CurrentTerms
  /** Of this step: voltage without current and resistance terms, both ways, and where the straight line begins and ends. */
  private restC = 0
  private restD = 0
  private termC = 0
  private termD = 0
  private factorC = 0
  private factorD = 0
  private lowJoinV = 0
  private highJoinV = 0
  private last = 0
  /** Slope of the curve where the last current was found, V/A, and on which side. */
  private lastSlope = 0
  private lastCharging = false
  private moved = 0
  private begunSoc = NaN
  private begunC = NaN
  constructor(readonly plant: LeadPlant, soc: number, private tempC: number) {
    this.soc = soc
    this.c10 = plant.c10 * plant.health
    this.join = this.c10 / 400
    this.mostA = this.c10 * 3
    this.terms = currentTerms(this.mostA)
    this.begin(tempC)
  }
  get ah(): number { return this.c10 }

  /** Values that hold for a step. */
  begin(tempC: number): void {
    const t = tempC > 50 ? 50 : tempC < -20 ? -20 : tempC
    const moved = this.soc + this.moved / 2 - this.begunSoc
    const warmed = t - this.begunC
    if (moved < 2e-5 && moved > -2e-5 && warmed < 0.05 && warmed > -0.05) return
    this.begunSoc = this.soc + this.moved / 2
    this.begunC = this.tempC = t
    // In the middle of the step, going by the last one.
    const middle = this.begunSoc
    const s = middle < 0.02 ? 0.02 : middle > 0.995 ? 0.995 : middle
    const scale = (this.plant.resistance * this.plant.ageing) / this.c10
    this.restC = 2 + 0.16 * s
    this.restD = 2.085 - 0.12 * (1 - s)
    this.termC = 0.48 / (1 - s) ** 1.2 + 0.036
    this.termD = 0.27 / (s * Math.sqrt(s)) + 0.02
    this.factorC = scale * (1 - 0.025 * (this.tempC - 25))
    this.factorD = scale * (1 - 0.007 * (this.tempC - 25))
    this.lowJoinV = this.curve(-this.join)
    this.highJoinV = this.curve(this.join)
  }

  /** Terminal voltage at a current into it, V. Rising with the current. */
  voltsAt(amps: number): number {
    if (amps >= this.join || amps <= -this.join) return this.curve(amps)
    return this.lowJoinV + ((this.highJoinV - this.lowJoinV) * (amps + this.join)) / (2 * this.join)
  }
  private curve(amps: number): number {
    const size = amps < 0 ? -amps : amps
    const at = Math.sqrt(Math.min(1, size / this.mostA)) * tablePoints
    const k = at | 0
    if (amps >= 0) {
      const { charge } = this.terms
      return this.plant.cells * (this.restC + amps * (charge[k]! + (charge[k + 1]! - charge[k]!) * (at - k) + this.termC) * this.factorC)
    }
    const { discharge } = this.terms
    return this.plant.cells * (this.restD + amps * (discharge[k]! + (discharge[k + 1]! - discharge[k]!) * (at - k) + this.termD) * this.factorD)
  }

  /** Current into it at a bus voltage, A: the curve turned round. On the straight line at once, else by a bracketed search from the last current. */
  ampsAt(v: number): number {
    if (v >= this.lowJoinV && v <= this.highJoinV) return this.soc <= 0.02 && v < (this.lowJoinV + this.highJoinV) / 2 ? 0 : -this.join + (2 * this.join * (v - this.lowJoinV)) / (this.highJoinV - this.lowJoinV)
    const charging = v > this.highJoinV
    if (!charging && this.soc <= 0.02) return 0
    let [a, b] = charging ? [this.join, this.mostA] : [-this.mostA, -this.join]
    let i = this.last > a && this.last < b ? this.last : charging ? this.join * 2 : -this.join * 2
    let off = this.curve(i) - v
    let slope = charging === this.lastCharging ? this.lastSlope : 0
    for (let n = 0; n < mostIterations; n++) {
      if (off < -1e-6) a = i
      else if (off > 1e-6) b = i
      else break
      if (b - a < 1e-7) break
      if (slope <= 0) slope = (this.curve(i * 1.001) - v - off) / (i * 0.001)
      const step = i - off / slope
      const next = slope > 0 && step > a && step < b ? step : (a + b) / 2
      const nextOff = this.curve(next) - v
      slope = n > 15 ? -1 : (nextOff - off) / (next - i)
      if (slope > 0) this.lastSlope = slope
      i = next
      off = nextOff
    }
    this.last = i
    this.lastCharging = charging
    return i
  }

  finish(busV: number, dt: number): void {
    this.amps = this.ampsAt(busV)
    const ah = (this.amps * dt) / 3600
    const own = (this.plant.ownA * dt) / 3600
    this.ownAh += own
    const i10 = this.c10 / 10
    const before = this.soc
    if (ah > 0) {
      this.inAh += ah
      // Below 2.2 V a cell never gasses: the logarithm is spared.
      const cellV = busV / this.plant.cells
      if (cellV > 2.2 && this.amps > this.join && cellV > copettiGassingV(this.amps, this.c10, this.tempC)) this.gassingS += dt
      this.soc = Math.min(1, Math.max(0, this.soc + (ah * copettiChargeEfficiency(this.amps / i10, this.soc) - own) / this.c10))
    } else {
      this.outAh -= ah
      this.soc = Math.max(0, this.soc + (ah - own) / this.c10)
    }
    this.moved = this.soc - before
  }
}

/** A charging unit that goes through its stages. */
export class Staged {
  stage: 'bulk' | 'absorption' | 'float' | 'off' = 'bulk'
  amps = 0
  ah = 0
  private heldS = 0
  private readonly ohm: number
  constructor(readonly stages: Stages, ohm: number) {
    this.ohm = Math.max(ohm, 0.002)
  }
  /** Voltage it holds: one that has stopped holds the bus up at its restart voltage, as it would within seconds. */
  get setV(): number { return this.stage === 'float' ? this.stages.floatV! : this.stage === 'off' ? this.stages.restartV : this.stages.absorptionV }

  /** Current at a bus voltage, A, with so much to give. */
  ampsAt(v: number, mostA: number): number {
    const wanted = (this.setV - v) / this.ohm
    return wanted <= 0 ? 0 : wanted < mostA ? wanted : mostA
  }
  finish(busV: number, mostA: number, dt: number, running: boolean): void {
    if (!running) {
      this.amps = 0
      this.stage = 'bulk'
      this.heldS = 0
      return
    }
    this.amps = this.ampsAt(busV, mostA)
    this.ah += (this.amps * dt) / 3600
    const { stages } = this
    if (this.stage === 'bulk' && busV > stages.absorptionV - 0.06) this.stage = 'absorption'
    if (this.stage === 'absorption') {
      this.heldS = busV > stages.absorptionV - 0.12 ? this.heldS + dt : this.heldS
      if (this.heldS >= stages.absorptionH * 3600 || (this.amps < stages.tailA && this.heldS > 300)) this.stage = stages.floatV === null ? 'off' : 'float'
    } else if (this.stage === 'off' && this.amps > stages.tailA / 4) {
      this.stage = 'bulk'
      this.heldS = 0
    } else if (this.stage === 'float' && busV < stages.floatV! - 0.6) {
      this.stage = 'bulk'
      this.heldS = 0
    }
  }
}

/** Loads that fade out over the last volt above dark: a dark bus still has a solution. A draw below 0 does not fade. */
function softened(amps: number, v: number, darkV: number, scale: number): number {
  const above = v - darkV
  return above >= scale || amps < 0 ? amps : above <= 0 ? 0 : (amps * above) / scale
}

/** Hour of the day from which other sources run. */
const sourcesFrom = 10

/** Hours from one hour of the day to the next time it is another, 0 to 24. */
export const hoursSince = (from: number, hour: number): number => (hour < from ? hour - from + 24 : hour - from)

/** The whole system in time: one call of {@link step} a step. Deterministic. */
export class Simulation {
  t = 0
  houseV = 0
  startV = 0
  readonly lfp: Lfp | null
  readonly houseLead: Lead | null
  readonly startLead: Lead | null
  readonly chargers: readonly Staged[]
  readonly solar: readonly Staged[]
  readonly dcdc: Staged | null
  readonly sourceA: number[]
  readonly sourceAh: number[]
  sourceSumA = 0
  mainsSumA = 0
  solarSumA = 0
  readonly events: SimEvent[] = []
  linkClosed = false
  linkA = 0
  linkAh = 0
  /** Charge that went from the house side to the starting side while the engine stood, Ah. */
  backAh = 0
  alternatorA = 0
  alternatorC = 0
  alternatorHotS = 0
  alternatorPeakC = 0
  loadA = 0
  loadAh = 0
  unservedAh = 0
  coldRefusedS = 0
  /** Which sources would charge just now. */
  mainsThere = false
  engineThere = false
  sunThere = false
  acSupplyA = 0
  placeC = 0
  /** Currents at the house bus that do not sum to zero, A: the largest seen. */
  worstResidualA = 0
  private readonly scale: number
  private readonly startScale: number
  /** Voltage at which loads are quite dark, V: at the house and at the starting side. */
  private readonly darkV: number
  private readonly startDarkV: number
  /** Slope of the currents at the house bus to begin a solution with, A/V. */
  private houseSlope = 0
  /** Where a solution of the starting side begins: voltage, V, and slope, A/V, of the last one with the link closed, and with it open. */
  private readonly startJoined = { v: 0, slope: -20 }
  private readonly startAlone = { v: 0, slope: -20 }
  private vsrS = 0
  private dutyOpenS = 0
  private dcdcStopped = false
  private overLimit = false
  private dark = false

  constructor(readonly plant: Plant, start: { readonly soc: number; readonly tempC: number; readonly leadSoc?: number }) {
    const { place } = plant
    this.scale = (plant.lfp?.nominalV ?? (plant.houseLead ? plant.houseLead.cells * 2 : 12)) / 12
    this.startScale = plant.startLead ? plant.startLead.cells / 6 : this.scale
    this.darkV = plant.loadsOffV > 0 ? (8 / 10.5) * plant.loadsOffV : 8 * this.scale
    this.startDarkV = (this.darkV / this.scale) * this.startScale
    this.houseSlope = plant.lfp ? -1 / plant.lfp.ohm : -30
    this.lfp = plant.lfp && new Lfp(plant.lfp, start.soc, start.tempC, place.insulated)
    this.houseLead = plant.houseLead && new Lead(plant.houseLead, start.leadSoc ?? start.soc, start.tempC)
    this.startLead = plant.startLead && new Lead(plant.startLead, 0.9, start.tempC)
    this.chargers = plant.chargers.map((charger) => new Staged(charger.stages, charger.ohm))
    this.solar = plant.solar.map((array) => new Staged(array.stages, array.ohm))
    this.dcdc = plant.link.kind === 'dcdc' ? new Staged(plant.link.stages, 0.002) : null
    this.solarMostA = new Float64Array(plant.solar.length)
    this.sourceOn = plant.sources.map(() => false)
    this.sourceA = plant.sources.map(() => 0)
    this.sourceAh = plant.sources.map(() => 0)
    this.placeC = start.tempC
    for (const row of plant.alternator?.trace ?? []) this.traceS += row.minutes * 60
    this.alternatorC = this.alternatorPeakC = start.tempC
    this.houseV = this.lfp?.restV ?? this.houseLead?.voltsAt(0) ?? 0
    this.startV = this.startJoined.v = this.startAlone.v = this.startLead?.voltsAt(0) ?? this.houseV
  }

  // Of the step in hand.
  private loadsWantedA = 0
  private readonly solarMostA: Float64Array
  private readonly sourceOn: boolean[]
  private mainsOn = false
  private machineV = 0
  private machineMostA = 0
  private machineRpm = 0
  /** Length of the alternator's voltage over a drive, s. */
  private traceS = 0
  private dcdcMostA = 0
  private startDrawA = 0

  /** Sum of the currents at the house bus at a voltage, A: what flows in less what flows out, without the link. */
  private houseIn(v: number): number {
    const { plant } = this
    let sum = 0
    if (this.mainsOn) for (let i = 0; i < this.chargers.length; i++) sum += this.chargers[i]!.ampsAt(v, plant.chargers[i]!.stages.maxA)
    for (let i = 0; i < this.solar.length; i++) if (this.solarMostA[i]! > 0) sum += this.solar[i]!.ampsAt(v, this.solarMostA[i]!)
    for (let i = 0; i < plant.sources.length; i++) if (this.sourceOn[i]) sum += this.sourceAt(i, v)
    if (this.dcdcMostA > 0) sum += this.dcdc!.ampsAt(v, this.dcdcMostA)
    sum -= softened(this.loadsWantedA, v, this.darkV, this.scale)
    if (this.lfp) sum -= this.lfp.ampsAt(v)
    if (this.houseLead) sum -= this.houseLead.ampsAt(v)
    return sum
  }
  private sourceAt(i: number, v: number): number {
    const { amps, volts: held } = this.plant.sources[i]!
    const wanted = (held - v) / 0.01
    return wanted <= 0 ? 0 : wanted < amps ? wanted : amps
  }
  /** The same at the starting side. */
  private startIn(v: number): number {
    let sum = 0
    if (this.machineMostA > 0) {
      const wanted = (this.machineV - v) / 0.003
      sum = wanted <= 0 ? 0 : wanted < this.machineMostA ? wanted : this.machineMostA
    }
    sum -= softened(this.startDrawA, v, this.startDarkV, this.startScale)
    if (this.startLead) sum -= this.startLead.ampsAt(v)
    return sum
  }
  /** What the last step left at the house bus is made good in this one, so that small errors do not add up over a year. */
  private owedA = 0
  private readonly houseOff = (v: number): number => this.houseIn(v) + this.owedA - bufferS * (v - this.houseV)
  private readonly startOff = (v: number): number => this.startIn(v) - bufferS * (v - this.startV)
  private solveHouse(): number {
    foundSlope = this.houseSlope
    const v = solveFalling(this.houseOff, this.houseV, 0, 20 * this.scale, this.houseSlope)
    this.houseLeftA = leftOverA
    this.houseSlope = foundSlope
    return v
  }
  private solveStart(): number {
    const begun = this.startAlone
    foundSlope = begun.slope
    const v = solveFalling(this.startOff, begun.v, 0, 20 * this.startScale, begun.slope)
    begun.v = v
    begun.slope = foundSlope
    return v
  }
  private houseLeftA = 0

  step(dt: number, around: Surroundings): void {
    const { plant } = this
    this.t += dt
    this.warmPlace(dt, around)
    this.lfp?.begin(dt)
    this.houseLead?.begin(this.placeC)
    this.startLead?.begin(this.placeC)

    const lastV = this.houseV > 6 ? this.houseV : 6
    this.loadsWantedA = this.loadsNow(around, lastV)
    for (let i = 0; i < plant.solar.length; i++) this.solarMostA[i] = this.solarMost(plant.solar[i]!, around, lastV)
    for (let i = 0; i < plant.sources.length; i++) this.sourceOn[i] = hoursSince(sourcesFrom, around.hour) < plant.sources[i]!.hours
    this.mainsOn = around.mains
    this.machineNow(around)
    this.dcdcMostA = this.dcdcMost(around)
    this.startDrawA = around.engine === 'off' ? plant.standbyA : plant.alternator?.vehicleA ?? 0

    this.switchLink(around, dt)
    if (this.linkClosed && plant.link.kind !== 'dcdc' && plant.link.kind !== 'none') {
      this.solveJoined(plant.link.ohm, plant.link.kind === 'diode' ? plant.link.dropV : 0, plant.link.kind === 'diode')
    } else {
      this.linkA = 0
      this.houseV = this.solveHouse()
      if (this.dcdcMostA > 0 && plant.link.kind === 'dcdc') this.startDrawA += (this.dcdc!.ampsAt(this.houseV, this.dcdcMostA) * this.houseV) / (plant.link.efficiency * Math.max(6 * this.startScale, this.startV))
      if (plant.link.kind === 'dcdc' && plant.link.backFeed) this.feedBack(around)
      if (plant.alternator || this.startLead) this.startV = this.solveStart()
    }
    this.owedA = this.houseLeftA
    const left = this.houseLeftA < 0 ? -this.houseLeftA : this.houseLeftA
    if (left > this.worstResidualA) this.worstResidualA = left
    this.account(dt, around, this.sourceWants(around))
  }

  private backFeedA = 0
  /** With the engine off and the house well up, a DC-DC may give the starting battery a little, at the expense of the house. */
  private feedBack(around: Surroundings): void {
    const amps = around.engine === 'off' && this.houseV > 13.4 * this.scale && this.startV < 13.5 * this.startScale ? Math.min(2, Math.max(0, (13.5 * this.startScale - this.startV) / 0.3)) : 0
    this.backFeedA = amps
    this.startDrawA -= amps
  }

  private caseDt = 0
  private caseDecay = 1
  private placeDt = 0
  private placeDecay = 1
  /** The place follows the air: a cabin slowly, a locker in a few hours, an engine space with the engine. */
  private warmPlace(dt: number, around: Surroundings): void {
    const { kind } = this.plant.place
    if (dt !== this.placeDt) {
      this.placeDt = dt
      this.placeDecay = Math.exp(-dt / (kind === 'cabin' ? 6 * 3600 : kind === 'engine' ? 3600 : 3 * 3600))
    }
    const towards = kind === 'engine' && around.engine !== 'off' ? Math.max(around.airC + 25, 45) : around.airC
    this.placeC = towards + (this.placeC - towards) * this.placeDecay
  }

  /** Loads and the inverter's demand at this hour, A at the last voltage; the heater besides. */
  private loadsNow(around: Surroundings, lastV: number): number {
    const { plant } = this
    const hour = (around.hour | 0) % 24
    const loads = around.loads ? plant.dcA[hour]! + (plant.acW[hour]! / plant.inverterEfficiency + plant.idleW[hour]!) / lastV : 0
    return loads + (this.lfp?.heating ? this.plant.lfp!.heater!.watts / lastV : 0) + (this.backFeedA * this.startScale) / this.scale
  }
  private solarMost(array: Plant['solar'][number], around: Surroundings, lastV: number): number {
    if (around.sunWm2 <= 1) return 0
    const sun = (around.sunWm2 / 1000) * (1 - array.shade)
    if (array.pwm) return Math.min(array.stages.maxA, array.impA * sun * array.derate)
    const cellC = around.airC + ((45 - 20) / 800) * around.sunWm2
    const watts = array.watts * sun * array.derate * 0.96 * (1 - 0.0035 * (cellC - 25))
    return Math.min(array.stages.maxA, Math.max(0, watts / lastV))
  }

  private machineNow(around: Surroundings): void {
    const machine = this.plant.alternator
    this.machineMostA = this.machineRpm = 0
    if (!machine || around.engine === 'off') return
    const rpm = around.engine === 'idle' ? machine.idleRpm : machine.cruiseRpm
    const fold = machine.foldsBack ? Math.min(1, Math.max(0.2, (caseLimitC - this.alternatorC) / 10)) : 1
    const most = Math.min(hotOutputA(machine.ratedA, rpm, machine.hotShare) * fold, machine.limitA)
    let regulated = machine.floatV !== null && this.regulatorFloats ? machine.floatV : machine.regulatorV
    if (machine.regulator === 'compensated') regulated -= 0.01 * (this.startScale) * Math.max(0, (this.alternatorC - 25) / 2)
    if (machine.regulator === 'computer' && machine.trace.length > 0) {
      let at = around.engineS % this.traceS
      for (const row of machine.trace) {
        if (at < row.minutes * 60) {
          regulated = row.volts
          break
        }
        at -= row.minutes * 60
      }
    }
    this.machineV = regulated
    this.machineMostA = most
    this.machineRpm = rpm
  }

  private dcdcMost(around: Surroundings): number {
    const { link } = this.plant
    if (link.kind !== 'dcdc') return 0
    const running = link.wire ? around.engine !== 'off' : this.startV > 13.2 * this.startScale || (this.dcdc!.amps > 0 && this.startV > 12.8 * this.startScale)
    if (!running) return 0
    if (this.dcdcStopped ? this.startV < link.lowestV + 0.6 : this.startV < link.lowestV) {
      if (!this.dcdcStopped) this.events.push({ t: this.t, kind: 'dcdc', words: `DC-DC stopped: its input fell to ${volts(this.startV)} V` })
      this.dcdcStopped = true
      return 0
    }
    this.dcdcStopped = false
    return link.stages.maxA * deratedShare(this.placeC)
  }

  /** Relay, solenoid, switch: whether it is closed in this step. */
  private switchLink(around: Surroundings, dt: number): void {
    const { link } = this.plant
    const before = this.linkClosed
    switch (link.kind) {
      case 'closed': case 'diode': this.linkClosed = true; break
      case 'solenoid': this.linkClosed = around.engine !== 'off'; break
      case 'vsr': {
        const seen = link.bothWay ? Math.max(this.startV, this.houseV) : this.startV
        if (this.linkClosed) {
          this.vsrS = seen < link.opensV ? this.vsrS + dt : 0
          if (this.vsrS >= 5) this.linkClosed = false
        } else {
          this.vsrS = seen > link.closesV ? this.vsrS + dt : 0
          if (this.vsrS >= link.delayS && seen > link.closesV) this.linkClosed = true
        }
        if (before !== this.linkClosed) this.vsrS = 0
        break
      }
      case 'duty':
        if (around.engine === 'off') {
          this.linkClosed = false
          this.dutyOpenS = 0
        } else if (this.linkClosed && this.linkA > link.opensAboveA) {
          this.linkClosed = false
          this.dutyOpenS = link.offS
        } else if (!this.linkClosed) {
          this.dutyOpenS -= dt
          if (this.dutyOpenS <= 0) this.linkClosed = true
        }
        break
      default: this.linkClosed = false
    }
    if (before !== this.linkClosed && (link.kind === 'vsr' || link.kind === 'solenoid')) this.events.push({ t: this.t, kind: 'relay', words: `${link.kind === 'vsr' ? 'Relay' : 'Solenoid'} ${this.linkClosed ? `closed at ${volts(this.startV)} V` : `opened at ${volts(this.startV)} V`}` })
  }

  // Of the closed link in hand: conductance, S, drop, V, and whether it blocks the way back.
  private linkSiemens = 0
  private linkDropV = 0
  private linkOneWay = false
  /** Current through the link from the starting to the house side, A. */
  private through(startV: number, houseV: number): number {
    const amps = (startV - houseV - this.linkDropV) * this.linkSiemens
    return amps < 0 && this.linkOneWay ? 0 : amps
  }

  /** Both sides with a closed link between them: voltages at which the currents at either bus sum to nought. */
  private solveJoined(ohm: number, dropV: number, oneWay: boolean): void {
    this.linkSiemens = 1 / Math.max(ohm, 0.0005)
    this.linkDropV = dropV
    this.linkOneWay = oneWay
    if (!this.solveTogether()) this.searchTogether()
    this.startJoined.v = this.newStartV
    this.linkA = this.through(this.newStartV, this.newHouseV)
    this.startV = this.newStartV
    this.houseV = this.newHouseV
  }
  private newStartV = 0
  private newHouseV = 0

  /**
   * Newton steps on both voltages at once, each side's slope found on the way (secant). Most solutions take two or
   * three; false where {@link mostTogether} do not end it, as at a kink.
   */
  private solveTogether(): boolean {
    let [v, w] = [this.startJoined.v, this.houseV]
    let [startSlope, houseSlope] = [this.startJoined.slope, this.houseSlope]
    let [intoStart, intoHouse] = [this.startOff(v), this.houseOff(w)]
    for (let i = 0; i < mostTogether; i++) {
      const amps = this.through(v, w)
      const startLeft = intoStart - amps
      const houseLeft = intoHouse + amps
      if (startLeft < toleranceA && startLeft > -toleranceA && houseLeft < toleranceA && houseLeft > -toleranceA) {
        this.newStartV = v
        this.newHouseV = w
        this.startJoined.slope = startSlope
        this.houseSlope = houseSlope
        this.houseLeftA = houseLeft
        return true
      }
      const siemens = amps === 0 && this.linkOneWay ? 0 : this.linkSiemens
      const [a, d] = [startSlope - siemens, houseSlope - siemens]
      const determinant = a * d - siemens * siemens
      const nextV = v + (houseLeft * siemens - startLeft * d) / determinant
      const nextW = w + (startLeft * siemens - houseLeft * a) / determinant
      if (!(nextV > 0 && nextV < 20 * this.startScale && nextW > 0 && nextW < 20 * this.scale)) return false
      const [nextStart, nextHouse] = [this.startOff(nextV), this.houseOff(nextW)]
      if (nextV !== v) startSlope = Math.min(-1e-4, (nextStart - intoStart) / (nextV - v))
      if (nextW !== w) houseSlope = Math.min(-1e-4, (nextHouse - intoHouse) / (nextW - w))
      v = nextV
      w = nextW
      intoStart = nextStart
      intoHouse = nextHouse
    }
    return false
  }

  /** The same by bracketed searches, one within the other: slower, and always ends. */
  private searchTogether(): void {
    this.newStartV = this.startJoined.v
    this.newHouseV = solveFalling(this.houseJoined, this.houseV, 0, 20 * this.scale, this.houseSlope - this.linkSiemens)
    this.houseLeftA = leftOverA
  }
  private triedHouseV = 0
  /** What is left at the house bus at a voltage, A, the starting side being where it then settles. Falls with the voltage. */
  private readonly houseJoined = (v: number): number => {
    this.triedHouseV = v
    this.newStartV = solveFalling(this.startJoint, this.newStartV, 0, 20 * this.startScale, this.startJoined.slope - this.linkSiemens)
    return this.houseOff(v) + this.through(this.newStartV, v)
  }
  private readonly startJoint = (v: number): number => this.startOff(v) - this.through(v, this.triedHouseV)

  /** Whether any source would charge if the battery let it. */
  private sourceWants(around: Surroundings): boolean {
    this.mainsThere = around.mains && this.chargers.length > 0
    this.engineThere = this.machineMostA > 0 && this.plant.link.kind !== 'none'
    this.sunThere = false
    for (const amps of this.solarMostA) if (amps > 0.5) this.sunThere = true
    return this.mainsThere || this.engineThere || this.sunThere
  }

  private regulatorFloats = false
  /** An external regulator goes to float when the house takes little at full voltage, and back when the bus has fallen. */
  private watchRegulator(around: Surroundings): void {
    const machine = this.plant.alternator!
    if (machine.floatV === null || around.engine === 'off') {
      this.regulatorFloats = false
      return
    }
    const house = this.plant.lfp?.ah ?? this.plant.houseLead?.c10 ?? 100
    if (!this.regulatorFloats && this.linkA < 0.05 * house && this.houseV > machine.regulatorV - 0.2) this.regulatorFloats = true
    else if (this.regulatorFloats && this.houseV < machine.floatV - 0.3) this.regulatorFloats = false
  }

  private account(dt: number, around: Surroundings, wantsCharge: boolean): void {
    const { plant } = this
    const h = dt / 3600
    const v = this.houseV
    let supply = 0
    this.mainsSumA = this.solarSumA = 0
    for (let i = 0; i < this.chargers.length; i++) {
      const { stages, efficiency, powerFactor, supplyV } = plant.chargers[i]!
      this.chargers[i]!.finish(v, stages.maxA, dt, around.mains)
      this.mainsSumA += this.chargers[i]!.amps
      if (this.chargers[i]!.amps > 0) supply += (this.chargers[i]!.amps * v) / (efficiency * powerFactor * supplyV)
    }
    if (supply > this.acSupplyA) this.acSupplyA = supply
    for (let i = 0; i < this.solar.length; i++) {
      this.solar[i]!.finish(v, this.solarMostA[i]!, dt, this.solarMostA[i]! > 0)
      this.solarSumA += this.solar[i]!.amps
    }
    this.sourceSumA = 0
    for (let i = 0; i < plant.sources.length; i++) {
      this.sourceA[i] = this.sourceOn[i] ? this.sourceAt(i, v) : 0
      this.sourceSumA += this.sourceA[i]!
      this.sourceAh[i]! += this.sourceA[i]! * h
    }
    this.dcdc?.finish(v, this.dcdcMostA, dt, this.dcdcMostA > 0)
    this.loadA = softened(this.loadsWantedA, v, this.darkV, this.scale)
    this.loadAh += this.loadA * h
    this.unservedAh += (this.loadsWantedA - this.loadA) * h
    const isDark = this.loadsWantedA > 0.05 && this.loadA < 0.5 * this.loadsWantedA
    if (isDark !== this.dark) this.events.push({ t: this.t, kind: 'dark', words: isDark ? 'The loads went off: nothing feeds the house' : 'The loads came on again' })
    this.dark = isDark
    if (this.lfp) {
      if (wantsCharge && this.lfp.refusesForCold) this.coldRefusedS += dt
      this.lfp.finish(v, dt, this.t, this.placeC, wantsCharge, this.events)
    }
    this.houseLead?.finish(v, dt)
    this.startLead?.finish(this.startV, dt)
    this.linkAh += this.linkA * h
    if (this.linkA < 0 && around.engine === 'off') this.backAh -= this.linkA * h
    const machine = plant.alternator
    if (machine) {
      this.alternatorA = this.machineMostA > 0 ? Math.min(Math.max(0, (this.machineV - this.startV) / 0.003), this.machineMostA) : 0
      const settles = this.machineRpm > 0 ? steadyCaseC(this.alternatorA, machine.ratedA, this.machineRpm, machine.ambientC, machine.heat) : this.placeC
      if (dt !== this.caseDt) {
        this.caseDt = dt
        this.caseDecay = Math.exp(-dt / (machine.heat.tauMin * 60))
      }
      this.alternatorC = settles + (this.alternatorC - settles) * this.caseDecay
      this.alternatorPeakC = Math.max(this.alternatorPeakC, this.alternatorC)
      const over = this.alternatorC > caseLimitC
      if (over) this.alternatorHotS += dt
      this.watchRegulator(around)
      if (over !== this.overLimit) this.events.push({ t: this.t, kind: 'alternator', words: over ? `Alternator passed ${caseLimitC} °C at ${Math.round(this.alternatorA)} A` : 'Alternator is below its limit again' })
      this.overLimit = over
    }
  }
}
