import type { EntryBody } from './entry'
import { logQuantity } from './quantities'

interface EntryProblem {
  readonly field: 'value' | 'expected' | 'tolerance' | 'quantity' | 'subject' | 'words' | 'at' | 'warrantyEnd'
  readonly reason: string
}

const earliest = '1950-01-01'
const dayMs = 86_400_000

/**
 * The errors of an entry, field by field; empty if it is valid.
 * @param now ms since 1970: readings are not from the future, but clocks of devices may be a day ahead
 */
export function entryProblems(entry: EntryBody, now: number): EntryProblem[] {
  const problems: EntryProblem[] = []
  const note = (field: EntryProblem['field'], reason: string) => problems.push({ field, reason })
  const at = Date.parse(entry.at)
  if (Number.isNaN(at) || entry.at < earliest) note('at', 'must be a date such as 2026-11-29')
  else if (at > now + dayMs) note('at', 'is in the future')
  if (entry.kind === 'reading') ofReading(entry, note)
  else if (entry.kind === 'replaced') {
    if (entry.subject === '') note('subject', 'is empty: name the part')
  } else if (entry.words === '' && entry.kind !== 'photo') note('words', 'is empty')
  if (entry.warrantyEnd !== null && entry.warrantyEnd < entry.at.slice(0, 10))
    note('warrantyEnd', 'is before the part was fitted')
  return problems
}

function ofReading(
  { quantity, value, expected, tolerance }: EntryBody,
  note: (field: EntryProblem['field'], reason: string) => void,
): void {
  if (quantity === null) return void note('quantity', 'is empty')
  const { range, unit } = logQuantity(quantity)
  const [least, most] = range
  const check = (field: 'value' | 'expected', one: number | null): void => {
    if (one !== null && (one < least || one > most))
      note(field, `must be between ${least} and ${most} ${unit}`.trim())
  }
  if (value === null) note('value', 'is empty')
  check('value', value)
  check('expected', expected)
  if (tolerance !== null && tolerance < 0) note('tolerance', 'must be 0 or more')
}
