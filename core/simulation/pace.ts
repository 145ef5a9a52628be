/** How finely time is stepped. */
export interface Pace {
  /** Longest step, s. */
  readonly mostS: number
  /**
   * Error a step may make: of charge, share of the capacity; of a temperature, K; of the voltage, V at 12 V.
   */
  readonly errorShare: number
  readonly errorK: number
  readonly errorV: number
  /** A moment of switching is located to this, s. */
  readonly eventS: number
}
export const usualPace: Pace = { mostS: 3600, errorShare: 2e-5, errorK: 0.01, errorV: 0.002, eventS: 0.5 }
/** For a year, whose small errors are made good day by day. */
export const longPace: Pace = { mostS: 3600, errorShare: 2e-4, errorK: 0.05, errorV: 0.02, eventS: 1 }
/** Steps of one second: the reference for the others. */
export const everySecond: Pace = { mostS: 1, errorShare: 1, errorK: 1, errorV: 1, eventS: 0.5 }
