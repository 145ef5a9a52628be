/** Thrown where values lead nowhere: a run that never ends, a circuit that does not come to rest. */
export class Unsolvable extends Error {
  override readonly name = 'Unsolvable'
}

/** What some work comes to; null where it leads nowhere. */
export function whereSolvable<T>(work: () => T): T | null {
  try {
    return work()
  } catch (error) {
    if (error instanceof Unsolvable) return null
    throw error
  }
}
