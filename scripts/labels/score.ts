import { readLabel, type LabelReading } from '#core/labels/read-label'
import type { LabelWord } from '#core/labels/word'
import type { Plate } from './plates'

/** The result for the values of a plate. */
export interface Score {
  readonly values: number
  readonly right: number
  readonly wrong: number
  /** Right and left to the person, wrong and left to the person, not found. */
  readonly doubted: number
  readonly doubtedWrong: number
  readonly missed: number
  readonly notes: readonly string[]
}

const offersOf = (reading: LabelReading) => [
  ...reading.values.map(({ field, value, isSure, doubt }) => ({ field, value, isSure, doubt })),
  ...(['model', 'serial'] as const).flatMap((field) => {
    const name = reading[field]
    return name ? [{ field, value: name.text, isSure: name.isSure, doubt: 'Hard to read' }] : []
  }),
]

/**
 * Compares the values read from words with those of the plate. A ticked value that is not on the plate is wrong
 * too.
 */
export function scorePlate(plate: Pick<Plate, 'part' | 'truth'>, words: readonly LabelWord[]): Score {
  const offers = offersOf(readLabel(words, plate.part))
  const notes: string[] = []
  let [right, wrong, doubted, doubtedWrong, missed] = [0, 0, 0, 0, 0]
  for (const [field, value] of Object.entries(plate.truth)) {
    const offer = offers.find((one) => one.field === field)
    if (!offer) {
      missed++
      notes.push(`${field} ${value} not found`)
    } else if (offer.value === value) {
      if (offer.isSure) right++
      else {
        doubted++
        notes.push(`${field} ${value} not ticked: ${offer.doubt}`)
      }
    } else {
      if (offer.isSure) wrong++
      else doubtedWrong++
      notes.push(`${offer.isSure ? 'WRONG' : 'wrong, not ticked'}: ${field} ${offer.value} for ${value}`)
    }
  }
  for (const { field, value, isSure } of offers)
    if (isSure && !Object.hasOwn(plate.truth, field)) {
      wrong++
      notes.push(`WRONG: ${field} ${value}, which the plate does not say`)
    }
  return { values: Object.keys(plate.truth).length, right, wrong, doubted, doubtedWrong, missed, notes }
}

export const sumOf = (scores: readonly Score[], of: keyof Omit<Score, 'notes'>): number =>
  scores.reduce((sum, score) => sum + score[of], 0)
