import { csvFormatRows } from 'd3-dsv'
import type { WiringLabel } from '#core/papers/labels'
import { wordsToCell } from './cell'

/** Labels as CSV for a label printer: header row, one row a label. */
export const labelsCsv = (labels: readonly WiringLabel[]): string =>
  `${csvFormatRows([
    ['number', 'from', 'to', 'size', 'fuse'],
    ...labels.map(({ number, from, to, size, fuse }) => [number, from, to, size, fuse].map(wordsToCell)),
  ])}\n`
