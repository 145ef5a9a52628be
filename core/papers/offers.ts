import type { QuotationLine } from '#core/quotation/lines'
import type { Offer } from '#core/quotation/offer'
import type { Quotation } from './quotation'

/** Offers of a quotation: the chosen answer first, then its alternatives. */
export const offersOf = ({ inputs, result }: Quotation): readonly [Offer, ...Offer[]] => [
  { id: '', name: inputs.job.specified?.name ?? 'As quoted', lines: result.lines, totals: result.totals },
  ...(result.alternatives ?? []),
]

/** Every line of a quotation, also those of its alternatives. */
export const quotedLines = (quotation: Quotation): readonly QuotationLine[] =>
  offersOf(quotation).flatMap(({ lines }) => lines)
