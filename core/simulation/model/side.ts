import { lastOf } from '#core/collections/held'
import { deratedShare } from '#core/physics/dcdc'
import type { Happening } from '../events'
import type { SidePlant } from '../plant'
import { Alternator } from './alternator'
import { Contact } from './contact'
import { Lead } from './lead'
import { darkBelowV, fadedA } from './loads'
import { fallingRoot } from './roots'
import { Staged } from './staged'
import { Trigger } from './trigger'

/**
 * Voltages of an engine that runs, and of one that does not, by which a DC-DC without a wire starts and
 * stops, V at 12 V.
 */
const wakesAboveV = 13.2
const sleepsBelowV = 12.8
/** A DC-DC that stopped because of its input restarts this far above, V. */
const inputReturnV = 0.6
/**
 * How long the input of a DC-DC must stay low before it stops, and high before it starts again, s. A common
 * setting: without it a unit on a weak alternator switches every second.
 */
const inputDelayS = 60
/**
 * Trickle current of a DC-DC to a parked starting battery: the limit, A, the highest voltage, the resistance, and
 * the lowest voltage of the house (12 V).
 */
const backMostA = 2
const backHoldsV = 13.5
const backOhm = 0.3
const backHouseAboveV = 13.4
/** The house side of that threshold is soft, so that it holds still, V. */
const backSoftV = 0.02
/** No input of a DC-DC is counted at less than this, V at 12 V. */
const leastInputV = 6
const dcdcOhm = 0.002
/**
 * A bus holds a little charge, A for each volt it moves, so that its voltage is defined when nothing on it
 * takes current.
 */
export const bufferS = 3e-4
/** The starting battery of a vehicle that is used: nearly full. */
const startSoc = 0.9
const startSlope = -20
/** Charge of a starting battery below which it may not start the engine, and at which it can be relied on again. */
const lowSoc = 0.5
const recoveredSoc = 0.6

/** One alternator with its starting battery and the link that leads to the house: a side of the star. */
export class Side {
  v: number
  endV: number
  readonly lead: Lead | null
  readonly alternator: Alternator | null
  readonly contact: Contact
  readonly dcdc: Staged | null
  readonly triggers: readonly Trigger[]
  readonly scale: number
  private readonly houseScale: number
  /** Current through the contact to the house, A, and its charge, Ah. */
  linkA = 0
  endLinkA = 0
  linkAh = 0
  /** Charge that went from the house to this side while the engine stood, Ah. */
  backAh = 0
  /** The limit of a DC-DC at present, A. */
  dcdcMostA = 0
  private engineRuns = false
  private drawA = 0
  private inputA = 0
  private awake = false
  private starved = false
  private low = false
  private slope = startSlope
  private joinedSlope = startSlope
  private readonly darkV: number
  private readonly mostV: number

  constructor(
    readonly plant: SidePlant,
    startC: number,
    house: { volts: () => number; ah: number; loadsOffV: number | null; scale: number },
    tell: (event: Happening) => void,
  ) {
    const { nominalV, alternator, startLead, link } = plant
    this.scale = nominalV / 12
    this.houseScale = house.scale
    this.darkV = (darkBelowV(house.loadsOffV, house.scale) / house.scale) * this.scale
    this.mostV = 20 * this.scale
    this.lead = startLead && new Lead(startLead, startSoc, startC)
    this.v = this.endV = this.lead?.voltsAt(0) ?? house.volts()
    this.alternator =
      alternator &&
      new Alternator(
        alternator,
        nominalV,
        startC,
        { amps: () => this.endLinkA, volts: house.volts, ah: house.ah },
        tell,
      )
    this.contact = new Contact(
      link,
      { sideV: () => this.endV, houseV: house.volts, amps: () => this.endLinkA },
      tell,
    )
    this.dcdc = link.kind === 'dcdc' ? new Staged(link.stages, dcdcOhm, house.volts) : null
    this.triggers = [
      ...(this.lead?.triggers ?? []),
      ...(this.alternator?.triggers ?? []),
      ...this.contact.triggers,
      ...(this.dcdc?.triggers ?? []),
      ...this.inputTriggers(tell),
      ...this.lowTriggers(tell),
    ]
  }

  private lowTriggers(tell: (event: Happening) => void): Trigger[] {
    const { lead } = this
    if (!lead) return []
    return [
      new Trigger(
        () => (this.low ? lead.endSoc - recoveredSoc : lowSoc - lead.endSoc),
        () => {
          this.low = !this.low
          tell({ kind: 'start-low', low: this.low, volts: this.endV })
        },
      ),
    ]
  }

  private inputTriggers(tell: (event: Happening) => void): Trigger[] {
    const { link } = this.plant
    if (link.kind !== 'dcdc') return []
    const wanted = (): boolean => (link.wire ? this.engineRuns : this.awake)
    const input = new Trigger(
      () => {
        if (!wanted()) return this.starved ? 1 : -1
        return this.starved ? this.endV - link.lowestV - inputReturnV : link.lowestV - this.endV
      },
      () => {
        this.starved = !this.starved
        if (wanted()) tell({ kind: 'dcdc', running: !this.starved, volts: this.endV })
      },
      () => (wanted() ? inputDelayS : 0),
    )
    const waking = new Trigger(
      () => (this.awake ? sleepsBelowV * this.scale - this.endV : this.endV - wakesAboveV * this.scale),
      () => {
        this.awake = !this.awake
      },
      () => inputDelayS,
    )
    return link.wire ? [input] : [input, waking]
  }

