import type { Simulation } from './simulation'

/**
 * What is drawn of a run, by name: label and unit. Currents into the house bus are positive, loads too. Yes
 * and no are 1 and 0.
 */
export const channels = {
  soc: { label: 'Charge of the lithium', unit: '%' },
  leadSoc: { label: 'Charge of the house lead', unit: '%' },
  startSoc: { label: 'Charge of the starting battery', unit: '%' },
  startSoc2: { label: 'Charge of the second starting battery', unit: '%' },
  engineA: { label: 'From the engine', unit: 'A' },
  mainsA: { label: 'From mains', unit: 'A' },
  solarA: { label: 'From the sun', unit: 'A' },
  sourceA: { label: 'From other sources', unit: 'A' },
  loadA: { label: 'Loads', unit: 'A' },
  lfpA: { label: 'Into the lithium', unit: 'A' },
  leadA: { label: 'Into the house lead', unit: 'A' },
  alternatorA: { label: 'Alternator gives', unit: 'A' },
  alternatorA2: { label: 'Second alternator gives', unit: 'A' },
  houseV: { label: 'House voltage', unit: 'V' },
  startV: { label: 'Starting side voltage', unit: 'V' },
  startV2: { label: 'Second starting side voltage', unit: 'V' },
  alternatorC: { label: 'Alternator case', unit: '°C' },
  alternatorC2: { label: 'Second alternator case', unit: '°C' },
  cellC: { label: 'Cells', unit: '°C' },
  placeC: { label: 'Battery place', unit: '°C' },
  mainsThere: { label: 'Mains would charge', unit: '' },
  engineThere: { label: 'Engine would charge', unit: '' },
  sunThere: { label: 'Sun would charge', unit: '' },
  allowed: { label: 'The cells allow a charge', unit: '' },
} as const

export type ChannelId = keyof typeof channels
export const channelIds = Object.keys(channels) as ChannelId[]

const sumOf = (units: readonly { readonly amps: number }[]): number =>
  units.reduce((sum, { amps }) => sum + amps, 0)
const said = (yes: boolean): number => (yes ? 1 : 0)

/** What a channel reads; NaN for what a system does not have. */
const readers: Readonly<Record<ChannelId, (simulation: Simulation) => number>> = {
  soc: ({ lfp }) => (lfp ? lfp.soc * 100 : NaN),
  leadSoc: ({ houseLead }) => (houseLead ? houseLead.soc * 100 : NaN),
  startSoc: ({ sides }) => (sides[0]?.lead?.soc ?? NaN) * 100,
  startSoc2: ({ sides }) => (sides[1]?.lead?.soc ?? NaN) * 100,
  engineA: ({ sides }) => sides.reduce((sum, { linkA, dcdc }) => sum + linkA + (dcdc?.amps ?? 0), 0),
  mainsA: ({ chargers }) => sumOf(chargers),
  solarA: ({ solar }) => sumOf(solar),
  sourceA: ({ sourceA }) => sourceA.reduce((sum, amps) => sum + amps, 0),
  loadA: ({ loadA }) => loadA,
  lfpA: ({ lfp }) => lfp?.amps ?? NaN,
  leadA: ({ houseLead }) => houseLead?.amps ?? NaN,
  alternatorA: ({ sides }) => sides[0]?.alternator?.amps ?? NaN,
  alternatorA2: ({ sides }) => sides[1]?.alternator?.amps ?? NaN,
  houseV: ({ houseV }) => houseV,
  startV: ({ sides }) => sides[0]?.v ?? NaN,
  startV2: ({ sides }) => sides[1]?.v ?? NaN,
  alternatorC: ({ sides }) => sides[0]?.alternator?.caseC ?? NaN,
  alternatorC2: ({ sides }) => sides[1]?.alternator?.caseC ?? NaN,
  cellC: ({ lfp }) => lfp?.tempC ?? NaN,
  placeC: ({ placeC }) => placeC,
  mainsThere: ({ mainsThere }) => said(mainsThere),
  engineThere: ({ engineThere }) => said(engineThere),
  sunThere: ({ sunThere }) => said(sunThere),
  allowed: ({ lfp }) => (lfp ? said(lfp.chargeGate) : NaN),
}
const readerList = channelIds.map((id) => readers[id])

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
    this.active = readerList.flatMap((read, i) => (Number.isNaN(read(simulation)) ? [] : [i]))
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

  /** Takes the system as it stands now. */
  take(simulation: Simulation): void {
    const { t } = simulation
    const moment = this.count < 2 ? this.moments[this.count] : null
    if (moment) this.momentT[this.count] = t
    for (const i of this.active) {
      const value = readerList[i]!(simulation)
      if (moment) moment[i] = value
      if (value < this.least[i]!) {
        this.least[i] = value
        this.leastAt[i] = this.count
      }
      if (value > this.most[i]!) {
        this.most[i] = value
        this.mostAt[i] = this.count
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
        this.leastAt[i]! <= this.mostAt[i]!
          ? [this.least[i]!, this.most[i]!]
          : [this.most[i]!, this.least[i]!]
      const points = few ? this.moments.slice(0, this.count).map((moment) => moment[i]!) : pair
      this.columns[i]!.push(...points)
    }
    this.stretch = stretch
    this.begin()
  }

  series(): Series {
    const shown = channelIds.flatMap((id, i) =>
      this.columns[i]!.some(Number.isFinite) ? [[id, this.columns[i]!.map(rounded)]] : [],
    )
    return { t: this.t, values: Object.fromEntries(shown) as Series['values'] }
  }
}
