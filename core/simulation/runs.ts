import { clearDays, type Weather } from '#core/weather/sun'
import { hoursSince, Simulation, type SimEvent, type Surroundings } from './engine'
import type { Plant } from './plant'
import { Recorder, type Series } from './record'

/** What a run asks for; each has a default from the job. */
export interface RunInputs {
  /** State of charge at the start, 0 to 1. */
  readonly soc: number
  readonly days: number
  /** Hours the engine runs a day, of which a share at idle (0 to 1), and from which hour. */
  readonly driveH: number
  readonly idleShare: number
  readonly driveFrom: number
  /** Hours on mains a day, and from which hour. */
  readonly mainsH: number
  readonly mainsFrom: number
  /** Air at its coldest and warmest in the day, °C. */
  readonly coldC: number
  readonly warmC: number
  /** Share of clear-sky sun, 0 to 1, latitude and longitude in degrees, and day of the year. */
  readonly clearness: number
  readonly latitude: number
  readonly longitude: number
  readonly dayOfYear: number
  readonly tilt: number
  /** Whether the loads run. */
  readonly loads: boolean
}

interface RunKind {
  readonly title: string
  readonly about: string
  /** Seconds a step, and where a link switches many times an hour. */
  readonly dt: number
  readonly switchingDt?: number
  readonly inputs: readonly (keyof RunInputs)[]
  readonly usual: (base: RunInputs) => Partial<RunInputs>
  readonly needsWeather?: true
  /** Ends before its days are over. */
  readonly until?: (simulation: Simulation) => boolean
}

const full = (s: Simulation): boolean => (s.lfp ? s.lfp.soc >= 0.995 : (s.houseLead?.soc ?? 1) >= 0.98)
const empty = (s: Simulation): boolean => (s.lfp ? s.lfp.soc <= 0.005 || !s.lfp.dischargeGate : (s.houseLead?.soc ?? 0) <= 0.05)

/** Air on a mild night, °C: what cold does to a charge is asked of the cold morning. */
const mildC = 12

/** Every run, by name. */
export const runKinds = {
  'driving-day': { title: 'Driving day', about: 'From a low morning through the drive and the night at the mooring or camp.', dt: 30, switchingDt: 10, inputs: ['soc', 'days', 'driveH', 'idleShare', 'driveFrom', 'mainsH', 'mainsFrom', 'coldC', 'warmC', 'clearness'], usual: () => ({ days: 1, mainsH: 0 }) },
  'standing-still': { title: 'Standing still', about: 'Days until it is flat, on the sun alone.', dt: 30, inputs: ['soc', 'days', 'clearness', 'dayOfYear', 'latitude', 'tilt', 'coldC', 'warmC'], usual: () => ({ soc: 1, days: 14, driveH: 0, mainsH: 0 }), until: empty },
  'mains-night': { title: 'Mains night', about: 'Hours to full on the mains charger, and what it draws from the supply.', dt: 30, switchingDt: 10, inputs: ['soc', 'mainsFrom', 'coldC', 'warmC'], usual: (base) => ({ days: 1, driveH: 0, mainsH: 24, mainsFrom: 0, clearness: 0, coldC: Math.max(mildC, base.coldC), warmC: Math.max(mildC, base.warmC) }), until: full },
  'cold-morning': { title: 'Cold morning or week', about: 'Soaked at the coldest, then the first start: when a source would charge, and when the cells allow it.', dt: 30, switchingDt: 10, inputs: ['soc', 'days', 'driveH', 'driveFrom', 'mainsH', 'mainsFrom', 'coldC', 'warmC', 'clearness'], usual: (base) => ({ days: 1, driveFrom: 7, warmC: base.coldC + 4, clearness: 0.3, dayOfYear: 15 }) },
  'lay-up': { title: 'Lay-up', about: 'Weeks of standby, nothing charging.', dt: 60, inputs: ['soc', 'days', 'coldC', 'warmC'], usual: () => ({ soc: 0.6, days: 180, driveH: 0, mainsH: 0, clearness: 0, loads: false }), until: empty },
  'typical-year': { title: 'Typical year', about: 'A year of weather: days short of energy, hours refused for cold.', dt: 60, inputs: ['soc', 'driveH', 'mainsH', 'tilt'], usual: () => ({ soc: 0.8, days: 365 }), needsWeather: true },
} as const satisfies Record<string, RunKind>
export type RunId = keyof typeof runKinds
export const runIds = Object.keys(runKinds) as RunId[]
export const runKind = (id: RunId): RunKind => runKinds[id]

