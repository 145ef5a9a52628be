import { entryProblems } from '#core/logbook/check-entry'
import {
  entryKinds,
  entryOf,
  writtenKinds,
  type EntryBody,
  type EntryKind,
  type LogEntry,
} from '#core/logbook/entry'
import { logQuantities, logQuantity, logQuantityIds, type LogQuantityId } from '#core/logbook/quantities'
import { parseQuantity } from '#core/units/parse'
import { readTable, writeTable, type TableColumns, type TableProblem, type TableRow } from './table'

const day = /^\d{4}-\d{2}-\d{2}$/
const moment = /^\d{4}-\d{2}-\d{2}([T ]\d{2}:\d{2}(:\d{2}(\.\d{1,3})?)?(Z|[+-]\d{2}:\d{2})?)?$/

const columns: TableColumns = {
  at: { type: 'text', label: 'Date', most: 40, required: true, pattern: moment, looksLike: '2026-11-29' },
  kind: { type: 'text', label: 'Kind', most: 40 },
  quantity: { type: 'text', label: 'Quantity', most: 60 },
  subject: { type: 'text', label: 'Of', most: 200 },
  value: { type: 'text', label: 'Value', most: 40 },
  unit: { type: 'text', label: 'Unit', most: 20 },
  expected: { type: 'text', label: 'Expected', most: 40 },
  tolerance: { type: 'text', label: 'Tolerance', most: 40 },
  words: { type: 'text', label: 'Words', most: 500 },
  serial: { type: 'text', label: 'Serial number', most: 100 },
  warrantyEnd: { type: 'text', label: 'Warranty end', most: 10, pattern: day, looksLike: '2031-11-29' },
  by: { type: 'text', label: 'By', most: 100 },
}

/** A logbook as a table, in the units that its quantities are kept in. Photographs stay outside a table. */
export const writeLogbookCsv = (entries: readonly LogEntry[]): string =>
  writeTable(
    columns,
    entries
      .filter(({ kind }) => kind !== 'photo')
      .map(({ at, kind, quantity, subject, value, expected, tolerance, words, serial, warrantyEnd, by }) => ({
        at,
        kind,
        quantity: quantity ?? undefined,
        subject: subject || undefined,
        value: value === null ? undefined : String(value),
        unit: quantity ? logQuantity(quantity).unit || undefined : undefined,
        expected: expected === null ? undefined : String(expected),
        tolerance: tolerance === null ? undefined : String(tolerance),
        words: words || undefined,
        serial: serial || undefined,
        warrantyEnd: warrantyEnd ?? undefined,
        by,
      })),
  )

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase()
const quantityOf = (words: string): LogQuantityId | undefined =>
  logQuantityIds.find((id) => same(id, words) || same(logQuantities[id].label, words))
const kindOf = (words: string): EntryKind | undefined =>
  writtenKinds.find((id) => same(id, words) || same(entryKinds[id], words))

/** A time as it is kept; a day alone is its noon, so that it is the same day everywhere. */
const momentOf = (words: string): string => {
  if (day.test(words)) return `${words}T12:00:00.000Z`
  const zoned = /(Z|[+-]\d{2}:\d{2})$/.test(words) ? words : `${words}Z`
  const date = new Date(zoned.replace(' ', 'T'))
  return Number.isNaN(date.getTime()) ? '' : date.toISOString()
}

/**
 * Reads entries of a logbook: `at,kind,quantity,subject,value,unit,…`. A row with a quantity is a reading, and one
 * without is a note, unless it says otherwise. Each value is in the unit next to it, in its own, or in that of its
 * quantity.
 * @param now ms since 1970: entries from the future are refused
 */
export function readLogbookCsv(
  text: string,
  now: number,
): {
  readonly entries: readonly EntryBody[]
  readonly problems: readonly TableProblem[]
  readonly count: number
} {
  const { rows, problems, count } = readTable(text, columns, { leaveOutUnknown: true })
  const read = rows.map((row) => readRow(row, now))
  return {
    count,
    entries: read.flatMap(({ entry }) => entry ?? []),
    problems: [...problems, ...read.flatMap((one) => one.problems)].sort((a, b) => a.line - b.line),
  }
}

function readRow(
  { line, values }: TableRow,
  now: number,
): { readonly entry?: EntryBody; readonly problems: readonly TableProblem[] } {
  const problems: TableProblem[] = []
  const word = (column: string): string => String(values[column] ?? '')
  const quantity = word('quantity') ? quantityOf(word('quantity')) : undefined
  if (word('quantity') && !quantity)
    problems.push({ line, column: 'quantity', reason: `must be one of: ${logQuantityIds.join(', ')}` })
  const kind = word('kind') ? kindOf(word('kind')) : quantity ? 'reading' : 'note'
  if (!kind) problems.push({ line, column: 'kind', reason: `must be one of: ${writtenKinds.join(', ')}` })
  const numberIn = (column: 'value' | 'expected' | 'tolerance'): number | null => {
    if (!word(column) || !quantity) return null
    const unit = word('unit')
    const isBare = /\d$/.test(word(column).trim())
    const written = unit && isBare ? `${word(column)} ${unit}` : word(column)
    const result = parseQuantity(written, logQuantity(quantity).unit)
    if (result.ok) return result.value
    problems.push({ line, column, reason: result.error })
    return null
  }
  const [value, expected, tolerance] = [numberIn('value'), numberIn('expected'), numberIn('tolerance')]
  if (!kind || problems.length > 0) return { problems }
  const entry = entryOf({
    kind,
    at: momentOf(word('at')),
    source: 'csv',
    quantity: kind === 'reading' ? (quantity ?? null) : null,
    subject: word('subject'),
    value,
    expected,
    tolerance,
    words: word('words'),
    serial: word('serial'),
    warrantyEnd: word('warrantyEnd') || null,
  })
  const wrong = entryProblems(entry, now).map(({ field, reason }) => ({ line, column: field, reason }))
  return wrong.length > 0 ? { problems: wrong } : { entry, problems: [] }
}
