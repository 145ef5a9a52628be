import { writerIn } from '#core/units/format'
import { describe, expect, it } from 'vitest'
import { changedFields } from '#core/job/shown'
import { metric } from '#core/units/display'
import { sheetCsv } from '#core/formats/sheet-csv'
import { chosen, head, job, shop } from '../../scripts/lib/chosen-workboat'
import { pricedLines, sheetInputs, sheetOf } from './sheet'
import { specificationPaper } from './specification'

const sheet = sheetOf(sheetInputs(chosen, shop, head))

const q = writerIn(metric)

describe('a specification sheet', () => {
  it('lists parts with quantity and price, labour and the sum', () => {
    const { lines, partsTotal, hours, labourPerH, total } = sheet.result
    expect(lines.map((l) => l.code)).toContain('CUR-D40')
    expect(lines.find((l) => l.code === 'CUR-D40')).toMatchObject({ quantity: 1, price: 290, total: 290 })
    expect(partsTotal).toBe(lines.reduce((sum, l) => sum + l.total!, 0))
    expect(total).toBeCloseTo(partsTotal + hours * labourPerH, 6)
    expect(labourPerH).toBe(60)
  })
  it('adds metres of one cable up to a length that can be written', () => {
    const cable = {
      kind: 'conductors',
      code: 'C-50',
      version: 1,
      name: 'Cable',
      unit: 'm',
      price: 14.2,
    } as const
    const [line] = pricedLines([2.5, 1.1, 0.1].map((quantity) => ({ ...cable, quantity })))
    expect(line).toMatchObject({ quantity: 3.7, total: 52.54 })
    for (const { quantity } of sheet.result.lines) expect(String(quantity)).toMatch(/^\d+(\.\d{1,2})?$/)
  })
  it('has settings for each charger and the monitor, protections, cautions, and the old and new state', () => {
    const { cards, protections, cautions, found, specified, differs, work } = sheet.result
    expect(cards.map((c) => c.unit)).toEqual(['Shore charger', 'DC-DC on the alternator', 'Battery monitor'])
    expect(cards[2]!.settings.map((s) => s.label)).toEqual([
      'Capacity',
      'Charged voltage',
      'Tail current',
      'Charged detection time',
      'Charge efficiency',
      'Discharge floor',
    ])
    expect(cards[1]!.settings).toContainEqual({ label: 'Current', value: 40, unit: 'A' })
    expect(protections.find((p) => p.label === 'Charge voltage')!.value).toBe(
      '14.2 V to 14.6 V, never above 14.8 V',
    )
    expect(cautions.length).toBeGreaterThan(0)
    expect([found.verdict, specified.verdict]).toEqual(['suits-once-changed', 'suits'])
    expect(
      differs.find((d) => d.part === 'Shore charger' && d.label === 'Equalise, desulfation or pulse stage'),
    ).toMatchObject({
      part: 'Shore charger',
      before: 'On, can be switched off',
      after: 'Present, switched off',
    })
    expect(work[0]!.settles.length).toBeGreaterThan(0)
  })
  it('comes out the same again from its own inputs after the shop’s rules have changed', () => {
    expect(JSON.stringify(sheetOf(sheet.inputs))).toBe(JSON.stringify(sheet))
    expect(JSON.stringify(sheetOf(JSON.parse(JSON.stringify(sheet.inputs)) as typeof sheet.inputs))).toBe(
      JSON.stringify(sheet),
    )
    const later = sheetOf(
      sheetInputs(chosen, { ...shop, rules: { windowHighV: 14.4, labourPerH: 90 } }, head),
    )
    expect(later.result.labourPerH).toBe(90)
    expect(sheet.result.labourPerH).toBe(60)
  })
  it('is refused if nothing is specified', () =>
    expect(() => sheetOf(sheetInputs(job, shop, head))).toThrow('Nothing is specified'))
  it('gives its parts as CSV with units in the headers and labour last', () => {
    const rows = sheetCsv(sheet).trimEnd().split('\n')
    expect(rows[0]).toBe('sheet,code,part,quantity,unit,price (€),total (€)')
    expect(rows.at(-1)).toMatch(/^0417-1,,Labour,[\d.]+,h,60,[\d.]+$/)
    expect(rows).toHaveLength(sheet.result.lines.length + 2)
  })
  it('joins the same part from several steps, and leaves a price that is unknown open', () => {
    const part = {
      kind: 'fuses',
      code: 'F',
      version: 1,
      name: 'Fuse',
      quantity: 2,
      unit: '',
      price: 10,
    } as const
    expect(pricedLines([part, part, { ...part, code: '', name: 'Odd thing', price: null }])).toEqual([
      { name: 'Fuse', code: 'F', quantity: 4, unit: '', price: 10, total: 40 },
      { name: 'Odd thing', code: '', quantity: 2, unit: '', price: null, total: null },
    ])
  })
})

