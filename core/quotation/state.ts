/** Where a quotation stands. */
export const quotationStates = {
  sent: 'Sent',
  accepted: 'Accepted',
  declined: 'Declined',
  expired: 'Expired',
  replaced: 'Replaced',
} as const
export type QuotationState = keyof typeof quotationStates

/** An answer of the customer to a quotation. */
export interface QuotationAnswer {
  readonly answer: 'accepted' | 'declined'
  /** Who gave it. */
  readonly name: string
  /** The reason, or other words from them. */
  readonly note: string
  /** Ids of the optional lines that they take. */
  readonly options: readonly string[]
  /** The id of the alternative they take; empty for the chosen answer. */
  readonly alternative: string
  readonly at: string
  /** Who of the workshop noted it. */
  readonly by: string
}

const dayMs = 24 * 3600 * 1000

/** The last moment at which a quotation can be accepted. @param issuedAt a moment in UTC */
export const validUntil = (issuedAt: string, validDays: number): string =>
  new Date(Date.parse(issuedAt) + validDays * dayMs).toISOString()

/**
 * Where a quotation stands: an answer counts over everything, a newer quotation over its age.
 * @param isNewest whether no later quotation was issued for the job
 */
export function stateOfQuotation(
  {
    until,
    isNewest,
    answer,
  }: { readonly until: string; readonly isNewest: boolean; readonly answer: QuotationAnswer | null },
  now: Date,
): QuotationState {
  if (answer) return answer.answer
  if (!isNewest) return 'replaced'
  return now.getTime() > Date.parse(until) ? 'expired' : 'sent'
}
