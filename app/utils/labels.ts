import type { How } from '#core/job/fields'

/** The present value of a field. */
export interface NowKnown {
  readonly value: unknown
  readonly how?: How | undefined
}

/** The values that a person accepts from a label. */
export interface LabelUse {
  readonly values: readonly { readonly field: string; readonly value: number | string }[]
  readonly model: string | null
  readonly serial: string | null
}
