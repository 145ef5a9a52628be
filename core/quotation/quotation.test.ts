import { describe, expect, it } from 'vitest'
import { applyChanges, changesBetween, conflictsBetween } from '#core/job/changes'
import { emptyJob } from '#core/job/document'
import {
  quotationLabel,
  withAddedLine,
  withLine,
  withoutAddedLine,
  withTerms,
  type QuotationDraft,
} from '#core/job/quotation'
import type { ListedPart, Specified } from '#core/job/specified'
import { quotationLines, type QuotationLine } from './lines'
import { formatMoney, minorOf, multiplied, share } from './money'
import { stateOfQuotation, validUntil, type QuotationAnswer } from './state'
import { usualLetterhead, type Letterhead } from './terms'
import { totalsOf } from './totals'

/** A line as price, quantity, discount in percent, tax in percent; and whether it is optional. */
type Row = readonly [price: number, quantity: number, discount: number, tax: number, isOptional?: boolean]
type Expected = readonly [subtotal: number, discount: number, taxes: number[], total: number, deposit: number]

/** Worked out by hand with decimal fractions, in the smallest unit of the currency. */
const worked: readonly (readonly [string, string, readonly Row[], object, Expected])[] = [
  ['one line, no tax', 'EUR', [[100, 1, 0, 0]], {}, [10000, 0, [0], 10000, 0]],
  ['one line, 20 %', 'GBP', [[100, 1, 0, 20]], {}, [10000, 0, [2000], 12000, 0]],
  ['19 % of an odd amount', 'EUR', [[33.33, 1, 0, 19]], {}, [3333, 0, [633], 3966, 0]],
  ['metres of cable', 'EUR', [[4.35, 2.75, 0, 19]], {}, [1196, 0, [227], 1423, 0]],
  ['half a cent goes up', 'EUR', [[0.05, 0.1, 0, 0]], {}, [1, 0, [0], 1, 0]],
  ['a price of 1.005', 'EUR', [[1.005, 1, 0, 0]], {}, [101, 0, [0], 101, 0]],
  ['a third off', 'EUR', [[9.99, 3, 33.33, 0]], {}, [1998, 0, [0], 1998, 0]],
  ['the discount of a line', 'EUR', [[1290, 2, 5, 19]], {}, [245100, 0, [46569], 291669, 0]],
  [
    'a line given away',
    'EUR',
    [
      [49.9, 1, 100, 19],
      [10, 1, 0, 19],
    ],
    {},
    [1000, 0, [190], 1190, 0],
  ],
  [
    'two rates',
    'EUR',
    [
      [100, 1, 0, 19],
      [50, 1, 0, 7],
    ],
    {},
    [15000, 0, [1900, 350], 17250, 0],
  ],
  [
    'two rates and no tax',
    'EUR',
    [
      [100.1, 1, 0, 19],
      [50.05, 3, 0, 7],
      [9.99, 1, 0, 0],
    ],
    {},
    [26024, 0, [1902, 1051, 0], 28977, 0],
  ],
  [
    'two rates and a discount',
    'EUR',
    [
      [99.99, 1, 0, 19],
      [33.33, 1, 0, 7],
    ],
    { discountPercent: 2.5 },
    [13332, 333, [1852, 228], 15079, 0],
  ],
  [
    'a discount on everything',
    'EUR',
    [[1234.56, 1, 0, 20]],
    { discountPercent: 10 },
    [123456, 12346, [22222], 133332, 0],
  ],
  ['a deposit', 'EUR', [[1999.99, 1, 0, 21]], { depositPercent: 30 }, [199999, 0, [42000], 241999, 72600]],
  ['a deposit of a third', 'EUR', [[100, 1, 0, 0]], { depositPercent: 33.33 }, [10000, 0, [0], 10000, 3333]],
  [
    'an option left out',
    'EUR',
    [
      [500, 1, 0, 19],
      [120, 1, 0, 19, true],
    ],
    {},
    [50000, 0, [9500], 59500, 0],
  ],
  [
    'an option taken',
    'EUR',
    [
      [500, 1, 0, 19],
      [120, 1, 0, 19, true],
    ],
    { options: ['line-1'] },
    [62000, 0, [11780], 73780, 0],
  ],
  [
    'one of two options',
    'EUR',
    [
      [500, 1, 0, 19],
      [120, 1, 0, 19, true],
      [80.5, 2, 0, 7, true],
    ],
    { discountPercent: 5, depositPercent: 40, options: ['line-2'] },
    [66100, 3305, [9025, 1071], 72891, 29156],
  ],
  ['yen have no decimals', 'JPY', [[1234.5, 3, 0, 10]], {}, [3705, 0, [371], 4076, 0]],
  [
    'yen and a discount',
    'JPY',
    [[999, 7, 3, 10]],
    { discountPercent: 1.5, depositPercent: 20 },
    [6783, 102, [668], 7349, 1470],
  ],
  ['dinars have three', 'KWD', [[12.3455, 3, 0, 5]], {}, [37038, 0, [1852], 38890, 0]],
  [
    'krona with 25 %',
    'SEK',
    [
      [8499, 1, 0, 25],
      [650, 6, 0, 25],
    ],
    {},
    [1239900, 0, [309975], 1549875, 0],
  ],
  [
    'francs with 8.1 %',
    'CHF',
    [
      [2350.45, 1, 0, 8.1],
      [95, 9, 0, 8.1],
    ],
    { depositPercent: 25 },
    [320545, 0, [25964], 346509, 86627],
  ],
  ['labour by the quarter of an hour', 'EUR', [[62.5, 7.25, 0, 19]], {}, [45313, 0, [8609], 53922, 0]],
  ['forty small parts', 'EUR', Array(40).fill([0.37, 13, 0, 19]), {}, [19240, 0, [3656], 22896, 0]],
  ['nothing', 'EUR', [], { depositPercent: 50 }, [0, 0, [], 0, 0]],
  ['free of charge', 'EUR', [[0, 1, 0, 19]], {}, [0, 0, [0], 0, 0]],
  [
    'everything off',
    'EUR',
    [[750, 2, 0, 19]],
    { discountPercent: 100, depositPercent: 50 },
    [150000, 150000, [0], 0, 0],
  ],
  [
    'a large yard',
    'USD',
    [
      [185000.75, 4, 12.5, 0],
      [99.5, 640, 0, 6.25],
    ],
    { depositPercent: 10 },
    [71118262, 0, [0, 398000], 71516262, 7151626],
  ],
  [
    'a rate with two decimals',
    'EUR',
    [[17.77, 11, 7.5, 9.75]],
    { discountPercent: 0.75, depositPercent: 12.5 },
    [18081, 136, [1750], 19695, 2462],
  ],
]

