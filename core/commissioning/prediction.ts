/** How a reading moves with each parameter, by a standard deviation of it: only those that move it. */
export interface Slopes {
  readonly at: readonly number[]
  readonly by: readonly number[]
}

/** What a test reads of a rig: its value, and how that hangs on what nobody knows exactly. */
export interface Prediction {
  readonly value: number
  readonly slopes: Slopes
  /** Variance by what is not straight: where a parameter moves a reading otherwise up than down. */
  readonly bent: number
}
