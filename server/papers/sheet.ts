import type { Shape } from '#core/drawing/shape'
import type { Paper } from '#core/papers/blocks'

/** Sheets that papers are printed on, width and height, pt. */
const sheets = {
  A4: [595.28, 841.89],
  Letter: [612, 792],
  A3: [841.89, 1190.55],
  Tabloid: [792, 1224],
} as const
export type Sheet = keyof typeof sheets

/** Margins of the text, pt. */
export const marginPt = { left: 48, top: 44, right: 48, bottom: 48 } as const
/** A drawing may extend beyond the side margins of the text by this much, pt. */
export const drawingBeyondPt = 20
/** Height of the title, the rule and one heading at the top of the first page, pt. */
const headPt = 86
/** Smallest text of a drawing on paper, pt. */
const leastTextPt = 7

/** Width of the text on a sheet, pt. */
export const textWidthPt = (sheet: Sheet): number => sheets[sheet][0] - marginPt.left - marginPt.right

/** Room for a drawing on the first page of a sheet, below its heading, pt. */
export function drawingRoomPt(sheet: Sheet): [width: number, height: number] {
  const height = sheets[sheet][1] - marginPt.top - marginPt.bottom - headPt
  return [textWidthPt(sheet) + 2 * drawingBeyondPt, Math.floor(height)]
}

/** Size of the text of a drawing on a sheet, pt; infinite for a drawing that states no size of text. */
function textPt({ attributes }: Shape, sheet: Sheet): number {
  const [width, height] = drawingRoomPt(sheet)
  const scale = Math.min(width / Number(attributes.width), height / Number(attributes.height))
  return 'font-size' in attributes ? Number(attributes['font-size']) * scale : Infinity
}

const next = { A4: 'A3', Letter: 'Tabloid' } as const

/** The sheet for a paper: its own size, or twice that where the text of a drawing would be under 7 pt. */
export function sheetFor({ size, sections }: Pick<Paper, 'size' | 'sections'>): Sheet {
  const drawings = sections.flatMap(({ blocks }) =>
    blocks.flatMap((block) => (block.kind === 'drawing' ? [block.drawing] : [])),
  )
  return drawings.some((drawing) => textPt(drawing, size) < leastTextPt) ? next[size] : size
}
