/**
 * Lookups in a list, map or record that must succeed. Each throws if there is no entry, instead of returning
 * `undefined`.
 */

/** The element of a list at an index. @throws RangeError where there is none */
export function elementAt<T>(list: ArrayLike<T>, index: number): T {
  const element = list[index]
  if (element === undefined) throw new RangeError(`No element ${index} in a list of ${list.length}`)
  return element
}

/** @throws RangeError where the list is empty */
export const firstOf = <T>(list: ArrayLike<T>): T => elementAt(list, 0)

/** @throws RangeError where the list is empty */
export const lastOf = <T>(list: ArrayLike<T>): T => elementAt(list, list.length - 1)

/** The value of a map for a key. @throws RangeError where there is none */
export function entryOf<K, V>(map: { readonly get: (key: K) => V | undefined }, key: K): V {
  const value = map.get(key)
  if (value === undefined) throw new RangeError(`No entry ${String(key)}`)
  return value
}

/** A field of a record. @throws RangeError where there is none */
export function fieldOf<K extends PropertyKey, T>(record: Readonly<Record<K, T>>, name: K): T {
  const value = record[name]
  if (value === undefined) throw new RangeError(`No field ${String(name)}`)
  return value
}

/** A value that is known to be there, whatever its type says. @throws RangeError where it is not */
export function present<T>(value: T | null | undefined): T {
  if (value === null || value === undefined) throw new RangeError('Nothing is there')
  return value
}

/** The element of a list that has an id. @throws RangeError where there is none */
export function withId<T extends { readonly id: string }>(list: readonly T[], id: string): T {
  const found = list.find((element) => element.id === id)
  if (found === undefined) throw new RangeError(`No ${id} in a list of ${list.length}`)
  return found
}
