import { readTable, type TableColumns, type TableProblem } from './table'
import type { ProofTest } from '#core/commissioning/tests/test'
import type { ShownTest } from '#core/diagnosis/shown'
import { parseQuantity } from '#core/units/parse'

const columns: TableColumns = {
  test: { type: 'text', label: 'Test', most: 200, required: true },
  value: { type: 'text', label: 'Value', most: 40, required: true },
}

/** The properties of a test that are needed to read a table. */
type Readable = Pick<ProofTest, 'id' | 'quantity' | 'unit'>

interface ReadReadings<T extends Readable> {
  readonly readings: readonly { readonly test: T; readonly value: number }[]
  readonly problems: readonly TableProblem[]
}

/**
 * Reads readings of tests: `test,value`, each value in the unit of its test or with its own. A test that a job has
 * not, and a value that cannot be read, is named by its line; of a test that stands twice the last counts.
 */
export function readProofCsv<T extends Readable>(text: string, tests: readonly T[]): ReadReadings<T> {
  const { rows, problems } = readTable(text, columns)
  const found: TableProblem[] = [...problems]
  const readings = new Map<string, { test: T; value: number }>()
  for (const { line, values } of rows) {
    const id = String(values.test)
    const test = tests.find((one) => one.id === id)
    if (!test) {
      found.push({ line, column: 'test', reason: `This job has no test ${id}` })
      continue
    }
    const read = readValue(String(values.value), test)
    if (read.ok) readings.set(id, { test, value: read.value })
    else found.push({ line, column: 'value', reason: read.error })
  }
  return { readings: [...readings.values()], problems: found }
}

const recorded: TableColumns = {
  time: { type: 'text', label: 'Time', most: 40, required: true },
  quantity: { type: 'text', label: 'Quantity', most: 40, required: true },
  at: { type: 'text', label: 'At', most: 200, required: true },
  value: { type: 'text', label: 'Value', most: 40, required: true },
  unit: { type: 'text', label: 'Unit', most: 20 },
}

/**
 * Where an instrument is held, as a recording names it: by the test, by the run it is round, by the post it is on.
 */
type Placed = Readable & Pick<ShownTest, 'run' | 'from'>

/** Whether a table is a recording of instruments, by its header. */
export const isRecording = (text: string): boolean => /^\uFEFF?\s*"?time"?\s*[,;]/i.test(text)

/**
 * Reads a recording of instruments: `time,quantity,at,value,unit`. `at` is a test, or its run or post with that
 * quantity. For each test it takes the mean of the last readings, after the instrument settled.
 */
export function readRecordingCsv<T extends Placed>(text: string, tests: readonly T[]): ReadReadings<T> {
  const { rows, problems } = readTable(text, recorded)
  const found: TableProblem[] = [...problems]
  const series = new Map<T, number[]>()
  for (const { line, values } of rows) {
    const [at, quantity] = [String(values.at), String(values.quantity).toLowerCase()]
    const test =
      tests.find(({ id }) => id === at) ??
      tests.find((one) => one.quantity === quantity && (one.run === at || one.from === at))
    if (!test) {
      found.push({ line, column: 'at', reason: `This job has no test of ${quantity} at ${at}` })
      continue
    }
    const read = readValue(`${String(values.value)} ${String(values.unit ?? '')}`.trim(), test)
    if (read.ok) series.set(test, [...(series.get(test) ?? []), read.value])
    else found.push({ line, column: 'value', reason: read.error })
  }
  const readings = [...series].map(([test, all]) => {
    const settled = all.slice(-settledReadings)
    return { test, value: settled.reduce((sum, value) => sum + value, 0) / settled.length }
  })
  return { readings, problems: found }
}
const settledReadings = 10

const answers: Readonly<Record<string, number>> = { yes: 1, no: 0 }

/** A reading as someone writes it: `12,85`, `340 mV`, `yes`. */
export function readValue(
  text: string,
  { quantity, unit }: Readable,
): { readonly ok: true; readonly value: number } | { readonly ok: false; readonly error: string } {
  const answer = quantity === 'answer' ? answers[text.trim().toLowerCase()] : undefined
  return answer === undefined ? parseQuantity(text, unit) : { ok: true, value: answer }
}
