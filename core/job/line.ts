import {
  isAsked,
  listParts,
  partName,
  type AnyPart,
  type FieldPath,
  type JobDocument,
  type PartRef,
} from './document'
import { howKnown, partKinds, type Field, type How, type PartKind } from './fields'
import type { DisplayUnits } from '#core/units/display'
import { limitsAt } from './limits'
import { parseField } from './parse-field'

/** What a line of words would set. */
export interface LineValue {
  readonly path: FieldPath
  readonly field: Field
  readonly value: number | string
  /** Null if the line does not say how it is known. */
  readonly how: How | null
}

/** Words by which a line says how its value is known. */
const howWords: Readonly<Record<string, How>> = {
  measured: 'measured',
  meter: 'measured',
  maker: 'maker',
  sheet: 'maker',
  data: 'maker',
  label: 'label',
  print: 'label',
  customer: 'customer',
  said: 'customer',
  ...Object.fromEntries(Object.keys(howKnown).map((how) => [how, how as How])),
}

/** Words at the end of a line that may be its value: `3 300 W` is three. */
const mostValueWords = 4

/** What a field goes by: its own label first, then its part, then how it is found. */
interface Named {
  readonly path: FieldPath
  readonly field: Field
  readonly label: string
  readonly part: string
  readonly hint: string
  /** The part itself. */
  readonly of: AnyPart
}

function namesOf(job: JobDocument): Named[] {
  return listParts(job)
    .filter(({ kind }) => kind !== 'alternatives')
    .flatMap((ref) => {
      const part = partWords(job, ref)
      return Object.entries((partKinds[ref.kind] as PartKind).fields)
        .filter(([, field]) => field.type !== 'rows' && isAsked(ref.part, field))
        .map(([name, field]) => ({
          path: `${ref.path}/${name}`,
          field,
          label: field.label.toLowerCase(),
          part,
          hint: field.measure.toLowerCase(),
          of: ref.part,
        }))
    })
}

/** A part by its own name, and by its kind and count: `charger 2`. */
const partWords = (job: JobDocument, { kind, id, path }: PartRef): string =>
  `${partName(job, path)} ${partKinds[kind].one} ${/\d+$/.exec(id ?? '')?.[0] ?? ''}`.toLowerCase()

/** Whether a text has every word: one of digits alone as a word of its own, any other as the beginning of one. */
const hasAll = (text: string, words: readonly string[]): boolean =>
  words.every((word) =>
    text.split(/[^\p{L}\p{N}]+/u).some((one) => (/^\d+$/.test(word) ? one === word : one.startsWith(word))),
  )

/** How well words name a field: 3 by its label alone, 2 with its part, 1 with its hint, 0 not at all. */
function fit({ label, part, hint }: Named, words: readonly string[]): number {
  if (hasAll(label, words)) return 3
  if (!words.some((word) => hasAll(`${label} ${hint}`, [word]))) return 0
  if (hasAll(`${label} ${part}`, words)) return 2
  return hasAll(`${label} ${part} ${hint}`, words) ? 1 : 0
}

/**
 * Reads a whole line of the survey, `regulator 14.4 measured` or `charger 2 float 13,5`: words that name a
 * field, its value as people write it with or without a unit, and how it is known where that is said. Gives
 * what it could mean, the likeliest first; nothing where it is no such line.
 * @param units those of the shop, for a number without its unit
 */
export function readLine(job: JobDocument, line: string, units: DisplayUnits): readonly LineValue[] {
  const said = line.trim().toLowerCase().split(/\s+/)
  const how = said.length > 2 ? (howWords[said.at(-1)!] ?? null) : null
  const words = how ? said.slice(0, -1) : said
  const named = namesOf(job)
  const found = Array.from({ length: Math.min(mostValueWords, words.length - 1) }, (_, i) => i + 1).flatMap(
    (count) => {
      const [name, text] = [words.slice(0, -count), words.slice(-count).join(' ')]
      return named.flatMap((one) => {
        const fits = fit(one, name)
        const value = fits > 0 ? valueIn(text, one, units) : null
        return value === null ? [] : [{ path: one.path, field: one.field, value, how, fits }]
      })
    },
  )
  const best = new Map<FieldPath, (typeof found)[number]>()
  for (const one of found.toSorted((a, b) => b.fits - a.fits))
    if (!best.has(one.path)) best.set(one.path, one)
  return [...best.values()].map(({ path, field, value, how: known }) => ({ path, field, value, how: known }))
}

/** Words that a person says for a unit, as it is written. */
const spokenUnits: readonly (readonly [spoken: string, written: string])[] = [
  ['(?:amp|ampere)s?[ -]hours?', 'Ah'],
  ['watt[ -]hours?', 'Wh'],
  ['milli ?ohms?', 'mΩ'],
  ['milli ?met(?:er|re)s?', 'mm'],
  ['met(?:er|re)s?', 'm'],
  ['square mm', 'mm²'],
  ['per ?cent', '%'],
  ['degrees?(?: celsius)?', '°C'],
  ['minus (?=[0-9])', '-'],
  ['point (?=[0-9])', '.'],
]
const spokenPatterns = spokenUnits.map(
  ([spoken, written]) => [new RegExp(`(?<![\\p{L}\\p{N}])(?:${spoken})(?!\\p{L})`, 'gu'), written] as const,
)
const asWritten = (said: string): string =>
  spokenPatterns
    .reduce((text, [spoken, written]) => text.replace(spoken, written), said.toLowerCase())
    .replace(/(\d) (?=\.\d)/gu, '$1')

/** Where one part ends and the next begins: a comma or semicolon with a space behind it, a new line, `then`. */
const betweenParts = /[,;]\s+|\n+|\s+then\s+/u
/** A number with the word behind it that may be its unit. */
const numberWord = /^[-−+]?\d+(?:[.,]\d+)?(?:[a-zµΩ²°%]+)?$/iu

