import { quotationGroups, type QuotationDraft, type QuotationGroup } from '#core/job/quotation'
import type { ListedPart, Specified } from '#core/job/specified'
import { shelfKinds, type ShelfKindId } from '#core/shelf/kinds'
import { inSentence } from '#core/units/format'
import { formatCount, minorOf, multiplied, plainMoney, share, type Locale, type Minor } from './money'
import type { Letterhead, TaxRate } from './terms'

/** A line of a quotation with its money, before tax. */
export interface QuotationLine {
  readonly id: string
  readonly group: QuotationGroup
  readonly name: string
  readonly quantity: number
  readonly unit: '' | 'm' | 'h'
  /** Of one; null while it is missing. */
  readonly price: Minor | null
  readonly discountPercent: number
  /** Quantity by price, less the discount; null while the price is missing. */
  readonly net: Minor | null
  readonly tax: TaxRate
  readonly isOptional: boolean
}

/** A line before the workshop's own changes. */
interface Offered extends Pick<QuotationLine, 'id' | 'group' | 'name' | 'quantity' | 'unit'> {
  readonly price: Minor | null
}

const groupOfKind: Readonly<Record<string, QuotationGroup>> = {
  batteries: 'batteries',
  heaters: 'batteries',
  chargers: 'charging',
  dcdc: 'charging',
  controllers: 'charging',
  regulators: 'charging',
  inverters: 'charging',
}
const groupOf = ({ kind }: ListedPart): QuotationGroup => groupOfKind[kind ?? ''] ?? 'wiring'

/** Kinds that the workshop may put on one line together. */
const consumableKinds: ReadonlySet<string> = new Set(['conductors', 'lugs', 'sleeves', 'connectors'])
const consumablesId = 'consumables'
const labourId = 'labour'

/** The name of a part for somebody outside the trade: with its kind, where the name does not say it. */
function nameWithKind({ kind, name }: ListedPart): string {
  const one =
    kind !== null && Object.hasOwn(shelfKinds, kind) ? shelfKinds[kind as keyof typeof shelfKinds].one : ''
  const says = one
    .toLowerCase()
    .split(/[ -]/)
    .some((word) => name.toLowerCase().includes(word))
  return one === '' || says ? name : `${name}, ${inSentence(one)}`
}

/** The id of the line of a part: parts with one name and price are one line. A slash would split its path. */
const idOf = ({ code, name, price }: ListedPart): string =>
  `${code}|${name}|${price ?? ''}`.replaceAll('/', '∕').slice(0, 300)

const partsOf = ({ battery, steps }: Specified): readonly ListedPart[] => [
  ...battery,
  ...steps.flatMap((step) => step.parts),
]

/** A part of the shelf that has no price there. */
export interface UnpricedPart {
  readonly kind: ShelfKindId
  readonly code: string
}
/** The part of a line, if it is of the shelf and has no price there; null for any other line. */
export function unpricedPartOf(specified: Specified, line: string): UnpricedPart | null {
  const part = partsOf(specified).find((one) => one.price === null && idOf(one) === line)
  if (!part?.code || part.kind === null || !Object.hasOwn(shelfKinds, part.kind)) return null
  return { kind: part.kind as ShelfKindId, code: part.code }
}
/** The workshop's cost of a part that is sold at a price, in whole units of the currency. */
export function costOf(
  price: number,
  group: QuotationGroup,
  { marginPercent, currency }: Letterhead,
): number {
  const margin = marginPercent[group as keyof Letterhead['marginPercent']] as number | undefined
  return Number(plainMoney(minorOf(price / (1 + (margin ?? 0) / 100), currency), currency))
}

/** The parts of an answer as lines: each part once, in the order in which the steps name them. */
function partLines(parts: readonly ListedPart[], letterhead: Letterhead): Offered[] {
  const lines = new Map<string, Offered>()
  for (const part of parts) {
    const id = idOf(part)
    const group = groupOf(part)
    const margin = letterhead.marginPercent[group as keyof Letterhead['marginPercent']]
    const cost = part.price === null ? null : minorOf(part.price, letterhead.currency)
    const price = cost === null ? null : cost + share(cost, margin, letterhead.currency)
    // Metres by the centimetre, as they are sold.
    const quantity = Math.round(((lines.get(id)?.quantity ?? 0) + part.quantity) * 100) / 100
    lines.set(id, { id, group, name: nameWithKind(part), quantity, unit: part.unit, price })
  }
  return [...lines.values()]
}

