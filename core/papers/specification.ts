import { capital, inSentence, joinText, writerIn, type Write } from '#core/units/format'
import {
  dayOf,
  heading,
  judged,
  listSection,
  paperSize,
  plain,
  soft,
  strong,
  tableSection,
  type Fact,
  type Paper,
  type Section,
} from './blocks'
import { logoOf } from './head'
import type { PricedLine, Sheet, SheetResult } from './sheet'

const section = (title: string, ...blocks: Section['blocks']): Section => ({ heading: title, blocks })

const caution = joinText(
  'Stored energy, mains wiring and engine spaces can injure. ',
  'The local code, the makers’ instructions and licensed practice come first. ',
  'This sheet shows what was calculated and chosen. It does not claim compliance with any standard.',
)

/**
 * The paper of an issued specification, from its frozen content alone, so that the same sheet gives the same paper.
 */
export function specificationPaper({ inputs, result }: Sheet): Paper {
  const { job, shop, number, issuedAt, issuedBy } = inputs
  const { customer, name, registration, location } = job.job
  const q = writerIn(shop.units)
  return {
    title: `Specification ${number}`,
    over: shop.name,
    under: [
      [customer, name, registration, location].filter(Boolean).join(' · '),
      `Issued ${dayOf(issuedAt)} by ${issuedBy}. It does not change after issue.`,
    ],
    sections: [
      answer(result),
      parts(result, q),
      work(result),
      settings(result, q),
      section('Protection', { kind: 'facts', facts: result.protections }),
      ...listSection('Measure before fitting', result.open),
      ...listSection('Accepted, and told to the customer', result.accepted),
      ...listSection('Cautions', result.cautions),
      ...differences(result),
      findings(result),
      ...listSection(
        'Decided differently from the shop’s rule',
        result.schools.filter(({ own }) => own).map(({ question, chosen }) => `${question}: ${chosen}`),
      ),
      section('Before you work from this', {
        kind: 'text',
        line: [plain(caution)],
      }),
    ],
    foot: `Specification ${number}, ${dayOf(issuedAt)}`,
    author: shop.name || 'Jovial Anchor',
    madeAt: issuedAt,
    size: paperSize(shop.units.system),
    ...logoOf(inputs.letterhead),
  }
}

const answer = ({ name, found, specified }: SheetResult): Section =>
  section(
    name,
    { kind: 'text', line: [plain('As found: '), judged(found.verdict, found.headline)] },
    { kind: 'text', line: [plain('As specified: '), judged(specified.verdict, specified.headline)] },
    { kind: 'text', line: [soft(found.reason)] },
  )

function parts(result: SheetResult, q: Write): Section {
  const { lines, hours, labourPerH, total, unpriced } = result
  const missing = unpriced > 0 ? ` (${unpriced} ${unpriced === 1 ? 'price' : 'prices'} missing)` : ''
  const rowOf = ({ name, code, quantity, unit, price, total: sum }: PricedLine): string[] => [
    name,
    code,
    `${quantity}${unit && ` ${unit}`}`,
    price === null ? 'ask for a price' : q(price, 'money'),
    sum === null ? '–' : q(sum, 'money'),
  ]
  return section('Parts', {
    kind: 'table',
    name: 'Parts',
    columns: [
      { title: 'Part', widthMm: null },
      { title: 'Code', widthMm: 24 },
      { title: 'Quantity', widthMm: 18, right: true },
      { title: 'Price', widthMm: 24, right: true },
      { title: 'Total', widthMm: 24, right: true },
    ],
    rows: lines.map(rowOf),
    sums: [
      {
        label: `Labour, ${q(hours, 'h')} at ${q(labourPerH, 'money')} an hour`,
        value: q(hours * labourPerH, 'money'),
      },
      { label: `Total${missing}`, value: q(total, 'money') },
    ],
  })
}

const work = ({ work: steps }: SheetResult): Section =>
  section('Work', {
    kind: 'list',
    numbered: true,
    items: steps.map(({ label, on, settles }) => [
      strong(label),
      plain(on && ` (${on})`),
      soft(settles.length > 0 ? `: settles ${settles.map(inSentence).join(', ')}` : ''),
    ]),
  })

const settings = ({ cards }: SheetResult, q: Write): Section =>
  section('Settings', {
    kind: 'cards',
    cards: cards.map(({ unit, settings: set }) => ({
      title: capital(unit),
      facts: set.map(({ label, value, unit: in_ }): Fact => ({
        label,
        value: typeof value === 'number' ? q(value, in_) : value,
      })),
    })),
  })

function differences({ differs }: SheetResult): Section[] {
  if (differs.length === 0) return []
  return [
    tableSection(
      { heading: 'As found and as specified', name: 'As found and as specified, field by field' },
      [
        { title: 'Value', widthMm: null },
        { title: 'As found', widthMm: 44 },
        { title: 'As specified', widthMm: 44 },
      ],
      differs.map(({ part, label, before, after }) => [`${part}: ${inSentence(label)}`, before, after]),
    ),
  ]
}

const findings = (result: SheetResult): Section =>
  section('Findings as specified', {
    kind: 'findings',
    findings: result.findings.map(({ title, summary, verdict }) => ({
      verdict,
      line: [heading(title), plain(` ${summary}`)],
      small: [],
    })),
  })
