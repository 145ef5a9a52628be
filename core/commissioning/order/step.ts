/** Phases of a fitting, in their order. */
export const phases = {
  safe: 'Make safe',
  out: 'Take out',
  fit: 'Fit',
  charge: 'Charge each battery alone',
  join: 'Join',
  power: 'First power',
  settings: 'Settings',
  sources: 'Switch the sources on',
  later: 'After the first hour',
} as const
export type Phase = keyof typeof phases

/** One thing to be done. */
export interface WorkStep {
  /** Stable while its subject exists: `fit-charger-1`. */
  readonly id: string
  readonly phase: Phase
  readonly words: string
  /** Why, and why now, in a line. */
  readonly why: string
  /** A caution, shown once where it matters. */
  readonly caution?: string
  /** Runs and fittings it is about, by their numbers. */
  readonly numbers?: readonly string[]
}

/** Collects the steps of a phase. */
export class Steps {
  readonly all: WorkStep[] = []

  constructor(private readonly phase: Phase) {}

  add(id: string, words: string, why: string, more: Pick<WorkStep, 'caution' | 'numbers'> = {}): void {
    const { caution, numbers = [] } = more
    this.all.push({
      id,
      phase: this.phase,
      words,
      why,
      ...(caution ? { caution } : {}),
      ...(numbers.length > 0 ? { numbers } : {}),
    })
  }
}
