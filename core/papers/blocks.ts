import type { Shape } from '#core/drawing/shape'
import type { Verdict } from '#core/system/verdict'

/** A piece of a line: strong, soft, or in the colour and with the mark of a verdict. */
export interface Span {
  readonly text: string
  readonly tone?: 'strong' | 'soft'
  readonly verdict?: Verdict
}
export type Line = readonly Span[]

export const plain = (text: string): Span => ({ text })
export const strong = (text: string): Span => ({ text, tone: 'strong' })
export const soft = (text: string): Span => ({ text, tone: 'soft' })
export const judged = (verdict: Verdict, text: string): Span => ({ text, verdict })

/** The subject of a finding, before its sentence: a question keeps its mark. */
export const heading = (title: string): Span => strong(title.endsWith('?') ? title : `${title}.`)

export interface Fact {
  readonly label: string
  readonly value: string
}
export interface Column {
  readonly title: string
  /** Width on paper, mm; null takes the remaining width. */
  readonly widthMm: number | null
  readonly right?: boolean
}

/** The blocks that every paper is made of. A renderer of these blocks can render every paper. */
export type Block =
  | { readonly kind: 'answer'; readonly verdict: Verdict; readonly text: string }
  | { readonly kind: 'text'; readonly line: Line }
  | { readonly kind: 'list'; readonly numbered: boolean; readonly items: readonly Line[] }
  | { readonly kind: 'facts'; readonly facts: readonly Fact[] }
  | {
      readonly kind: 'cards'
      readonly cards: readonly { readonly title: string; readonly facts: readonly Fact[] }[]
    }
  | {
      readonly kind: 'table'
      readonly name: string
      readonly columns: readonly Column[]
      readonly rows: readonly (readonly string[])[]
      /**
       * Sums under the rows, the last of them strong: a label over all columns but the last, and its figure.
       */
      readonly sums: readonly Fact[]
    }
  | {
      readonly kind: 'findings'
      readonly findings: readonly {
        readonly verdict: Verdict
        readonly line: Line
        readonly small: readonly string[]
      }[]
    }
  | { readonly kind: 'signatures'; readonly of: readonly string[] }
  | {
      /** Labels or cards to cut out or peel off. On paper they fill sheets of their own. */
      readonly kind: 'grid'
      readonly grid: Grid
      readonly cells: readonly GridCell[]
    }
  | { readonly kind: 'photos'; readonly photos: readonly PaperPhoto[] }
  /** A drawing, as large as the page lets it be. */
  | { readonly kind: 'drawing'; readonly drawing: Shape }

/** A photo with its caption; its source is a data address, or on a page the address of the picture. */
export interface PaperPhoto {
  readonly source: string
  readonly caption: string
}

/** Cells of one size on a sheet, from the top left, mm. */
export interface Grid {
  readonly columns: number
  readonly rows: number
  readonly widthMm: number
  readonly heightMm: number
  readonly leftMm: number
  readonly topMm: number
  /** From one column to the next. */
  readonly gapMm: number
  /** Whether the outline of each cell is printed, to cut along. */
  readonly isCut: boolean
}
export interface GridCell {
  readonly title: string
  readonly about: string
  readonly facts: readonly Fact[]
  /** A code to scan, at the right. */
  readonly code?: Shape
}

export interface Section {
  readonly heading: string
  /** Next to the heading: the subject and the result. */
  readonly about?: string
  readonly verdict?: Verdict
  readonly blocks: readonly Block[]
}

/** A paper as data: its page and its PDF are drawn from the same. */
export interface Paper {
  readonly title: string
  /** Lines above and under the title. */
  readonly over: string
  readonly under: readonly string[]
  readonly sections: readonly Section[]
  /** At the foot of each page. */
  readonly foot: string
  readonly author: string
  readonly madeAt: string
  readonly size: 'A4' | 'Letter'
  /** Letters for reading in poor light or without glasses; left out for the usual size. */
  readonly type?: 'large'
  /** The logo of the workshop as a PNG data address; left out where it has none. */
  readonly logo?: string
}

/** A list of plain lines as a section, or nothing where it is empty. */
export const listSection = (heading: string, items: readonly string[], numbered = false): Section[] =>
  items.length === 0
    ? []
    : [{ heading, blocks: [{ kind: 'list', numbered, items: items.map((text) => [plain(text)]) }] }]

type TableBlock = Extract<Block, { kind: 'table' }>
/** A table as a section. @param name of the table, where the heading does not say it */
export const tableSection = (
  { heading, about, name = heading }: Pick<Section, 'heading' | 'about'> & { readonly name?: string },
  columns: TableBlock['columns'],
  rows: TableBlock['rows'],
): Section => ({
  heading,
  ...(about === undefined ? {} : { about }),
  blocks: [{ kind: 'table', name, columns, rows, sums: [] }],
})

/** Paper the workshop prints on, by its units. */
export const paperSize = (system: 'metric' | 'imperial'): Paper['size'] =>
  system === 'imperial' ? 'Letter' : 'A4'

/** A day as people write it. @param iso a moment in UTC */
export const dayOf = (iso: string, locale = 'en-GB'): string =>
  new Date(iso).toLocaleDateString(locale, {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: 'UTC',
  })
