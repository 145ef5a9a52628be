import { conceptsOf, type Concept } from './concepts'
import { valuesIn, type PrintedValue } from './values'
import type { LabelWord } from './word'

/** A line of print with where each of its words lies in its text. */
export interface Line {
  readonly text: string
  readonly words: readonly { readonly word: LabelWord; readonly from: number; readonly to: number }[]
}

/** The words that lie in a stretch of a line, in part or as a whole. */
export const wordsBetween = ({ words }: Line, from: number, to: number): LabelWord[] =>
  words.filter((one) => one.to > from && one.from < to).map(({ word }) => word)

export function lineOf(words: readonly LabelWord[]): Line {
  let text = ''
  const placed = words.map((word) => {
    if (text !== '') text += ' '
    const from = text.length
    text += word.text
    return { word, from, to: text.length }
  })
  return { text, words: placed }
}

/** A value with the words before it on its line. */
export interface Told {
  readonly value: PrintedValue
  readonly concepts: ReadonlySet<Concept>
  readonly words: readonly LabelWord[]
  readonly printed: string
  /** Several voltages side by side, as in `12 V / 24 V`. */
  readonly isOneOfSeveral: boolean
}

/** The content of a stretch of a line. */
export const conceptsIn = (text: string): Concept[] =>
  text
    .split(/\s+|(?<=[A-Za-zà-ü])[-/(](?=[A-Za-zà-ü])|['’]|(?<=[A-Za-zà-ü]{4})(?=\d)/u)
    .concat(text.split(/\s+/u))
    .flatMap(conceptsOf)

/** Letters between voltages that belong together, at most: ` / `. */
const lettersBetween = 5
/** Whether another voltage stands right before a value, or another one that differs right behind it. */
const isBeside = (value: PrintedValue, other: PrintedValue): boolean =>
  other !== value &&
  other.unit === 'V' &&
  ((other.low !== value.low && Math.abs(other.from - value.to) < lettersBetween) ||
    Math.abs(value.from - other.to) < lettersBetween)

/** Values of a line with the words before them. */
export function valuesOf(line: Line): Told[] {
  const values = valuesIn(line.text)
  let before: Concept[] = []
  let from = 0
  let isMains = false
  return values.map((value, i) => {
    const own = conceptsIn(line.text.slice(from, value.from))
    // “Output: 12 V 30 A”: the second value is of the same words, unless it has some of its own.
    before = own.length > 0 ? own : before
    isMains = value.isAc || (isMains && own.length === 0)
    // “680 CCA”, “640 A (EN)”: the word right after it belongs to it.
    const next = values[i + 1]?.from ?? line.text.length
    const after =
      /^\W*(?:CCA|EN|SAE)\b/u.exec(line.text.slice(value.to, next)) ||
      /CCA$/u.test(line.text.slice(value.from, value.to))
        ? ['cranking' as const]
        : []
    from = value.to
    return {
      value: { ...value, isAc: isMains },
      concepts: new Set([...before, ...after]),
      words: wordsBetween(line, value.from, value.to),
      printed: line.text.slice(value.from, value.to).trim(),
      isOneOfSeveral: value.unit === 'V' && values.some((other) => isBeside(value, other)),
    }
  })
}

/** The time of a peak whose unit was read as a digit: `300 A (55)` for `(5 s)`. */
function peakTimesIn(line: Line, own: readonly Told[]): Told[] {
  const peak = own.find(({ value, concepts }) => value.unit === 'A' && concepts.has('peak'))
  const match = peak && /^\s?\((\d{1,2})[5S]\)/u.exec(line.text.slice(peak.value.to))
  if (!peak || !match) return []
  const from = peak.value.to + match.index
  const to = from + match[0].length
  const seconds = Number(match[1])
  return [
    {
      ...peak,
      value: { ...peak.value, low: seconds, high: seconds, unit: 's', isGuessed: true, from, to },
      words: wordsBetween(line, from, to),
      printed: match[0].trim(),
    },
  ]
}

/** A count after its name, which has no unit: `Cycles 3500`. */
function countsIn(line: Line): Told[] {
  const at = line.words.findIndex(({ word }) => conceptsOf(word.text).includes('cycles'))
  if (at < 0) return []
  const found = line.words.slice(at + 1).find(({ word }) => /^\W?\d[\d.,]{2,6}\W?$/u.test(word.text))
  if (!found) return []
  const value = Number(found.word.text.replace(/\D/gu, ''))
  const { from, to } = found
  return [
    {
      value: {
        low: value,
        high: value,
        unit: '',
        isAc: false,
        isWhole: [true, true],
        isGuessed: false,
        from,
        to,
      },
      concepts: new Set(['cycles']),
      words: [found.word],
      printed: found.word.text,
      isOneOfSeveral: false,
    },
  ]
}

/** Everything that a line says in numbers. */
export function printedValuesOf(line: Line): Told[] {
  const own = valuesOf(line)
  return [...own, ...peakTimesIn(line, own), ...countsIn(line)]
}
