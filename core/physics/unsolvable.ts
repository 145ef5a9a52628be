/** Thrown where values lead nowhere: a run that never ends, a circuit that does not come to rest. */
export class Unsolvable extends Error {
  override readonly name = 'Unsolvable'
}

/** The result of some work; null if it has no solution. */
export function ifSolvable<T>(work: () => T): T | null {
  try {
    return work()
  } catch (error) {
    if (error instanceof Unsolvable) return null
    throw error
  }
}
