import type { Change } from './change'

/** Where a step of the order of work stands. */
export interface StepTick {
  readonly state: 'done' | 'put-off'
  readonly when: string
  readonly by: string
  /** The reason it was skipped; the finding. */
  readonly note?: string
}

/** A reading of a test as it was taken. */
export interface TakenReading {
  readonly value: number
  readonly when: string
  readonly by: string
  readonly from: 'typed' | 'live' | 'file'
}

/** A fault that was found and repaired: readings from before it count no longer. */
export interface Mended {
  /** `resistance@main-lead`. */
  readonly cause: string
  readonly words: string
  readonly when: string
  readonly by: string
}

/**
 * Fitting and proving of a job: steps done, readings taken, faults repaired, and parts as fitted. Steps and
 * readings are stored by id, so that two people at two ends of a boat do not conflict.
 */
export interface Proving {
  readonly steps: Readonly<Record<string, StepTick>>
  /** Of each test all that was read, the last one last. */
  readonly readings: Readonly<Record<string, readonly TakenReading[]>>
  readonly mended: readonly Mended[]
  /** Differences from the specification. */
  readonly fitted: readonly Change[]
}

export const nothingProved: Proving = { steps: {}, readings: {}, mended: [], fitted: [] }
/** Most readings that are kept of one test. */
export const mostReadings = 50

/** The last reading of each test since the last fault was repaired. */
export function standingReadings({ readings, mended }: Proving): Map<string, TakenReading> {
  const since = mended.at(-1)?.when ?? ''
  return new Map(
    Object.entries(readings).flatMap(([test, taken]) => {
      const last = taken.at(-1)
      return last && last.when >= since ? [[test, last] as const] : []
    }),
  )
}