const lineOf = (
  currency: string,
  [price, quantity, discountPercent, tax, isOptional = false]: Row,
  i: number,
) => {
  const gross = multiplied(minorOf(price, currency), quantity, currency)
  return {
    id: `line-${i}`,
    net: gross - share(gross, discountPercent, currency),
    tax: { name: `Tax ${tax}`, percent: tax },
    isOptional,
    name: 'Line',
  } as unknown as QuotationLine
}

describe('the total of a quotation', () => {
  it.each(worked)('%s', (_, currency, rows, settings, [subtotal, discount, taxes, total, deposit]) => {
    const totals = totalsOf(
      rows.map((row, i) => lineOf(currency, row, i)),
      { currency, ...settings },
    )
    expect({ ...totals, taxes: totals.taxes.map(({ tax }) => tax) }).toEqual({
      subtotal,
      discount,
      taxes,
      total,
      deposit,
      unpriced: [],
    })
  })
})

const part = (code: string, more: Partial<ListedPart> = {}): ListedPart => ({
  kind: 'chargers',
  code,
  version: 1,
  name: `Part ${code}`,
  quantity: 1,
  unit: '',
  price: 100,
  ...more,
})
const cable = part('C', { kind: 'conductors', unit: 'm', quantity: 1.5, price: 4.2 })
const specified: Specified = {
  name: 'An answer',
  at: '2026-11-30T09:00:00Z',
  by: 'Isolde',
  battery: [part('B', { kind: 'batteries', price: 1520 })],
  steps: [
    { label: 'Fit a charger', on: '', hours: 1.5, settles: [], parts: [part('A'), cable] },
    {
      label: 'Fit a fuse',
      on: '',
      hours: 0.5,
      settles: [],
      parts: [cable, part('F', { kind: 'fuses', price: null })],
    },
  ],
  accepted: [],
  changes: [],
}
const linesOf = (draft: QuotationDraft = {}, more: Partial<Letterhead> = {}) =>
  quotationLines(specified, draft, { ...usualLetterhead, ...more }, 60)

