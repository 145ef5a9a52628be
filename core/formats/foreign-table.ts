import { dsvFormat } from 'd3-dsv'
import type { Field, PartKindId } from '#core/job/fields'
import { plainWord, type Concept } from '#core/labels/concepts'
import { ruleFor } from '#core/labels/fit'
import { conceptsIn } from '#core/labels/line'
import { labelRules } from '#core/labels/rules'
import { kindWords } from '#core/labels/words-of-kind'
import { spellings, type Unit } from '#core/units/units'
import { cellsOf, headed, tableHeader, type TableColumn, type TableColumns } from './table'

/** A column of a table that somebody else made. */
interface ForeignColumn {
  readonly heading: string
  /** The unit of its heading, as it is written; null if it has none. */
  readonly unit: string | null
  readonly samples: readonly string[]
  /** The column of our own that it seems to be; null if none. */
  readonly guess: string | null
}
export interface ForeignTable {
  readonly columns: readonly ForeignColumn[]
  readonly lines: readonly (readonly string[])[]
  /** Each column is headed as our own are: nothing has to be asked. */
  readonly isOwn: boolean
}

const samplesShown = 3

/** Words of headings that name a part or its size, by our column. */
// cspell:disable
const plainHeadings: readonly (readonly [column: string, words: RegExp])[] = [
  [
    'code',
    /^(?:sku|code|art(?:ikel|icle|iculo)?[ .-]*(?:nr|no|num|n)?\w*|item ?no|part ?(?:no|number)|bestell\w*|ref(?:erence|erencia)?|codice|codigo)\.?$/u,
  ],
  [
    'maker',
    /^(?:maker|brand|manufacturer|make|hersteller|marke|fabricant|marque|fabricante|marca|produttore|merk|fabrikant)$/u,
  ],
  [
    'name',
    /^(?:name|product|model|type|description|title|bezeichnung|produkt|modell|typ|designation|produit|modele|nombre|producto|modelo|descripcion|nome|prodotto|modello|descrizione|naam|omschrijving)$/u,
  ],
  ['price', /^(?:.*price.*|preis|.*prix.*|precio|prezzo|prijs|cost|ek|vk|uvp|rrp|msrp)$/u],
  ['widthMm', /^(?:width|breite|largeur|ancho|anchura|larghezza|breedte|b|w)$/u],
  [
    'depthMm',
    /^(?:depth|length|tiefe|lange|profondeur|longueur|fondo|profundidad|longitud|profondita|lunghezza|diepte|lengte|d|l|t)$/u,
  ],
  ['heightMm', /^(?:height|hohe|hauteur|alto|altura|altezza|hoogte|h)$/u],
  ['weightKg', /^(?:net |gross )?(?:weight|gewicht|nettogewicht|poids|masse|peso)$/u],
  ['warrantyYears', /^(?:warranty|garantie|garantia|garanzia|guarantee)$/u],
]
// cspell:enable

/** Units that words without a unit speak of. */
const impliedUnits: readonly (readonly [concept: Concept, unit: Unit])[] = [
  ['capacity', 'Ah'],
  ['temperature', '°C'],
  ['weight', 'kg'],
  ['efficiency', '%'],
  ['current', 'A'],
  ['cranking', 'A'],
  ['power', 'W'],
  ['voltage', 'V'],
  ['absorption', 'V'],
  ['float', 'V'],
  ['equalise', 'V'],
]

/** A heading in two: its words, and the unit in brackets or behind a comma. */
function headingOf(cell: string): { readonly words: string; readonly unit: string | null } {
  const match =
    /^(.*?)\s*(?:[([]\s*(?:in\s+)?([^()[\]]{1,8}?)\s*[)\]]|[,/]\s*(?:in\s+)?([^\s,/]{1,6}))\s*$/u.exec(
      cell.trim(),
    )
  const unit = match?.[2] ?? match?.[3] ?? null
  return unit !== null && unitOf(unit)
    ? { words: match?.[1] ?? '', unit }
    : { words: cell.trim(), unit: null }
}

/** The unit that a written one belongs to; null if it is none. */
function unitOf(written: string): Unit | null {
  const plain = written.toLowerCase().replace(/\s/gu, '')
  const found = (Object.keys(spellings) as Unit[]).find(
    (unit) => Object.hasOwn(spellings[unit], plain) && !['mA', 'Δ°C', 'm'].includes(unit),
  )
  return found ?? null
}

/** Headings with the same words; the characters between them do not matter. */
const sameWords = (a: string, b: string): boolean => {
  const wordsOf = (text: string) =>
    text
      .split(/[\s_,.-]+/u)
      .map(plainWord)
      .filter(Boolean)
      .sort()
      .join(' ')
  return wordsOf(a) === wordsOf(b)
}

const lowest = /\b(?:min|minimum|mindest\w*|lowest|from|ab|mini?)\b/iu
const highest = /\b(?:max|maximum|highest|to|bis|maxi?)\b/iu

