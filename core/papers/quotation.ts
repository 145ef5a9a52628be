import { withSpecified } from '#core/job/as-specified'
import { quotationGroups, type QuotationDraft } from '#core/job/quotation'
import { linesByGroup, quantityWords, quotationLines, type QuotationLine } from '#core/quotation/lines'
import { formatMoney, formatPercent, type Minor } from '#core/quotation/money'
import type { Offer } from '#core/quotation/offer'
import { validUntil } from '#core/quotation/state'
import { termsOf, type Letterhead } from '#core/quotation/terms'
import { totalsOf, type QuotationTotals } from '#core/quotation/totals'
import {
  dayOf,
  listSection,
  paperSize,
  plain,
  soft,
  strong,
  tableSection,
  type Column,
  type Fact,
  type Line,
  type Paper,
  type Section,
} from './blocks'
import { logoOf } from './head'
import { photosSection } from './photos'
import { sheetOf, type SheetInputs } from './sheet'

/** Everything a quotation is made from, as it was when it was issued. */
export interface QuotationInputs extends SheetInputs {
  readonly letterhead: Letterhead
}

/** The work of an answer, its price, and its open items. */
interface Quoted {
  /** The work, in the words of the answer. */
  readonly does: readonly string[]
  /** Parts that stay unchanged. */
  readonly leaves: readonly string[]
  /** Measurements before the work. */
  readonly open: readonly string[]
  readonly lines: readonly QuotationLine[]
  readonly totals: QuotationTotals
}
/** Another answer that the customer can take. */
type QuotedAlternative = Quoted & Offer

/** The content of a quotation. */
interface QuotationResult extends Quoted {
  readonly until: string
  readonly depositPercent: number
  readonly discountPercent: number
  /** Left out by quotations without one. */
  readonly alternatives?: readonly QuotedAlternative[]
}

/** A quotation as issued. It is kept unchanged. */
export interface Quotation {
  readonly format: 'jovial-anchor/quotation'
  readonly version: 1
  readonly inputs: QuotationInputs
  readonly result: QuotationResult
}

/**
 * The quotation of a job with a chosen answer.
 * @throws when the job has nothing specified
 */
export function quotationOf(inputs: QuotationInputs): Quotation {
  const { job, letterhead, issuedAt } = inputs
  const draft: QuotationDraft = job.quotation ?? {}
  const { discountPercent, depositPercent, validDays } = termsOf(draft, letterhead)
  const alternatives = Object.entries(draft.alternatives ?? {}).map(([id, answer]): QuotedAlternative => ({
    id,
    name: answer.name,
    ...quoted({ ...inputs, job: withSpecified(job, answer) }),
  }))
  const result: QuotationResult = {
    ...quoted(inputs),
    until: validUntil(issuedAt, validDays),
    depositPercent,
    discountPercent,
    ...(alternatives.length > 0 ? { alternatives } : {}),
  }
  return { format: 'jovial-anchor/quotation', version: 1, inputs, result }
}

function quoted(inputs: QuotationInputs): Quoted {
  const { job, letterhead, rules } = inputs
  const draft: QuotationDraft = job.quotation ?? {}
  const { work, accepted, open } = sheetOf(inputs).result
  const { discountPercent, depositPercent } = termsOf(draft, letterhead)
  const lines = quotationLines(job.specified, draft, letterhead, rules.labourPerH)
  return {
    does: work.map(({ label, on }) => (on ? `${label} (${on})` : label)),
    leaves: accepted,
    open,
    lines,
    totals: totalsOf(lines, { discountPercent, depositPercent, currency: letterhead.currency }),
  }
}

const text = (...lines: readonly Line[]): Section['blocks'] => lines.map((line) => ({ kind: 'text', line }))
/** Paragraphs of typed text. */
const paragraphs = (words: string): Line[] =>
  words
    .split(/\n+/)
    .filter((line) => line.trim() !== '')
    .map((line) => [plain(line.trim())])

/** The paper of a quotation, from its frozen content alone. */
export function quotationPaper({ inputs, result }: Quotation): Paper {
  const { job, shop, number, issuedAt, letterhead } = inputs
  const { locale } = letterhead
  const { customer, name, registration, location, contact } = job.job
  const message = job.quotation?.message ?? ''
  return {
    title: `Quotation ${number}`,
    over: shop.name,
    under: [
      [letterhead.address.replace(/\s*\n\s*/g, ', '), letterhead.phone, letterhead.email]
        .filter(Boolean)
        .join(' · '),
      [customer, contact].filter(Boolean).join(' · '),
      [name, registration, location].filter(Boolean).join(' · '),
      `${dayOf(issuedAt, locale)}. Valid until ${dayOf(result.until, locale)}.`,
    ].filter(Boolean),
    sections: [
      ...(message ? [{ heading: 'To you', blocks: text(...paragraphs(message)) }] : []),
      ...listSection('What we do', result.does, true),
      ...listSection('What stays as it is', result.leaves),
      ...listSection('What we measure first', result.open),
      ...priced(result, letterhead),
      total(result, letterhead),
      ...options(result.lines, letterhead),
      ...alternatives(result, letterhead),
      ...photosSection(inputs.photos),
      ...conditions(letterhead),
    ],
    foot: [`Quotation ${number}`, letterhead.taxNumber && `Tax number ${letterhead.taxNumber}`]
      .filter(Boolean)
      .join(' · '),
    author: shop.name || 'Jovial Anchor',
    madeAt: issuedAt,
    size: paperSize(shop.units.system),
    ...logoOf(inputs.letterhead),
  }
}

