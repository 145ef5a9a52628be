import type { Reading } from '#core/loads/detect'
import { parseQuantity } from '#core/units/parse'

/** A line from an instrument of the shop. */
const instrumentQuantities = {
  voltage: 'V',
  current: 'A',
  temperature: '°C',
} as const
export type InstrumentQuantity = keyof typeof instrumentQuantities

/** One reading of an instrument. */
export interface InstrumentLine {
  readonly quantity: InstrumentQuantity
  /** Where it is held; empty if it does not say. */
  readonly at: string
  /** In V, A or °C. */
  readonly value: number
}

const longestLine = 500

/**
 * Reads a line of an instrument: `quantity,at,value,unit`, as `current,shunt,-12.4,A`, or the same as JSON. A value
 * without a unit is in V, A or °C. Null for a line that is none: a header, a comment, half a line.
 */
export function readInstrumentLine(line: string): InstrumentLine | null {
  const text = line.trim()
  if (text === '' || text.length > longestLine) return null
  const parts = text.startsWith('{') ? fromJson(text) : text.split(/[,;\t]/u).map((one) => one.trim())
  const [name = '', at = '', value = '', unit = ''] = parts ?? []
  const quantity = (Object.keys(instrumentQuantities) as InstrumentQuantity[]).find(
    (one) => one === name.toLowerCase(),
  )
  if (!quantity) return null
  const parsed = parseQuantity(`${value} ${unit}`.trim(), instrumentQuantities[quantity])
  return parsed.ok ? { quantity, at, value: parsed.value } : null
}

function fromJson(text: string): string[] | null {
  try {
    const { quantity, at = '', value, unit = '' } = JSON.parse(text) as Readonly<Record<string, unknown>>
    const isNumber = typeof value === 'number' || typeof value === 'string'
    return typeof quantity === 'string' && isNumber
      ? [quantity, String(at), String(value), String(unit)]
      : null
  } catch {
    return null
  }
}

/** Joins chunks into whole lines. */
export class LineReader {
  private rest = ''

  /** The lines that a piece completes. */
  push(piece: string): string[] {
    const lines = (this.rest + piece).split(/\r\n|\n|\r/u)
    this.rest = (lines.pop() ?? '').slice(-longestLine)
    return lines
  }
}

/** Makes readings of a shunt from lines of voltage and current: one with each current, once a voltage is known. */
export class ShuntLines {
  private volts: number | null = null

  /** @param t seconds since the recording began */
  push({ quantity, value }: InstrumentLine, t: number): Reading | null {
    if (quantity === 'voltage') this.volts = value
    return quantity === 'current' && this.volts !== null ? { t, amps: value, volts: this.volts } : null
  }
}
