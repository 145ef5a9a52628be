/** How a reading moves with each parameter, by a standard deviation of it: only those that move it. */
export interface Slopes {
  readonly at: readonly number[]
  readonly by: readonly number[]
}

/** The reading of a test on a rig: its value, and its dependence on uncertain parameters. */
export interface Prediction {
  readonly value: number
  readonly slopes: Slopes
  /** Variance from nonlinear effects: a parameter moves the reading differently up and down. */
  readonly bent: number
}
