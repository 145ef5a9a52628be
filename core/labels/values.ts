import { parseNumber } from '#core/units/parse'
import type { Unit } from '#core/units/units'

/** A value in a line of print. */
export interface PrintedValue {
  readonly low: number
  /** The same as `low` where it is no range. */
  readonly high: number
  readonly unit: Unit
  /** Mains, and no battery voltage. */
  readonly isAc: boolean
  /** Of its low and its high end: printed without a decimal sign, which may have been lost. */
  readonly isWhole: readonly [low: boolean, high: boolean]
  /** Letters were taken for digits. */
  readonly isGuessed: boolean
  /** Where it begins and ends in the line. */
  readonly from: number
  readonly to: number
}

/** Units as printed and misread, with their meaning. Longer ones come before shorter ones. */
const printedUnits: readonly (readonly [pattern: string, unit: Unit, factor: number])[] = [
  ['k ?Wh', 'Wh', 1000],
  ['W{1,2}h', 'Wh', 1],
  ['mAh', 'Ah', 0.001],
  ['A ?[hH](?:r|rs)?|[aA]h', 'Ah', 1],
  ['kW', 'W', 1000],
  ['[wW]{1,3}[pP]?|watts?', 'W', 1],
  ['(?:[VvU][vV]?|volts?)(?: ?(?:d\\.? ?c\\.?|D[CcEe]|AC|a\\.c\\.))?', 'V', 1],
  ['[°º*"’\' ]{0,2}C', '°C', 1],
  ['kg|Kg|KG', 'kg', 1],
  ['%', '%', 1],
  ['A|amps?|CCA', 'A', 1],
  ['s|sec|Sek\\.?', 's', 1],
]
const unitWords = printedUnits.map(([pattern]) => `(?:${pattern})`).join('|')
const number = String.raw`[+\-−–]? ?(?:\d[\dOolI|]*(?:[.,][\dOolI|]{1,3})?)`
const between = String.raw`\s*(?:to|bis|à|tot|al?|[-–—~÷]|\.{2,4}|…|[.,]…)\s*`
// After a unit: no letter, and no digit except after volts, as in `24VDC20A`.
const volts = String.raw`\d ?[vV]{1,2}(?: ?(?:D[CcEe]|d\.?c\.?))?`
const behind = String.raw`(?:(?<=${volts})(?=\d)|(?![A-Za-z0-9²]))`
// Before a number: no digit and no single letter, as in `D30`; volts and the end of a word are allowed.
const before = String.raw`(?:(?<=${volts})|(?<!\d[.,]?|[.,]|\d ?\/ ?|(?<![A-Za-zÀ-ÿ]{3})[A-Za-z]))`
const single = new RegExp(String.raw`${before}(${number})\s*(${unitWords})${behind}`, 'gu')
const range = new RegExp(
  String.raw`${before}(${number})\s*(${unitWords})?${between}(${number})\s*(${unitWords})${behind}`,
  'gu',
)
const mains = /^\s?(?:~|[vV]?~)|(?:AC|a\.c\.)$/u

const digitsOf = (text: string): { readonly value: number | null; readonly isGuessed: boolean } => {
  const plain = text.replace(/[−–]/gu, '-').replace(/\s/gu, '')
  const repaired = plain.replace(/[Oo]/gu, '0').replace(/[lI|]/gu, '1')
  return { value: parseNumber(repaired), isGuessed: repaired !== plain }
}

const unitPatterns = printedUnits.map(
  ([pattern, unit, factor]) => ({ whole: new RegExp(`^(?:${pattern})$`, 'u'), unit, factor }) as const,
)
function unitOf(text: string): { readonly unit: Unit; readonly factor: number } {
  const printed = text.trim()
  return unitPatterns.find(({ whole }) => whole.test(printed)) ?? { unit: '', factor: 1 }
}

const tidy = (value: number): number => Number(value.toPrecision(8))

/** Values with their units in a line of print, from the left. */
export function valuesIn(line: string): PrintedValue[] {
  const values: PrintedValue[] = []
  const isFree = (from: number, to: number): boolean =>
    values.every((one) => to <= one.from || from >= one.to)
  const add = (match: RegExpMatchArray, low: string, high: string, unitText: string): void => {
    const from = match.index ?? 0
    const to = from + match[0].length
    const [a, b] = [digitsOf(low), digitsOf(high)]
    if (!isFree(from, to) || a.value === null || b.value === null) return
    const { unit, factor } = unitOf(unitText)
    values.push({
      low: tidy(a.value * factor),
      high: tidy(b.value * factor),
      unit,
      isAc: unit === 'V' && (mains.test(line.slice(to)) || mains.test(match[0])),
      isWhole: [!/[.,]/u.test(low), !/[.,]/u.test(high)],
      isGuessed: a.isGuessed || b.isGuessed,
      from,
      to,
    })
  }
  for (const match of line.matchAll(range)) {
    const [, low = '', first, high = '', unit = ''] = match
    const [a, b] = [digitsOf(low).value, digitsOf(high).value]
    if (first !== undefined && unitOf(first).unit !== unitOf(unit).unit) continue
    if (a !== null && b !== null && a < b) add(match, low, high, unit)
  }
  for (const match of line.matchAll(single)) {
    const [, printed = '', unit = ''] = match
    add(match, printed, printed, unit)
  }
  return values.sort((a, b) => a.from - b.from)
}
