import { firstOf } from '#core/collections/held'
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

/** The value that a line of words would set. */
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

/** How a line says that its values are known, by its last word, and the words before; null if it does not say. */
export function withHow(said: readonly string[]): {
  readonly how: How | null
  readonly words: readonly string[]
} {
  const last = said.at(-1) ?? ''
  const how = Object.hasOwn(howWords, last) ? (howWords[last] ?? null) : null
  return { how, words: how ? said.slice(0, -1) : said }
}

/** Words at the end of a line that may be its value: `3 300 W` is three. */
const mostValueWords = 4

/** The words that name a field: its own label first, then its part, then how it is found. */
export interface Named {
  readonly path: FieldPath
  readonly field: Field
  readonly label: string
  readonly part: string
  readonly hint: string
  /** The part itself. */
  readonly of: AnyPart
}

export function namesOf(job: JobDocument): Named[] {
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
export const hasAll = (text: string, words: readonly string[]): boolean =>
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
 * Reads a whole line of the survey, `regulator 14.4 measured` or `charger 2 float 13,5`: words that name a field, a
 * value with or without a unit, and its source if given. Returns the possible meanings, the likeliest first; none
 * if it is no such line.
 * @param units those of the shop, for a number without its unit
 */
export function readLine(job: JobDocument, line: string, units: DisplayUnits): readonly LineValue[] {
  const said = line.trim().toLowerCase().split(/\s+/)
  const { how, words } = said.length > 2 ? withHow(said) : { how: null, words: said }
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

/** The value a field takes from words; null if they are none for it. */
export function valueIn(text: string, { field, of }: Named, units: DisplayUnits): number | string | null {
  if (field.type === 'rows') return null
  if (field.type === 'choice') {
    const options = Object.entries(field.options)
    const exact = options.find(([, word]) => word.toLowerCase() === text)
    const begun = options.filter(([, word]) => hasAll(word.toLowerCase(), text.split(' ')))
    return exact?.[0] ?? (begun.length === 1 && /\p{L}/u.test(text) ? firstOf(begun)[0] : null)
  }
  const parsed = parseField(field, text, units)
  const [least, most] = limitsAt(of, field)
  return parsed.ok && parsed.value >= least && parsed.value <= most ? parsed.value : null
}
