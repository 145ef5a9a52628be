import { elementAt, present } from '#core/collections/held'
import { coulombicEfficiency, fullSoc } from '#core/physics/lfp'
import { Unsolvable } from '#core/physics/unsolvable'
import { atOnce } from '#core/system/stepwise'
import { clearDays, type Weather } from '#core/weather/sun'
import { averageYear } from '#core/weather/average-year'
import { Course } from './course'
import { deviceOf, type SimEvent } from './events'
import { Trigger } from './model/trigger'
import type { Plant } from './plant'
import { Recorder, type Series } from './record'
import { beginsAt, runKind, type RunId, type RunInputs } from './run-kinds'
import { longPace, usualPace, type Pace } from './pace'
import { Refusals } from './refusals'
import { Simulation } from './simulation'
import { hoursSince } from './surroundings'
import { broughtAhOf, type MachineTotals, type Totals } from './totals'

export interface RunResult {
  readonly run: RunId
  readonly plant: string
  readonly inputs: RunInputs
  readonly series: Series
  readonly events: readonly SimEvent[]
  readonly totals: Totals
  readonly assumed: readonly string[]
}

/** Of each kind of event, on each side, so many are kept. */
const mostOfAKind = 400
/** Steps after which a run is given up: a year of a system that chatters takes half a million. */
const mostSteps = 2_000_000
const stretches = 700
const stepsBetweenReports = 1000
/** Charge at which lead counts as full, and at which a battery counts as empty. */
const fullLead = 0.98
const emptyLfp = 0.005
const emptyLead = 0.05

/**
 * Calculates a run. A generator, so that the caller can show progress and stop: it yields the share
 * done, 0 to 1, every thousand steps, and returns the result. Deterministic.
 * @param weather hours of sun and air; where none is given, clear days between the two temperatures, or for a year
 * the averages of its months
 */
export function* carryOut(
  run: RunId,
  plant: Plant,
  inputs: RunInputs,
  weather: Weather | null = null,
  pace: Pace = paceOf(run),
): Generator<number, RunResult, void> {
  const going = new RunInProgress(run, plant, inputs, weather, pace, true)
  while (going.goOn()) yield going.share
  return going.result()
}

/** How finely a run is stepped. */
const paceOf = (run: RunId): Pace => (runKind(run).needsWeather ? longPace : usualPace)

/**
 * Length of a stretch of the record of a run, s: where it is hours, a whole share of a day, so that each day
 * has its own least and most.
 */
function stretchOf(seconds: number): number {
  const even = seconds / stretches
  return even < 3600 ? even : 86_400 / Math.ceil(86_400 / even)
}

/** A run on its way. */
class RunInProgress {
  private readonly simulation: Simulation
  private readonly recorder: Recorder | null
  private readonly course: Course
  private readonly sky: Weather
  private readonly seconds: number
  private readonly startSoc: number
  private readonly events: SimEvent[] = []
  /** Events by device, also those that were too many to keep. */
  private readonly kept = new Map<string, number>()
  private readonly refusals: Refusals | null
  private leastSoc: number
  private fullAfterH: number | null = null
  private darkAfterH: number | null = null
  /** Minutes of driving until each alternator passed its limit, by its side. */
  private readonly limitMin = new Map<string, number>()
  private shortToday = false
  private daysShort = 0
  private cutOuts = 0
  private ended = false

  constructor(
    private readonly run: RunId,
    private readonly plant: Plant,
    private readonly inputs: RunInputs,
    weather: Weather | null,
    pace: Pace,
    recorded: boolean,
    private readonly most = mostSteps,
  ) {
    this.seconds = Math.round(Math.min(366, Math.max(0.01, inputs.days)) * 86_400)
    const known = weather ?? (runKind(run).needsWeather ? averageYear(inputs) : null)
    this.sky = known ?? clearSky(inputs)
    this.course = new Course(inputs, plant, this.sky, known !== null)
    const meanC = (inputs.coldC + inputs.warmC) / 2
    const tempC =
      run === 'cold-week'
        ? inputs.coldC
        : known
          ? Math.max(plant.place.coldestC, elementAt(known.airC, beginsAt))
          : meanC
    this.simulation = new Simulation(
      plant,
      { soc: inputs.soc, tempC, leadSoc: Math.max(0.3, inputs.soc) },
      pace,
    )
    this.simulation.watch(this.fullness())
    if (runKind(run).until === 'empty') this.simulation.watch(this.emptiness())
    this.refusals = recorded ? new Refusals() : null
    this.recorder = recorded ? new Recorder(stretchOf(this.seconds), this.simulation) : null
    this.leastSoc = inputs.soc
    this.startSoc = this.simulation.lfp?.soc ?? 0
  }

