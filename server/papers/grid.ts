import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces'
import { writeSvg } from '#core/drawing/svg'
import type { Block, Fact, Grid, GridCell, Paper } from '#core/papers/blocks'
import type { Family, Fonts } from './fonts'
import { ruleInk } from './layouts'

export const pointsPerMm = 72 / 25.4
const softInk = '#525b5f'

type GridBlock = Extract<Block, { kind: 'grid' }>

/** The grid of a paper; null for a paper without one. */
export const gridOf = ({ sections }: Paper): GridBlock | null =>
  sections.flatMap(({ blocks }) => blocks).find((block): block is GridBlock => block.kind === 'grid') ?? null

/** Tolerance of sums of widths, pt. */
const roundingPt = 0.1
/** White inside the edge of a cell, mm. */
const paddingMm = 3
/** A low label has less. */
const lowPaddingMm = 1.5
const lowMm = 15
/** Space between lines, in heights of the letters. */
const leading = 1.2
/** Largest letters on a label and on a card, pt. */
const mostPt = { label: { title: 20, text: 12 }, card: { title: 14, text: 8.5 } } as const
/** Smaller letters cannot be read on a label, pt. */
const leastTextPt = 5.5
/** Space between a label and its value, pt. */
const betweenPt = 5
const codeMm = 18

/** Sets the cells of a grid so that each fits its own. */
class GridPress {
  constructor(
    private readonly fonts: Fonts,
    private readonly grid: Grid,
  ) {}

  private get mostPt() {
    return this.grid.isCut ? mostPt.card : mostPt.label
  }
  /** Width of a text, pt. */
  private width(text: string, sizePt: number, family: Family = 'text'): number {
    return this.fonts.measure(text, family) * sizePt
  }
  /** A text as far as it fits in one line. */
  private fitted(text: string, widthPt: number, sizePt: number, family: Family = 'text'): string {
    if (this.width(text, sizePt, family) <= widthPt + roundingPt) return text
    const letters = [...text]
    const cutAt = (count: number): string => `${letters.slice(0, count).join('').trimEnd()}…`
    let [fits, tooMany] = [0, letters.length]
    while (tooMany - fits > 1) {
      const middle = Math.floor((fits + tooMany) / 2)
      if (this.width(cutAt(middle), sizePt, family) <= widthPt) fits = middle
      else tooMany = middle
    }
    return cutAt(fits)
  }

  /** Letters in which all lines of a cell fit, by height and by width, pt. */
  private textPt({ about, facts }: GridCell, roomPt: readonly [number, number]): number {
    const [width, height] = roomPt
    const lines = facts.length + (about ? 1 : 0)
    const byHeight = height / (lines * leading)
    const byWidth = facts.map(
      ({ label, value }) => (width - (label ? betweenPt : 0)) / (this.width(label, 1) + this.width(value, 1)),
    )
    return Math.max(leastTextPt, Math.min(this.mostPt.text, byHeight, ...byWidth))
  }

  private fact({ label, value }: Fact, widthPt: number, sizePt: number): Content {
    const before = label ? this.width(label, sizePt) + betweenPt : 0
    const { isCut } = this.grid
    // A name on a label may be cut; a setting on a card takes a second line instead.
    const text = this.fonts.set(isCut ? value : this.fitted(value, widthPt - before, sizePt), 'text')
    if (!label) return { text, fontSize: sizePt }
    return {
      columns: [
        { text: this.fonts.set(label, 'text'), width: 'auto', color: softInk, noWrap: true },
        {
          text,
          width: '*',
          bold: isCut,
          alignment: isCut ? 'right' : 'left',
          noWrap: !isCut,
        },
      ],
      columnGap: betweenPt,
      fontSize: sizePt,
    }
  }

  private cell(cell: GridCell, x: number, y: number): Content[] {
    const { widthMm, heightMm, isCut } = this.grid
    const padding = (heightMm < lowMm ? lowPaddingMm : paddingMm) * pointsPerMm
    const width = widthMm * pointsPerMm - 2 * padding
    const height = heightMm * pointsPerMm - 2 * padding
    const codePt = cell.code ? codeMm * pointsPerMm : 0
    const besideCode = width - (codePt > 0 ? codePt + betweenPt : 0)
    const titlePt = Math.min(
      this.mostPt.title,
      height * 0.26,
      besideCode / this.width(cell.title, 1, 'display'),
    )
    const room = [besideCode, height - titlePt * leading] as const
    const textPt = this.textPt(cell, room)
    // A long line above the facts becomes smaller by itself.
    const aboutPt = Math.max(leastTextPt, Math.min(textPt, besideCode / this.width(cell.about, 1)))
    const stack: Content[] = [
      {
        text: this.fonts
          .set(this.fitted(cell.title, besideCode, titlePt, 'display'), 'display')
          .map((run) => ({ ...run, bold: true })),
        fontSize: titlePt,
      },
      ...(cell.about
        ? [
            {
              text: this.fonts.set(this.fitted(cell.about, besideCode, aboutPt), 'text'),
              fontSize: aboutPt,
              color: softInk,
            },
          ]
        : []),
      ...cell.facts.map((fact) => this.fact(fact, besideCode, textPt)),
    ]
    return [
      ...(isCut
        ? [
            {
              canvas: [
                {
                  type: 'rect' as const,
                  x: 0,
                  y: 0,
                  w: widthMm * pointsPerMm,
                  h: heightMm * pointsPerMm,
                  lineWidth: 0.3,
                  lineColor: ruleInk,
                },
              ],
              absolutePosition: { x, y },
            },
          ]
        : []),
      { columns: [{ width: besideCode, stack }], absolutePosition: { x: x + padding, y: y + padding } },
      ...(cell.code
        ? [
            {
              svg: writeSvg(cell.code),
              width: codePt,
              absolutePosition: { x: x + padding + besideCode + betweenPt, y: y + padding },
            },
          ]
        : []),
    ]
  }

  /** Sheets full of cells, from the top left, row by row. */
  sheets(cells: readonly GridCell[]): Content[] {
    const { columns, rows, widthMm, heightMm, leftMm, topMm, gapMm } = this.grid
    const each = columns * rows
    return cells.flatMap((cell, i) => {
      const at = i % each
      const x = (leftMm + (at % columns) * (widthMm + gapMm)) * pointsPerMm
      const y = (topMm + Math.floor(at / columns) * heightMm) * pointsPerMm
      const page: Content = { text: ' ', fontSize: 1, ...(i > 0 && at === 0 ? { pageBreak: 'before' } : {}) }
      return [...(at === 0 ? [page] : []), ...this.cell(cell, x, y)]
    })
  }
}

/** A paper of labels or cards: nothing but its cells, where the sheet has them. */
export const gridDefinition = (
  { title, author, madeAt, size }: Paper,
  { grid, cells }: GridBlock,
  fonts: Fonts,
): TDocumentDefinitions => ({
  pageSize: size.toUpperCase() as 'A4' | 'LETTER',
  pageMargins: 0,
  info: { title, author, creationDate: new Date(madeAt), modDate: new Date(madeAt) },
  defaultStyle: { font: 'text-latin', lineHeight: 1.1, color: '#1c2a30' },
  content: new GridPress(fonts, grid).sheets(cells),
})