const columnsOf = (lines: readonly QuotationLine[], rates: number): readonly Column[] => [
  { title: 'Item', widthMm: null },
  { title: 'Quantity', widthMm: 20, right: true },
  { title: 'Price', widthMm: 24, right: true },
  ...(lines.some(({ discountPercent }) => discountPercent > 0)
    ? [{ title: 'Discount', widthMm: 18, right: true }]
    : []),
  ...(rates > 1 ? [{ title: 'Tax', widthMm: 16, right: true }] : []),
  { title: 'Amount', widthMm: 26, right: true },
]

function rowOf(
  line: QuotationLine,
  columns: readonly Column[],
  { currency, locale }: Letterhead,
): readonly string[] {
  const { name, price, discountPercent, net, tax } = line
  const money = (amount: Minor | null): string =>
    amount === null ? 'Price missing' : formatMoney(amount, currency, locale)
  const has = (title: string): boolean => columns.some((column) => column.title === title)
  return [
    name,
    quantityWords(line, locale),
    money(price),
    ...(has('Discount') ? [discountPercent > 0 ? formatPercent(discountPercent, locale) : ''] : []),
    ...(has('Tax') ? [formatPercent(tax.percent, locale)] : []),
    money(net),
  ]
}

/** The lines by group. */
function priced({ lines, totals }: QuotationResult, letterhead: Letterhead): Section[] {
  const taken = lines.filter(({ isOptional }) => !isOptional)
  const columns = columnsOf(taken, totals.taxes.length)
  return linesByGroup(taken).map(({ group, lines: ofGroup }) =>
    tableSection(
      { heading: quotationGroups[group] },
      columns,
      ofGroup.map((line) => rowOf(line, columns, letterhead)),
    ),
  )
}

/** Discount, subtotal, each tax, and the total. */
function sumsOf(
  totals: QuotationResult['totals'],
  discountPercent: number,
  { currency, locale }: Pick<Letterhead, 'currency' | 'locale'>,
): Fact[] {
  const money = (amount: Minor): string => formatMoney(amount, currency, locale)
  return [
    ...(totals.discount > 0
      ? [{ label: `Discount ${formatPercent(discountPercent, locale)}`, value: money(-totals.discount) }]
      : []),
    { label: 'Total before tax', value: money(totals.subtotal - totals.discount) },
    ...totals.taxes.map(({ rate, on, tax }) => ({
      label: `${rate.name} ${formatPercent(rate.percent, locale)} on ${money(on)}`,
      value: money(tax),
    })),
    { label: 'Total', value: money(totals.total) },
  ]
}

/** Totals of the groups, discount, tax, total and deposit. */
function total(
  {
    lines,
    totals,
    discountPercent,
    depositPercent,
  }: Pick<QuotationResult, 'lines' | 'totals' | 'discountPercent' | 'depositPercent'>,
  { currency, locale }: Letterhead,
): Section {
  const money = (amount: Minor): string => formatMoney(amount, currency, locale)
  const groups = linesByGroup(lines.filter(({ isOptional }) => !isOptional))
  const deposit = [
    plain(`Deposit when you accept (${formatPercent(depositPercent, locale)}): `),
    strong(money(totals.deposit)),
  ]
  return {
    heading: 'Total',
    blocks: [
      {
        kind: 'table',
        name: 'Total',
        columns: [
          { title: 'Group', widthMm: null },
          { title: 'Amount', widthMm: 30, right: true },
        ],
        rows: groups.map(({ group, lines: ofGroup }) => [
          quotationGroups[group],
          money(ofGroup.reduce((sum, { net }) => sum + (net ?? 0), 0)),
        ]),
        sums: sumsOf(totals, discountPercent, { currency, locale }),
      },
      ...(depositPercent > 0 ? text(deposit) : []),
    ],
  }
}

function options(lines: readonly QuotationLine[], letterhead: Letterhead, of = ''): Section[] {
  const optional = lines.filter(({ isOptional }) => isOptional)
  if (optional.length === 0) return []
  const columns = columnsOf(optional, 2)
  return [
    {
      heading: of ? `Options of ${of}` : 'Options',
      blocks: [
        ...text([soft('Not in the total. Tell us which of them you want. Amounts are before tax.')]),
        {
          kind: 'table',
          name: 'Options',
          columns,
          rows: optional.map((line) => rowOf(line, columns, letterhead)),
          sums: [],
        },
      ],
    },
  ]
}

/** Letters by which the customer names an alternative. */
const letters = ['A', 'B'] as const

/** Other answers, each with its different work and its total. */
function alternatives(
  { alternatives: others = [], depositPercent, discountPercent }: QuotationResult,
  letterhead: Letterhead,
): Section[] {
  return others.flatMap((other, i) => {
    const name = `Alternative ${letters[i]}`
    const { heading: _heading, blocks } = total({ ...other, depositPercent, discountPercent }, letterhead)
    const lists = [
      ...listSection('What we do', other.does),
      ...listSection('What stays as it is', other.leaves),
      ...listSection('What we measure first', other.open),
    ].flatMap((list) => [...text([strong(list.heading)]), ...list.blocks])
    return [
      {
        heading: name,
        about: 'in place of the work above',
        blocks: [...text([strong(`${other.name}.`)]), ...lists, ...blocks],
      },
      ...options(other.lines, letterhead, name),
    ]
  })
}

function conditions({ terms, bank }: Letterhead): Section[] {
  return [
    ...(terms.trim() ? [{ heading: 'Terms', blocks: text(...paragraphs(terms)) }] : []),
    ...(bank.trim() ? [{ heading: 'Payment', blocks: text(...paragraphs(bank)) }] : []),
    { heading: 'Acceptance', blocks: [{ kind: 'signatures', of: ['Place and date', 'Customer'] }] },
  ]
}
