import { describe, expect, it } from 'vitest'
import { resolveRules } from '#core/rules/rules'
import { metric } from '#core/units/display'
import { writerIn } from '#core/units/format'
import { entryProblems } from './check-entry'
import { entryOf, standingEntries, type EntryBody, type LogEntry } from './entry'
import { checksNext, trendWords } from './flags'
import { seriesOf } from './series'

const rules = resolveRules({})
const q = writerIn(metric)
const now = Date.UTC(2026, 10, 29)
let count = 0
const logged = (
  body: Partial<EntryBody> & Pick<EntryBody, 'kind' | 'at'>,
  more: Partial<LogEntry> = {},
): LogEntry => ({
  ...entryOf({ source: 'typed', ...body }),
  id: `e${(count += 1)}`,
  by: 'Ida',
  addedAt: `${body.at}T00:00:00.000Z`,
  job: null,
  ...more,
})
const capacity = (year: number, value: number, more: Partial<EntryBody> = {}): LogEntry =>
  logged({
    kind: 'reading',
    at: `${year}-06-01`,
    quantity: 'capacity',
    subject: 'House bank',
    value,
    ...more,
  })
const fading = [2020, 2021, 2022, 2023, 2024, 2025, 2026].map((year, i) =>
  capacity(year, 100 - 2.5 * i + (i % 2 ? 0.3 : -0.3), { expected: 100 }),
)

describe('series of a logbook', () => {
  it('join readings of one place whatever its capitals, and leave out corrected ones', () => {
    const wrong = capacity(2024, 9)
    const entries = [
      capacity(2023, 95),
      wrong,
      capacity(2024, 90, { corrects: wrong.id, subject: 'house bank ' }),
      logged({ kind: 'reading', at: '2024-06-01', quantity: 'tailCurrent', subject: 'House bank', value: 2 }),
    ]
    expect(standingEntries(entries)).toHaveLength(3)
    const [first, second] = seriesOf(entries, rules)
    expect(first!.readings.map(({ value }) => value)).toEqual([95, 90])
    expect([second!.quantity, second!.limit]).toEqual(['tailCurrent', null])
  })

  it('take the limit of capacity from its label, and that of a joint from its first reading', () => {
    const [bank] = seriesOf([capacity(2023, 180, { expected: 220 })], rules)
    expect(bank!.limit).toEqual({ value: 176, worse: 'lower', whenNew: 220 })
    const joint = (value: number, source: 'prove' | 'typed') =>
      logged({
        kind: 'reading',
        at: '2024-01-01',
        quantity: 'jointResistance',
        subject: 'W1',
        value,
        expected: 1,
        source,
      })
    // A prediction is no value when new; one that a person entered is.
    expect(seriesOf([joint(1.2, 'prove')], rules)[0]!.limit!.value).toBeCloseTo(1.8)
    expect(seriesOf([joint(1.2, 'typed')], rules)[0]!.limit!.value).toBeCloseTo(1.5)
  })

  it('begin again when the part is replaced', () => {
    const replaced = logged({ kind: 'replaced', at: '2024-12-01', subject: 'House bank' })
    const [bank] = seriesOf([...fading, replaced], rules)
    expect(bank!.readings.map(({ entry }) => entry.at.slice(0, 4))).toEqual(['2025', '2026'])
  })
})

describe('the flags for the next visit', () => {
  const checksOf = (entries: readonly LogEntry[]) =>
    checksNext({ entries, series: seriesOf(entries, rules) }, { rules, q, now })

  it('names the year in which a fading bank meets the limit, with its interval', () => {
    const [series] = seriesOf(fading, rules)
    expect(trendWords(series!, q, now)).toMatch(
      /^Falls by 2\.5 Ah a year \(2\.\d Ah to 2\.\d Ah\)\. It reaches 80 Ah in 2028 \(.+\)\.$/,
    )
    expect(checksOf(fading).map(({ from, words }) => [from, words])).toEqual([
      ['trend', 'Capacity, House bank: measure it again.'],
    ])
  })

  it('says that three readings are too few, and flags nothing', () => {
    const three = fading.slice(0, 3)
    expect(trendWords(seriesOf(three, rules)[0]!, q, now)).toBe('Too few readings for a trend: 3 of 5.')
    expect(checksOf(three)).toEqual([])
  })

  it('put a reading past its limit first, and keep open items until they are settled', () => {
    const open = logged({ kind: 'deviation', at: '2026-10-01', words: 'Fan guard is missing' })
    const past = capacity(2026, 70, { expected: 100 })
    const checks = checksOf([...fading, open, past])
    expect(checks.map(({ from }) => from)).toEqual(['limit', 'open'])
    expect(checks[0]!.why).toBe('The last reading is 70 Ah. The limit is 80 Ah.')
    expect(checks[1]!.why).toBe('Left open on 1 October 2026.')
    const settled = logged({ kind: 'note', at: '2026-11-01', words: 'Fitted', corrects: open.id })
    expect(checksOf([open, settled])).toEqual([])
  })

  it('is silent about a trend that moves away from its limit', () => {
    const better = fading.map((entry, i) => ({ ...entry, value: 90 + i }))
    expect(checksOf(better)).toEqual([])
    expect(trendWords(seriesOf(better, rules)[0]!, q, now)).toMatch(/^Rises by 1 Ah a year/)
  })
})

describe('an entry', () => {
  const problems = (body: Partial<EntryBody> & Pick<EntryBody, 'kind' | 'at'>) =>
    entryProblems(entryOf({ source: 'typed', ...body }), now).map(({ field }) => field)

  it('is refused with the field that is wrong', () => {
    expect(problems({ kind: 'reading', at: '2026-01-01', quantity: 'capacity', value: 100 })).toEqual([])
    expect(problems({ kind: 'reading', at: '2026-01-01' })).toEqual(['quantity'])
    expect(problems({ kind: 'reading', at: 'soon', quantity: 'capacity', value: -1, tolerance: -2 })).toEqual(
      ['at', 'value', 'tolerance'],
    )
    expect(problems({ kind: 'visit', at: '2026-12-24' })).toEqual(['at', 'words'])
    expect(
      problems({ kind: 'replaced', at: '2026-01-01', subject: 'Relay', warrantyEnd: '2025-01-01' }),
    ).toEqual(['warrantyEnd'])
    expect(problems({ kind: 'replaced', at: '2026-01-01' })).toEqual(['subject'])
  })
})
