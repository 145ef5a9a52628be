import { sameRemedy } from '#core/remedies/catalogue'
import { bare, keep, option, topicOf, type Axis, type Ground } from '../option'

const wordsOf = {
  'mixed.conditions': 'hybrid bank with stops and switches',
  'mixed.separate': 'old battery behind a DC-DC',
  'mixed.replace': 'old battery taken out',
} as const
type Way = keyof typeof wordsOf

/** How lead and lithium live together. */
export function mixedAxes({ findings, certain }: Ground): Axis[] {
  const own = findings.filter((finding) => topicOf(finding) === 'mixed' || finding.id === 'battery.unlike')
  const asked = own.flatMap(({ remedies }) => remedies).filter(({ id }) => Object.hasOwn(wordsOf, id))
  const ways = asked.filter((ref, i) => asked.findIndex((other) => sameRemedy(other, ref)) === i)
  return ways.length === 0
    ? []
    : [
        {
          about: 'use',
          options: [
            ...(own.some((finding) => certain.has(finding)) ? [] : [keep('')]),
            ...ways.map((ref) => option(wordsOf[ref.id as Way], bare(ref))),
          ],
        },
      ]
}