  /** The first time the house battery is full. */
  private fullness(): Trigger {
    const { lfp, houseLead } = this.simulation
    const above = (): number => (lfp ? lfp.endSoc - fullSoc : (houseLead?.endSoc ?? 0) - fullLead) + 1e-9
    return new Trigger(
      () => (this.fullAfterH === null ? above() : -1),
      () => {
        this.fullAfterH = this.simulation.t / 3600
        if (runKind(this.run).until === 'full') this.ended = true
      },
    )
  }
  private emptiness(): Trigger {
    const { lfp, houseLead } = this.simulation
    const below = (): number =>
      (lfp ? (lfp.dischargeGate ? emptyLfp - lfp.endSoc : 1) : emptyLead - (houseLead?.endSoc ?? 0)) + 1e-9
    return new Trigger(
      () => (this.ended ? -1 : below()),
      () => {
        this.ended = true
      },
    )
  }

  /** Share of the run that is done, 0 to 1. */
  get share(): number {
    return this.simulation.t / this.seconds
  }

  /** Goes on by some steps; false when the run is over. */
  goOn(): boolean {
    const { simulation, seconds } = this
    const begun = simulation.steps
    if (begun > this.most) throw new Unsolvable('the run does not come to its end')
    while (simulation.steps - begun < stepsBetweenReports) {
      if (this.ended || simulation.t >= seconds - 1e-6) return false
      const { around, untilS } = this.course.next(simulation.t)
      simulation.advance(Math.min(untilS, seconds) - simulation.t, around, this.afterStep)
      this.endOfDay()
    }
    return true
  }

  /** Looks at the system at the end of a step; true once the run is over. */
  private readonly afterStep = (): boolean => {
    const { simulation } = this
    this.recorder?.take(simulation)
    this.refusals?.take(simulation)
    const soc = simulation.lfp?.soc ?? simulation.houseLead?.soc ?? 0
    if (soc < this.leastSoc) this.leastSoc = soc
    if (simulation.events.length > 0) this.note()
    return this.ended
  }

  /** At midnight it is counted whether the day was short of energy. */
  private endOfDay(): void {
    const { simulation, inputs } = this
    const inDay = (beginsAt * 3600 + simulation.t) % 86_400
    if (inDay > 1e-3 && inDay < 86_400 - 1e-3) return
    if (this.shortToday || (inputs.loads && simulation.unservedAh > 0 && simulation.loadA < 0.01))
      this.daysShort++
    this.shortToday = false
  }

  /** Keeps an event: a relay that chatters leaves room for other kinds. */
  private keep(event: SimEvent): void {
    const device = deviceOf(event)
    const count = this.kept.get(device) ?? 0
    this.kept.set(device, count + 1)
    if (count < mostOfAKind) this.events.push(event)
  }

  /** Records events and updates totals. */
  private note(): void {
    const { simulation } = this
    for (const event of simulation.events) {
      this.keep(event)
      if (event.kind === 'dark' && event.dark) {
        this.darkAfterH ??= event.t / 3600
        this.shortToday = true
      }
      if (event.kind === 'cut-out' && event.out) this.cutOuts++
      if (event.kind === 'alternator' && event.over && !this.limitMin.has(present(event.side)))
        this.limitMin.set(present(event.side), this.drivenMin(event.t))
    }
    simulation.events.length = 0
  }

  /** Minutes of driving until a moment of the run, without the time between drives. */
  private drivenMin(t: number): number {
    const { driveFrom, driveH } = this.inputs
    const sinceFirst = t / 3600 - hoursSince(beginsAt, driveFrom)
    const days = Math.floor(sinceFirst / 24)
    return (days * driveH + Math.min(driveH, sinceFirst - days * 24)) * 60
  }

  result(): RunResult {
    return {
      run: this.run,
      plant: this.plant.name,
      inputs: this.inputs,
      series: present(this.recorder).series(),
      totals: this.totals(),
      events: [...this.events, ...present(this.refusals).events()].sort((a, b) => a.t - b.t),
      assumed: [...this.plant.assumed, `Weather: ${this.sky.source}`],
    }
  }

  private machines(): MachineTotals[] {
    return this.simulation.sides.flatMap(({ plant: { id }, alternator }): MachineTotals[] => {
      if (!alternator) return []
      const { peakC, hotS } = alternator
      const limitMin = this.limitMin.get(id) ?? null
      return [{ side: id, peakC: Number.isNaN(peakC) ? null : peakC, hotH: hotS / 3600, limitMin }]
    })
  }

