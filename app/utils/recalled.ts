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
