import type { Simulation } from './engine'

/** Summed in a plain loop: it runs at every step. */
function ampsOf(units: readonly { readonly amps: number }[]): number {
  let sum = 0
  for (const unit of units) sum += unit.amps
  return sum
}

/** What is drawn of a run, by name: label, unit and what it is read from. Currents into the house bus are positive, loads too. */
export const channels = {
  soc: { label: 'Charge of the lithium', unit: '%', read: (s: Simulation) => (s.lfp ? s.lfp.soc * 100 : NaN) },
  leadSoc: { label: 'Charge of the house lead', unit: '%', read: (s: Simulation) => (s.houseLead ? s.houseLead.soc * 100 : NaN) },
  startSoc: { label: 'Charge of the starting battery', unit: '%', read: (s: Simulation) => (s.startLead ? s.startLead.soc * 100 : NaN) },
  engineA: { label: 'From the engine', unit: 'A', read: (s: Simulation) => s.linkA + (s.dcdc?.amps ?? 0) },
  mainsA: { label: 'From mains', unit: 'A', read: (s: Simulation) => ampsOf(s.chargers) },
  solarA: { label: 'From the sun', unit: 'A', read: (s: Simulation) => ampsOf(s.solar) },
  sourceA: { label: 'From other sources', unit: 'A', read: (s: Simulation) => s.sourceSumA },
  loadA: { label: 'Loads', unit: 'A', read: (s: Simulation) => s.loadA },
  lfpA: { label: 'Into the lithium', unit: 'A', read: (s: Simulation) => s.lfp?.amps ?? NaN },
  leadA: { label: 'Into the house lead', unit: 'A', read: (s: Simulation) => s.houseLead?.amps ?? NaN },
  alternatorA: { label: 'Alternator gives', unit: 'A', read: (s: Simulation) => (s.plant.alternator ? s.alternatorA : NaN) },
  houseV: { label: 'House voltage', unit: 'V', read: (s: Simulation) => s.houseV },
  startV: { label: 'Starting side voltage', unit: 'V', read: (s: Simulation) => (s.plant.alternator || s.startLead ? s.startV : NaN) },
  alternatorC: { label: 'Alternator case', unit: '°C', read: (s: Simulation) => (s.plant.alternator ? s.alternatorC : NaN) },
  cellC: { label: 'Cells', unit: '°C', read: (s: Simulation) => s.lfp?.tempC ?? NaN },
  wanted: { label: 'A source would charge', unit: '', read: (s: Simulation) => (s.wantsCharge ? 1 : 0) },
  allowed: { label: 'The battery allows a charge', unit: '', read: (s: Simulation) => (s.lfp ? (s.lfp.chargeGate ? 1 : 0) : NaN) },
  placeC: { label: 'Battery place', unit: '°C', read: (s: Simulation) => s.placeC },
} as const
export type ChannelId = keyof typeof channels
export const channelIds = Object.keys(channels) as ChannelId[]

/** A series thinned for drawing: of each stretch its least and its most, in the order they came, so that no peak is lost. */
export interface Series {
  /** Seconds since the start. */
  readonly t: readonly number[]
  readonly values: Readonly<Partial<Record<ChannelId, readonly number[]>>>
}

/** Keeps a run in bounded memory, whatever its length. */
export class Recorder {
  private readonly t: number[] = []
  private readonly columns = channelIds.map((): number[] => [])
  private readonly least: Float64Array
  private readonly most: Float64Array
  private readonly leastAt: Float64Array
  private readonly mostAt: Float64Array
  private begun = 0
  /** Channels this plant has at all. */
  private readonly active: readonly number[]
  constructor(private readonly stretchS: number, simulation: Simulation) {
    this.active = channelIds.flatMap((_, i) => (Number.isNaN(readers[i]!(simulation)) ? [] : [i]))
    const n = channelIds.length
    this.least = new Float64Array(n).fill(Infinity)
    this.most = new Float64Array(n).fill(-Infinity)
    this.leastAt = new Float64Array(n)
    this.mostAt = new Float64Array(n)
  }

  take(simulation: Simulation): void {
    const { t } = simulation
    for (const i of this.active) {
      const value = readers[i]!(simulation)
      if (value < this.least[i]!) {
        this.least[i] = value
        this.leastAt[i] = t
      }
      if (value > this.most[i]!) {
        this.most[i] = value
        this.mostAt[i] = t
      }
    }
    if (t - this.begun >= this.stretchS) this.flush(t)
  }

  /** Ends a stretch: two points, in each channel its least and most in the order they came. */
  private flush(t: number): void {
    this.t.push(this.begun + (t - this.begun) / 2, t)
    this.columns.forEach((column, i) => {
      const [a, b] = this.leastAt[i]! <= this.mostAt[i]! ? [this.least[i]!, this.most[i]!] : [this.most[i]!, this.least[i]!]
      column.push(Number.isFinite(a) ? a : NaN, Number.isFinite(b) ? b : NaN)
      this.least[i] = Infinity
      this.most[i] = -Infinity
    })
    this.begun = t
  }

  series(): Series {
    const round = (value: number): number => Math.round(value * 1000) / 1000
    return { t: this.t, values: Object.fromEntries(channelIds.flatMap((id, i) => (this.columns[i]!.some(Number.isFinite) ? [[id, this.columns[i]!.map(round)]] : []))) }
  }
}
const readers = channelIds.map((id) => channels[id].read)
