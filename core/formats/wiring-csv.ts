import { entryOf } from '#core/collections/held'
import { csvFormatRows } from 'd3-dsv'
import type { WiredJob } from '#core/assessment/wired'
import { isSizeUnknown } from '#core/wiring/words'
import { boughtFrom } from '#core/remedies/bought'
import type { ShelfPart } from '#core/shelf/kinds'
import { wordsToCell } from './cell'

const tidy = (value: number): string => String(Math.round(value * 100) / 100)

/** The runs of a wiring as CSV, for labels and lists: header row, units in headers. Unknown cells are empty. */
export function runsCsv({ network, runs }: WiredJob): string {
  const names = new Map(network.posts.map(({ id, name }) => [id, name]))
  const fuses = new Map(network.posts.map(({ id, fitting }) => [id, fitting?.number ?? '']))
  const figures = new Map(runs.map((one) => [one.id, one]))
  const rows = network.runs.map((run) => {
    const { amps, fuse } = entryOf(figures, run.id)
    const isUnknown = run.areaMm2 === null || isSizeUnknown(run)
    return [
      run.number,
      wordsToCell(names.get(run.from) ?? run.from),
      wordsToCell(names.get(run.to) ?? run.to),
      isUnknown ? '' : String(run.areaMm2),
      String(run.count),
      run.lengthKnown === 'open' || run.isStud ? '' : tidy(run.lengthM),
      tidy(amps),
      fuse === null ? '' : (fuses.get(fuse) ?? ''),
      run.state,
    ]
  })
  const head = [
    'run',
    'from',
    'to',
    'size (mm²)',
    'side by side',
    'length (m)',
    'current (A)',
    'fuse',
    'state',
  ]
  return `${csvFormatRows([head, ...rows])}\n`
}

/**
 * Parts to buy for a wiring as CSV. Unknown prices and weights, and parts that the shelf lacks, have empty cells.
 * @param shelf the shelf to buy from
 */
export const wiringPartsCsv = ({ parts }: Pick<WiredJob, 'parts'>, shelf: readonly ShelfPart[]): string =>
  `${csvFormatRows([
    ['quantity', 'unit', 'part', 'weight about (kg)', 'shelf', 'price each'],
    ...parts.map((part) => {
      const { code, name, price } = boughtFrom(shelf, part)
      return [
        String(part.quantity),
        part.unit,
        wordsToCell(part.what),
        part.kg === null ? '' : tidy(part.kg),
        code === '' ? '' : wordsToCell(name),
        price === null ? '' : tidy(price),
      ]
    }),
  ])}\n`
