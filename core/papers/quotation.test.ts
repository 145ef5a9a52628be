import { describe, expect, it } from 'vitest'
import { long } from '#core/testing'
import { quotationCsv } from '#core/formats/quotation-csv'
import type { QuotationDraft } from '#core/job/quotation'
import { usualLetterhead, type Letterhead } from '#core/quotation/terms'
import { costOf, quotationLines, unpricedPartOf } from '#core/quotation/lines'
import { searchAnswers } from '#core/solve/answers'
import { planOf } from '#core/solve/plan'
import { specifiedBy } from '#core/solve/specify'
import { chosen, head, job, shop } from '../../scripts/lib/chosen-workboat'
import { demoShelf } from '../../scripts/lib/demo-shelf'
import { offersOf } from './offers'
import { quotationOf, quotationPaper } from './quotation'
import { sheetInputs, sheetOf } from './sheet'

const letterhead: Letterhead = {
  ...usualLetterhead,
  address: '3 Larkspur Slip\nWharf End',
  terms: 'Payment within 14 days.\n\nParts stay ours until they are paid.',
  bank: 'Account 00000000',
  taxRates: [
    { name: 'VAT', percent: 19 },
    { name: 'Reduced VAT', percent: 7 },
  ],
  depositPercent: 30,
}
const quote = (draft: QuotationDraft = {}, more: Partial<Letterhead> = {}) =>
  quotationOf({
    ...sheetInputs({ ...chosen, quotation: draft }, shop, head),
    letterhead: { ...letterhead, ...more },
  })
const added = { travel: { name: 'Travel', group: 'other', quantity: 80, price: 0.6 } } as const

describe('a quotation', () => {
  it('comes to the parts and the labour of the specification, and tax', () => {
    const { total } = sheetOf(sheetInputs(chosen, shop, head)).result
    const { totals } = quote().result
    expect(totals.unpriced).toEqual([])
    expect(totals.subtotal / 100).toBeCloseTo(total, 1)
    expect(totals.total).toBe(totals.subtotal + Math.round(totals.subtotal * 0.19))
    expect(totals.deposit).toBe(Math.round(totals.total * 0.3))
  })
  it('costs the same whether small parts are itemised or on one line', () => {
    const together = quote({}, { consumables: 'together' }).result
    expect(together.totals.subtotal).toBe(quote().result.totals.subtotal)
    expect(together.lines.length).toBeLessThan(quote().result.lines.length)
  })
  it('is the same text for the same inputs', () =>
    expect(JSON.stringify(quote())).toBe(JSON.stringify(quote())))
  it('lists work, unchanged parts, lines by group, total, options and terms, and keeps words that look like markup', () => {
    const text = '<script>alert(1)</script> \u202Eabc 🛥️'
    const paper = quotationPaper(quote({ added, lines: { travel: { isOptional: true } }, message: text }))
    expect(paper.sections.map(({ heading }) => heading)).toEqual([
      'To you',
      'What we do',
      'Batteries',
      'Charging',
      'Protection and wiring',
      'Labour',
      'Total',
      'Options',
      'Terms',
      'Payment',
      'Acceptance',
    ])
    const words = JSON.stringify(paper)
    for (const one of [text, 'Travel', '3 Larkspur Slip, Wharf End', 'Valid until 21 December 2026'])
      expect(words).toContain(JSON.stringify(one).slice(1, -1))
    expect(words).not.toMatch(/undefined|NaN|null,/)
  })
  it('shows discount and tax of a line only where lines differ in them', () => {
    const columns = (draft: QuotationDraft) =>
      quotationPaper(quote(draft)).sections.flatMap(({ heading, blocks: [block] }) =>
        heading === 'Batteries' && block?.kind === 'table' ? block.columns.map(({ title }) => title) : [],
      )
    expect(columns({})).toEqual(['Item', 'Quantity', 'Price', 'Amount'])
    expect(columns({ added, lines: { travel: { discountPercent: 10, tax: 'Reduced VAT' } } })).toEqual([
      'Item',
      'Quantity',
      'Price',
      'Discount',
      'Tax',
      'Amount',
    ])
  })
  it('is exported with one row a line, and no cell that a table program would run', () => {
    const csv = quotationCsv(quote({ added: { bad: { ...added.travel, name: '=1+2' } } }))
    const rows = csv.trim().split('\n')
    expect(rows).toHaveLength(quote({ added }).result.lines.length + 1)
    expect(rows.at(-1)).toMatch(/^0417-1,other,'=1\+2,80,,0\.60,0,48\.00,19,no,$/)
  })
  it('cannot be made of a job without a chosen answer', () =>
    expect(() => quotationOf({ ...sheetInputs(job, shop, head), letterhead })).toThrow(
      'Nothing is specified',
    ))

  it('offers another answer with its own lines and total, and the same added lines and terms', long, () => {
    const other = searchAnswers(planOf(job, {}, demoShelf())).answers.find(
      ({ name }) => !name.startsWith('40 A DC-DC'),
    )!
    const alternatives = { other: specifiedBy(other, 'Ida Brell', '2026-11-20T10:00:00.000Z') }
    const quotation = quote({ added, alternatives, discountPercent: 10 })
    const [main, alternative, ...more] = offersOf(quotation)
    expect(more).toEqual([])
    expect(alternative).toMatchObject({ id: 'other', name: other.name })
    expect(main.name).toBe(chosen.specified!.name)
    expect(main.totals).toEqual(quote({ added, discountPercent: 10 }).result.totals)
    // It costs what it would cost if it were the chosen answer.
    const alone = quotationOf({
      ...sheetInputs(
        { ...chosen, specified: alternatives.other, quotation: { added, discountPercent: 10 } },
        shop,
        head,
      ),
      letterhead,
    })
    expect(alternative!.totals).toEqual(alone.result.totals)
    const section = quotationPaper(quotation).sections.find(({ heading }) => heading === 'Alternative A')!
    expect(JSON.stringify(section)).toContain(other.name)
    const rows = quotationCsv(quotation).trim().split('\n')
    expect(rows[0]).toMatch(/,alternative$/)
    expect(rows.filter((row) => row.includes(',Travel,'))).toHaveLength(2)
  })
})

describe('a price that was typed', () => {
  it('is that of the shelf and the margin', () => {
    expect(
      costOf(112.5, 'wiring', { ...letterhead, marginPercent: { batteries: 0, charging: 0, wiring: 12.5 } }),
    ).toBe(100)
    expect(costOf(99.99, 'other', letterhead)).toBe(99.99)
  })
  it('belongs to a part only where the shelf has none', () => {
    const [step, ...steps] = chosen.specified!.steps
    const bare = {
      kind: 'fuses',
      code: 'TEAL-60',
      version: 1,
      name: 'Teal 60',
      quantity: 1,
      unit: '',
      price: null,
    } as const
    const specified = { ...chosen.specified!, steps: [{ ...step!, parts: [bare] }, ...steps] }
    const lines = quotationLines(specified, {}, letterhead, 60)
    const line = lines.find(({ name }) => name.startsWith('Teal 60'))!
    expect(unpricedPartOf(specified, line.id)).toEqual({ kind: 'fuses', code: 'TEAL-60' })
    for (const { id } of lines.filter((one) => one !== line)) expect(unpricedPartOf(specified, id)).toBeNull()
  })
})
