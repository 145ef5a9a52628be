import type { Change } from './change'

/**
 * A part to be bought, as a specification lists it: code and version on the shelf, or a thing the shelf does
 * not hold.
 */
export interface ListedPart {
  readonly kind: string | null
  readonly code: string
  readonly version: number
  readonly name: string
  readonly quantity: number
  readonly unit: '' | 'm'
  /** Of one, or of a metre; null if it is to be asked. */
  readonly price: number | null
}

/** Total price of the parts that have one. */
export const costOf = (parts: readonly Pick<ListedPart, 'price' | 'quantity'>[]): number =>
  parts.reduce((sum, { price, quantity }) => sum + (price ?? 0) * quantity, 0)

/** One thing to be done. */
export interface ListedStep {
  readonly label: string
  readonly on: string
  readonly parts: readonly ListedPart[]
  readonly hours: number
  readonly settles: readonly string[]
}

/**
 * The chosen answer of a job: its steps, and its differences from the survey, property by property.
 */
export interface Specified {
  readonly name: string
  readonly at: string
  readonly by: string
  readonly battery: readonly ListedPart[]
  readonly steps: readonly ListedStep[]
  /** Findings that are accepted and told to the customer. */
  readonly accepted: readonly string[]
  readonly changes: readonly Change[]
}
