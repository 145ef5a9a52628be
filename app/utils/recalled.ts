import { readOrGiveUp } from './api'

/**
 * What this browser kept under a key, with the rest as it is before anything is kept.
 * @param unset all of it; what is kept may be of an earlier version, or broken
 */
export function recalled<T extends object>(key: string, unset: T): T {
  try {
    return { ...unset, ...(JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<T>) }
  } catch {
    return unset
  }
}

/** Reads from the server what this browser keeps under a key; where it cannot be reached, what was kept. */
export async function readRecalled<T extends object>(path: string, key: string, unset: T): Promise<T> {
  const answer = await readOrGiveUp<T>(path, localStorage.getItem(key) !== null)
  return answer.kind === 'ok' ? answer.data : recalled(key, unset)
}
