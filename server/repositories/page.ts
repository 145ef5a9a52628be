/** The end of a page of a list: the sort key of its last row, and the id of the row. */
export interface PageEnd {
  readonly key: string
  readonly id: string
}

const pageEnd = /^(.*)~([0-9a-f-]{36})$/s

/** Where a page goes on; null for the first page, and for words that are no end of a page. */
export function pageEndOf(after: string | undefined): PageEnd | null {
  const [, key, id] = pageEnd.exec(after ?? '') ?? []
  return key !== undefined && id !== undefined ? { key, id } : null
}

/**
 * A page of rows, and the query for the next ones; null at the end.
 * @param found rows with their sort keys, one more than a page holds if there are more
 * @param most rows of a page
 */
export function pageOf<T extends PageEnd>(
  found: readonly T[],
  most: number,
): { readonly rows: Omit<T, 'key'>[]; readonly next: string | null } {
  const page = found.slice(0, most)
  const last = page.at(-1)
  return {
    rows: page.map(({ key: _key, ...row }) => row),
    next: found.length > most && last ? `${last.key}~${last.id}` : null,
  }
}