export interface Totals {
  readonly hours: number
  readonly loadAh: number
  readonly unservedAh: number
  readonly engineAh: number
  readonly mainsAh: number
  readonly solarAh: number
  readonly sourceAh: number
  /** Charge that ran from the house to the starting side with the engine off, Ah. */
  readonly backAh: number
  readonly endSoc: number
  readonly leastSoc: number
  /** Hours until it was full for the first time; null where it never was. */
  readonly fullAfterH: number | null
  /** Hours until the loads went off for the first time; null where they never did. */
  readonly darkAfterH: number | null
  readonly alternatorPeakC: number | null
  readonly alternatorHotH: number
  /** Minutes until the alternator passed its limit; null where it never did. */
  readonly alternatorLimitMin: number | null
  readonly coldRefusedH: number
  readonly heaterWh: number
  readonly leadGassingH: number
  /** What the house lead lost inside, Ah: a weak one drains what is joined to it. */
  readonly leadLostAh: number
  readonly acSupplyA: number
  readonly daysShort: number
  readonly cutOuts: number
  /** Largest sum of currents at the house bus that was not nought, A; and what is missing in the balance of charge, share. */
  readonly residualA: number
  readonly imbalance: number
}

export interface RunResult {
  readonly run: RunId
  readonly plant: string
  readonly inputs: RunInputs
  readonly series: Series
  readonly events: readonly SimEvent[]
  readonly totals: Totals
  readonly assumed: readonly string[]
}

const mostEvents = 400
const stretches = 700
const stepsBetweenReports = 4000

/** Inputs of a run as they come from the job. */
export const usualInputs = (run: RunId, base: RunInputs): RunInputs => ({ ...base, ...runKind(run).usual(base) })

/** What runs at each minute of a day: the engine (0 off, 1 at idle, 2 at cruise) and mains. */
function dayPlan({ driveFrom, driveH, idleShare, mainsFrom, mainsH }: RunInputs): { readonly engine: Uint8Array; readonly mains: Uint8Array } {
  return {
    engine: new Uint8Array(1440).map((_, minute) => (hoursSince(driveFrom, minute / 60) >= driveH ? 0 : hoursSince(driveFrom, minute / 60) < driveH * idleShare ? 1 : 2)),
    mains: new Uint8Array(1440).map((_, minute) => (hoursSince(mainsFrom, minute / 60) < mainsH ? 1 : 0)),
  }
}

const smallAh = 50

/** Seconds a step: that of the run; less where the house battery is small and moves fast, or a link switches many times an hour. */
export function stepOf(run: RunId, plant: Plant): number {
  const ah = Math.min(plant.lfp?.ah ?? Infinity, plant.houseLead?.c10 ?? Infinity)
  const switches = plant.link.kind === 'duty' || plant.link.kind === 'vsr'
  const { dt, switchingDt = dt } = runKind(run)
  return Math.min(switches ? switchingDt : dt, ah < smallAh ? 20 : 60)
}

/**
 * Carries out a run. A generator, so that whoever runs it may show progress and stop: it yields the share done, 0 to 1,
 * every few thousand steps, and returns the result. Deterministic.
 * @param weather hours of sun and air; where none is given, clear days between the two temperatures
 * @param dt seconds a step, 1 to 60; {@link stepOf} where none is given
 */
export function* carryOut(run: RunId, plant: Plant, inputs: RunInputs, weather: Weather | null = null, dt = stepOf(run, plant)): Generator<number, RunResult, void> {
  const course = new Course(run, plant, inputs, weather, dt, true)
  while (course.goOn(stepsBetweenReports)) yield course.share
  return course.result()
}

/** The hour at which every run begins: morning. */
export const beginsAt = 6

/** Length of a stretch of the record of a run, s: where it is hours, a whole share of a day, so that each day has its own least and most. */
function stretchOf(seconds: number): number {
  const even = seconds / stretches
  return even < 3600 ? even : 86_400 / Math.ceil(86_400 / even)
}

