import { readFile } from 'node:fs/promises'
import { describe, expect, it, vi } from 'vitest'
import { long } from '#core/testing'
import { judged, plain, soft, strong, type Block, type GridCell, type Paper } from '#core/papers/blocks'
import type { Shape } from '#core/drawing/shape'
import { codeShape } from '#core/papers/code'
import { labelSheets } from '#core/papers/label-sheets'
import { fontsOfPapers, inOrder, unpack } from './fonts'
import { paperPdf } from './pdf'

const onePixel =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAQAAAC1HAwCAAAAC0lEQVR42mNk+A8AAQUBAScY42YAAAAASUVORK5CYII='

const blocks: Block[] = [
  { kind: 'answer', verdict: 'suits', text: 'Suits' },
  {
    kind: 'text',
    line: [plain('As found: '), judged('measure-first', 'Measure first'), soft(' so far')],
  },
  { kind: 'list', numbered: true, items: [[strong('Fit it')], [plain('Fuse it')]] },
  { kind: 'facts', facts: [{ label: 'Charge voltage', value: '14.4 V' }] },
  {
    kind: 'cards',
    cards: ['One', 'Two', 'Three'].map((title) => ({ title, facts: [{ label: 'Float', value: '13.5 V' }] })),
  },
  {
    kind: 'table',
    name: 'Parts',
    columns: [
      { title: 'Part', widthMm: null },
      { title: 'Code', widthMm: 20 },
      { title: 'Total', widthMm: 20, right: true },
    ],
    rows: [['Fuse', 'F-1', '10 €']],
    sums: [{ label: 'Total', value: '10 €' }],
  },
  {
    kind: 'findings',
    findings: [{ verdict: 'does-not-suit', line: [plain('No.')], small: ['Limit: 14.6 V'] }],
  },
  { kind: 'signatures', of: ['Installer, date', 'Customer, date'] },
  { kind: 'photos', photos: [{ source: onePixel, caption: 'The locker' }] },
]
const paper: Paper = {
  title: 'Specification 0417-1',
  over: 'Larkspur Slip Electrics',
  under: ['Marit Osei'],
  sections: [{ heading: 'Everything', about: 'at once', verdict: 'suits', blocks }],
  foot: 'Specification 0417-1',
  author: 'Larkspur Slip Electrics',
  madeAt: '2026-11-21T09:00:00.000Z',
  size: 'A4',
}
const latin1 = async (of: Paper): Promise<string> => (await paperPdf(of)).toString('latin1')

describe('a paper as PDF', () => {
  it('draws every block in the product’s own type, the same bytes each time', async () => {
    const [first, again] = [await latin1(paper), await latin1(paper)]
    expect(first.startsWith('%PDF-')).toBe(true)
    expect(again).toBe(first)
    const faces = new Set([...first.matchAll(/\/FontName \/\w+\+([\w-]+)/g)].map(([, name]) => name))
    expect([...faces].sort()).toEqual([
      'AtkinsonHyperlegibleNext-Bold',
      'AtkinsonHyperlegibleNext-Regular',
      expect.stringMatching(/^BricolageGrotesque.*SemiBold$/),
    ])
    expect(first).toContain('/MediaBox [0 0 595.28 841.89]')
  })
  it('sets the text of a drawing in its own weight, without a word in the log', async () => {
    const warn = vi.spyOn(console, 'warn').mockImplementation(() => undefined)
    const inDrawing = (weight: object): Shape => ({
      tag: 'text',
      attributes: { x: 5, y: 20, ...weight },
      children: ['W1'],
    })
    const drawn = (weight: object): Paper => ({
      ...paper,
      sections: [
        {
          heading: 'Drawing',
          blocks: [
            {
              kind: 'drawing',
              drawing: {
                tag: 'svg',
                attributes: {
                  xmlns: 'http://www.w3.org/2000/svg',
                  viewBox: '0 0 100 40',
                  width: 100,
                  height: 40,
                  'font-family': 'text-latin',
                },
                children: [inDrawing(weight)],
              },
            },
          ],
        },
      ],
    })
    const [light, heavy] = [await latin1(drawn({})), await latin1(drawn({ 'font-weight': 700 }))]
    expect(light).not.toContain('AtkinsonHyperlegibleNext-Bold')
    expect(heavy).toContain('AtkinsonHyperlegibleNext-Bold')
    expect(warn).not.toHaveBeenCalled()
    warn.mockRestore()
  })
  it('is Letter where the workshop writes imperial units', async () =>
    expect(await latin1({ ...paper, size: 'Letter' })).toContain('/MediaBox [0 0 612 792]'))
  it('has a letter that its own type lacks from another, and never an empty box', async () => {
    const named = await latin1({ ...paper, under: ['Ζωή Łukasz, 12 mΩ'] })
    expect(named).toMatch(/\+DejaVuSans/)
  })
  it('begins a new page before a heading that would stand alone at the foot', async () => {
    const long = Array.from({ length: 40 }, (_, i) => ({ heading: `Part ${i}`, blocks: [blocks[2]!] }))
    const pages = (await latin1({ ...paper, sections: long })).match(/\/Type \/Page\b/g)!.length
    expect(pages).toBeGreaterThan(2)
  })
})

