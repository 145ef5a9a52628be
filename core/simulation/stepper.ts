import { Unsolvable } from '#core/physics/unsolvable'
import type { Trigger } from './model/trigger'
import type { Pace } from './pace'

/** The least time between two switching events, s: nothing chatters faster. */
const leastS = 1
const mostTries = 40
const triesBeforeHalving = 12
/** The first step after something switched is no longer than this, s. */
const afterEventS = 60
/** A switching time is tried this far from its linear estimate, s. */
const nearSwitchS = 0.2
/** A step grows by no more than this, and shrinks by no less. */
const mostGrowth = 6
const leastShrink = 0.1
const safety = 0.8
/** An error that is not worth another try. */
const justGood = 2

/** A moment inside a stretch, not too near to either end. */
const between = (low: number, high: number, at: number): number => {
  const margin = Math.min(nearSwitchS, (high - low) / 4)
  return Math.min(high - margin, Math.max(low + margin, at))
}

/** How long a step may be that made an error, against that step. */
const growth = (error: number): number =>
  Math.min(mostGrowth, Math.max(leastShrink, safety / Math.sqrt(error + 1e-9)))

/** A system that advances in steps: try, inspect, accept. */
export interface Stepped {
  readonly triggers: readonly Trigger[]
  /** Tries a step of this many seconds: calculates its end state and changes nothing. */
  attempt(dt: number): void
  /** Error of the trial step, as a share of the limit. */
  errorOf(dt: number): number
  /** Takes it over. @returns whether something switched at its end */
  take(dt: number): boolean
}

/**
 * Steps that follow a system: long while little changes, short at a corner; the moment of a switching is
 * located, not stepped over.
 */
export class Stepper {
  /** Step to try next, s. */
  private nextS = leastS

  constructor(
    private readonly system: Stepped,
    private readonly pace: Pace,
  ) {}

  /** Accepts the system after a switching event, without time. */
  restart(): void {
    this.system.attempt(0)
    this.look()
    this.system.take(0)
  }

  /** One step, at most so long. @returns its length, s */
  step(mostS: number): number {
    let dt = this.tryStep(Math.min(this.nextS, this.pace.mostS, mostS, this.dueS()))
    if (this.look() && dt > this.pace.eventS) dt = this.locate(dt)
    if (this.system.take(dt)) {
      this.nextS = Math.min(this.nextS, afterEventS)
      this.restart()
    }
    return dt
  }

  /** Tries a step, and shorter ones until the error is small enough. @returns its length, s */
  private tryStep(firstS: number): number {
    const { mostS } = this.pace
    let dt = firstS
    for (let tries = 0; ; tries++) {
      this.system.attempt(dt)
      const error = this.system.errorOf(dt)
      if (!Number.isFinite(error)) throw new Unsolvable('a step of the run has no result')
      if (error <= justGood || dt <= leastS || tries === mostTries) {
        // One that was cut short says nothing against the length before.
        this.nextS = Math.min(mostS, Math.max(dt < this.nextS ? this.nextS : 0, dt * growth(error)))
        return dt
      }
      this.nextS = dt = Math.max(leastS, dt * growth(error))
    }
  }

  /** Seconds until the first waiting trigger. */
  private dueS(): number {
    let least = Infinity
    for (const trigger of this.system.triggers) {
      const due = trigger.dueIn(leastS)
      if (due < least) least = due
    }
    return least
  }

  /** Whether something begins to hold, in the step that was tried, that a trigger waits for. */
  private look(): boolean {
    let turns = false
    for (const trigger of this.system.triggers) if (trigger.look()) turns = true
    return turns
  }

  /**
   * The end of the step just behind the first switching in it, found along a straight line from both sides.
   * @returns its length, s
   */
  private locate(dt: number): number {
    const { triggers } = this.system
    let [low, high] = [0, dt]
    let behind = true
    for (const trigger of triggers) trigger.begin()
    for (let i = 0; high - low > this.pace.eventS && i < mostTries; i++) {
      // Just before the line where the last try was behind it, just behind it where it was before; at length
      // halved.
      const share = i < triesBeforeHalving ? this.crossingShare() : 0.5
      const middle = between(low, high, low + (high - low) * share + (behind ? -nearSwitchS : nearSwitchS))
      this.system.attempt(middle)
      behind = this.look()
      for (const trigger of triggers) trigger.bracket(behind)
      if (behind) high = middle
      else low = middle
    }
    if (!behind) {
      this.system.attempt(high)
      this.look()
    }
    return high
  }
  private crossingShare(): number {
    let least = 1
    for (const trigger of this.system.triggers) least = Math.min(least, trigger.crossing)
    return least
  }
}
