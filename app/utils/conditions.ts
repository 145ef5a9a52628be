import { fieldAt } from '#core/job/document'
import type { Condition } from '#core/solve/open'
import { formatRange, inSentence, type Write } from '#core/units/format'
import type { Unit } from '#core/units/units'

/** The measured value, in a sentence: `the absorption voltage of Depot charger`. */
export const measuredWords = ({ partInSentence, label }: Condition): string =>
  `the ${inSentence(label)} of ${partInSentence}`

/** Conditions named in a sentence; more go into a list. */
export const mostConditions = 3

/** The conditions of an answer in a sentence: three at most, and how many more there are. */
export function conditionsWords(conditions: readonly Condition[], q: Write): string {
  const named = conditions.slice(0, mostConditions).map((condition) => conditionWords(condition, q))
  const more = conditions.length - named.length
  return `If ${named.join(', and ')}${more > 0 ? `, and ${more} more` : ''}`
}

/** Where it must lie: `the absorption voltage of Depot charger is 13.8 to 14.6 V`. */
export function conditionWords(condition: Condition, q: Write): string {
  const field = fieldAt(condition.path)!.field
  const unit: Unit = field.type === 'quantity' ? field.unit : ''
  const where = condition.range
    ? formatRange(...condition.range, unit, q).replaceAll(' ', '\u00a0')
    : condition.options
        .map((option) => (field.type === 'choice' ? inSentence(field.options[option] ?? option) : option))
        .join(' or ')
  return `${measuredWords(condition)} is ${where}`
}
