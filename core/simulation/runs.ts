import { clearDays, type Weather } from '../weather/sun'
import { Simulation, type SimEvent, type Surroundings } from './engine'
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
  /** Seconds a step. */
  readonly dt: number
  readonly inputs: readonly (keyof RunInputs)[]
  readonly usual: (base: RunInputs) => Partial<RunInputs>
  readonly needsWeather?: true
  /** Ends before its days are over. */
  readonly until?: (simulation: Simulation) => boolean
}

const full = (s: Simulation): boolean => (s.lfp ? s.lfp.soc >= 0.995 : (s.houseLead?.soc ?? 1) >= 0.98)
const empty = (s: Simulation): boolean => (s.lfp ? s.lfp.soc <= 0.005 || !s.lfp.dischargeGate : (s.houseLead?.soc ?? 0) <= 0.05)

/** Every run, by name. */
export const runKinds = {
  'driving-day': { title: 'Driving day', about: 'From a low morning through the drive and the night at the mooring or camp.', dt: 10, inputs: ['soc', 'days', 'driveH', 'idleShare', 'driveFrom', 'coldC', 'warmC', 'clearness'], usual: () => ({ days: 1, mainsH: 0 }) },
  'standing-still': { title: 'Standing still', about: 'Days until it is flat, on the sun alone.', dt: 30, inputs: ['soc', 'days', 'clearness', 'dayOfYear', 'latitude', 'tilt', 'coldC', 'warmC'], usual: () => ({ soc: 1, days: 14, driveH: 0, mainsH: 0 }), until: empty },
  'mains-night': { title: 'Mains night', about: 'Hours to full on the mains charger, and what it draws from the supply.', dt: 10, inputs: ['soc', 'mainsFrom', 'coldC', 'warmC'], usual: () => ({ days: 1, driveH: 0, mainsH: 24, mainsFrom: 0, clearness: 0 }), until: full },
  'cold-morning': { title: 'Cold morning', about: 'Soaked at the coldest, then the first start: when the cells allow a charge.', dt: 10, inputs: ['soc', 'driveH', 'driveFrom', 'mainsH', 'mainsFrom', 'coldC', 'warmC'], usual: (base) => ({ days: 1, driveFrom: 7, warmC: base.coldC + 4, clearness: 0.3, dayOfYear: 15 }) },
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

const smallAh = 50

/** Seconds a step: that of the run, a third of a minute at most where the house battery is small and moves fast. */
export function stepOf(run: RunId, plant: Plant): number {
  const ah = Math.min(plant.lfp?.ah ?? Infinity, plant.houseLead?.c10 ?? Infinity)
  return Math.min(runKind(run).dt, ah < smallAh ? 20 : 60)
}

/**
 * Carries out a run. A generator, so that whoever runs it may show progress and stop: it yields the share done, 0 to 1,
 * every few thousand steps, and returns the result. Deterministic.
 * @param weather hours of sun and air; where none is given, clear days between the two temperatures
 * @param dt seconds a step, 1 to 60; {@link stepOf} where none is given
 */
export function* carryOut(run: RunId, plant: Plant, inputs: RunInputs, weather: Weather | null = null, dt = stepOf(run, plant)): Generator<number, RunResult, void> {
  const days = Math.min(366, Math.max(0.01, inputs.days))
  const seconds = Math.round((days * 86_400) / dt) * dt
  const sky = weather ?? clearDays({ dayMs: Date.UTC(2025, 0, 1) + (inputs.dayOfYear - 1) * 86_400_000 - Math.round(inputs.longitude / 15) * 3_600_000, days: Math.min(2, Math.ceil(days)), latitude: inputs.latitude, longitude: inputs.longitude, tiltDeg: inputs.tilt, clearness: inputs.clearness, meanC: (inputs.coldC + inputs.warmC) / 2, swingC: (inputs.warmC - inputs.coldC) / 2 })
  const startC = run === 'cold-morning' ? inputs.coldC : weather ? Math.max(plant.place.coldestC, sky.airC[0]!) : Math.max(inputs.coldC, Math.min(inputs.warmC, (inputs.coldC + inputs.warmC) / 2))
  const simulation = new Simulation(plant, { soc: inputs.soc, tempC: startC, leadSoc: Math.max(0.3, inputs.soc) })
  const recorder = new Recorder(Math.max(dt, seconds / stretches), simulation)
  const until = runKind(run).until
  let leastSoc = inputs.soc
  let fullAfterH: number | null = null
  let darkAfterH: number | null = null
  let limitMin: number | null = null
  let shortToday = false
  let daysShort = 0
  let cutOuts = 0
  const startSoc = simulation.lfp?.soc ?? 0
  const events: SimEvent[] = []
  const around: { -readonly [K in keyof Surroundings]: Surroundings[K] } = { hour: 0, engine: 'off', engineS: 0, mains: false, airC: startC, sunWm2: 0, loads: inputs.loads }
  const from = 6
  const span = (hour: number, begin: number, length: number): boolean => length >= 24 || (length > 0 && (hour >= begin ? hour < begin + length : hour + 24 < begin + length))
  const idleH = inputs.driveH * inputs.idleShare
  let steps = 0
  while (simulation.t < seconds - 1e-6) {
    const clock = from * 3600 + simulation.t
    const hour = (clock % 86_400) / 3600
    const at = weather ? Math.floor(simulation.t / 3600) % sky.airC.length : Math.floor(clock / 3600) % 24
    around.hour = hour
    // The survey knows how cold and hot the place gets, whatever the air outside does over a year.
    around.airC = weather ? Math.min(plant.place.hottestC, Math.max(plant.place.coldestC, sky.airC[at]!)) : sky.airC[at]!
    around.sunWm2 = sky.panelWm2[at]!
    const driving = span(hour, inputs.driveFrom, inputs.driveH)
    const sinceStart = (hour - inputs.driveFrom + 24) % 24
    around.engine = !driving ? 'off' : sinceStart < idleH ? 'idle' : 'cruise'
    around.engineS = driving ? sinceStart * 3600 : 0
    around.mains = span(hour, inputs.mainsFrom, inputs.mainsH)
    simulation.step(dt, around)
    recorder.take(simulation)
    const soc = simulation.lfp?.soc ?? simulation.houseLead?.soc ?? 0
    if (soc < leastSoc) leastSoc = soc
    const after = simulation.t / 3600
    if (fullAfterH === null && full(simulation)) fullAfterH = after
    if (simulation.events.length > 0) {
      for (const event of simulation.events) {
        if (events.length < mostEvents) events.push(event)
        if (event.kind === 'dark' && event.words.includes('went off')) {
          darkAfterH ??= after
          shortToday = true
        }
        if (event.kind === 'cut-out' && event.words.includes('cut out')) cutOuts++
        if (event.kind === 'alternator' && event.words.includes('passed')) limitMin ??= (simulation.t - Math.max(0, ((inputs.driveFrom - from + 24) % 24) * 3600)) / 60
      }
      simulation.events.length = 0
    }
    if (Math.floor((clock + dt) / 86_400) !== Math.floor(clock / 86_400)) {
      if (shortToday || simulation.unservedAh > 0 && simulation.loadA < 0.01 && inputs.loads) daysShort++
      shortToday = false
    }
    if (until?.(simulation)) break
    if (++steps % stepsBetweenReports === 0) yield simulation.t / seconds
  }
  const sum = (units: readonly { readonly ah: number }[]): number => units.reduce((all, unit) => all + unit.ah, 0)
  const [engineAh, mainsAh, solarAh] = [simulation.linkAh + (simulation.dcdc?.ah ?? 0), sum(simulation.chargers), sum(simulation.solar)]
  const sourceAh = simulation.sourceAh.reduce((a, b) => a + b, 0)
  const brought = engineAh + mainsAh + solarAh + sourceAh
  const net = (battery: { readonly inAh: number; readonly outAh: number } | null): number => (battery ? battery.inAh - battery.outAh : 0)
  const taken = simulation.loadAh + net(simulation.lfp) + net(simulation.houseLead)
  const through = Math.max(1, Math.abs(engineAh) + mainsAh + solarAh + sourceAh + simulation.loadAh)
  return {
    run, plant: plant.name, inputs, series: recorder.series(), events, assumed: [...plant.assumed, `Weather: ${sky.source}`],
    totals: {
      hours: simulation.t / 3600, loadAh: simulation.loadAh, unservedAh: simulation.unservedAh, engineAh, mainsAh, solarAh, sourceAh, backAh: simulation.backAh,
      endSoc: simulation.lfp?.soc ?? simulation.houseLead?.soc ?? 0, leastSoc, fullAfterH, darkAfterH,
      alternatorPeakC: plant.alternator ? simulation.alternatorPeakC : null, alternatorHotH: simulation.alternatorHotS / 3600, alternatorLimitMin: limitMin,
      coldRefusedH: simulation.coldRefusedS / 3600, heaterWh: simulation.lfp?.heaterWh ?? 0, leadGassingH: (simulation.houseLead?.gassingS ?? 0) / 3600,
      acSupplyA: simulation.acSupplyA, daysShort, cutOuts,
      residualA: simulation.worstResidualA, imbalance: Math.abs(brought - taken) / through + Math.abs(socMismatch(simulation, startSoc)) / through,
    },
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
