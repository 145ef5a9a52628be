import { unpricedNames, type QuotationLine } from './lines'
import { share, type CurrencyCode, type Minor } from './money'
import type { TaxRate } from './terms'

/** The total of a quotation. */
export interface QuotationTotals {
  /** Lines that are taken, before the discount on all of them. */
  readonly subtotal: Minor
  readonly discount: Minor
  /** Tax by rate, on the subtotal of that rate; rates without a line are left out. */
  readonly taxes: readonly { readonly rate: TaxRate; readonly on: Minor; readonly tax: Minor }[]
  readonly total: Minor
  readonly deposit: Minor
  /** Names of taken lines without a price. */
  readonly unpriced: readonly string[]
}

const sum = (amounts: readonly Minor[]): Minor => amounts.reduce((all, one) => all + one, 0)

/**
 * The total of some lines. Each line, the discount at each tax rate, and each tax is rounded half up to the
 * smallest unit of the currency; everything else is a sum of such amounts.
 * @param options ids of optional lines that the customer takes
 */
export function totalsOf(
  lines: readonly QuotationLine[],
  {
    discountPercent = 0,
    depositPercent = 0,
    currency,
    options = [],
  }: {
    readonly discountPercent?: number | undefined
    readonly depositPercent?: number | undefined
    readonly currency: CurrencyCode
    readonly options?: readonly string[]
  },
): QuotationTotals {
  const taken = lines.filter(({ id, isOptional }) => !isOptional || options.includes(id))
  const rates = [...new Map(taken.map(({ tax }) => [tax.name, tax])).values()]
  const byRate = rates.map((rate) => {
    const all = sum(taken.filter(({ tax }) => tax.name === rate.name).map(({ net }) => net ?? 0))
    const discount = share(all, discountPercent, currency)
    const on = all - discount
    return { rate, discount, on, tax: share(on, rate.percent, currency) }
  })
  const total = sum(byRate.map(({ on, tax }) => on + tax))
  return {
    subtotal: sum(taken.map(({ net }) => net ?? 0)),
    discount: sum(byRate.map(({ discount }) => discount)),
    taxes: byRate.map(({ rate, on, tax }) => ({ rate, on, tax })),
    total,
    deposit: share(total, depositPercent, currency),
    unpriced: unpricedNames(taken),
  }
}
