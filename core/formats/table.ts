import { elementAt, fieldOf, firstOf, present } from '#core/collections/held'
import { dsvFormat } from 'd3-dsv'
import { isPlainText, wordsOfCell, wordsToCell } from './cell'
import type { Field } from '#core/job/fields'
import { metric } from '#core/units/display'
import { formatQuantity, joinText } from '#core/units/format'
import { parseField } from '#core/job/parse-field'

/** A column of words. */
interface TextColumn {
  readonly type: 'text'
  readonly label: string
  readonly most: number
  readonly required?: true
  readonly pattern?: RegExp
  /** The expected form of a word that does not match the pattern. */
  readonly looksLike?: string
}
export type TableColumn = TextColumn | Field
export type TableColumns = Readonly<Record<string, TableColumn>>

export interface TableProblem {
  /** 1 for the header. */
  readonly line: number
  readonly column: string
  readonly reason: string
}
export interface TableRow {
  readonly line: number
  readonly values: Readonly<Record<string, string | number>>
}
interface ReadTable {
  readonly rows: readonly TableRow[]
  readonly problems: readonly TableProblem[]
  /** Rows of data in the file, good and bad. */
  readonly count: number
}

const mostTableRows = 20_000
const mostColumns = 200
/** Lines of a table at most: a cell may hold line ends, and empty lines may stand between rows. */
const mostLines = 4 * mostTableRows
const mostCellLetters = 500

const unitOf = (column: TableColumn): string =>
  column.type === 'quantity' && column.unit !== '' && column.unit !== 'money' ? ` (${column.unit})` : ''
const headerOf = (id: string, column: TableColumn): string => id + unitOf(column)

/** The separator of a header: the comma, unless another one is more frequent. */
const separatorOf = (header: string): string =>
  [',', ';', '\t'].reduce((a, b) => (header.split(b).length > header.split(a).length ? b : a))

/** Whether a text has more lines than this many; it is read no further than that. */
function hasMoreLines(text: string, most: number): boolean {
  let lines = 1
  for (const _end of text.matchAll(/\r\n|\r|\n/g)) if (++lines > most) return true
  return false
}

/** The cells of a table, line by line, and its header as it is written. */
export function cellsOf(text: string): { readonly headerLine: string; readonly lines: string[][] } {
  const plain = text.replace(/^\uFEFF/, '')
  const headerLine = present(/^[^\r\n]*/.exec(plain))[0]
  return { headerLine, lines: dsvFormat(separatorOf(headerLine)).parseRows(plain) }
}

/** The header row of a table: ids, with units in brackets. */
export const tableHeader = (columns: TableColumns): string[] =>
  Object.entries(columns).map(([id, column]) => headerOf(id, column))

/** How a table is read. */
interface TableReading {
  /** Columns this table does not know are left out and named, where otherwise they refuse the whole. */
  readonly leaveOutUnknown?: true
}

/**
 * Reads a table with a header row: comma, semicolon or tab (as the header has), standard quotes, any line ends. A
 * column is headed by its id or by its label, in capitals or not. Numbers are in the units of the header and
 * may be written as people write them. Each row that does not fit is reported by line, column and reason, and
 * the others are given. An error in the header refuses the whole table.
 */
export function readTable(text: string, columns: TableColumns, reading: TableReading = {}): ReadTable {
  const refuse = (line: number, column: string, reason: string): ReadTable => ({
    rows: [],
    problems: [{ line, column, reason }],
    count: 0,
  })
  const tooMany = `There are more than ${mostTableRows} rows`
  if (hasMoreLines(text, mostLines)) return refuse(mostLines + 1, '', tooMany)
  const { headerLine, lines } = cellsOf(text)
  if (headerLine.trim() === '') return refuse(1, '', 'There is no header row')
  if (lines.length - 1 > mostTableRows) return refuse(mostTableRows + 2, '', tooMany)
  if (firstOf(lines).length > mostColumns) return refuse(1, '', `There are more than ${mostColumns} columns`)
  if (firstOf(lines).some((cell) => cell.length > mostCellLetters))
    return refuse(1, '', 'A heading is too long')
  const heads = firstOf(lines).map((cell) => headed(cell, columns))
  const wrong = wrongInHeader(heads, columns)
  const unknown = unknownIn(heads, reading.leaveOutUnknown ? ', and is left out' : '')
  if (wrong.length > 0 || (unknown.length > 0 && !reading.leaveOutUnknown))
    return { rows: [], problems: [...unknown, ...wrong], count: 0 }
  const names = heads.map(({ id }) => id)
  const rows: TableRow[] = []
  const problems: TableProblem[] = [...unknown]
  let line = 1 + newLines(firstOf(lines))
  let count = 0
  for (const cells of lines.slice(1)) {
    const at = ++line
    line += newLines(cells)
    if (cells.every((cell) => cell.trim() === '')) continue
    count++
    const found = readRow(cells, names, columns, at)
    if (found.problems.length > 0) problems.push(...found.problems)
    else rows.push({ line: at, values: found.values })
  }
  return { rows, problems, count }
}

/** A cell of the header: the column it heads, null if the table has none such, and the unit written with it. */
interface Head {
  readonly id: string | null
  readonly words: string
  readonly unit: string | null
}