/** A run on its way. Its loop is a plain method, which the machine makes fast as it never would a generator. */
class Course {
  private readonly simulation: Simulation
  private readonly recorder: Recorder | null
  private readonly sky: Weather
  private readonly seconds: number
  private readonly day: ReturnType<typeof dayPlan>
  private readonly until: ((simulation: Simulation) => boolean) | undefined
  private readonly startSoc: number
  private readonly around: { -readonly [K in keyof Surroundings]: Surroundings[K] }
  private readonly events: SimEvent[] = []
  private leastSoc: number
  private fullAfterH: number | null = null
  private darkAfterH: number | null = null
  private limitMin: number | null = null
  private shortToday = false
  private daysShort = 0
  private cutOuts = 0

  constructor(private readonly run: RunId, private readonly plant: Plant, private readonly inputs: RunInputs, private readonly weather: Weather | null, private readonly dt: number, recorded: boolean) {
    const days = Math.min(366, Math.max(0.01, inputs.days))
    const meanC = (inputs.coldC + inputs.warmC) / 2
    const { latitude, longitude } = inputs
    this.seconds = Math.round((days * 86_400) / dt) * dt
    this.sky = weather ?? clearDays({
      dayMs: Date.UTC(2025, 0, 1) + (inputs.dayOfYear - 1) * 86_400_000 - Math.round(longitude / 15) * 3_600_000, days: 1, latitude, longitude, tiltDeg: inputs.tilt,
      clearness: inputs.clearness, meanC, swingC: (inputs.warmC - inputs.coldC) / 2,
    })
    const startC = run === 'cold-morning' ? inputs.coldC : weather ? Math.max(plant.place.coldestC, weather.airC[beginsAt]!) : meanC
    this.simulation = new Simulation(plant, { soc: inputs.soc, tempC: startC, leadSoc: Math.max(0.3, inputs.soc) })
    this.recorder = recorded ? new Recorder(Math.max(dt, stretchOf(this.seconds)), this.simulation) : null
    this.day = dayPlan(inputs)
    this.until = runKind(run).until
    this.leastSoc = inputs.soc
    this.startSoc = this.simulation.lfp?.soc ?? 0
    this.around = { hour: 0, engine: 'off', engineS: 0, mains: false, airC: startC, sunWm2: 0, loads: inputs.loads }
  }

  /** Share of the run that is done, 0 to 1. */
  get share(): number { return this.simulation.t / this.seconds }

  /** Goes on by so many steps; false when the run is over. */
  goOn(steps: number): boolean {
    const { simulation, recorder, around, dt, seconds } = this
    for (let n = 0; n < steps; n++) {
      if (simulation.t >= seconds - 1e-6) return false
      const inDay = this.lookAround(beginsAt * 3600 + simulation.t)
      simulation.step(dt, around)
      recorder?.take(simulation)
      const soc = simulation.lfp ? simulation.lfp.soc : simulation.houseLead ? simulation.houseLead.soc : 0
      if (soc < this.leastSoc) this.leastSoc = soc
      if (this.fullAfterH === null && full(simulation)) this.fullAfterH = simulation.t / 3600
      if (simulation.events.length > 0) this.note()
      if (inDay + dt >= 86_400) {
        if (this.shortToday || (this.inputs.loads && simulation.unservedAh > 0 && simulation.loadA < 0.01)) this.daysShort++
        this.shortToday = false
      }
      if (this.until?.(simulation)) return false
    }
    return true
  }

  /** Sets what is around at so many seconds since the first midnight; gives those since the last. */
  private lookAround(clock: number): number {
    const { around, day, sky, plant } = this
    // Whole numbers are cut off with |: the remainder of fractions is a slow call, once a step.
    const inDay = clock - ((clock / 86_400) | 0) * 86_400
    const at = ((clock / 3600) | 0) % sky.airC.length
    const airC = sky.airC[at]!
    const minute = (inDay / 60) | 0
    const engine = day.engine[minute]!
    around.hour = inDay / 3600
    // The survey knows how cold and hot the place gets, whatever the air outside does over a year.
    around.airC = this.weather ? Math.min(plant.place.hottestC, Math.max(plant.place.coldestC, airC)) : airC
    around.sunWm2 = sky.panelWm2[at]!
    around.engine = engine === 0 ? 'off' : engine === 1 ? 'idle' : 'cruise'
    around.engineS = engine === 0 ? 0 : hoursSince(this.inputs.driveFrom, around.hour) * 3600
    around.mains = day.mains[minute] === 1
    return inDay
  }

