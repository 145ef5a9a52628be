import { parseNumber } from '../units/parse'
import type { TallyRow } from './fields'

/** Reads `25 at 14.4, 30 at 12.6`: minutes at volts, rows parted by a comma and space or by a semicolon. Null when a row cannot be read. */
export function parseTally(text: string): readonly TallyRow[] | null {
  const rows = text.split(/;|,\s+|\n/).map((row) => row.trim()).filter(Boolean)
  const read = rows.map((row) => {
    const [minutes, volts, ...more] = row.split(/\s*(?:at|@|×|x|:)\s*/i).map((part) => parseNumber(part.replace(/\s*(v|min|minutes?)$/i, '')))
    return minutes == null || volts == null || more.length > 0 || minutes < 0 || minutes > 10_000 || volts < 0 || volts > 80 ? null : { minutes, volts }
  })
  return read.length === 0 || read.includes(null) ? null : (read as TallyRow[])
}

export const formatTally = (rows: readonly TallyRow[]): string => rows.map(({ minutes, volts }) => `${minutes} at ${volts}`).join(', ')