/** Reads a cell of the header. */
export function headed(cell: string, columns: TableColumns): Head {
  const text = cell.trim()
  const bracket = text.endsWith(')') ? text.lastIndexOf('(') : -1
  const words = (bracket < 0 ? text : text.slice(0, bracket)).trimEnd()
  const unit = bracket < 0 ? null : text.slice(bracket + 1, -1)
  const said = words.toLowerCase()
  const ids = Object.keys(columns)
  const labelled = ids.filter((id) => fieldOf(columns, id).label.toLowerCase() === said)
  const id =
    ids.find((name) => name === words) ??
    ids.find((name) => name.toLowerCase() === said) ??
    (labelled.length > 1
      ? labelled.find((name) => unitOf(fieldOf(columns, name)) === ` (${unit})`)
      : labelled[0])
  return { id: id ?? null, words, unit }
}

const unknownIn = (heads: readonly Head[], outcome: string): TableProblem[] =>
  heads.flatMap(({ id, words }, i) =>
    id === null
      ? [{ line: 1, column: words || `column ${i + 1}`, reason: `is not a column of this table${outcome}` }]
      : [],
  )

/** Columns that are repeated, in another unit, or missing. */
function wrongInHeader(heads: readonly Head[], columns: TableColumns): TableProblem[] {
  const problem = (column: string, reason: string): TableProblem => ({ line: 1, column, reason })
  const ids = heads.map(({ id }) => id)
  const each = heads.flatMap(({ id, unit }, i) => {
    if (id === null) return []
    const wanted = unitOf(fieldOf(columns, id)).slice(2, -1)
    return [
      ...(ids.indexOf(id) === i ? [] : [problem(id, 'is twice in the header')]),
      ...(unit === null || unit === wanted
        ? []
        : [problem(id, wanted ? `is in ${wanted}, not in ${unit}` : `has no unit, not ${unit}`)]),
    ]
  })
  const missing = Object.entries(columns).flatMap(([id, column]) =>
    column.type === 'text' && column.required && !ids.includes(id)
      ? [problem(id, 'is missing in the header')]
      : [],
  )
  return [...each, ...missing]
}

const newLines = (cells: readonly string[]): number =>
  cells.reduce((sum, cell) => sum + (cell.match(/\n|\r(?!\n)/g)?.length ?? 0), 0)

function readRow(
  cells: readonly string[],
  names: readonly (string | null)[],
  columns: TableColumns,
  line: number,
): { values: Record<string, string | number>; problems: TableProblem[] } {
  if (cells.length !== names.length)
    return {
      values: {},
      problems: [{ line, column: '', reason: `has ${cells.length} cells and the header ${names.length}` }],
    }
  const values: Record<string, string | number> = {}
  const problems: TableProblem[] = []
  names.forEach((name, i) => {
    if (name === null) return
    const text = elementAt(cells, i).trim()
    const column = fieldOf(columns, name)
    if (text === '') {
      if (column.type === 'text' && column.required) problems.push({ line, column: name, reason: 'is empty' })
      return
    }
    const read = readCell(text, column)
    if (typeof read === 'object') problems.push({ line, column: name, reason: read.error })
    else values[name] = read
  })
  return { values, problems }
}

/** A cell's value, or its error. Tables use metric units only, also in an imperial shop. */
function readCell(text: string, column: TableColumn): string | number | { readonly error: string } {
  if (text.length > mostCellLetters) return { error: 'is too long' }
  switch (column.type) {
    case 'text':
      return readWords(wordsOfCell(text), column)
    case 'choice':
      return Object.hasOwn(column.options, text)
        ? text
        : { error: `“${text.slice(0, 40)}” is not one of ${Object.keys(column.options).join(', ')}` }
    case 'rows':
      return { error: 'cannot be read from a table' }
    case 'quantity': {
      const parsed = parseField(column, text, metric)
      if (!parsed.ok) return { error: parsed.error }
      const [least, most] = column.limits
      if (parsed.value >= least && parsed.value <= most) return parsed.value
      return {
        error: joinText(
          `${text} cannot be: between ${formatQuantity(least, column.unit, metric)} `,
          `and ${formatQuantity(most, column.unit, metric)}`,
        ),
      }
    }
  }
}

function readWords(
  words: string,
  { most, pattern, looksLike }: TextColumn,
): string | { readonly error: string } {
  if (words.length > most) return { error: `is too long, at most ${most} letters` }
  if (!isPlainText(words)) return { error: 'holds characters that cannot be seen' }
  return !pattern || pattern.test(words)
    ? words
    : { error: `“${words.slice(0, 40)}” does not look like ${looksLike}` }
}

/**
 * Writes rows as a table that {@link readTable} reads back the same. Commas; a value that is not there is
 * empty.
 */
export function writeTable(
  columns: TableColumns,
  rows: readonly Readonly<Record<string, unknown>>[],
): string {
  const lines = rows.map((row) => Object.keys(columns).map((id) => cellOf(row[id])))
  return `${dsvFormat(',').formatRows([tableHeader(columns), ...lines])}\n`
}

const cellOf = (value: unknown): string =>
  value == null ? '' : typeof value === 'string' ? wordsToCell(value) : String(value)
