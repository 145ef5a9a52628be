import type { Simulation } from './engine'

/** What is drawn of a run, by name: label and unit. Currents into the house bus are positive, loads too. Yes and no are 1 and 0. */
export const channels = {
  soc: { label: 'Charge of the lithium', unit: '%' },
  leadSoc: { label: 'Charge of the house lead', unit: '%' },
  startSoc: { label: 'Charge of the starting battery', unit: '%' },
  engineA: { label: 'From the engine', unit: 'A' },
  mainsA: { label: 'From mains', unit: 'A' },
  solarA: { label: 'From the sun', unit: 'A' },
  sourceA: { label: 'From other sources', unit: 'A' },
  loadA: { label: 'Loads', unit: 'A' },
  lfpA: { label: 'Into the lithium', unit: 'A' },
  leadA: { label: 'Into the house lead', unit: 'A' },
  alternatorA: { label: 'Alternator gives', unit: 'A' },
  houseV: { label: 'House voltage', unit: 'V' },
  startV: { label: 'Starting side voltage', unit: 'V' },
  alternatorC: { label: 'Alternator case', unit: '°C' },
  cellC: { label: 'Cells', unit: '°C' },
  placeC: { label: 'Battery place', unit: '°C' },
  mainsThere: { label: 'Mains would charge', unit: '' },
  engineThere: { label: 'Engine would charge', unit: '' },
  sunThere: { label: 'Sun would charge', unit: '' },
  allowed: { label: 'The cells allow a charge', unit: '' },
} as const

/** Reads every channel in their order: one plain function, since it runs at every step. NaN for what a system does not have. */
function readAll(s: Simulation, out: Float64Array): void {
  const { lfp, houseLead, startLead, plant } = s
  out[0] = lfp ? lfp.soc * 100 : NaN
  out[1] = houseLead ? houseLead.soc * 100 : NaN
  out[2] = startLead ? startLead.soc * 100 : NaN
  out[3] = s.linkA + (s.dcdc ? s.dcdc.amps : 0)
  out[4] = s.mainsSumA
  out[5] = s.solarSumA
  out[6] = s.sourceSumA
  out[7] = s.loadA
  out[8] = lfp ? lfp.amps : NaN
  out[9] = houseLead ? houseLead.amps : NaN
  out[10] = plant.alternator ? s.alternatorA : NaN
  out[11] = s.houseV
  out[12] = plant.alternator || startLead ? s.startV : NaN
  out[13] = plant.alternator ? s.alternatorC : NaN
  out[14] = lfp ? lfp.tempC : NaN
  out[15] = s.placeC
  out[16] = s.mainsThere ? 1 : 0
  out[17] = s.engineThere ? 1 : 0
  out[18] = s.sunThere ? 1 : 0
  out[19] = lfp ? (lfp.chargeGate ? 1 : 0) : NaN
}

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
  private readonly now = new Float64Array(channelIds.length)
  private begun = 0
  /** Channels this plant has at all. */
  private readonly active: readonly number[]
  constructor(private readonly stretchS: number, simulation: Simulation) {
    readAll(simulation, this.now)
    this.active = channelIds.flatMap((_, i) => (Number.isNaN(this.now[i]!) ? [] : [i]))
    const n = channelIds.length
    this.least = new Float64Array(n).fill(Infinity)
    this.most = new Float64Array(n).fill(-Infinity)
    this.leastAt = new Float64Array(n)
    this.mostAt = new Float64Array(n)
  }

  take(simulation: Simulation): void {
    const { t } = simulation
    readAll(simulation, this.now)
    for (const i of this.active) {
      const value = this.now[i]!
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
