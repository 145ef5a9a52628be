import { fieldOf } from '#core/collections/held'
import { shelfKind, type ShelfKindId, type ShelfPart, type ShelfValues } from '#core/shelf/kinds'
import { readTable, writeTable, type TableColumns, type TableProblem } from './table'

/** Most bytes of a shelf table that are read. */
export const largestShelfFileBytes = 8 * 1024 * 1024
export const shelfCodePattern = /^[A-Za-z0-9][A-Za-z0-9._-]{0,39}$/

/** The columns of the table of a kind. */
export const shelfColumns = (kind: ShelfKindId): TableColumns => ({
  code: {
    type: 'text',
    label: 'Code',
    most: 40,
    required: true,
    pattern: shelfCodePattern,
    looksLike: 'a code of letters, digits, dots and dashes',
  },
  name: { type: 'text', label: 'Name', most: 120, required: true },
  maker: { type: 'text', label: 'Maker', most: 120 },
  ...shelfKind(kind).fields,
})

type ShelfRow = Pick<ShelfPart, 'code' | 'name' | 'maker' | 'values'> & { readonly line: number }

interface ReadShelf {
  readonly parts: readonly ShelfRow[]
  readonly problems: readonly TableProblem[]
  readonly count: number
}

/**
 * Reads a table of parts of one kind: the good rows, and the errors of the others with line, column and reason.
 */
export function readShelfCsv(text: string, kind: ShelfKindId): ReadShelf {
  const { rows, problems, count } = readTable(text, shelfColumns(kind))
  const seen = new Map<string, number>()
  const twice: TableProblem[] = []
  const parts = rows.flatMap(({ line, values }): ShelfRow[] => {
    const { code, name, maker = '', ...rest } = values as Record<string, string | number>
    const first = seen.get(String(code))
    if (first !== undefined) {
      twice.push({ line, column: 'code', reason: `${code} is in line ${first} already` })
      return []
    }
    seen.set(String(code), line)
    return [
      { line, code: String(code), name: String(name), maker: String(maker), values: rest as ShelfValues },
    ]
  })
  return { parts, problems: [...problems, ...twice].sort((a, b) => a.line - b.line), count }
}

/** The table of parts of one kind, with its header row even where there are none. */
export const writeShelfCsv = (
  kind: ShelfKindId,
  parts: readonly Pick<ShelfPart, 'code' | 'name' | 'maker' | 'values'>[],
): string =>
  writeTable(
    shelfColumns(kind),
    parts.map(({ code, name, maker, values }) => ({ code, name, maker, ...values })),
  )

/** Checks one part as typed. Returns the errors by field; empty if there are none. */
export function checkShelfPart(
  kind: ShelfKindId,
  part: {
    readonly code: string
    readonly name: string
    readonly maker: string
    readonly values: Readonly<Record<string, unknown>>
  },
): readonly TableProblem[] {
  const unknown = Object.keys(part.values).filter((name) => !Object.hasOwn(shelfKind(kind).fields, name))
  if (unknown.length > 0)
    return unknown.map((column) => ({ line: 2, column, reason: 'is not a value of this kind' }))
  const strange = Object.entries(part.values).flatMap(([column, value]) => {
    const wanted = fieldOf(shelfKind(kind).fields, column).type === 'choice' ? 'string' : 'number'
    if (typeof value === wanted && value !== '') return []
    return [{ line: 2, column, reason: wanted === 'string' ? 'must be a word' : 'must be a number' }]
  })
  if (strange.length > 0) return strange
  return readShelfCsv(writeShelfCsv(kind, [part as never]), kind).problems
}
