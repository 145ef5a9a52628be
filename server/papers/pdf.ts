import pdfmake from 'pdfmake'
import type {
  Content,
  ContentColumns,
  ContentStack,
  ContentSvg,
  ContentText,
  PageSize,
  TableCell,
  TDocumentDefinitions,
} from 'pdfmake/interfaces'
import type { Block, Fact, Line, Paper, Section } from '#core/papers/blocks'
import type { Shape } from '#core/drawing/shape'
import { writeSvg } from '#core/drawing/svg'
import { anchorMark, verdictMarks, type Stroke } from '#core/papers/marks'
import { verdictWords, type Verdict } from '#core/system/verdict'
import { gridDefinition, gridOf, pointsPerMm } from './grid'
import { fontsOfPapers, type Family, type Fonts } from './fonts'
import { card, inPairs, pairGapPt, ruled } from './layouts'
import { shareFonts } from './shared-fonts'
import { drawingBeyondPt, drawingRoomPt, marginPt, sheetFor, textWidthPt, type Sheet } from './sheet'

const ink = '#1c2a30'
const softInk = '#525b5f'
const seaInk = '#24505e'
const verdictInk: Readonly<Record<Verdict, string>> = {
  suits: '#1a6656',
  'suits-once-changed': '#8a560a',
  'measure-first': '#5a4a99',
  'does-not-suit': '#a8321f',
}
const smallPt = 8.5
/** For papers that are read in poor light or without glasses. */
const largePt = 12
/** Height of a drawing between text, pt. */
const mostInTextPt = 320
const titlePt = 19
const lineHeight = 1.15
/** Height of a line with the font's space above and below, in heights of its letters. */
const lineRoom = 1.35
/** Width of the product’s mark where there is no logo, pt. */
const markPt = 34
/** Room for a logo, pt. */
const logoPt: [number, number] = [150, 50]
/** A heading below this share of the page's height starts a new page: its first block would not fit. */
const latestHeading = 0.85

// Nothing is fetched for a paper, and nothing is read: its fonts are known by name.
pdfmake.setUrlAccessPolicy(() => false)

/** A mark as SVG, in its colour on white. */
const svgOf = (strokes: readonly Stroke[], size: number, colour: string): string => {
  const paths = strokes.map(({ d, as, width, dash }) =>
    as === 'filled'
      ? `<path d="${d}" fill="${colour}"/>`
      : `<path d="${d}" fill="none" stroke="${as === 'cut' ? '#fff' : colour}" stroke-width="${width}"${dash ? ` stroke-dasharray="${dash}"` : ''}/>`,
  )
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${size} ${size}">${paths.join('')}</svg>`
}
const mark = (verdict: Verdict, width: number, top = 1): ContentSvg => ({
  svg: svgOf(verdictMarks[verdict], 20, verdictInk[verdict]),
  width,
  margin: [0, top, 0, 0],
})

/** Draws the blocks of papers for PDF. */
class Press {
  /** Sheet of the paper that is being set. */
  private sheet: Sheet = 'A4'
  private bodyPt: number = smallPt
  /** Height by which the head of the paper exceeds a title of one line, pt. */
  private longHeadPt = 0

  constructor(private readonly fonts: Fonts) {}

  private set(text: string, family: Family = 'text') {
    return this.fonts.set(text, family)
  }
  private words(text: string, style: Partial<ContentText> = {}, family: Family = 'text'): ContentText {
    return { text: this.set(text, family), ...style }
  }

  /** A line in one piece; where a verdict stands in it, its mark stands before it. */
  private line(line: Line): ContentText | ContentColumns {
    const at = line.findIndex(({ verdict }) => verdict)
    if (at < 0) return { text: this.spans(line) }
    const verdict = line[at]!.verdict!
    return {
      columns: [
        { text: this.spans(line.slice(0, at)), width: 'auto' },
        { ...mark(verdict, 9, 1.5), width: 9 },
        { text: this.spans(line.slice(at)), width: '*' },
      ],
      columnGap: 3,
    }
  }
  private spans(line: Line) {
    return line.flatMap(({ text, tone, verdict }) =>
      this.set(text).map((run) => ({
        ...run,
        bold: tone === 'strong' || verdict !== undefined,
        color: verdict ? verdictInk[verdict] : tone === 'soft' ? softInk : ink,
      })),
    )
  }

  private facts(facts: readonly Fact[]): Content {
    return {
      table: {
        widths: [150, '*'],
        body: facts.map(({ label, value }): TableCell[] => [
          this.words(label, { color: softInk }),
          this.words(value),
        ]),
        dontBreakRows: true,
      },
      layout: ruled,
    }
  }

