import { joinText } from '#core/units/format'
import { shelfKind, shelfKindIds } from '#core/shelf/kinds'
import { caseColumns, loadColumns, readingColumns } from './loads-csv'
import { seriesHeader } from './series'
import { voltageColumns } from './voltage-log'
import { shelfColumns } from './shelf-csv'
import { tableHeader, type TableColumns } from './table'

const options = (columns: TableColumns): string[] =>
  Object.entries(columns).flatMap(([id, column]) =>
    column.type === 'choice'
      ? [
          `- \`${id}\`: ${Object.entries(column.options)
            .map(([option, words]) => `\`${option}\` (${words})`)
            .join(', ')}`,
        ]
      : [],
  )
const section = (title: string, columns: TableColumns, about = ''): string =>
  [
    `## ${title}`,
    '',
    ...(about ? [about, ''] : []),
    '```',
    tableHeader(columns).join(','),
    '```',
    '',
    ...options(columns),
    '',
  ].join('\n')

/** Rules for every table. */
const rules = [
  joinText(
    'CSV in UTF-8 with a header row. Comma or semicolon, whichever the header has; ',
    'quotes where a cell holds one; decimal point or comma.',
  ),
  joinText(
    'Numbers are in the units of the header, whatever the shop shows; ',
    'a cell may carry its own (`15 ft`). An empty cell is “not stated”.',
  ),
  joinText(
    'A column is headed by its name here or by its label. ',
    'Columns may come in any order, and all but the required ones may be left out. ',
    'On the shelf, *Import CSV* takes other tables too: it matches their columns by their words.',
  ),
  joinText(
    'Words that a spreadsheet would take for a formula (`=`, `+`, `-`, `@` first) ',
    'go out behind an apostrophe and come in without it. Made by `npm run schema`.',
  ),
]

/** The header row of every table that is read and written, with the words its choices take. Markdown. */
export const describeTables = (): string =>
  [
    '# Tables',
    '',
    ...rules,
    '',
    ...shelfKindIds.map((kind) =>
      section(
        `Shelf: ${shelfKind(kind).title.toLowerCase()}`,
        shelfColumns(kind),
        'Needed: `code` (letters, digits, dots, dashes; at most 40), `name`.',
      ),
    ),
    section('Loads of a job', loadColumns, 'Needed: `name`.'),
    section(
      'Readings of a shunt',
      readingColumns,
      'Times rise; current into the battery is positive. At most 20,000 rows.',
    ),
    section('Log of the voltage on a drive', voltageColumns, 'Times rise.'),
    section('Log of an alternator’s case', caseColumns, 'Every cell needed. Minutes since the load began.'),
    [
      '## Series of a run',
      '',
      joinText(
        'Written only, one system below the other. Seconds since the run began; ',
        'currents into the house bus and into a battery are positive; ',
        '1 is yes, 0 is no. Channels that no system has are left out.',
      ),
      '',
      '```',
      seriesHeader().join(','),
      '```',
      '',
    ].join('\n'),
  ].join('\n')
