import { fieldOf, present } from '#core/collections/held'
import { metric } from '#core/units/display'
import { formatNumber, formatRange, writerIn } from '#core/units/format'
import { parseNumber } from '#core/units/parse'
import type { Row, RowsField } from './field'

/** The cells of a table that is written as text, as they stand there; rows with nothing in them are left out. */
export const cellsOf = (text: string): string[][] =>
  text
    .split(/;|,\s+|\n/)
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line) => line.split(/\s*(?:\bat\b|[@×x:/])\s*/i))

/** Cells as text that {@link cellsOf} reads. */
export const textOfCells = (lines: readonly (readonly string[])[]): string =>
  lines
    .filter((cells) => cells.some((cell) => cell.trim() !== ''))
    .map((cells) => cells.map((cell) => cell.trim()).join(' / '))
    .join('\n')

const numberIn = (cell: string | undefined): number | null =>
  parseNumber((cell ?? '').replace(/\s*[a-z°%]+$/i, ''))

/**
 * Reads a table written as text: rows parted by a comma and space, a semicolon or a new line; columns
 * by `at`, `/`, `×` or `:`. Null when a row cannot be read or a value is out of its column's limits.
 *
 * @example parseRows('25 at 14.4, 30 at 12.6', driveTally) // [{ minutes: 25, volts: 14.4 }, …]
 */
export function parseRows(text: string, field: RowsField): readonly Row[] | null {
  const lines = cellsOf(text)
  if (lines.length === 0 || rowsProblem(text, field) !== null) return null
  return lines.map((cells) =>
    Object.fromEntries(field.columns.map(({ name }, i) => [name, present(numberIn(cells[i]))])),
  )
}

/** The error of the first unreadable row, as a sentence; null if all rows are readable. */
export function rowsProblem(text: string, { columns }: RowsField): string | null {
  for (const [r, cells] of cellsOf(text).entries()) {
    if (cells.length > columns.length) return `Row ${r + 1} has more than ${columns.length} values`
    for (const [i, { label, unit, limits }] of columns.entries()) {
      const [cell, value] = [cells[i]?.trim() ?? '', numberIn(cells[i])]
      const at = `Row ${r + 1}, ${label.toLowerCase()}`
      if (cell === '') return `${at}: still to be entered`
      if (value === null) return `${at}: “${cell}” is not a number`
      if (value < limits[0] || value > limits[1])
        return `${at}: must be ${formatRange(...limits, unit, writerIn(metric))}`
    }
  }
  return null
}

/** The text of a table, as {@link parseRows} reads it. */
export const formatRows = (rows: readonly Row[], { columns, between }: RowsField): string =>
  rows
    .map((row) =>
      columns
        .map(({ name, unit }) =>
          between === '' ? formatNumber(fieldOf(row, name), unit, metric) : String(fieldOf(row, name)),
        )
        .join(between),
    )
    .join(', ')
