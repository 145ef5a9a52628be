import { csvFormatRows } from 'd3-dsv'
import { offersOf } from '#core/papers/offers'
import type { Quotation } from '#core/papers/quotation'
import { plainMoney, type Minor } from '#core/quotation/money'
import { wordsToCell } from './cell'

/** The lines of a quotation as CSV: header row, one row a line, amounts before tax with a decimal point. */
export function quotationCsv(quotation: Quotation): string {
  const { inputs } = quotation
  const { currency } = inputs.letterhead
  const money = (amount: Minor | null): string => (amount === null ? '' : plainMoney(amount, currency))
  const rows = offersOf(quotation).flatMap(({ id: alternative, name: answer, lines }) =>
    lines.map(({ group, name, quantity, unit, price, discountPercent, net, tax, isOptional }) => [
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
      alternative === '' ? '' : wordsToCell(answer),
    ]),
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
    'alternative',
  ]
  return `${csvFormatRows([titles, ...rows])}\n`
}
