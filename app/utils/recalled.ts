import { readOrGiveUp } from './api'

/**
 * The value that this browser stored under a key, completed with the initial values.
 * @param unset all initial values; the stored value may be of an earlier version, or broken
 */
export function recalled<T extends object>(key: string, unset: T): T {
  try {
    return { ...unset, ...(JSON.parse(localStorage.getItem(key) ?? '{}') as Partial<T>) }
  } catch {
    return unset
  }
}

/** Reads the value of a key from the server; if it cannot be reached, the stored one. */
export async function readRecalled<T extends object>(path: string, key: string, unset: T): Promise<T> {
  const answer = await readOrGiveUp<T>(path, localStorage.getItem(key) !== null)
  return answer.kind === 'ok' ? answer.data : recalled(key, unset)
}
