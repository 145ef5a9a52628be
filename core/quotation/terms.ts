import type { QuotationDraft, QuotationGroup } from '#core/job/quotation'
import type { CurrencyCode, Locale } from './money'

export interface TaxRate {
  readonly name: string
  /** 0 to 100. */
  readonly percent: number
}

/** The workshop's text for every quotation. */
export interface Letterhead {
  readonly address: string
  readonly phone: string
  readonly email: string
  readonly taxNumber: string
  readonly bank: string
  readonly terms: string
  readonly currency: CurrencyCode
  readonly locale: Locale
  /** The first is used where a line names no other. */
  readonly taxRates: readonly TaxRate[]
  readonly validDays: number
  readonly depositPercent: number
  /** Margin on the shelf price of a part, percent. */
  readonly marginPercent: Readonly<Record<Exclude<QuotationGroup, 'labour' | 'other'>, number>>
  /** Cable, lugs and the like as one line, or each by itself. */
  readonly consumables: 'itemised' | 'together'
  /** A PNG as a data address; empty for none. */
  readonly logo: string
}

/** Terms for all lines of a quotation: from its draft, else from the letterhead. */
export const termsOf = (draft: QuotationDraft, letterhead: Letterhead) => ({
  discountPercent: draft.discountPercent ?? 0,
  depositPercent: draft.depositPercent ?? letterhead.depositPercent,
  validDays: draft.validDays ?? letterhead.validDays,
})

export const mostTaxRates = 4

/** Letters of a logo as a data address, at most: about 150 kB of picture. */
export const mostLogoLetters = 200_000

export const usualLetterhead: Letterhead = {
  address: '',
  phone: '',
  email: '',
  taxNumber: '',
  bank: '',
  terms: '',
  currency: 'EUR',
  locale: 'en-GB',
  taxRates: [{ name: 'Tax', percent: 0 }],
  validDays: 30,
  depositPercent: 0,
  marginPercent: { batteries: 0, charging: 0, wiring: 0 },
  consumables: 'itemised',
  logo: '',
}
