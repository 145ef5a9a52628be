import { csvFormatRows } from 'd3-dsv'
import { wordsToCell } from './cell'
import type { Sheet } from '#core/papers/sheet'

/** The parts list of a sheet as CSV: header row, units in headers, labour as its last line. */
export function sheetCsv({ inputs, result }: Sheet): string {
  const money = inputs.shop.units.currency
  const rows = [
    ['sheet', 'code', 'part', 'quantity', 'unit', `price (${money})`, `total (${money})`],
    ...result.lines.map(({ code, name, quantity, unit, price, total }) => [
      wordsToCell(inputs.number),
      wordsToCell(code),
      wordsToCell(name),
      String(quantity),
      unit,
      price === null ? '' : String(price),
      total === null ? '' : String(total),
    ]),
    [
      wordsToCell(inputs.number),
      '',
      'Labour',
      String(Math.round(result.hours * 100) / 100),
      'h',
      String(result.labourPerH),
      String(Math.round(result.hours * result.labourPerH * 100) / 100),
    ],
  ]
  return `${csvFormatRows(rows)}\n`
}