  /** Whether its alternator could charge the house now. */
  get wouldCharge(): boolean {
    return this.alternator?.runs === true && this.plant.link.kind !== 'none'
  }

  /** Sets the state of its engine. @param standsAtC temperature of a stopped machine, °C */
  drive(engine: 'off' | 'idle' | 'cruise', engineS: number, standsAtC: number): void {
    this.engineRuns = engine !== 'off'
    const { alternator } = this.plant
    this.alternator?.drive(
      engine,
      alternator && this.engineRuns ? traceAt(alternator, engineS) : null,
      standsAtC,
    )
    this.contact.drive(this.engineRuns, this.v)
    this.drawA = this.engineRuns ? (alternator?.vehicleA ?? 0) : this.plant.standbyA
  }

  /** Begins a step of this many seconds. */
  prepare(dt: number, placeC: number): void {
    this.lead?.prepare(dt, placeC)
    this.alternator?.prepare()
    const { link } = this.plant
    if (link.kind !== 'dcdc') return
    const runs = !this.starved && (link.wire ? this.engineRuns : this.awake)
    this.dcdcMostA = runs ? link.stages.maxA * deratedShare(placeC) : 0
    this.dcdc?.run(runs)
  }

  /** Current into its bus at a voltage, A, without the link. */
  private inAt(v: number): number {
    let sum = -fadedA(this.drawA + this.inputA, v, this.darkV, this.scale) - bufferS * (v - this.v)
    if (this.alternator) sum += this.alternator.ampsAt(v)
    if (this.lead) sum -= this.lead.ampsAt(v)
    return sum
  }
  private joinedTo = 0
  private readonly joinedIn = (v: number): number => this.inAt(v) - this.contact.ampsBetween(v, this.joinedTo)
  private besideV = 0
  private readonly aloneIn = (v: number): number => this.inAt(v) + this.backFeedAt(this.besideV, v)

  /**
   * Current into the house at its voltage through a closed contact, A; this side settles where its own
   * currents then sum to zero.
   */
  intoHouse(houseV: number): number {
    this.joinedTo = houseV
    const root = fallingRoot(this.joinedIn, this.endV, 0, this.mostV, this.joinedSlope)
    this.endV = root.at
    this.joinedSlope = root.slope
    return this.contact.ampsBetween(root.at, houseV)
  }

  /**
   * Settles alone with its contact open, next to a house at a voltage.
   * @returns the error of the voltage-dependent powers, A
   */
  alone(houseV: number): number {
    const { link } = this.plant
    if (!this.alternator && !this.lead) return 0
    const before = this.inputA
    if (link.kind === 'dcdc') {
      const givesA = this.dcdcMostA > 0 ? (this.dcdc?.ampsAt(houseV, this.dcdcMostA) ?? 0) : 0
      this.inputA = (givesA * houseV) / (link.efficiency * Math.max(leastInputV * this.scale, this.endV))
    }
    this.besideV = houseV
    const root = fallingRoot(this.aloneIn, this.endV, 0, this.mostV, this.slope)
    this.endV = root.at
    this.slope = root.slope
    return Math.abs(this.inputA - before)
  }

  /**
   * Trickle current of its DC-DC to the parked battery from a house at a voltage, A at this side: it falls as this
   * side's voltage rises.
   */
  backFeedAt(houseV: number, v = this.endV): number {
    const { link } = this.plant
    if (link.kind !== 'dcdc' || !link.backFeed || this.engineRuns) return 0
    const open = Math.min(1, Math.max(0, (houseV - backHouseAboveV * this.houseScale) / backSoftV))
    return open * Math.min(backMostA, Math.max(0, (backHoldsV * this.scale - v) / backOhm))
  }

  settle(houseV: number, dt: number, endShare: number): void {
    this.endLinkA = this.contact.ampsBetween(this.endV, houseV)
    this.alternator?.settle(this.endV, dt, endShare)
    this.lead?.settle(this.endV, dt, endShare)
    this.dcdc?.settle(houseV, this.dcdcMostA)
  }

  accept(dt: number, endShare: number): void {
    const mean = this.linkA * (1 - endShare) + this.endLinkA * endShare
    const ah = (mean * dt) / 3600
    this.linkAh += ah
    if (ah < 0 && !this.engineRuns) this.backAh -= ah
    this.linkA = this.endLinkA
    this.v = this.endV
    this.alternator?.accept(dt)
    this.lead?.accept(this.v, dt, endShare)
    this.dcdc?.accept(dt, endShare)
  }
}

/** Voltage of a computer-controlled machine this many seconds into a drive, V; null for any other. */
function traceAt({ regulator, trace }: NonNullable<SidePlant['alternator']>, engineS: number): number | null {
  if (regulator !== 'computer' || trace.length === 0) return null
  const lengthS = trace.reduce((sum, { minutes }) => sum + minutes * 60, 0)
  let at = engineS % lengthS
  for (const { minutes, volts } of trace) {
    if (at < minutes * 60) return volts
    at -= minutes * 60
  }
  return lastOf(trace).volts
}
