import { present } from '#core/collections/held'
import { fieldAt, isOfWholeJob, partInSentence, type FieldPath, type JobDocument } from '#core/job/document'
import { shownValue } from '#core/job/shown'
import type { Input } from '#core/system/facts'
import type { Deciding } from '#core/system/unknowns'
import { capital, inSentence, listInSentence, type Write } from '#core/units/format'

const mostAssumed = 3

/** The values that nobody knows and a sentence uses all the same, as a sentence behind it. */
export function assumedWords(inputs: readonly Input[], unknown: readonly FieldPath[], q: Write): string {
  const used = inputs.filter(({ path }) => unknown.includes(path))
  if (used.length === 0) return ''
  const words = used.slice(0, mostAssumed).map(({ path, label, value }) => {
    const { field } = present(fieldAt(path))
    const words = shownValue(field, value, q)
    return `${inSentence(label)} ${field.type === 'choice' ? inSentence(words) : words}`
  })
  const more = used.length > mostAssumed ? ` and ${used.length - mostAssumed} more` : ''
  return ` Assumed: ${words.join(', ')}${more}.`
}

/** Names the values that can be measured first. */
export function openSummary(deciding: readonly Deciding[], job: JobDocument): string {
  const named = deciding.slice(0, mostNamed).map(({ path }) => {
    const { field, partPath, kind } = present(fieldAt(path))
    const part = partInSentence(job, partPath)
    const isQuantity = field.type === 'quantity'
    const label = isQuantity ? `the ${inSentence(field.label)}` : `“${field.label}”`
    return {
      verb: isQuantity ? 'measure' : 'find out',
      words: isOfWholeJob(kind) ? label : `${label} of ${part}`,
    }
  })
  const orders = ['measure', 'find out'].flatMap((verb) => {
    const words = named.filter((one) => one.verb === verb).map((one) => one.words)
    return words.length > 0 ? [`${verb} ${listInSentence(words)}`] : []
  })
  const more = deciding.length > mostNamed ? `, and ${deciding.length - mostNamed} more` : ''
  return capital(`${orders.join(', and ')}${more}.`)
}
const mostNamed = 3

/** How many values a check still needs, behind its title. */
export const missingValues = (title: string, values: number): string =>
  `${title}${title.endsWith('?') ? '' : ':'} ${values === 1 ? '1 value is' : `${values} values are`} missing`
