import type { How } from '#core/job/fields'

/** What a field holds now. */
export interface NowKnown {
  readonly value: unknown
  readonly how?: How | undefined
}

/** What a person takes over from a label. */
export interface LabelUse {
  readonly values: readonly { readonly field: string; readonly value: number | string }[]
  readonly model: string | null
  readonly serial: string | null
}
