import type { QuotationLine } from './lines'
import type { QuotationTotals } from './totals'

/** One answer of a quotation that the customer can take. */
export interface Offer {
  /** Empty for the chosen answer; else the id of the alternative. */
  readonly id: string
  readonly name: string
  readonly lines: readonly QuotationLine[]
  readonly totals: QuotationTotals
}
