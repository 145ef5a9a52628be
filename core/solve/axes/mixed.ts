import { sameRemedy } from '#core/remedies/catalogue'
import { bare, keep, option, topicOf, type Axis, type Ground } from '../option'

const wordsOf = {
  'mixed.conditions': 'hybrid bank with stops and switches',
  'mixed.separate': 'lead and lithium parted by a DC-DC',
} as const
type Way = keyof typeof wordsOf

/** How lead and lithium live together. */
export function mixedAxes({ findings, certain }: Ground): Axis[] {
  const own = findings.filter((finding) => topicOf(finding) === 'mixed')
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
