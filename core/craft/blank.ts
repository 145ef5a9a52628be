/** Replaces the name of an erased customer. */
export const erasedName = 'Erased customer'
/** Replaces a contact or a registration. */
const erasedWords = '(erased)'

/** Shorter words are parts of other words, and are left. */
const leastLetters = 3

const escaped = (words: string): string => words.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')

/**
 * Blanks a customer in texts. Words count where they stand as whole words; those without a capital, a digit or a
 * space could be any word, and count only where they stand alone.
 * @param others contacts and registrations
 */
export function blanksOf(name: string, others: readonly string[]): (text: string) => string {
  const replacements = new Map(
    [
      ...others.map((one): [string, string] => [one.trim(), erasedWords]),
      [name.trim(), erasedName] as const,
    ].filter(([words]) => words.length >= leastLetters),
  )
  const inside = [...replacements.keys()].filter((one) => /[\p{Lu}\s@\d]/u.test(one))
  const found =
    inside.length > 0
      ? new RegExp(`(?<![\\p{L}\\p{N}])(?:${inside.map(escaped).join('|')})(?![\\p{L}\\p{N}])`, 'gu')
      : null
  return (text) => {
    const alone = replacements.get(text.trim())
    if (alone) return alone
    return found ? text.replace(found, (words) => replacements.get(words) ?? erasedWords) : text
  }
}

/** A value of JSON with all its texts blanked; keys stay. */
export function blanked<T>(value: T, blank: (text: string) => string): T {
  if (typeof value === 'string') return blank(value) as T
  if (Array.isArray(value)) return value.map((one: unknown) => blanked(one, blank)) as T
  if (value === null || typeof value !== 'object') return value
  return Object.fromEntries(
    Object.entries(value).map(([key, one]) => [key, blanked(one as unknown, blank)]),
  ) as T
}
