import type { FittingRecord, RecordedNumbers } from '#core/papers/record'
import { entryOf, type EntryBody } from './entry'
import type { LogQuantityId } from './quantities'

/** Readings that a logbook keeps under the title of their test. */
const byTest: Readonly<Partial<Record<RecordedNumbers['quantity'], LogQuantityId>>> = {
  volts: 'voltage',
  amps: 'current',
  'ampere-hours': 'charge',
}

/** Calculated values have at most four digits. */
const rounded = (value: number): number => Number(value.toPrecision(4))

/** Entries that a signed record adds to the logbook of its craft: the visit, its readings, and its open items. */
export function entriesOfRecord({ inputs, result }: FittingRecord): EntryBody[] {
  const { issuedAt, number, signature } = inputs
  const made = { at: issuedAt, source: 'prove' as const }
  const visit = entryOf({
    ...made,
    kind: 'visit',
    words: `Fitted and proved ${number}, signed by ${signature.name}: ${result.headline}`,
  })
  const repairs = result.mended.map(({ words, when }) =>
    entryOf({ ...made, at: when, kind: 'note', words: `${words}: repaired` }),
  )
  const left = openItems(result).map((words) => entryOf({ ...made, kind: 'deviation', words }))
  return [visit, ...readingsOf(result), ...jointsOf(result, issuedAt), ...repairs, ...left]
}

/** The readings of the tests that a logbook keeps. */
const readingsOf = ({ tests }: FittingRecord['result']): EntryBody[] =>
  tests.flatMap(({ title, numbers, when }): EntryBody[] => {
    const quantity = numbers && (numbers.keptAs?.quantity ?? byTest[numbers.quantity])
    if (!quantity) return []
    const { value, expected, tolerance, keptAs } = numbers
    return [
      entryOf({
        kind: 'reading',
        at: when,
        source: 'prove',
        quantity,
        subject: keptAs?.part ?? title,
        value,
        expected: rounded(expected),
        tolerance: rounded(tolerance),
      }),
    ]
  })

/** The resistances of joints that the readings told. */
const jointsOf = ({ learnt }: FittingRecord['result'], at: string): EntryBody[] =>
  learnt.flatMap(({ what, name, before, after, within }): EntryBody[] =>
    what === 'resistance' && name && after !== undefined
      ? [
          entryOf({
            kind: 'reading',
            at,
            source: 'prove',
            quantity: 'jointResistance',
            subject: name,
            value: rounded(after),
            expected: before === undefined ? null : rounded(before),
            tolerance: within === undefined ? null : rounded(within),
          }),
        ]
      : [],
  )

/** Items that were open when the record was signed, a sentence each. */
function openItems({ tests, open, steps }: FittingRecord['result']): string[] {
  const outside = tests
    .filter(({ within }) => !within)
    .map(({ title, reading, expected }) => `${title}: read ${reading}, expected ${expected}.`)
  const untested = open.map((title) => `${title}: not tested.`)
  const skipped = steps
    .filter(({ state }) => state === 'put-off')
    .map(({ words, note }) => `Skipped: ${words}${note ? ` (${note})` : ''}`)
  return [...outside, ...untested, ...skipped]
}
