import type { PartKindId } from '#core/job/fields'
import { given, isAllowed, lostPoint, type Given } from './fit'
import { lineOf, printedValuesOf, wordsBetween, type Line, type Told } from './line'
import { nameAfter, type LabelName } from './names'
import { labelRules } from './rules'
import { around, linesOf, type Box, type LabelWord } from './word'
import { kindWords } from './words-of-kind'

/** A value that a plate gives to a field. */
interface LabelValue {
  readonly field: string
  readonly value: number | string
  /** As it is printed: `14,4 V`. */
  readonly printed: string
  readonly box: Box
  readonly isSure: boolean
  /** Why it is not sure, in words; empty if it is. */
  readonly doubt: string
}

export interface LabelReading {
  readonly values: readonly LabelValue[]
  readonly model: LabelName | null
  readonly serial: LabelName | null
  /** Readings that contradict each other, in words. */
  readonly contradictions: readonly string[]
}

/** Words are believed from this confidence on. */
const sureOfWords = 0.7
const hardToRead = 'Hard to read'
/** Digits count: a unit that is hard to read is known by its place. */
const doubtOfWords = (words: readonly LabelWord[]): string =>
  words.some(({ confidence, text }) => /\d/u.test(text) && confidence < sureOfWords) ? hardToRead : ''

/** Ah × V and Wh agree within this share: makers round. */
const energySlack = 0.04

/**
 * Reads the values of a part from the recognised words of its plate. A value becomes a field only if words, unit
 * and usual range agree; a value in doubt has its reason.
 * @param nominalV nominal voltage of the system, V: it counts where the label says none; null if it is not known
 */
export function readLabel(
  words: readonly LabelWord[],
  part: PartKindId,
  nominalV: number | null = null,
): LabelReading {
  const rules = labelRules[part] ?? []
  const lines = linesOf(words).map(lineOf)
  const all = lines.flatMap(printedValuesOf)
  const read = (nominal: number | null): Given[] =>
    all.flatMap((one) => given(one, rules, nominal)).filter((one) => isAllowed(part, one))
  const printedNominal = read(null).find(({ field }) => ['nominalV', 'outputV'].includes(field))
  const nominal = printedNominal ? Number(printedNominal.value) : nominalV
  const found = read(nominal)
  const energy = energyOf(found, all)
  const firsts = found.filter(({ field }, i) => found.findIndex((one) => one.field === field) === i)
  const values = firsts.map((first) => valueOf(first, found, energy))
  return {
    values: [...values, ...chosenByWords(lines, part)],
    model: nameAfter(lines, 'model'),
    serial: nameAfter(lines, 'serial'),
    contradictions: energy.contradiction ? [energy.contradiction] : [],
  }
}

/** Result of Ah × V compared with Wh. */
interface Energy {
  readonly contradiction: string | null
  /** The three agree: a decimal point that was put into the voltage is right. */
  readonly isConfirmed: boolean
}

function energyOf(found: readonly Given[], all: readonly Told[]): Energy {
  const nothing = { contradiction: null, isConfirmed: false }
  const ah = found.find(({ field }) => field === 'ahEach' || field === 'ah')?.value
  const wh = all.find(({ value }) => value.unit === 'Wh')?.value.low
  const nominal = found.find(({ field }) => field === 'nominalV')
  if (typeof ah !== 'number' || !wh || !nominal) return nothing
  const volts = nominal.told.value.low / (nominal.doubt === lostPoint ? 10 : 1)
  const product = ah * volts
  if (Math.abs(product - wh) <= energySlack * wh) return { contradiction: null, isConfirmed: true }
  return {
    ...nothing,
    contradiction: `${ah} Ah × ${volts} V is ${Math.round(product)} Wh. The label says ${Math.round(wh)} Wh.`,
  }
}

/** Whether another voltage, read without a doubt, is usual in the system that the nominal voltage says. */
const fitsItsSystem = (found: readonly Given[]): boolean =>
  found.some(({ rule, doubt }) => rule.scales === true && doubt === '')

/** The value of a field, and the evidence against it. */
function valueOf(first: Given, found: readonly Given[], { contradiction, isConfirmed }: Energy): LabelValue {
  const { field, told, value, doubt: ownDoubt } = first
  const own = found.filter((one) => one.field === field)
  const isNominal = ['nominalV', 'outputV'].includes(field)
  const doubt = ownDoubt === lostPoint && isNominal && fitsItsSystem(found) ? '' : ownDoubt
  const isOfEnergy = ['ahEach', 'nominalV'].includes(field)
  const why =
    (isOfEnergy && isConfirmed ? '' : doubt) ||
    (told.value.isGuessed ? hardToRead : '') ||
    (isOfEnergy && isConfirmed ? '' : doubtOfWords(told.words)) ||
    (own.some((other) => other.value !== value) ? 'The label says two things' : '') ||
    (isOfEnergy && contradiction ? 'It contradicts the energy' : '')
  return {
    field,
    value,
    printed: told.printed,
    box: around(told.words.map(({ box }) => box)),
    isSure: why === '',
    doubt: why,
  }
}

/** Options that words anywhere on the plate choose. */
function chosenByWords(lines: readonly Line[], part: PartKindId): LabelValue[] {
  const values = new Map<string, LabelValue>()
  for (const { field, option, words } of kindWords[part] ?? []) {
    if (values.has(field)) continue
    for (const line of lines) {
      const match = words.exec(line.text)
      if (!match) continue
      const from = match.index
      const own = wordsBetween(line, from, from + match[0].length)
      values.set(field, {
        field,
        value: option,
        printed: match[0],
        box: around(own.map(({ box }) => box)),
        isSure: true,
        doubt: '',
      })
      break
    }
  }
  return [...values.values()]
}
