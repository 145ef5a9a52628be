import type { Stages } from '../plant'
import { Trigger } from './trigger'

/** The least resistance between a unit and its bus, Ω: leads and terminals are never less. */
const leastOhm = 0.002
/** A unit counts as at its voltage from so far below it, V; the time of absorption counts from so far. */
const reachedV = 0.06
const heldV = 0.12
/** A tail current ends the absorption after this at the earliest, s. */
const leastAbsorptionS = 300
/** A float that cannot be held so far below its voltage has lost its battery: the charge begins anew, V. */
const floatLostV = 0.6
/** Share of the tail current at which a unit that has stopped begins anew. */
const restartShare = 1 / 4

/** A charging unit that goes through its stages. */
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
    const inStage = (stage: Staged['stage'], value: () => number) => (): number =>
      this.running && this.stage === stage ? value() : -1
    const ended = (): void => {
      this.stage = floatV === null ? 'off' : 'float'
    }
    const anew = (): void => {
      this.begin()
    }
    this.hold = new Trigger(
      inStage('absorption', () => busV() - absorptionV + heldV),
      ended,
      () => absorptionH * 3600,
      true,
    )
    const tail: Trigger = new Trigger(
      inStage('absorption', () => tailA - this.endAmps),
      ended,
      () =>
        Math.max(0, leastAbsorptionS - this.hold.heldS) +
        (this.hold.heldS < leastAbsorptionS ? tail.heldS : 0),
    )
    this.triggers = [
      new Trigger(
        inStage('bulk', () => busV() - absorptionV + reachedV),
        () => {
          this.stage = 'absorption'
        },
      ),
      this.hold,
      tail,
      new Trigger(
        inStage('off', () => this.endAmps - tailA * restartShare),
        anew,
      ),
      new Trigger(
        inStage('float', () => floatV! - floatLostV - busV()),
        anew,
      ),
    ]
  }

  private begin(): void {
    this.stage = 'bulk'
    this.hold.heldS = 0
  }

  /** Whether it is fed at all; one that is not begins anew. */
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

  /** Current at a bus voltage, A, with so much to give. */
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