  private cards(cards: Extract<Block, { kind: 'cards' }>['cards']): Content[] {
    const boxes = cards.map(({ title, facts }): Content => ({
      table: {
        widths: ['auto', '*'],
        body: [
          [this.words(title, { fontSize: 10.5, bold: true, colSpan: 2 } as object, 'display'), ''],
          ...facts.map(({ label, value }): TableCell[] => [
            this.words(label, { color: softInk }),
            this.words(value, { alignment: 'right', bold: true }),
          ]),
        ],
        dontBreakRows: true,
      },
      layout: card,
    }))
    return inPairs(boxes)
  }

  private table({ columns, rows, sums }: Extract<Block, { kind: 'table' }>): Content {
    const aligned = (i: number) => (columns[i]!.right ? { alignment: 'right' as const } : {})
    const sumOf = ({ label, value }: Fact, i: number): TableCell[] => [
      { ...this.words(label, { bold: i === sums.length - 1 }), colSpan: columns.length - 1 },
      ...columns.slice(2).map((): TableCell => ''),
      this.words(value, { alignment: 'right', bold: i === sums.length - 1 }),
    ]
    return {
      table: {
        headerRows: 1,
        keepWithHeaderRows: 1,
        widths: columns.map(({ widthMm }) => (widthMm === null ? '*' : widthMm * pointsPerMm)),
        body: [
          columns.map(({ title }, i) => this.words(title, { color: softInk, ...aligned(i) })),
          ...rows.map((row) => row.map((cell, i) => this.words(cell, aligned(i)))),
          ...sums.map(sumOf),
        ],
        dontBreakRows: true,
      },
      layout: ruled,
    }
  }

  private findings(findings: Extract<Block, { kind: 'findings' }>['findings']): Content[] {
    return findings.map(({ verdict, line, small }): Content => ({
      columns: [
        { ...mark(verdict, 9, 1), width: 12 },
        {
          stack: [
            this.line(line),
            ...small.map((words) => this.words(words, { fontSize: 7.5, color: softInk })),
          ],
          width: '*',
        },
      ],
      columnGap: 3,
      margin: [0, 0, 0, 3],
      unbreakable: true,
    }))
  }

  private signatures(names: readonly string[]): Content {
    const over = (name: string): ContentStack & { readonly width: '*' } => ({
      stack: [
        { canvas: [{ type: 'line', x1: 0, y1: 0, x2: 220, y2: 0, lineWidth: 0.7, lineColor: ink }] },
        this.words(name, { fontSize: 7.5, color: softInk, margin: [0, 2, 0, 0] }),
      ],
      width: '*',
    })
    return { columns: names.map(over), columnGap: 30, margin: [0, 40, 0, 0], unbreakable: true }
  }

  /** A drawing as large as the page lets it be; in a paper of large letters, as wide as its text. */
  private drawing(drawing: Shape): Content {
    const svg = writeSvg(drawing)
    if (this.bodyPt === largePt)
      return { svg, fit: [textWidthPt(this.sheet), mostInTextPt], margin: [0, 2, 0, 8] }
    const [width, height] = drawingRoomPt(this.sheet)
    return {
      svg,
      fit: [width, height - this.longHeadPt],
      alignment: 'center',
      margin: [-drawingBeyondPt, 0, -drawingBeyondPt, 0],
    }
  }

  /** Photos two by two, each with its caption. */
  private photos(photos: Extract<Block, { kind: 'photos' }>['photos']): Content[] {
    const width = (textWidthPt(this.sheet) - pairGapPt) / 2
    const boxes = photos.map(({ source, caption }): Content => ({
      stack: [
        { image: source, fit: [width, width] },
        ...(caption ? [this.words(caption, { color: softInk, margin: [0, 2, 0, 0] })] : []),
      ],
    }))
    return inPairs(boxes)
  }

  private block(block: Block): Content {
    switch (block.kind) {
      case 'answer':
        return {
          columns: [
            { ...mark(block.verdict, 18, 0), width: 18 },
            {
              ...this.words(
                block.text,
                { fontSize: 14, bold: true, color: verdictInk[block.verdict] },
                'display',
              ),
              width: '*',
            },
          ],
          columnGap: 6,
          margin: [0, 2, 0, 2],
        }
      case 'text':
        return { ...this.line(block.line), margin: [0, 0, 0, 2] }
      case 'list': {
        const items = block.items.map((line) => this.line(line))
        return block.numbered ? { ol: items } : { ul: items }
      }
      case 'facts':
        return this.facts(block.facts)
      case 'cards':
        return this.cards(block.cards)
      case 'table':
        return this.table(block)
      case 'findings':
        return this.findings(block.findings)
      case 'signatures':
        return this.signatures(block.of)
      case 'grid':
        // On paper it fills sheets of its own.
        return ''
      case 'photos':
        return this.photos(block.photos)
      case 'drawing':
        return this.drawing(block.drawing)
    }
  }