describe('the lines of a quotation', () => {
  it('hold each part once, by group, and the hours', () => {
    expect(
      linesOf().map(({ group, name, quantity, unit, net }) => [group, name, quantity, unit, net]),
    ).toEqual([
      ['batteries', 'Part B, battery', 1, '', 152000],
      ['charging', 'Part A, mains charger', 1, '', 10000],
      ['wiring', 'Part C, cable', 3, 'm', 1260],
      ['wiring', 'Part F, fuse', 1, '', null],
      ['labour', 'Labour', 2, 'h', 12000],
    ])
  })
  it('add the margin of their group to the shelf price', () => {
    const [battery, charger, , , labour] = linesOf(
      {},
      { marginPercent: { batteries: 10, charging: 12.5, wiring: 0 } },
    )
    expect([battery?.price, charger?.price, labour?.price]).toEqual([167200, 11250, 6000])
  })
  it('take a price, a discount, a tax rate and an option that were set by hand', () => {
    const [id] = linesOf().map((line) => line.id)
    const taxRates = [
      { name: 'Full', percent: 19 },
      { name: 'Reduced', percent: 7 },
    ]
    const lines = linesOf(
      { lines: { [id!]: { price: 1000.5, discountPercent: 3, tax: 'Reduced', isOptional: true } } },
      { taxRates },
    )
    expect(lines[0]).toMatchObject({ price: 100050, net: 97048, tax: taxRates[1], isOptional: true })
    expect(lines[1]).toMatchObject({ tax: taxRates[0], isOptional: false })
  })
  it('use the first tax rate where the named one is gone, and none where there is none', () => {
    const [id] = linesOf().map((line) => line.id)
    const named = { lines: { [id!]: { tax: 'Gone' } } }
    expect(linesOf(named)[0]?.tax).toEqual(usualLetterhead.taxRates[0])
    expect(linesOf(named, { taxRates: [] })[0]?.tax.percent).toBe(0)
  })
  it('put cable and lugs on one line where the workshop wants it, which misses a price if one of them does', () => {
    const one = linesOf({}, { consumables: 'together' }).find(({ id }) => id === 'consumables')
    expect(one).toMatchObject({ quantity: 1, net: 1260, group: 'wiring' })
    const lug = part('L', { kind: 'lugs', price: null })
    const missing = quotationLines(
      { ...specified, battery: [lug] },
      {},
      { ...usualLetterhead, consumables: 'together' },
      60,
    )
    expect(missing.find(({ id }) => id === 'consumables')?.net).toBeNull()
  })
  it('take lines added by hand, and name each taken line without a price', () => {
    const lines = linesOf({
      added: {
        travel: { name: 'Travel', group: 'other', quantity: 80, price: 0.6 },
        crane: { name: 'Crane', group: 'other', quantity: 1, price: null },
      },
      lines: { crane: { isOptional: true } },
    })
    expect(lines.slice(-2).map(({ name, net }) => [name, net])).toEqual([
      ['Travel', 4800],
      ['Crane', null],
    ])
    expect(totalsOf(lines, { currency: 'EUR' }).unpriced).toEqual(['Part F, fuse'])
    expect(totalsOf(lines, { currency: 'EUR', options: ['crane'] }).unpriced).toEqual([
      'Part F, fuse',
      'Crane',
    ])
  })
  it('are those added by hand where nothing is specified', () =>
    expect(quotationLines(undefined, {}, usualLetterhead, 60)).toEqual([]))
})