describe('the paper of a sheet', () => {
  const paper = specificationPaper(sheet)
  const blocksOf = (heading: string) => paper.sections.find((one) => one.heading === heading)!.blocks
  it('has its sections in the order of the work, the caution to the local code last', () => {
    expect(paper.sections.map(({ heading }) => heading)).toEqual([
      sheet.result.name,
      'Parts',
      'Work',
      'Settings',
      'Protection',
      'Cautions',
      'As found and as specified',
      'Findings as specified',
      'Before you work from this',
    ])
    expect(JSON.stringify(paper.sections.at(-1))).toContain('The local code')
    expect(JSON.stringify(paper)).not.toMatch(/undefined|NaN/)
  })
  it('writes each part in a row, labour and the sum under them, in the units of the shop', () => {
    const [table] = blocksOf('Parts')
    expect(table).toMatchObject({
      kind: 'table',
      rows: expect.arrayContaining([['Curlew D 40', 'CUR-D40', '1', '290 €', '290 €']]),
    })
    if (table?.kind !== 'table') throw new Error('the parts are no table')
    expect(table.rows).toHaveLength(sheet.result.lines.length)
    expect(table.rows.every((row) => row.length === table.columns.length)).toBe(true)
    expect(table.sums.map(({ label }) => label)).toEqual([
      expect.stringMatching(/^Labour, .* h at 60 € an hour$/),
      'Total',
    ])
  })
  it('names missing prices, and measured or differently decided values, only if there are any', () => {
    const lines = sheet.result.lines.map((line) => ({ ...line, price: null, total: null }))
    const open = ['Place: coldest there. Ask.']
    const schools = [{ question: 'Cold', chosen: 'By the maker', own: true }]
    const result = { ...sheet.result, lines, unpriced: lines.length, open, schools, differs: [] }
    const other = specificationPaper({ ...sheet, result })
    const text = JSON.stringify(other)
    expect(text).toContain('ask for a price')
    expect(text).toContain(`Total (${lines.length} prices missing)`)
    const headings = other.sections.map(({ heading }) => heading)
    expect(headings).toContain('Measure before fitting')
    expect(headings).toContain('Decided differently from the shop’s rule')
    expect(headings).not.toContain('As found and as specified')
  })
  it('is the same again from the same sheet, and dated as it was issued', () => {
    expect(specificationPaper(sheet)).toEqual(paper)
    expect(paper).toMatchObject({ foot: 'Specification 0417-1, 21 November 2026', size: 'A4' })
  })
})

describe('two states of a job, field by field', () => {
  it('says each value before and after, and whole parts that came or went', () => {
    const rows = changedFields(
      job,
      { ...job, devices: {} },
      [{ path: 'devices/device-1', before: { name: 'Gauge', tripV: { value: 11.8, how: 'label' } } }],
      q,
    )
    expect(rows).toEqual([
      { part: 'Wheelhouse gauge', label: 'Set to', before: '11.8 V', after: 'taken out' },
    ])
    expect(
      changedFields(job, job, [{ path: 'place/coldestC', before: { value: 3 }, after: { value: null } }], q),
    ).toEqual([{ part: 'Place', label: 'Coldest there', before: '3 °C', after: 'unknown' }])
    expect(
      changedFields(
        job,
        job,
        [
          { path: 'job/customer', before: 'a', after: 'b' },
          { path: 'rules/windowLowV', after: 14 },
        ],
        q,
      ),
    ).toEqual([])
  })
})
