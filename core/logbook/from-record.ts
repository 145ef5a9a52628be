import type { FittingRecord, RecordedNumbers } from '#core/papers/record'
import { entryOf, type EntryBody } from './entry'
import type { LogQuantityId } from './quantities'

/** Readings that a logbook keeps under the title of their test. */
const byTest: Readonly<Partial<Record<RecordedNumbers['quantity'], LogQuantityId>>> = {
  volts: 'voltage',
  amps: 'current',
  'ampere-hours': 'charge',
}

/** What was calculated says no more than four digits. */
const rounded = (value: number): number => Number(value.toPrecision(4))

/** Entries that a signed record adds to the logbook of its craft: the visit, its readings, and what it left open. */
export function entriesOfRecord({ inputs, result }: FittingRecord): EntryBody[] {
  const { issuedAt, number, signature } = inputs
  const made = { at: issuedAt, source: 'prove' as const }
  const visit = entryOf({
    ...made,
    kind: 'visit',
    words: `Fitted and proved ${number}, signed by ${signature.name}: ${result.headline}`,
  })
  const readings = result.tests.flatMap(({ title, numbers, when }): EntryBody[] => {
    const quantity = numbers && (numbers.keptAs?.quantity ?? byTest[numbers.quantity])
    if (!quantity) return []
    const { value, expected, tolerance, keptAs } = numbers
    const subject = keptAs?.part ?? title
    return [
      entryOf({
        ...made,
        at: when,
        kind: 'reading',
        quantity,
        subject,
        value,
        expected: rounded(expected),
        tolerance: rounded(tolerance),
      }),
    ]
  })
  const joints = result.learnt.flatMap(({ what, name, before, after, within }): EntryBody[] =>
    what === 'resistance' && name && after !== undefined
      ? [
          entryOf({
            ...made,
            kind: 'reading',
            quantity: 'jointResistance',
            subject: name,
            value: rounded(after),
            expected: before === undefined ? null : rounded(before),
            tolerance: within === undefined ? null : rounded(within),
          }),
        ]
      : [],
  )
  const repairs = result.mended.map(({ words, when }) =>
    entryOf({ ...made, at: when, kind: 'note', words: `${words}: repaired` }),
  )
  const left = leftOpen(result).map((words) => entryOf({ ...made, kind: 'deviation', words }))
  return [visit, ...readings, ...joints, ...repairs, ...left]
}

/** What was left open when the record was signed, a sentence each. */
function leftOpen({ tests, open, steps }: FittingRecord['result']): string[] {
  const outside = tests
    .filter(({ within }) => !within)
    .map(({ title, reading, expected }) => `${title}: read ${reading}, expected ${expected}.`)
  const untested = open.map((title) => `${title}: not tested.`)
  const skipped = steps
    .filter(({ state }) => state === 'put-off')
    .map(({ words, note }) => `Skipped: ${words}${note ? ` (${note})` : ''}`)
  return [...outside, ...untested, ...skipped]
}