  /** Takes over what happened, and counts what is counted. */
  private note(): void {
    const { simulation } = this
    for (const event of simulation.events) {
      if (this.events.length < mostEvents) this.events.push(event)
      if (event.kind === 'dark' && event.words.includes('went off')) {
        this.darkAfterH ??= event.t / 3600
        this.shortToday = true
      }
      if (event.kind === 'cut-out' && event.words.includes('cut out')) this.cutOuts++
      if (event.kind === 'alternator' && event.words.includes('passed')) this.limitMin ??= (event.t - hoursSince(beginsAt, this.inputs.driveFrom) * 3600) / 60
    }
    simulation.events.length = 0
  }

  result(): RunResult {
    return { run: this.run, plant: this.plant.name, inputs: this.inputs, series: this.recorder!.series(), events: this.events, assumed: [...this.plant.assumed, `Weather: ${this.sky.source}`], totals: this.totals() }
  }

  totals(): Totals {
    const { simulation, plant } = this
    const sum = (units: readonly { readonly ah: number }[]): number => units.reduce((all, unit) => all + unit.ah, 0)
    const net = (battery: { readonly inAh: number; readonly outAh: number } | null): number => (battery ? battery.inAh - battery.outAh : 0)
    const [engineAh, mainsAh, solarAh] = [simulation.linkAh + (simulation.dcdc?.ah ?? 0), sum(simulation.chargers), sum(simulation.solar)]
    const sourceAh = simulation.sourceAh.reduce((a, b) => a + b, 0)
    const brought = engineAh + mainsAh + solarAh + sourceAh
    const taken = simulation.loadAh + net(simulation.lfp) + net(simulation.houseLead)
    const through = Math.max(1, Math.abs(engineAh) + mainsAh + solarAh + sourceAh + simulation.loadAh)
    return {
      hours: simulation.t / 3600, loadAh: simulation.loadAh, unservedAh: simulation.unservedAh, engineAh, mainsAh, solarAh, sourceAh, backAh: simulation.backAh,
      endSoc: simulation.lfp?.soc ?? simulation.houseLead?.soc ?? 0, leastSoc: this.leastSoc, fullAfterH: this.fullAfterH, darkAfterH: this.darkAfterH,
      alternatorPeakC: plant.alternator ? simulation.alternatorPeakC : null, alternatorHotH: simulation.alternatorHotS / 3600, alternatorLimitMin: this.limitMin,
      coldRefusedH: simulation.coldRefusedS / 3600, heaterWh: simulation.lfp?.heaterWh ?? 0, leadGassingH: (simulation.houseLead?.gassingS ?? 0) / 3600, leadLostAh: simulation.houseLead?.ownAh ?? 0,
      acSupplyA: simulation.acSupplyA, daysShort: this.daysShort, cutOuts: this.cutOuts,
      residualA: simulation.worstResidualA, imbalance: (Math.abs(brought - taken) + Math.abs(socMismatch(simulation, this.startSoc))) / through,
    }
  }
}

/** What the lithium says it holds against what went through its terminals, Ah. */
function socMismatch(simulation: Simulation, startSoc: number): number {
  const { lfp } = simulation
  if (!lfp) return 0
  return (lfp.soc - startSoc) * lfp.plant.ah - (lfp.inAh * 0.995 - lfp.outAh - lfp.ownAh - lfp.spiltAh)
}

/** Carries a run out to its end at once. */
export function runNow(run: RunId, plant: Plant, inputs: RunInputs, weather: Weather | null = null, dt?: number): RunResult {
  const going = carryOut(run, plant, inputs, weather, dt)
  for (;;) {
    const { done, value } = going.next()
    if (done) return value
  }
}

/** The totals of a run carried out to its end at once, without its series: what checks and the solver ask. The same run as {@link runNow}. */
export function totalsOf(run: RunId, plant: Plant, inputs: RunInputs, weather: Weather | null = null, dt = stepOf(run, plant)): Totals {
  const course = new Course(run, plant, inputs, weather, dt, false)
  while (course.goOn(stepsBetweenReports)) { /* on to the end */ }
  return course.totals()
}
