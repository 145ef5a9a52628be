import type { Specified } from './specified'

/** Groups of lines of a quotation, in their order. */
export const quotationGroups = {
  batteries: 'Batteries',
  charging: 'Charging',
  wiring: 'Protection and wiring',
  labour: 'Labour',
  other: 'Other',
} as const
export type QuotationGroup = keyof typeof quotationGroups

/** A line that the workshop adds by hand. */
export interface AddedLine {
  readonly name: string
  readonly group: QuotationGroup
  readonly quantity: number
  /** Of one; null until it is typed. */
  readonly price: number | null
}

/** Hand-set values of one line. */
export interface LineSettings {
  /** Price of one, before tax. */
  readonly price?: number
  readonly discountPercent?: number
  /** The customer may leave it out, or take it. */
  readonly isOptional?: boolean
  /** The name of one of the workshop's tax rates. */
  readonly tax?: string
}

/** A quotation during preparation: its differences from the specified answer and from the workshop's settings. */
export interface QuotationDraft {
  /** By the id of the line. */
  readonly lines?: Readonly<Record<string, LineSettings>>
  readonly added?: Readonly<Record<string, AddedLine>>
  readonly discountPercent?: number
  readonly depositPercent?: number
  readonly validDays?: number
  /** Words to the customer above the lines. */
  readonly message?: string
  /** Other answers that the customer can take in place of the chosen one. */
  readonly alternatives?: Readonly<Record<string, Specified>>
}

/** Alternatives of a quotation, at most. */
export const mostAlternatives = 2

/** How deep the properties of a draft are: `quotation/lines/ID/price`. Two people may change two of them. */
export const quotationDepth = 3

const termWords: Readonly<Record<string, string>> = {
  discountPercent: 'discount',
  depositPercent: 'deposit',
  validDays: 'days of validity',
  message: 'message to the customer',
}
const settingWords: Readonly<Record<keyof LineSettings, string>> = {
  price: 'price',
  discountPercent: 'discount',
  isOptional: 'option',
  tax: 'tax rate',
}

/** The name of a draft's property; null for any other path. */
export function quotationLabel(path: string): string | null {
  const [section, member = '', , setting] = path.split('/')
  if (section !== 'quotation') return null
  const ofLine = settingWords[setting as keyof LineSettings] as string | undefined
  if (member === 'lines') return `Quotation: ${ofLine ? `${ofLine} of a line` : 'a line'}`
  if (member === 'alternatives') return 'Quotation: an alternative'
  return `Quotation: ${member === 'added' ? 'an added line' : (termWords[member] ?? 'lines')}`
}

/** Settings of a line to be changed; those that are undefined go back to the usual. */
export type LineChange = { readonly [K in keyof LineSettings]?: LineSettings[K] | undefined }

/** A draft with some settings of a line changed. */
export function withLine(draft: QuotationDraft, id: string, change: LineChange): QuotationDraft {
  const { [id]: before, ...others } = draft.lines ?? {}
  const line = withoutUndefined({ ...before, ...change })
  return { ...draft, lines: Object.keys(line).length > 0 ? { ...others, [id]: line } : others }
}

/** A draft with a line added by hand, or changed. */
export const withAddedLine = (draft: QuotationDraft, id: string, line: AddedLine): QuotationDraft => ({
  ...draft,
  added: { ...draft.added, [id]: line },
})

/** A draft without a line that was added by hand. */
export function withoutAddedLine(draft: QuotationDraft, id: string): QuotationDraft {
  const { [id]: _line, ...added } = draft.added ?? {}
  const { [id]: _settings, ...lines } = draft.lines ?? {}
  return { ...draft, added, lines }
}

/** A draft with another answer that the customer can take. */
export const withAlternative = (draft: QuotationDraft, id: string, answer: Specified): QuotationDraft => ({
  ...draft,
  alternatives: { ...draft.alternatives, [id]: answer },
})

/** A draft without one of its alternatives. */
export function withoutAlternative(draft: QuotationDraft, id: string): QuotationDraft {
  const { [id]: _removed, ...alternatives } = draft.alternatives ?? {}
  return { ...draft, alternatives }
}

/** A draft with changed terms for all lines; an undefined term returns to its usual value. */
export const withTerms = (
  draft: QuotationDraft,
  change: {
    readonly [K in Exclude<keyof QuotationDraft, 'lines' | 'added' | 'alternatives'>]?:
      QuotationDraft[K] | undefined
  },
): QuotationDraft => withoutUndefined({ ...draft, ...change })

const withoutUndefined = <T extends object>(values: T): { [K in keyof T]: Exclude<T[K], undefined> } =>
  Object.fromEntries(Object.entries(values).filter(([, value]) => value !== undefined)) as {
    [K in keyof T]: Exclude<T[K], undefined>
  }
