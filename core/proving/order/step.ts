/** Phases of a fitting, in their order. */
export const phases = {
  safe: 'Make safe',
  out: 'Take out',
  fit: 'Fit',
  charge: 'Charge each battery alone',
  join: 'Join',
  power: 'First power',
  settings: 'Settings',
} as const
export type Phase = keyof typeof phases

/** One thing to be done. */
export interface Step {
  /** Stays the same while what it is about does: `fit-charger-1`. */
  readonly id: string
  readonly phase: Phase
  readonly words: string
  /** Why, and why now, in a line. */
  readonly why: string
  /** Said once, where it matters. */
  readonly caution?: string
  /** Runs and fittings it is about, by their numbers. */
  readonly numbers?: readonly string[]
}
