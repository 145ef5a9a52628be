import type { Stages } from '../plant'
import { Trigger } from './trigger'

/** The least resistance between a unit and its bus, Ω: leads and terminals are never less. */
const leastOhm = 0.002
/** A unit counts as at its voltage from so far below it, V; the time of absorption counts from so far. */
const reachedV = 0.06
const heldV = 0.12
/** A tail current ends the absorption after this at the earliest, s. */
const leastAbsorptionS = 300
/** If the voltage falls this far below the float, the charge restarts, V. */
const floatLostV = 0.6
/** Share of the tail current at which a unit that has stopped begins again. */
const restartShare = 1 / 4

/** A charging unit that walks its stages. */
export class Staged {
  stage: 'bulk' | 'absorption' | 'float' | 'off' = 'bulk'
  amps = 0
  endAmps = 0
  ah = 0
  readonly triggers: readonly Trigger[]
  private running = false
  private readonly ohm: number
  private readonly hold: Trigger

  /** @param busV voltage at the end of the step that is tried, V */
  constructor(
    readonly stages: Stages,
    ohm: number,
    busV: () => number,
  ) {
    this.ohm = Math.max(ohm, leastOhm)
    const { absorptionV, absorptionH, floatV, tailA } = stages
    const ended = (): void => {
      this.stage = floatV === null ? 'off' : 'float'
    }
    const inAbsorption = (): boolean => this.running && this.stage === 'absorption'
    this.hold = new Trigger(
      () => (inAbsorption() ? busV() - absorptionV + heldV : -1),
      ended,
      () => absorptionH * 3600,
      true,
    )
    const tail: Trigger = new Trigger(
      () => (inAbsorption() ? tailA - this.endAmps : -1),
      ended,
      () =>
        Math.max(0, leastAbsorptionS - this.hold.heldS) +
        (this.hold.heldS < leastAbsorptionS ? tail.heldS : 0),
    )
    const turning = new Trigger(
      () => {
        if (!this.running) return -1
        if (this.stage === 'bulk') return busV() - absorptionV + reachedV
        if (this.stage === 'off') return this.endAmps - tailA * restartShare
        return this.stage === 'float' ? floatV! - floatLostV - busV() : -1
      },
      () => {
        if (this.stage === 'bulk') this.stage = 'absorption'
        else this.begin()
      },
    )
    this.triggers = [turning, this.hold, tail]
  }

  private begin(): void {
    this.stage = 'bulk'
    this.hold.heldS = 0
  }

  /** Whether it is fed at all; one that is not begins again. */
  run(running: boolean): void {
    if (!running) this.begin()
    this.running = running
  }

  /**
   * Voltage it holds: one that has stopped holds the bus up at its restart voltage, as it would within
   * seconds.
   */
  private get setV(): number {
    if (this.stage === 'float') return this.stages.floatV!
    return this.stage === 'off' ? this.stages.restartV : this.stages.absorptionV
  }

  /** Current at a bus voltage, A, with this available current. */
  ampsAt(v: number, mostA: number): number {
    const wanted = (this.setV - v) / this.ohm
    return wanted <= 0 ? 0 : wanted < mostA ? wanted : mostA
  }
  settle(busV: number, mostA: number): void {
    this.endAmps = this.running ? this.ampsAt(busV, mostA) : 0
  }
  accept(dt: number, endShare: number): void {
    this.ah += ((this.amps * (1 - endShare) + this.endAmps * endShare) * dt) / 3600
    this.amps = this.endAmps
  }
}
