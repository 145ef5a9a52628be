import { present } from '#core/collections/held'
import { suppliesFor } from '#core/remedies/supply'
import type { RemedyRef } from '#core/remedies/catalogue'
import { bare, keep, option, topicOf, type Axis, type Ground, type Option } from '../option'

const mostPads = 3

/**
 * How the battery is kept warm: a pad, a warmer place, or not at all, since less current or another battery
 * may be enough.
 */
export function coldAxes({ job, system, findings, shelf }: Ground): Axis[] {
  const cold = findings.filter((finding) => topicOf(finding) === 'cold' && finding.id !== 'cold.layup')
  if (cold.length === 0) return []
  const asked = cold.flatMap(({ remedies }) => remedies)
  const heater: RemedyRef = { id: 'cold.heater', on: 'candidate' }
  const pads = !asked.some(({ id }) => id === 'cold.heater')
    ? []
    : suppliesFor(heater, job, system, shelf, mostPads).map((supply): Option => {
        const part = supply.parts[0]
        return option(part?.code ? `${part.name} under it` : 'heating pad', { ref: heater, supply })
      })
  const warmC = asked.flatMap((ref) => (ref.id === 'cold.warmer-place' ? [present(ref.value)] : []))
  const warmer =
    warmC.length > 0
      ? [
          option(
            'battery in a warmer place',
            bare({ id: 'cold.warmer-place', on: 'place', value: Math.max(...warmC) }),
          ),
        ]
      : []
  return [{ about: 'place', options: [...pads, ...warmer, keep('')] }]
}
