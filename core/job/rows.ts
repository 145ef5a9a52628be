import { metric } from '#core/units/display'
import { formatNumber } from '#core/units/format'
import { parseNumber } from '#core/units/parse'
import type { Row, RowsField } from './field'

/**
 * Reads a table written as text: rows parted by a comma and space, a semicolon or a new line; columns
 * by `at`, `/`, `×` or `:`. Null when a row cannot be read or a value is out of its column's limits.
 *
 * @example parseRows('25 at 14.4, 30 at 12.6', driveTally) // [{ minutes: 25, volts: 14.4 }, …]
 */
export function parseRows(text: string, { columns }: RowsField): readonly Row[] | null {
  const lines = text
    .split(/;|,\s+|\n/)
    .map((line) => line.trim())
    .filter(Boolean)
  const read = lines.map((line): Row | null => {
    const numbers = line
      .split(/\s*(?:\bat\b|[@×x:/])\s*/i)
      .map((part) => parseNumber(part.replace(/\s*[a-z°]+$/i, '')))
    if (numbers.length !== columns.length) return null
    const fits = columns.every(
      ({ limits: [least, most] }, i) => numbers[i] != null && numbers[i] >= least && numbers[i] <= most,
    )
    return fits ? Object.fromEntries(columns.map(({ name }, i) => [name, numbers[i]!])) : null
  })
  return read.length === 0 || read.includes(null) ? null : (read as Row[])
}

/** The text of a table, as {@link parseRows} reads it. */
export const formatRows = (rows: readonly Row[], { columns, between }: RowsField): string =>
  rows
    .map((row) =>
      columns
        .map(({ name, unit }) =>
          between === '' ? formatNumber(row[name]!, unit, metric) : String(row[name]!),
        )
        .join(between),
    )
    .join(', ')
