import type { Grid, GridCell, Paper } from './blocks'
import type { WiringLabel } from './labels'

/** A sheet of labels as it is sold, by its measures. */
interface LabelSheet {
  readonly name: string
  readonly size: Paper['size']
  readonly grid: Grid
}
const sheet = (
  name: string,
  size: Paper['size'],
  [columns, rows]: readonly [number, number],
  [widthMm, heightMm]: readonly [number, number],
  [leftMm, topMm, gapMm]: readonly [number, number, number],
): LabelSheet => ({
  name,
  size,
  grid: { columns, rows, widthMm, heightMm, leftMm, topMm, gapMm, isCut: false },
})

/** Common sheets of labels, by the measures that stand on their packets. */
export const labelSheets = {
  'a4-24': sheet('A4, 24 labels of 70 × 37 mm', 'A4', [3, 8], [70, 37], [0, 0.5, 0]),
  'a4-40': sheet('A4, 40 labels of 48.5 × 25.4 mm', 'A4', [4, 10], [48.5, 25.4], [8, 21.5, 0]),
  'a4-65': sheet('A4, 65 labels of 38.1 × 21.2 mm', 'A4', [5, 13], [38.1, 21.2], [4.7, 10.7, 2.5]),
  'letter-30': sheet('Letter, 30 labels of 2⅝ × 1 in', 'Letter', [3, 10], [66.7, 25.4], [4.8, 12.7, 3.2]),
  'letter-80': sheet('Letter, 80 labels of 1¾ × ½ in', 'Letter', [4, 20], [44.5, 12.7], [7.1, 12.7, 7.6]),
} as const satisfies Record<string, LabelSheet>
export type LabelSheetId = keyof typeof labelSheets
export const labelSheetIds = Object.keys(labelSheets) as readonly LabelSheetId[]

/** The usual sheet for a size of paper. */
export const usualLabelSheet = (size: Paper['size']): LabelSheetId => (size === 'A4' ? 'a4-24' : 'letter-30')

/** A label as a cell of a sheet: number, both ends, size and fuse. */
export function labelCell({ number, from, to, size, fuse }: WiringLabel): GridCell {
  const isCable = to !== ''
  return {
    title: number,
    about: [size || (isCable ? '' : 'rating unknown'), fuse && `fuse ${fuse}`].filter(Boolean).join(' · '),
    facts: isCable
      ? [
          { label: 'from', value: from },
          { label: 'to', value: to },
        ]
      : [{ label: '', value: from }],
  }
}
