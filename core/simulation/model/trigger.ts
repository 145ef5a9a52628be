import { keptShare } from './roots'

/**
 * Something that acts once a condition has held for its delay: a relay, a gate, the end of a stage. The value
 * is above zero while the condition holds, and tells how far it is from turning; -1 while it does not
 * apply.
 */
export class Trigger {
  /** Time that the condition has held, s. */
  heldS = 0
  /** Value at the end of the last step and of the trial step. */
  before = -1
  after = -1

  /**
   * @param value at the end of the step that is tried
   * @param delayS how long the condition must hold
   * @param cumulative the time counts on after an interruption, as in an absorption stage
   */
  constructor(
    readonly value: () => number,
    readonly act: () => void,
    readonly delayS: () => number = () => 0,
    readonly cumulative = false,
  ) {}

  /**
   * Seconds until it acts if the condition keeps holding; Infinity while it does not hold.
   * @param leastS the least time between two switching events
   */
  dueIn(leastS: number): number {
    return this.before > 0 ? Math.max(leastS, this.delayS() - this.heldS) : Infinity
  }

  // The bracket in which the switching moment is searched: the values at both ends, and the end that moved last.
  private low = -1
  private high = -1
  private movedEnd = true
  /** Begins to search for the moment of turning in the step that was tried. */
  begin(): void {
    this.low = this.before
    this.high = this.after
    this.movedEnd = true
  }
  /**
   * Narrows the search: the tried moment becomes the new end, or the new beginning. If the same end moves again,
   * the other one weighs less (see {@link keptShare}), so that a curved value is enclosed from both sides.
   */
  bracket(isEnd: boolean): void {
    const again = isEnd === this.movedEnd
    if (isEnd) {
      if (again) this.low *= keptShare(this.after, this.high)
      this.high = this.after
    } else {
      if (again) this.high *= keptShare(this.after, this.low)
      this.low = this.after
    }
    this.movedEnd = isEnd
  }
  /** Zero of the line between the ends, 0 to 1; 1 if there is none. */
  get crossing(): number {
    return this.low <= 0 && this.high > 0 && this.before <= 0 ? this.low / (this.low - this.high) : 1
  }

  /** Whether it acts at the end of the accepted step. */
  isDue = false
  /** Looks at the step that is tried. @returns whether the condition begins to hold within it */
  look(): boolean {
    this.after = this.value()
    return this.after > 0 && this.before <= 0
  }
  /** Takes a step over: counts its time, and says whether it acts now. */
  take(dt: number): boolean {
    const held = this.before > 0 && this.after > 0
    this.before = this.after
    if (held) this.heldS += dt
    else if (!this.cumulative) this.heldS = 0
    this.isDue = this.after > 0 && dt > 0 && this.heldS >= this.delayS() - 1e-6
    return this.isDue
  }
  /** Acts, and begins to wait again. */
  fire(): void {
    this.heldS = 0
    this.act()
  }
}
