import { csvFormatRows } from 'd3-dsv'
import type { Quotation } from '#core/papers/quotation'
import { decimalsOf } from '#core/quotation/money'
import { wordsToCell } from './cell'

/** The lines of a quotation as CSV: header row, one row a line, amounts before tax with a decimal point. */
export function quotationCsv({ inputs, result }: Quotation): string {
  const { currency } = inputs.letterhead
  const decimals = decimalsOf(currency)
  const money = (amount: number | null): string =>
    amount === null ? '' : (amount / 10 ** decimals).toFixed(decimals)
  const rows = result.lines.map(
    ({ group, name, quantity, unit, price, discountPercent, net, tax, isOptional }) => [
      wordsToCell(inputs.number),
      group,
      wordsToCell(name),
      String(quantity),
      unit,
      money(price),
      String(discountPercent),
      money(net),
      String(tax.percent),
      isOptional ? 'yes' : 'no',
    ],
  )
  const titles = [
    'quotation',
    'group',
    'item',
    'quantity',
    'unit',
    `price (${currency})`,
    'discount (%)',
    `amount (${currency})`,
    'tax (%)',
    'optional',
  ]
  return `${csvFormatRows([titles, ...rows])}\n`
}
