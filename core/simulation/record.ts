import { elementAt } from '#core/collections/held'
import type { Simulation } from './simulation'

/**
 * Channels of a run, by name: label and unit. Currents into the house bus are positive, and loads too. Yes and no
 * are 1 and 0.
 */
export const channels = {
  soc: { label: 'Charge of the lithium', unit: '%' },
  leadSoc: { label: 'Charge of the house lead-acid', unit: '%' },
  startSoc: { label: 'Charge of the starting battery', unit: '%' },
  startSoc2: { label: 'Charge of the second starting battery', unit: '%' },
  engineA: { label: 'From the engine', unit: 'A' },
  mainsA: { label: 'From mains', unit: 'A' },
  solarA: { label: 'From the sun', unit: 'A' },
  sourceA: { label: 'From other sources', unit: 'A' },
  loadA: { label: 'Loads', unit: 'A' },
  lfpA: { label: 'Into the lithium', unit: 'A' },
  leadA: { label: 'Into the house lead-acid', unit: 'A' },
  alternatorA: { label: 'Alternator output', unit: 'A' },
  alternatorA2: { label: 'Second alternator output', unit: 'A' },
  houseV: { label: 'House voltage', unit: 'V' },
  startV: { label: 'Starting side voltage', unit: 'V' },
  startV2: { label: 'Second starting side voltage', unit: 'V' },
  alternatorC: { label: 'Alternator case', unit: '°C' },
  alternatorC2: { label: 'Second alternator case', unit: '°C' },
  cellC: { label: 'Cells', unit: '°C' },
  placeC: { label: 'Battery place', unit: '°C' },
  mainsThere: { label: 'Mains available', unit: '' },
  engineThere: { label: 'Engine available', unit: '' },
  sunThere: { label: 'Solar available', unit: '' },
  allowed: { label: 'Cells allow charging', unit: '' },
} as const

export type ChannelId = keyof typeof channels
export const channelIds = Object.keys(channels) as ChannelId[]

/** Place of a channel among all. */
const at = Object.fromEntries(channelIds.map((id, i) => [id, i])) as Readonly<Record<ChannelId, number>>

/**
 * Reads each channel into its place; NaN for channels that a system lacks. It is one function with plain loops,
 * because it runs after each step, and a function per channel took a fifth of the time of a run.
 */
function readAll(simulation: Simulation, into: Float64Array): void {
  const { lfp, houseLead, sides, chargers, solar, sources } = simulation
  const [first, second] = [sides[0], sides[1]]
  let engineA = 0
  for (const { linkA, dcdc } of sides) engineA += linkA + (dcdc ? dcdc.amps : 0)
  let mainsA = 0
  for (const { amps } of chargers) mainsA += amps
  let solarA = 0
  for (const { amps } of solar) solarA += amps
  let otherA = 0
  for (const { amps } of sources) otherA += amps

  into[at.soc] = lfp ? lfp.soc * 100 : NaN
  into[at.leadSoc] = houseLead ? houseLead.soc * 100 : NaN
  into[at.startSoc] = first?.lead ? first.lead.soc * 100 : NaN
  into[at.startSoc2] = second?.lead ? second.lead.soc * 100 : NaN
  into[at.engineA] = engineA
  into[at.mainsA] = mainsA
  into[at.solarA] = solarA
  into[at.sourceA] = otherA
  into[at.loadA] = simulation.loadA
  into[at.lfpA] = lfp ? lfp.amps : NaN
  into[at.leadA] = houseLead ? houseLead.amps : NaN
  into[at.alternatorA] = first?.alternator ? first.alternator.amps : NaN
  into[at.alternatorA2] = second?.alternator ? second.alternator.amps : NaN
  into[at.houseV] = simulation.houseV
  into[at.startV] = first ? first.v : NaN
  into[at.startV2] = second ? second.v : NaN
  into[at.alternatorC] = first?.alternator ? first.alternator.caseC : NaN
  into[at.alternatorC2] = second?.alternator ? second.alternator.caseC : NaN
  into[at.cellC] = lfp ? lfp.tempC : NaN
  into[at.placeC] = simulation.place.fromC
  into[at.mainsThere] = simulation.mainsThere ? 1 : 0
  into[at.engineThere] = simulation.engineThere ? 1 : 0
  into[at.sunThere] = simulation.sunThere ? 1 : 0
  into[at.allowed] = lfp ? (lfp.chargeGate ? 1 : 0) : NaN
}

