import { describe, expect, it } from 'vitest'
import ELK from 'elkjs/lib/elk.bundled.js'
import { layoutOf } from '#core/drawing/layout'
import { emptyJob } from '#core/job/document'
import { withValues } from '#core/testing'
import { chosen, head, job, shop } from '../../scripts/lib/chosen-workboat'
import type { GridCell, Paper } from './blocks'
import { codeShape } from './code'
import { plainInputs, type PlainChoices } from './inputs'
import { issuedPaper } from './issued'
import { paperKindIds, plainKinds, type PlainKind } from './kinds'
import { labelSheetIds, labelSheets } from './label-sheets'
import { missingOf } from './missing'
import { frozenPaper, plainPaper } from './plain'
import { sheetInputs } from './sheet'

const inputsOf = (document = chosen, choices: PlainChoices = {}) =>
  plainInputs(sheetInputs(document, shop, head), choices)
const layOut = (drawing: Parameters<typeof layoutOf>[0]) => layoutOf(drawing, new ELK())
const paperOf = (kind: PlainKind, document = chosen, choices: PlainChoices = {}): Promise<Paper> =>
  plainPaper(kind, inputsOf(document, choices), layOut)
const cellsOf = ({ sections }: Paper): readonly GridCell[] =>
  sections.flatMap(({ blocks }) => blocks.flatMap((block) => (block.kind === 'grid' ? block.cells : [])))

describe('a plain paper', () => {
  it.each(plainKinds)('%s has its number, and is the same each time', async (kind) => {
    const frozen = await frozenPaper(kind, inputsOf(), layOut)
    expect(frozen.format).toBe(`jovial-anchor/${kind}`)
    expect(JSON.stringify(await frozenPaper(kind, frozen.inputs, layOut))).toBe(JSON.stringify(frozen))
    const paper = issuedPaper(frozen)
    expect(paper.over).toContain('0417-1')
    expect(paper.foot).toContain('0417-1')
    expect(JSON.stringify(paper)).not.toMatch(/undefined|NaN/)
  })
  it('without a number is a draft', async () => {
    const draft = await plainPaper('summary', { ...inputsOf(), number: '' }, layOut)
    expect(draft.over).toContain('draft, job 0417')
  })
  it('carries the logo of the letterhead', async () => {
    const inputs = inputsOf()
    const logo = 'data:image/png;base64,AAAA'
    const paper = await plainPaper('cards', { ...inputs, letterhead: { ...inputs.letterhead, logo } }, layOut)
    expect(paper.logo).toBe(logo)
    expect(await paperOf('cards')).not.toHaveProperty('logo')
  })
})

describe('settings cards', () => {
  it('are one for the battery and one for each unit, with the settings of the specification', async () => {
    const cards = cellsOf(await paperOf('cards'))
    expect(cards.map(({ title }) => title)).toEqual([
      'Lithium battery',
      'Shore charger',
      'DC-DC on the alternator',
      'Battery monitor',
    ])
    expect(cards[0]!.facts).toContainEqual({ label: 'No charging below', value: '0 °C' })
    expect(cards[1]!.facts).toContainEqual({ label: 'Absorption', value: '14.4 V' })
    expect(cards[1]!.facts).toContainEqual({ label: 'Equalise, desulfation', value: 'off' })
  })
  it('hold at most eight settings each', async () => {
    for (const { facts } of cellsOf(await paperOf('cards'))) expect(facts.length).toBeLessThanOrEqual(8)
  })
  it('have a code where a customer’s page is given, and none without', async () => {
    const customerPage = 'https://shop.example/customer#abc'
    expect(cellsOf(await paperOf('cards', chosen, { customerPage })).every(({ code }) => code)).toBe(true)
    expect(cellsOf(await paperOf('cards')).some(({ code }) => code)).toBe(false)
  })
})

describe('labels', () => {
  it('name both ends of a cable, and leave out a size that was not read', async () => {
    const cells = cellsOf(await paperOf('labels'))
    expect(cells.filter(({ title }) => title === 'W1')).toHaveLength(2)
    expect(cells[0]).toEqual({
      title: 'W1',
      about: '50 mm² · fuse F1',
      facts: [
        { label: 'from', value: 'Brindle 200 H, positive' },
        { label: 'to', value: 'Main fuse' },
      ],
    })
    expect(JSON.stringify(cells)).not.toContain('needs')
  })
  it.each(labelSheetIds)('fit on the sheet %s', (id) => {
    const { size, grid } = labelSheets[id]
    const [width, height] = size === 'A4' ? [210, 297] : [215.9, 279.4]
    const { columns, rows, widthMm, heightMm, leftMm, topMm, gapMm } = grid
    expect(leftMm + columns * widthMm + (columns - 1) * gapMm).toBeLessThanOrEqual(width)
    expect(topMm + rows * heightMm).toBeLessThanOrEqual(height)
  })
  it('take the size of their sheet, not that of the shop', async () => {
    expect((await paperOf('labels', chosen, { labelSheet: 'letter-30' })).size).toBe('Letter')
  })
})

describe('a code', () => {
  it('is dark on a white edge, and refuses text that fits no code', () => {
    const { attributes, children } = codeShape('https://shop.example/customer#abc')
    expect(Number(attributes.width)).toBeGreaterThanOrEqual(25)
    expect(children).toHaveLength(1)
    expect(() => codeShape('a'.repeat(5000))).toThrow()
  })
})

describe('missing items of a paper', () => {
  const words = (missing: readonly { readonly words: string }[]): string[] => missing.map((one) => one.words)
  it('is an answer, for papers that need one', () => {
    const missing = missingOf(job, shop, null)
    for (const kind of paperKindIds) {
      const needs = ['quotation', 'specification', 'cards', 'booklet'].includes(kind)
      expect(missing[kind].some(({ stops }) => stops)).toBe(needs)
    }
  })
  it('are prices, places, a way to reach the shop, readings and a verdict', () => {
    const missing = missingOf(chosen, shop, 'measure-first')
    expect(words(missing.booklet)).toEqual([
      'The verdict as specified is not “Suits”.',
      'Enter under Wiring where 7 fuses and switches are.',
      'The letterhead has no phone or e-mail.',
    ])
    expect(words(missing.record)).toContain('No reading was taken.')
    expect(words(missing.summary)).toEqual([])
  })
  it('stops a quotation with a missing price', () => {
    const added = { line: { group: 'other', name: 'Travel', quantity: 1, price: null } } as const
    const missing = missingOf({ ...chosen, quotation: { added } }, shop, 'suits')
    expect(missing.quotation).toContainEqual({ words: '1 price is missing.', stops: true })
  })
  it('is found for an empty job too', () => {
    expect(words(missingOf(emptyJob('1'), shop, null).wiring).length).toBeLessThan(2)
    expect(() => missingOf(withValues(emptyJob('1'), {}), shop, null)).not.toThrow()
  })
})
