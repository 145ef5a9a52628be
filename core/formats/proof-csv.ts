import { readTable, writeTable, type TableColumns, type TableProblem } from './table'
import type { ProofTest } from '#core/proving/tests/test'
import { parseQuantity } from '#core/units/parse'

const columns: TableColumns = {
  test: { type: 'text', label: 'Test', most: 200, required: true },
  value: { type: 'text', label: 'Value', most: 40, required: true },
}

/** What of a test is needed to read what stands in a table. */
type Readable = Pick<ProofTest, 'id' | 'quantity' | 'unit'>

export interface ReadReadings<T extends Readable> {
  readonly readings: readonly { readonly test: T; readonly value: number }[]
  readonly problems: readonly TableProblem[]
}

/**
 * Reads readings of tests: `test,value`, each value in the unit of its test or with its own. A test that a job has not,
 * and a value that cannot be read, is named by its line; of a test that stands twice the last counts.
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

const answers: Readonly<Record<string, number>> = { yes: 1, no: 0 }

/** A reading as somebody writes it: `12,85`, `340 mV`, `yes`. */
export function readValue(
  text: string,
  { quantity, unit }: Readable,
): { readonly ok: true; readonly value: number } | { readonly ok: false; readonly error: string } {
  const answer = quantity === 'answer' ? answers[text.trim().toLowerCase()] : undefined
  return answer === undefined ? parseQuantity(text, unit) : { ok: true, value: answer }
}

/** Readings as a table that {@link readProofCsv} reads. */
export const writeProofCsv = (
  readings: readonly { readonly test: Readable; readonly value: number }[],
): string =>
  writeTable(
    columns,
    readings.map(({ test, value }) => ({ test: test.id, value: String(value) })),
  )
