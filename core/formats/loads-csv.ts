import { lastOf } from '#core/collections/held'
import { partsOf, valueOf, type JobDocument } from '#core/job/document'
import { partKinds } from '#core/job/fields'
import type { Reading } from '#core/loads/detect'
import type { LoadRow } from '#core/loads/take'
import { quantity } from '#core/job/field'
import type { CaseReading } from '#core/physics/alternator'
import { readTable, writeTable, type TableColumns, type TableProblem } from './table'

const { loads } = partKinds
export const loadColumns: TableColumns = {
  name: { type: 'text', label: 'Name', most: 200, required: true },
  ...loads.fields,
}

/**
 * Reads a table of loads: the good rows, and the errors of the others. It leaves out unknown columns and names
 * them, because such a table is often a sheet with remarks and totals.
 */
export function readLoadsCsv(text: string): {
  readonly loads: readonly LoadRow[]
  readonly problems: readonly TableProblem[]
  readonly count: number
} {
  const { rows, problems, count } = readTable(text, loadColumns, { leaveOutUnknown: true })
  return {
    problems,
    count,
    loads: rows.map(({ values: { name, ...values } }) => ({ name: String(name), values })),
  }
}

/** The loads of a job as a table. */
export const writeLoadsCsv = (job: JobDocument): string =>
  writeTable(
    loadColumns,
    partsOf(job, 'loads').map(({ part }) => ({
      name: part.name ?? loads.one,
      ...Object.fromEntries(
        Object.keys(loads.fields).map((field) => [field, valueOf(part, field) ?? undefined]),
      ),
    })),
  )

export const readingColumns: TableColumns = {
  time: quantity('Time', 's', 1, [0, 10_000_000], [0, 1], 'Seconds since the recording began.'),
  current: quantity('Current', 'A', 1, [-5000, 5000], [0, 1], 'Into the battery positive.'),
  voltage: quantity('Voltage', 'V', 0.1, [0, 1000], [0, 1], 'At the battery.'),
}

/** Reads a recording of a shunt: `time (s)`, `current (A)` into the battery, `voltage (V)`. Times must rise. */
export function readReadingsCsv(text: string): {
  readonly readings: readonly Reading[]
  readonly problems: readonly TableProblem[]
} {
  const { rows, problems } = readTable(text, readingColumns)
  const readings: Reading[] = []
  const found = [...problems]
  for (const { line, values } of rows) {
    const { time, current, voltage = 0 } = values as Record<string, number>
    if (time === undefined || current === undefined)
      found.push({ line, column: time === undefined ? 'time' : 'current', reason: 'is empty' })
    else if (readings.length > 0 && time <= lastOf(readings).t)
      found.push({ line, column: 'time', reason: 'is not later than the row before' })
    else readings.push({ t: time, amps: current, volts: voltage })
  }
  return { readings, problems: found.sort((a, b) => a.line - b.line) }
}

export const writeReadingsCsv = (readings: readonly Reading[]): string =>
  writeTable(
    readingColumns,
    readings.map(({ t, amps, volts }) => ({ time: t, current: amps, voltage: volts })),
  )

export const caseColumns: TableColumns = {
  amps: quantity('Current', 'A', 1, [0, 1000], [0, 1], 'Of the alternator.'),
  rpm: quantity('Shaft speed', 'rpm', 100, [0, 20_000], [0, 1], 'Of the alternator’s own shaft.'),
  minutes: quantity('Time', 'min', 1, [0, 600], [0, 1], 'Since the load began.'),
  celsius: quantity('Case', '°C', 1, [-50, 250], [0, 1], 'Contact probe on the case.'),
}

/** Reads a log of an alternator's case: amps, rpm, minutes and °C in every row. */
export function readCaseCsv(text: string): {
  readonly readings: readonly CaseReading[]
  readonly problems: readonly TableProblem[]
} {
  const { rows, problems } = readTable(text, caseColumns)
  const short = rows.flatMap(({ line, values }) =>
    Object.keys(caseColumns)
      .filter((name) => values[name] === undefined)
      .map((column) => ({ line, column, reason: 'is empty' })),
  )
  return {
    readings: rows.map(({ values }) => values as unknown as CaseReading),
    problems: [...problems, ...short],
  }
}