describe('two people at one quotation', () => {
  const job = { ...emptyJob('1'), quotation: { lines: { a: { price: 1 }, b: { price: 2 } } } }
  const edited = (change: (draft: QuotationDraft) => QuotationDraft) =>
    changesBetween(job, { ...job, quotation: change(job.quotation) })
  it('may set two lines, or two settings of one, without a choice', () => {
    const mine = edited((draft) => withLine(draft, 'a', { price: 10 }))
    const theirs = [
      ...edited((draft) => withLine(draft, 'b', { price: 20 })),
      ...edited((draft) => withLine(draft, 'a', { isOptional: true })),
    ]
    expect(conflictsBetween(mine, theirs)).toEqual([])
    expect(applyChanges(applyChanges(job, mine), theirs).quotation?.lines).toEqual({
      a: { price: 10, isOptional: true },
      b: { price: 20 },
    })
  })
  it('choose where they set one price, which is named', () => {
    const [mine, theirs] = [10, 20].map((price) => edited((draft) => withLine(draft, 'a', { price })))
    const [conflict] = conflictsBetween(mine!, theirs!)
    expect(quotationLabel(conflict!.path)).toBe('Quotation: price of a line')
  })
  it('have names for every property, and none for those of other things', () => {
    expect(['quotation/validDays', 'quotation/added/x', 'quotation', 'job/name'].map(quotationLabel)).toEqual(
      ['Quotation: days of validity', 'Quotation: an added line', 'Quotation: lines', null],
    )
  })
  it('find the settings of a line whose name holds a slash', () => {
    const slashed = { ...specified, battery: [part('S', { name: '12/24 V' })] }
    const [line] = quotationLines(slashed, {}, usualLetterhead, 60)
    const draft = withLine({}, line!.id, { price: 7 })
    const kept = applyChanges({ ...job, quotation: { lines: { [line!.id]: {} } } }, [
      { path: `quotation/lines/${line!.id}/price`, after: 7 },
    ])
    expect(kept.quotation).toEqual(draft)
  })
})

describe('a draft', () => {
  it('goes back to the usual where a setting is taken out, and forgets a line that was removed', () => {
    const set = withLine({}, 'a', { price: 3, discountPercent: 5 })
    expect(withLine(set, 'a', { price: undefined })).toEqual({ lines: { a: { discountPercent: 5 } } })
    expect(withLine(set, 'a', { price: undefined, discountPercent: undefined })).toEqual({ lines: {} })
    const more = withAddedLine(set, 'x', { name: 'Travel', group: 'other', quantity: 1, price: 5 })
    expect(withoutAddedLine(withLine(more, 'x', { tax: 'A' }), 'x')).toEqual({ ...set, added: {} })
    expect(withTerms({ validDays: 3 }, { validDays: undefined, depositPercent: 20 })).toEqual({
      depositPercent: 20,
    })
  })
})

describe('money', () => {
  it.each([
    [123450, 'EUR', 'de-DE', '1.234,50 €'],
    [123450, 'GBP', 'en-GB', '£1,234.50'],
    [-5, 'EUR', 'en-GB', '-€0.05'],
    [1234, 'JPY', 'en-GB', 'JP¥1,234'],
  ] as const)('%i of %s in %s is written %s', (amount, currency, locale, text) =>
    expect(formatMoney(amount, currency, locale).replace(/\s/g, ' ')).toBe(text),
  )
})

describe('where a quotation stands', () => {
  const answer: QuotationAnswer = {
    answer: 'accepted',
    name: 'A',
    alternative: '',
    note: '',
    options: [],
    at: '',
    by: '',
  }
  const until = validUntil('2026-11-30T10:00:00.000Z', 30)
  const at = (day: string, more: Partial<Parameters<typeof stateOfQuotation>[0]> = {}) =>
    stateOfQuotation({ until, isNewest: true, answer: null, ...more }, new Date(day))
  it('is sent until its last moment, then expired', () => {
    expect(until).toBe('2026-12-30T10:00:00.000Z')
    expect([at('2026-12-30T10:00:00Z'), at('2026-12-30T10:00:01Z')]).toEqual(['sent', 'expired'])
  })
  it('is replaced by a newer one, and an accepted one stays accepted', () => {
    expect(at('2026-12-01', { isNewest: false })).toBe('replaced')
    expect(at('2027-12-01', { isNewest: false, answer })).toBe('accepted')
    expect(at('2026-12-01', { answer: { ...answer, answer: 'declined' } })).toBe('declined')
  })
})