  /** A section: its heading stays with its first block. */
  private section({ heading, about, verdict, blocks }: Section, i: number): Content[] {
    const head: Content = {
      columns: [
        {
          text: [
            ...this.set(heading, 'display').map((run) => ({ ...run, bold: true })),
            ...this.set(about ? `  ${about}` : '').map((run) => ({
              ...run,
              fontSize: this.bodyPt,
              color: softInk,
            })),
          ],
          fontSize: this.bodyPt + 3.5,
          width: '*',
        },
        ...(verdict
          ? [
              { ...mark(verdict, 10, 2.5), width: 10 },
              {
                ...this.words(verdictWords[verdict], {
                  bold: true,
                  color: verdictInk[verdict],
                  margin: [0, 2, 0, 0],
                }),
                width: 'auto' as const,
              },
            ]
          : []),
      ],
      columnGap: 4,
      margin: [0, i === 0 ? 8 : 12, 0, 3],
      headlineLevel: 1,
    }
    return [head, ...blocks.map((block) => this.block(block))]
  }

  /** The workshop's logo; the product's mark where it has none. */
  private logo({ logo }: Paper): Content {
    return logo
      ? { image: logo, fit: logoPt, width: logoPt[0], alignment: 'right' }
      : { svg: svgOf(anchorMark, 32, seaInk), width: markPt }
  }

  /** A paper as it is printed: labels and cards on their sheets, any other with its title and sections. */
  definition(paper: Paper): TDocumentDefinitions {
    const grid = gridOf(paper)
    return grid ? gridDefinition(paper, grid, this.fonts) : this.paper(paper)
  }

  /** Height of lines that a text takes beyond its first one, pt. */
  private moreLinesPt(text: string, family: Family, sizePt: number, widthPt: number): number {
    const lines = Math.ceil((this.fonts.measure(text, family) * sizePt) / widthPt)
    return Math.max(0, lines - 1) * sizePt * lineRoom
  }

  private paper(paper: Paper): TDocumentDefinitions {
    const { title, over, under, sections, foot, author, madeAt } = paper
    this.sheet = sheetFor(paper)
    this.bodyPt = paper.type === 'large' ? largePt : smallPt
    const headWidthPt = textWidthPt(this.sheet) - (paper.logo ? logoPt[0] : markPt)
    this.longHeadPt =
      this.moreLinesPt(title, 'display', titlePt, headWidthPt) +
      under.reduce((sum, words) => sum + this.moreLinesPt(words, 'text', this.bodyPt, headWidthPt), 0)
    const { left, top, right, bottom } = marginPt
    return {
      pageSize: this.sheet.toUpperCase() as PageSize,
      pageMargins: [left, top, right, bottom],
      info: { title, author, creationDate: new Date(madeAt), modDate: new Date(madeAt) },
      defaultStyle: { font: 'text-latin', fontSize: this.bodyPt, lineHeight, color: ink },
      content: [
        {
          columns: [
            {
              stack: [
                this.words(over, { color: softInk }),
                this.words(title, { fontSize: titlePt, bold: true, lineHeight: 1.05 }, 'display'),
                ...under.map((words, i) => this.words(words, i > 0 ? { color: softInk } : {})),
              ],
              width: '*',
            },
            this.logo(paper),
          ],
        },
        { ...rule(this.sheet, 1.2, ink), margin: [0, 6, 0, 0] },
        ...sections.flatMap((section, i) => this.section(section, i)),
      ],
      pageBreakBefore: ({ headlineLevel, startPosition }, nodes) =>
        headlineLevel === 1 &&
        (nodes.getFollowingNodesOnPage().length === 0 || startPosition.verticalRatio > latestHeading),
      footer: (page, pages) => ({
        columns: [this.words(foot), this.words(`${page} of ${pages}`, { alignment: 'right' })],
        margin: [left, 14, right, 0],
        fontSize: 7.5,
        color: softInk,
      }),
    }
  }
}

const rule = (sheet: Sheet, lineWidth: number, lineColor: string) => ({
  canvas: [{ type: 'line' as const, x1: 0, y1: 0, x2: textWidthPt(sheet), y2: 0, lineWidth, lineColor }],
})

/** A press with its fonts in place. */
async function setUp(): Promise<Press> {
  const fonts = await fontsOfPapers()
  const files = new Map(
    fonts.cuts.flatMap(({ name, files: { normal, bold } }) => [
      [`${name}-normal`, normal],
      [`${name}-bold`, bold],
    ]),
  )
  pdfmake.setLocalAccessPolicy((name) => files.has(name))
  pdfmake.setFonts(
    Object.fromEntries(
      fonts.cuts.map(({ name }) => [name, { normal: `${name}-normal`, bold: `${name}-bold` }]),
    ),
  )
  shareFonts(files)
  return new Press(fonts)
}

let press: Promise<Press> | undefined

/** A paper as PDF in the product's own type. The same paper gives the same bytes. */
export async function paperPdf(paper: Paper): Promise<Buffer> {
  const ready = await (press ??= setUp().catch((cause: unknown) => {
    // A failed step is tried again with the next paper.
    press = undefined
    throw cause
  }))
  return pdfmake.createPdf(ready.definition(paper)).getBuffer()
}