/**
 * A series thinned for drawing: of each stretch its least and its most, in the order they came, so that no
 * peak is lost.
 */
export interface Series {
  /** Seconds since the start. */
  readonly t: readonly number[]
  readonly values: Readonly<Partial<Record<ChannelId, readonly number[]>>>
}

const rounded = (value: number): number => Math.round(value * 1000) / 1000

/**
 * Keeps a run in bounded memory, whatever its length. Time is cut into stretches; one in which the system was
 * looked at twice at most keeps those moments as they were, any other the least and the most of each channel.
 */
export class Recorder {
  private readonly t: number[] = []
  private readonly columns: readonly number[][]
  private readonly now: Float64Array
  /** Channels this plant has at all. */
  private readonly active: readonly number[]
  private readonly least: Float64Array
  private readonly most: Float64Array
  /** Which look of the stretch saw them first: two may come at one moment, where something jumps. */
  private readonly leastAt: Float64Array
  private readonly mostAt: Float64Array
  /** The first two moments of the stretch, whole. */
  private readonly moments: [Float64Array, Float64Array]
  private readonly momentT: [number, number] = [0, 0]
  private count = 0
  private stretch = 0

  constructor(
    private readonly stretchS: number,
    simulation: Simulation,
  ) {
    const n = channelIds.length
    this.columns = channelIds.map(() => [])
    this.now = new Float64Array(n).fill(NaN)
    readAll(simulation, this.now)
    this.active = channelIds.flatMap((_, i) => (Number.isNaN(elementAt(this.now, i)) ? [] : [i]))
    this.least = new Float64Array(n)
    this.most = new Float64Array(n)
    this.leastAt = new Float64Array(n)
    this.mostAt = new Float64Array(n)
    this.moments = [new Float64Array(n), new Float64Array(n)]
    this.begin()
  }

  private begin(): void {
    this.count = 0
    this.least.fill(Infinity)
    this.most.fill(-Infinity)
  }

  /** Takes the system unchanged now. */
  take(simulation: Simulation): void {
    const { t } = simulation
    const moment = this.count < 2 ? this.moments[this.count] : null
    if (moment) this.momentT[this.count] = t
    const { now, least, most, leastAt, mostAt } = this
    readAll(simulation, now)
    for (const i of this.active) {
      const value = elementAt(now, i)
      if (moment) moment[i] = value
      if (value < elementAt(least, i)) {
        least[i] = value
        leastAt[i] = this.count
      }
      if (value > elementAt(most, i)) {
        most[i] = value
        mostAt[i] = this.count
      }
    }
    this.count++
    // A moment at the very end of a stretch belongs to it.
    const stretch = Math.floor(t / this.stretchS + 1e-9)
    if (stretch > this.stretch) this.flush(t, stretch)
  }

  /** Ends a stretch: two points, the moments themselves or the least and the most in the order they came. */
  private flush(t: number, stretch: number): void {
    const begun = this.stretch * this.stretchS
    const few = this.count <= 2
    const times = few ? this.momentT.slice(0, this.count) : [(begun + t) / 2, t]
    this.t.push(...times)
    for (const i of this.active) {
      const pair =
        elementAt(this.leastAt, i) <= elementAt(this.mostAt, i)
          ? [elementAt(this.least, i), elementAt(this.most, i)]
          : [elementAt(this.most, i), elementAt(this.least, i)]
      const points = few ? this.moments.slice(0, this.count).map((moment) => elementAt(moment, i)) : pair
      elementAt(this.columns, i).push(...points)
    }
    this.stretch = stretch
    this.begin()
  }

  series(): Series {
    const shown = channelIds.flatMap((id, i) =>
      elementAt(this.columns, i).some(Number.isFinite) ? [[id, elementAt(this.columns, i).map(rounded)]] : [],
    )
    return { t: this.t, values: Object.fromEntries(shown) as Series['values'] }
  }
}