/** What a text would set, and what of it was not understood. */
export interface ReadLines {
  readonly values: readonly LineValue[]
  readonly unread: readonly string[]
}

/**
 * Reads several values at once, as someone dictates them: `alternator 90 amps 14.4 volts measured, shore charger 30 amps
 * float 13.6`. A part is named once; a value without a name goes to the field of its unit. Nothing is guessed: what fits no
 * field, or several alike, is given back unread.
 * @param units those of the shop, for a number without its unit
 */
export function readLines(job: JobDocument, text: string, units: DisplayUnits): ReadLines {
  const named = namesOf(job)
  const read = text
    .split(betweenParts)
    .map((one) => asWritten(one).trim())
    .filter(Boolean)
    .map((clause) => readClause(named, clause, units))
  const values = new Map(read.flatMap((one) => one.values).map((value) => [value.path, value]))
  return { values: [...values.values()], unread: read.flatMap(({ unread }) => unread) }
}

/** One part with its values. */
function readClause(named: readonly Named[], clause: string, units: DisplayUnits): ReadLines {
  const said = clause.split(/\s+/u)
  const last = said.at(-1) ?? ''
  const how = Object.hasOwn(howWords, last) ? (howWords[last] ?? null) : null
  const values: LineValue[] = []
  const unread: string[] = []
  let own: readonly Named[] = []
  for (const { name, value } of chunksOf(how ? said.slice(0, -1) : said)) {
    const whose = partNamed(named, name)
    if (whose) own = whose.of
    const label = whose ? whose.left : name
    const found = own.length > 0 ? fieldFor(own, label, value, units) : null
    if (found) values.push({ ...found, how })
    else unread.push([...name, ...value].join(' '))
  }
  return { values, unread }
}

interface Chunk {
  readonly name: readonly string[]
  /** A number, and its unit where it is a word of its own. */
  readonly value: readonly string[]
}

/** Words up to each number, with the number. Words behind the last number are its unit, or a chunk without a value. */
function chunksOf(words: readonly string[]): Chunk[] {
  const chunks: { name: string[]; value: string[] }[] = []
  let name: string[] = []
  for (const [i, word] of words.entries()) {
    const before = chunks.at(-1)
    if (numberWord.test(word) && !isCount(words, i)) {
      chunks.push({ name, value: [word] })
      name = []
    } else if (before?.value.length === 1 && name.length === 0 && isUnitWord(word)) before.value.push(word)
    else name.push(word)
  }
  return name.length > 0 ? [...chunks, { name, value: [] }] : chunks
}
const isUnitWord = (word: string): boolean =>
  /^(?:v|volts?|mv|a|amps?|ma|ah|wh|w|watts?|kw|mω|mohm|ohms?|m|mm|cm|mm²|mm2|kg|°c|c|f|h|hours?|hrs?|min|minutes?|%|ft|in|awg|rpm)$/iu.test(
    word,
  )
/** `charger 2 float 13.5`: a whole number right behind the word of a kind counts parts. */
const isCount = (words: readonly string[], i: number): boolean =>
  /^\d$/u.test(words[i] ?? '') &&
  /^[a-z]{4,}$/u.test(words[i - 1] ?? '') &&
  /^[a-z]/u.test(words[i + 1] ?? '') &&
  !isUnitWord(words[i + 1] ?? '')

/** The part that words begin with, its fields, and the words that are left. The longest name counts. */
function partNamed(
  named: readonly Named[],
  words: readonly string[],
): { readonly of: readonly Named[]; readonly left: readonly string[] } | null {
  for (let count = words.length; count > 0; count--)
    for (let from = 0; from + count <= words.length && from < 2; from++) {
      const said = words.slice(from, from + count)
      const first = named.find(({ part }) => hasAll(part, said))
      if (!first) continue
      const of = named.filter(({ of: one }) => one === first.of)
      return { of, left: words.slice(from + count) }
    }
  return null
}

/** The one field of a part that takes a value: by its label, or by the unit of the value. */
function fieldFor(
  own: readonly Named[],
  label: readonly string[],
  value: readonly string[],
  units: DisplayUnits,
): Omit<LineValue, 'how'> | null {
  const text = value.join(' ')
  const taking = own.flatMap((one) => {
    const taken = text ? valueIn(text, one, units) : valueIn(label.join(' '), one, units)
    return taken === null ? [] : [{ path: one.path, field: one.field, value: taken, named: one }]
  })
  if (!text) return taking.length === 1 ? (taking[0] ?? null) : null
  if (label.length > 0) {
    const fitting = taking.filter(({ named: one }) => hasAll(one.label, label))
    return fitting[0] ?? null
  }
  // A bare number says nothing; one with its unit is the main value of the part in that unit.
  if (value.length < 2 && /^[-−+]?[\d.,]+$/u.test(text)) return null
  return taking.find(({ field }) => field.type === 'quantity') ?? null
}

/** The value a field takes from words; null if they are none for it. */
function valueIn(text: string, { field, of }: Named, units: DisplayUnits): number | string | null {
  if (field.type === 'rows') return null
  if (field.type === 'choice') {
    const options = Object.entries(field.options)
    const exact = options.find(([, word]) => word.toLowerCase() === text)
    const begun = options.filter(([, word]) => hasAll(word.toLowerCase(), text.split(' ')))
    return exact?.[0] ?? (begun.length === 1 && /\p{L}/u.test(text) ? begun[0]![0] : null)
  }
  const parsed = parseField(field, text, units)
  const [least, most] = limitsAt(of, field)
  return parsed.ok && parsed.value >= least && parsed.value <= most ? parsed.value : null
}