describe('labels and cards as PDF', () => {
  const gridPaper = (count: number, more: Partial<GridCell> = {}, size: Paper['size'] = 'A4'): Paper => ({
    ...paper,
    size,
    sections: [
      {
        heading: 'Labels',
        blocks: [
          {
            kind: 'grid',
            grid: labelSheets[size === 'A4' ? 'a4-65' : 'letter-80'].grid,
            cells: Array.from({ length: count }, (_, i) => ({
              title: `W${i}`,
              about: '50 mm² · fuse F1',
              facts: [{ label: 'from', value: 'Main fuse' }],
              ...more,
            })),
          },
        ],
      },
    ],
  })
  const pagesOf = async (of: Paper): Promise<number> => (await latin1(of)).match(/\/Type \/Page\b/g)!.length

  it.each([
    [1, 1],
    [65, 1],
    [66, 2],
    [131, 3],
  ])('%i labels of 65 to a sheet take %i sheets', async (count, sheets) =>
    expect(await pagesOf(gridPaper(count))).toBe(sheets),
  )
  it('stay on their sheet however long a name is, and with a code', long, async () => {
    const long = 'A name that no label was ever made for, '.repeat(12)
    expect(
      await pagesOf(
        gridPaper(65, { title: long, about: long, facts: Array(9).fill({ label: 'to', value: long }) }),
      ),
    ).toBe(1)
    expect(await pagesOf(gridPaper(80, { code: codeShape('https://shop.example') }, 'Letter'))).toBe(1)
  })
})

describe('a text as it is set', () => {
  it('has no pictures, and the words of a name from right to left in their order', () => {
    expect(inOrder('Tern 🛥️ 12 V ©')).toBe('Tern  12 V ©')
    expect(inOrder('\u05d0\u05d1 \u05d2\u05d3, Tern')).toBe('\u05d2\u05d3 \u05d0\u05d1, Tern')
    expect(inOrder('Marit Osei')).toBe('Marit Osei')
  })
})

describe('fonts of papers', () => {
  it('are whole each, however many are unpacked at once', async () => {
    const packed = await Promise.all(
      ['atkinson-hyperlegible-next', 'bricolage-grotesque'].map((name) =>
        readFile(
          new URL(
            `../../node_modules/@fontsource/${name}/files/${name}-latin-400-normal.woff2`,
            import.meta.url,
          ),
        ),
      ),
    )
    const alone = [await unpack(packed[0]!), await unpack(packed[1]!)]
    const together = await Promise.all([...packed, ...packed].map(unpack))
    expect(together.map((file, i) => file.equals(alone[i % 2]!))).toEqual([true, true, true, true])
  })
  it('cut a text where the font changes, and keep spaces with the text before', async () => {
    const { set } = await fontsOfPapers()
    expect(set('10 Ω at Łódź', 'text').map(({ text, font }) => [text, font])).toEqual([
      ['10 ', 'text-latin'],
      ['Ω ', 'other'],
      ['at ', 'text-latin'],
      ['Ł', 'text-latin-ext'],
      ['ód', 'text-latin'],
      ['ź', 'text-latin-ext'],
    ])
    expect(set('', 'display')).toEqual([])
  })
})
