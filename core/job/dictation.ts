import type { DisplayUnits } from '#core/units/display'
import type { JobDocument } from './document'
import { hasAll, namesOf, valueIn, withHow, type LineValue, type Named } from './line'

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

/** The values that a text would set, and its unread words. */
interface ReadLines {
  readonly values: readonly LineValue[]
  readonly unread: readonly string[]
}

/**
 * Reads several values at once, as people dictate them: `alternator 90 amps 14.4 volts measured, shore charger 30
 * amps float 13.6`. A part is named once. A value without a name goes to the first field of its part in that unit.
 * Words that fit no field are returned unread.
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
  const { how, words } = withHow(said)
  const values: LineValue[] = []
  const unread: string[] = []
  let own: readonly Named[] = []
  for (const { name, value } of chunksOf(words)) {
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

/**
 * Words up to each number, with the number. Words behind the last number are its unit, or a chunk without a value.
 */
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