  totals(): Totals {
    const { simulation } = this
    const { sides, lfp, houseLead } = simulation
    const machines = this.machines()
    const sum = (values: readonly number[]): number => values.reduce((all, value) => all + value, 0)
    const engineAh = sum(sides.map(({ linkAh, dcdc }) => linkAh + (dcdc?.ah ?? 0)))
    const [mainsAh, solarAh, sourceAh] = [simulation.chargers, simulation.solar, simulation.sources].map(
      (units) => sum(units.map(({ ah }) => ah)),
    ) as [number, number, number]
    return {
      hours: simulation.t / 3600,
      loadAh: simulation.loadAh,
      unservedAh: simulation.unservedAh,
      engineAh,
      mainsAh,
      solarAh,
      sourceAh,
      backAh: sum(sides.map(({ backAh }) => backAh)),
      endSoc: lfp?.soc ?? houseLead?.soc ?? 0,
      leastSoc: this.leastSoc,
      fullAfterH: this.fullAfterH,
      darkAfterH: this.darkAfterH,
      alternatorPeakC: highestOf(machines.flatMap(({ peakC }) => peakC ?? [])),
      alternatorHotH: Math.max(0, ...machines.map(({ hotH }) => hotH)),
      alternatorLimitMin: firstOf(this.limitMin.values()),
      machines,
      coldRefusedH: simulation.coldRefusedS / 3600,
      coldChargedAh: lfp?.coldAh ?? 0,
      heaterWh: lfp?.heaterWh ?? 0,
      leadGassingH: (houseLead?.gassingS ?? 0) / 3600,
      leadLostAh: houseLead?.ownAh ?? 0,
      acSupplyA: simulation.acSupplyA,
      daysShort: this.daysShort,
      cutOuts: this.cutOuts,
      residualA: simulation.worstResidualA,
      imbalance: this.imbalance(broughtAhOf({ engineAh, mainsAh, solarAh, sourceAh })),
    }
  }

  /**
   * The error in the balance of charge: of the bus, and of the charge that the lithium reports; as a share of the
   * total charge.
   */
  private imbalance(broughtAh: number): number {
    const { lfp, houseLead, loadAh } = this.simulation
    const net = (battery: { readonly inAh: number; readonly outAh: number } | null): number =>
      battery ? battery.inAh - battery.outAh : 0
    const missing = Math.abs(broughtAh - loadAh - net(lfp) - net(houseLead))
    const held = lfp
      ? (lfp.soc - this.startSoc) * lfp.plant.ah -
        (lfp.inAh * coulombicEfficiency - lfp.outAh - lfp.ownAh - lfp.spiltAh)
      : 0
    return (missing + Math.abs(held)) / Math.max(1, Math.abs(broughtAh) + loadAh)
  }
}

const firstOf = (values: Iterable<number>): number | null => {
  const [first] = values
  return first ?? null
}

const highestOf = (values: readonly number[]): number | null =>
  values.length > 0 ? Math.max(...values) : null

/** Clear days between the two temperatures of the inputs. */
const clearSky = ({ coldC, warmC, latitude, longitude, dayOfYear, tilt, clearness }: RunInputs): Weather =>
  clearDays({
    dayMs: Date.UTC(2025, 0, 1) + (dayOfYear - 1) * 86_400_000 - Math.round(longitude / 15) * 3_600_000,
    days: 1,
    latitude,
    longitude,
    tiltDeg: tilt,
    clearness,
    meanC: (coldC + warmC) / 2,
    swingC: (warmC - coldC) / 2,
  })

/** Calculates a run to its end without yielding. */
export function runNow(
  run: RunId,
  plant: Plant,
  inputs: RunInputs,
  weather: Weather | null = null,
  pace?: Pace,
): RunResult {
  return atOnce(carryOut(run, plant, inputs, weather, pace))
}

/**
 * The totals of a run, without its series, for checks and the solver. The same run as {@link runNow}.
 * @param most steps after which it stops
 * @throws Unsolvable if it does not reach its end
 */
export function totalsOf(
  run: RunId,
  plant: Plant,
  inputs: RunInputs,
  weather: Weather | null = null,
  pace: Pace = paceOf(run),
  most = mostSteps,
): Totals {
  const going = new RunInProgress(run, plant, inputs, weather, pace, false, most)
  while (going.goOn()) {
    /* on to the end */
  }
  return going.totals()
}
