import type { Charging, SimEvent } from './events'
import type { Simulation } from './simulation'

/** A source that comes back sooner than this is still the same refusal, s. */
const sameWithinS = 1800

interface Span {
  readonly fromS: number
  untilS: number
  readonly cause: 'cold' | 'heat'
  readonly celsius: number
}

/**
 * When each source would have charged while the cells refused it for their temperature: one event for each
 * source and stretch of time, however often a gate turned meanwhile.
 */
export class Refusals {
  private readonly open = new Map<Charging, Span>()
  private readonly ended: SimEvent[] = []
  private lastS = 0

  /** Looks at the system at the end of a step. */
  take(simulation: Simulation): void {
    const { t, bms, lfp } = simulation
    const fromS = this.lastS
    this.lastS = t
    if (!lfp || !bms?.refusesForCold) return
    const { coldReturnC, hotReturnC } = lfp.plant.bms
    const cause = lfp.tempC > (coldReturnC + hotReturnC) / 2 ? 'heat' : 'cold'
    for (const source of simulation.chargingNow()) {
      const span = this.open.get(source)
      if (span && fromS - span.untilS <= sameWithinS) span.untilS = t
      else {
        if (span) this.end(source, span)
        this.open.set(source, { fromS, untilS: t, cause, celsius: lfp.tempC })
      }
    }
  }

  /** All that was refused. */
  events(): SimEvent[] {
    for (const [source, span] of this.open) this.end(source, span)
    this.open.clear()
    return this.ended
  }

  private end(source: Charging, { fromS, untilS, cause, celsius }: Span): void {
    if (untilS > fromS) this.ended.push({ t: fromS, kind: 'refused', source, untilS, cause, celsius })
  }
}
