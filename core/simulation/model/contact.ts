import type { Happening } from '../events'
import type { LinkPlant } from '../plant'
import { Trigger } from './trigger'

/** A voltage-sensed relay opens once it has seen less for this long, s. */
const opensAfterS = 5
/** The least resistance of a closed link, Ω. */
const leastOhm = 0.0005

/** Inputs of a contact at the end of a trial step. */
export interface Seen {
  readonly sideV: () => number
  readonly houseV: () => number
  /** Current from the side to the house, A. */
  readonly amps: () => number
}

/**
 * The contact of a link: whether it is closed, and its current. A DC-DC, or no link, has no contact: it stays open.
 */
export class Contact {
  closed: boolean
  readonly triggers: readonly Trigger[]
  private engineRuns = false
  private readonly siemens: number
  private readonly dropV: number
  private readonly oneWay: boolean

  constructor(
    private readonly link: LinkPlant,
    seen: Seen,
    private readonly tell: (event: Happening) => void,
  ) {
    this.closed = link.kind === 'closed' || link.kind === 'diode'
    this.siemens = 'ohm' in link && link.kind !== 'dcdc' ? 1 / Math.max(link.ohm, leastOhm) : 0
    this.dropV = link.kind === 'diode' ? link.dropV : 0
    this.oneWay = link.kind === 'diode'
    this.triggers =
      link.kind === 'vsr'
        ? this.voltageSensed(link, seen)
        : link.kind === 'duty'
          ? this.dutyCycling(link, seen)
          : []
  }

  private voltageSensed(
    { closesV, opensV, delayS, bothWay }: LinkPlant & { kind: 'vsr' },
    { sideV, houseV }: Seen,
  ): Trigger[] {
    const sensedV = (): number => (bothWay ? Math.max(sideV(), houseV()) : sideV())
    const turn = (): void => {
      this.closed = !this.closed
      this.tell({ kind: 'relay', contact: 'relay', closed: this.closed, volts: sideV() })
    }
    return [
      new Trigger(
        () => (this.closed ? opensV - sensedV() : sensedV() - closesV),
        turn,
        () => (this.closed ? opensAfterS : delayS),
      ),
    ]
  }

  private dutyCycling(
    { opensAboveA, sensesS, offS }: LinkPlant & { kind: 'duty' },
    { amps }: Seen,
  ): Trigger[] {
    return [
      new Trigger(
        () => (this.closed ? amps() - opensAboveA : this.engineRuns ? 1 : -1),
        () => {
          this.closed = !this.closed
        },
        () => (this.closed ? sensesS : offS),
      ),
    ]
  }

  /** The engine starts or stops: a solenoid follows it, a duty-cycling relay begins closed. */
  drive(runs: boolean, sideV: number): void {
    const { kind } = this.link
    const changes = runs !== this.engineRuns
    this.engineRuns = runs
    if (!changes) return
    if (kind === 'solenoid') this.tell({ kind: 'relay', contact: 'solenoid', closed: runs, volts: sideV })
    if (kind === 'solenoid' || kind === 'duty') this.closed = runs
  }

  /** Current through it from the side to the house, A. */
  ampsBetween(sideV: number, houseV: number): number {
    if (!this.closed) return 0
    const amps = (sideV - houseV - this.dropV) * this.siemens
    return amps < 0 && this.oneWay ? 0 : amps
  }
}