/** The column of our own that a heading means; null if none. */
function guessOf(cell: string, columns: TableColumns, part: PartKindId | null): string | null {
  const own = headed(cell, columns).id
  if (own) return own
  const { words, unit } = headingOf(cell)
  const labelled = Object.entries(columns).find(([, { label }]) => sameWords(label, words))?.[0]
  if (labelled) return labelled
  const plain = words
    .split(/[\s_]+/u)
    .map(plainWord)
    .filter(Boolean)
    .join(' ')
  const named = plainHeadings.find(([id, pattern]) => Object.hasOwn(columns, id) && pattern.test(plain))
  if (named) return named[0]
  const concepts = new Set(conceptsIn(words.replace(/_/gu, ' ')))
  const meant = (unit && unitOf(unit)) ?? impliedUnits.find(([concept]) => concepts.has(concept))?.[1]
  const rule = part && meant && ruleFor(meant, concepts, labelRules[part] ?? [])
  if (!rule) return null
  const field =
    (lowest.test(words) && rule.low) || (highest.test(words) && rule.high) || rule.field || rule.high
  return field && Object.hasOwn(columns, field) ? field : null
}

/**
 * A table that somebody else made: its columns, and which of our own each seems to be by its words, in six languages,
 * and by its unit. No column is guessed twice.
 * @param part the kind of part of a survey that the table gives values to; null if none
 */
export function foreignTable(text: string, columns: TableColumns, part: PartKindId | null): ForeignTable {
  const { lines } = cellsOf(text)
  // Empty lines stay, so that an error names the line of the file.
  const [header = [], ...rows] = lines
  const taken = new Set<string>()
  const found = header.map((heading, i): ForeignColumn => {
    const guessed = guessOf(heading, columns, part)
    const guess = guessed && !taken.has(guessed) ? guessed : null
    if (guess) taken.add(guess)
    return {
      heading: heading.trim(),
      unit: headingOf(heading).unit,
      samples: rows
        .map((cells) => (cells[i] ?? '').trim())
        .filter(Boolean)
        .slice(0, samplesShown),
      guess,
    }
  })
  return {
    columns: found,
    lines: rows,
    isOwn: header.length > 0 && header.every((cell) => headed(cell, columns).id !== null),
  }
}

const yes = /^(?:y|yes|ja|oui|si|sí|x|1|true|✓)$/iu
const no = /^(?:n|no|nein|non|nee|0|false|-|–)$/iu

/** A cell as one of the options of a field, as people write them. */
function optionOf(
  cell: string,
  id: string,
  options: Readonly<Record<string, string>>,
  part: PartKindId | null,
): string {
  const small = cell.toLowerCase()
  const exact = Object.entries(options).find(([option, label]) =>
    [option, label].some((one) => one.toLowerCase() === small),
  )?.[0]
  if (exact) return exact
  if (Object.hasOwn(options, 'yes')) return yes.test(cell) ? 'yes' : no.test(cell) ? 'no' : cell
  const worded = (part ? (kindWords[part] ?? []) : []).find(
    ({ field, words }) => field === id && words.test(cell),
  )
  if (worded) return worded.option
  // “12 V”, “25,6V”: the nominal voltage whose battery that is.
  const volts = Number.parseFloat(cell.replace(',', '.'))
  return (
    Object.keys(options).find(
      (option) => Number(option) > 0 && volts >= Number(option) && volts < Number(option) * 1.1,
    ) ?? cell
  )
}

function cellOf(
  cell: string,
  id: string,
  column: TableColumn,
  { unit }: ForeignColumn,
  part: PartKindId | null,
): string {
  const text = cell.trim()
  if (text === '') return ''
  if (column.type === 'choice') return optionOf(text, id, column.options, part)
  if (column.type !== 'quantity' || !unit) return text
  return /[\d.,]$/u.test(text) ? `${text} ${unit}` : text
}

const codeOf = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/[^A-Za-z0-9._-]+/gu, '-')
    .replace(/^[^A-Za-z0-9]+|-+$/gu, '')
    .slice(0, 40)

/**
 * The table in our own columns, ready to be read. A part without a code gets one from its name, and one without a
 * name is named by its code.
 * @param chosen for each column the column of our own that it becomes; null leaves it out
 */
export function inOwnColumns(
  { columns: foreign, lines }: ForeignTable,
  columns: TableColumns,
  { chosen, part }: { readonly chosen: readonly (string | null)[]; readonly part: PartKindId | null },
): string {
  const ids = Object.keys(columns)
  const heads = tableHeader(columns)
  const used = ids.filter((id) => chosen.includes(id) || id === 'code' || id === 'name')
  const rows = lines.map((cells) => {
    const values = Object.fromEntries(
      chosen.flatMap((id, i) => {
        const [column, from] = [id === null ? undefined : columns[id], foreign[i]]
        return id !== null && column && from ? [[id, cellOf(cells[i] ?? '', id, column, from, part)]] : []
      }),
    ) as Record<string, string>
    const named = {
      ...values,
      code: values.code || codeOf(values.name ?? ''),
      name: values.name || (values.code ?? ''),
    }
    return used.map((id) => (named as Record<string, string>)[id] ?? '')
  })
  return `${dsvFormat(',').formatRows([used.map((id) => heads[ids.indexOf(id)] ?? id), ...rows])}\n`
}

/** The columns of our own that a person chooses from, with their labels. */
export const ownColumns = (columns: TableColumns): [id: string, label: string][] =>
  Object.entries(columns)
    .filter(([, column]) => (column as Field).type !== 'rows')
    .map(([id, column]) => [
      id,
      column.type === 'quantity' && column.unit && column.unit !== 'money'
        ? `${column.label} (${column.unit})`
        : column.label,
    ])