/** Lines of consumables as one, with their total as its price; it misses a price if one of them does. */
function together(lines: readonly Offered[], { currency }: Letterhead): Offered[] {
  if (lines.length === 0) return []
  const sums = lines.map(({ price, quantity }) =>
    price === null ? null : multiplied(price, quantity, currency),
  )
  const price = sums.reduce<Minor | null>((sum, one) => (sum === null || one === null ? null : sum + one), 0)
  return [
    { id: consumablesId, group: 'wiring', name: 'Cable, lugs and small parts', quantity: 1, unit: '', price },
  ]
}

function offered(specified: Specified, letterhead: Letterhead, labourPerH: number): Offered[] {
  const parts = partsOf(specified)
  const isTogether = ({ kind }: ListedPart): boolean =>
    letterhead.consumables === 'together' && consumableKinds.has(kind ?? '')
  const hours = specified.steps.reduce((sum, step) => sum + step.hours, 0)
  const labour: Offered = {
    id: labourId,
    group: 'labour',
    name: 'Labour',
    quantity: Math.round(hours * 100) / 100,
    unit: 'h',
    price: minorOf(labourPerH, letterhead.currency),
  }
  return [
    ...partLines(
      parts.filter((part) => !isTogether(part)),
      letterhead,
    ),
    ...together(partLines(parts.filter(isTogether), letterhead), letterhead),
    ...(hours > 0 ? [labour] : []),
  ]
}

/** Lines of a group. */
interface LineGroup {
  readonly group: QuotationGroup
  readonly lines: readonly QuotationLine[]
}
/** Lines by group, in the order of the groups; those without a line are left out. */
export const linesByGroup = (lines: readonly QuotationLine[]): readonly LineGroup[] =>
  (Object.keys(quotationGroups) as QuotationGroup[])
    .map((group) => ({ group, lines: lines.filter((line) => line.group === group) }))
    .filter((one) => one.lines.length > 0)

const unitWords = { '': '', m: ' m', h: ' h' } as const
/** How much of a line, as people write it: `3.3 m`. */
export const quantityWords = ({ quantity, unit }: QuotationLine, locale: Locale): string =>
  `${formatCount(quantity, locale)}${unitWords[unit]}`

/** Names of lines whose price is missing. */
export const unpricedNames = (lines: readonly QuotationLine[]): readonly string[] =>
  lines.filter(({ net }) => net === null).map(({ name }) => name)

/**
 * The lines of a quotation, by group: the parts and the work of the chosen answer, and lines added by hand; with
 * prices, discounts and tax as the workshop sets them.
 * @param labourPerH price of an hour of work, in whole units of the currency
 */
export function quotationLines(
  specified: Specified | undefined,
  draft: QuotationDraft,
  letterhead: Letterhead,
  labourPerH: number,
): QuotationLine[] {
  const { currency, taxRates } = letterhead
  const added: Offered[] = Object.entries(draft.added ?? {}).map(([id, { price, ...line }]) => ({
    ...line,
    id,
    unit: '',
    price: price === null ? null : minorOf(price, currency),
  }))
  const lines = [...(specified ? offered(specified, letterhead, labourPerH) : []), ...added]
  const set = lines.map((line): QuotationLine => {
    const { price: own, discountPercent = 0, isOptional = false, tax } = draft.lines?.[line.id] ?? {}
    const price = own === undefined ? line.price : minorOf(own, currency)
    const gross = price === null ? null : multiplied(price, line.quantity, currency)
    return {
      ...line,
      price,
      discountPercent,
      net: gross === null ? null : gross - share(gross, discountPercent, currency),
      tax: taxRates.find(({ name }) => name === tax) ?? taxRates[0] ?? { name: 'Tax', percent: 0 },
      isOptional,
    }
  })
  return linesByGroup(set).flatMap((one) => one.lines)
}
