/** The end of a page of a list by name: the name of its last row, in small letters, and its id. */
export interface NameKey {
  readonly name: string
  readonly id: string
}

const pageEnd = /^(.*)~([0-9a-f-]{36})$/s

/** Where a page goes on; null for the first page, and for words that are no end of a page. */
export function nameKeyOf(after: string | undefined): NameKey | null {
  const [, name, id] = pageEnd.exec(after ?? '') ?? []
  return name !== undefined && id !== undefined ? { name, id } : null
}

/** A page of rows by name, from one row more than it holds. @param most rows of a page */
export function namePage<T extends { readonly id: string; readonly name: string }>(
  rows: readonly T[],
  most: number,
): { readonly rows: readonly T[]; readonly next: string | null } {
  const page = rows.slice(0, most)
  const last = page.at(-1)
  return { rows: page, next: rows.length > most && last ? `${last.name.toLowerCase()}~${last.id}` : null }
}
