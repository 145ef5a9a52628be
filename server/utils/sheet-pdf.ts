import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import pdfmake from 'pdfmake'
import type { Content, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces'
import type { Sheet } from '#core/papers/sheet'
import { verdictWords } from '#core/system/verdict'
import { writerIn } from '#core/units/format'

const fonts = join(dirname(createRequire(import.meta.url).resolve('dejavu-fonts-ttf/package.json')), 'ttf')
const [regular, bold] = [join(fonts, 'DejaVuSans.ttf'), join(fonts, 'DejaVuSans-Bold.ttf')]
pdfmake.setFonts({ Sheet: { normal: regular, bold, italics: regular, bolditalics: bold } })
// Nothing is fetched for a paper, and nothing is read but its two fonts.
pdfmake.setUrlAccessPolicy(() => false)
pdfmake.setLocalAccessPolicy((path: string) => path === regular || path === bold)

const head = (text: string): Content => ({ text, style: 'head' })
const list = (items: readonly string[]): Content => ({ ul: [...items], style: 'small' })
const lines = {
  hLineWidth: (i: number) => (i === 0 ? 0 : 0.4),
  vLineWidth: () => 0,
  hLineColor: () => '#9aa5a8',
  paddingLeft: () => 0,
  paddingRight: () => 6,
}
const table = (widths: (string | number)[], body: TableCell[][], headerRows = 1): Content => ({
  table: { headerRows, widths, body, dontBreakRows: true },
  layout: lines,
  style: 'small',
})
const right = (text: string): TableCell => ({ text, alignment: 'right' })
const day = (iso: string): string =>
  new Date(iso).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'long',
    year: 'numeric',
    timeZone: 'UTC',
  })

/** The paper of a sheet. The same sheet gives the same bytes. */
export function sheetPdf({ inputs, result }: Sheet): Promise<Buffer> {
  const { job, shop, number, issuedAt, issuedBy } = inputs
  const craft = [job.job.customer, job.job.name, job.job.registration, job.job.location]
    .filter(Boolean)
    .join(' · ')
  const q = writerIn(shop.units)
  const content: Content[] = [
    { text: shop.name || 'Specification', style: 'shop' },
    { text: `Specification ${number}`, style: 'title' },
    { text: craft, style: 'small' },
    { text: `Issued ${day(issuedAt)} by ${issuedBy}`, style: 'small', margin: [0, 0, 0, 8] },
    { text: result.name, bold: true, fontSize: 12 },
    {
      text: `As found: ${result.found.headline}. As specified: ${result.specified.headline}.`,
      margin: [0, 2, 0, 2],
    },
    { text: result.found.reason, style: 'small' },
    head('Parts'),
    table(
      ['*', 60, 44, 58, 62],
      [
        ['Part', 'Code', right('Quantity'), right('Price'), right('Total')].map((cell) =>
          typeof cell === 'string'
            ? { text: cell, bold: true }
            : ({ ...(cell as object), bold: true } as TableCell),
        ),
        ...result.lines.map((line): TableCell[] => [
          line.name,
          line.code,
          right(`${line.quantity}${line.unit ? ` ${line.unit}` : ''}`),
          right(line.price === null ? 'to be asked' : q(line.price, 'money')),
          right(line.total === null ? '–' : q(line.total, 'money')),
        ]),
        [
          `Labour, ${q(result.hours, 'h')} at ${q(result.labourPerH, 'money')} an hour`,
          '',
          '',
          '',
          right(q(result.hours * result.labourPerH, 'money')),
        ],
        [
          {
            text:
              result.unpriced > 0
                ? `Total, without ${result.unpriced} ${result.unpriced === 1 ? 'price' : 'prices'}`
                : 'Total',
            bold: true,
          },
          '',
          '',
          '',
          { text: q(result.total, 'money'), bold: true, alignment: 'right' },
        ],
      ],
    ),
    head('Work'),
    {
      ol: result.work.map(({ label, on, settles }) => ({
        text: [
          { text: `${label}${on ? ` (${on})` : ''}`, bold: true },
          settles.length > 0 ? `: settles ${settles.join(', ').toLowerCase()}` : '',
        ],
      })),
      style: 'small',
    },
    head('Settings'),
    ...result.cards.map(({ unit, settings }): Content => ({
      unbreakable: true,
      margin: [0, 0, 0, 6],
      stack: [
        { text: unit, bold: true, style: 'small' },
        table(
          ['*', 150],
          settings.map((s): TableCell[] => [
            s.label,
            right(typeof s.value === 'number' ? q(s.value, s.unit) : s.value),
          ]),
          0,
        ),
      ],
    })),
    head('Protection'),
    table(
      [150, '*'],
      result.protections.map(({ label, value }): TableCell[] => [label, value]),
      0,
    ),
    ...(result.open.length > 0 ? [head('Measure before fitting'), list(result.open)] : []),
    ...(result.accepted.length > 0
      ? [head('Accepted, and told to the customer'), list(result.accepted)]
      : []),
    ...(result.cautions.length > 0 ? [head('Cautions'), list(result.cautions)] : []),
    ...(result.differs.length > 0
      ? [
          head('As found and as specified'),
          table(
            ['*', 120, 120],
            [
              [
                { text: 'Value', bold: true },
                { text: 'As found', bold: true },
                { text: 'As specified', bold: true },
              ],
              ...result.differs.map(({ part, label, before, after }): TableCell[] => [
                `${part}: ${label.toLowerCase()}`,
                before,
                after,
              ]),
            ],
          ),
        ]
      : []),
    head('Findings as specified'),
    table(
      [150, '*', 84],
      result.findings.map(({ title, summary, verdict }): TableCell[] => [
        title,
        summary,
        right(verdictWords[verdict]),
      ]),
      0,
    ),
    ...(result.schools.some((school) => school.own)
      ? [
          head('Decided for this job against the shop’s rule'),
          list(
            result.schools
              .filter((school) => school.own)
              .map(({ question, chosen }) => `${question}: ${chosen}`),
          ),
        ]
      : []),
    {
      text: 'Stored energy, mains wiring and engine spaces can hurt: the local code, the makers’ instructions and licensed practice come first. This sheet says what was computed and chosen; it claims compliance with no standard.',
      style: 'small',
      margin: [0, 12, 0, 0],
    },
  ]
  const definition: TDocumentDefinitions = {
    pageSize: shop.units.system === 'imperial' ? 'LETTER' : 'A4',
    pageMargins: [48, 44, 48, 48],
    info: {
      title: `Specification ${number}`,
      author: shop.name || 'Jovial Anchor',
      creationDate: new Date(issuedAt),
      modDate: new Date(issuedAt),
    },
    defaultStyle: { font: 'Sheet', fontSize: 10, lineHeight: 1.15 },
    styles: {
      shop: { fontSize: 9, color: '#525b5f' },
      title: { fontSize: 18, bold: true },
      head: { fontSize: 12, bold: true, margin: [0, 12, 0, 3] },
      small: { fontSize: 8.5 },
    },
    footer: (page, pages) => ({
      columns: [
        { text: `Specification ${number}, ${day(issuedAt)}` },
        { text: `${page} of ${pages}`, alignment: 'right' },
      ],
      margin: [48, 12, 48, 0],
      fontSize: 8,
      color: '#525b5f',
    }),
    content,
  }
  return pdfmake.createPdf(definition).getBuffer()
}
