import type { Finding } from '#core/assessment/assess'
import { partName } from '#core/job/document'
import { canTry, remedyLabel, remedyOf, sameRemedy, type RemedyRef } from '#core/remedies/catalogue'
import type { Supply } from '#core/remedies/remedy'
import { suppliesFor } from '#core/remedies/supply'
import type { ChargerLane, SolarLane } from '#core/system/lanes'
import { inSentence, type Write } from '#core/units/format'
import { bare, keep, mostSizes, option, topicOf, type Axis, type Ground, type Option } from '../option'

const isSetting = (ref: RemedyRef): boolean => remedyOf(ref).kind === 'setting'

/** Options for each mains charger and solar controller: kept and set, or replaced. */
export const chargerAxes = (ground: Ground): Axis[] =>
  ground.system.lanes.flatMap((lane) => {
    if (lane.kind !== 'charger' && lane.kind !== 'solar') return []
    const own = ground.findings.filter((finding) => finding.on === lane.id && topicOf(finding) !== 'cold')
    if (own.length === 0) return []
    const name = inSentence(partName(ground.job, lane.id))
    const certain = own.filter((finding) => ground.certain.has(finding))
    const drawnRig = certain.length === 0 ? [keep(`${name} as it is`)] : []
    const kept = certain.length === 0 || certain.length === own.length ? own : certain
    return [
      {
        about: lane.id,
        options: [
          ...drawnRig,
          ...keptOptions(name, kept, ground.system.q),
          ...replacedOptions(name, lane, ground),
        ],
      },
    ]
  })

/** As it is, or set right, where settings answer everything that is found. */
function keptOptions(name: string, own: readonly Finding[], q: Write): Option[] {
  const all = own.every(({ remedies }) => remedies.some((ref) => isSetting(ref) || !canTry(ref)))
  if (!all) return []
  const found = own.flatMap(({ remedies }) => remedies.find(isSetting) ?? [])
  const settings = found.filter((ref, i) => found.findIndex((other) => sameRemedy(other, ref)) === i)
  const words = settings.map((ref) => inSentence(remedyLabel(ref, q))).join(', ')
  return [option(settings.length > 0 ? `${words}, keep ${name}` : `keep ${name}`, ...settings.map(bare))]
}

function replacedOptions(
  name: string,
  lane: ChargerLane | SolarLane,
  { job, system, shelf }: Ground,
): Option[] {
  const { bank } = system
  const replace: RemedyRef =
    lane.kind === 'charger'
      ? { id: 'charger.replace', on: lane.id, value: bank.targetA, values: { absorptionV: bank.middleV } }
      : { id: 'solar.larger', on: lane.id, value: lane.solar.ratedA }
  const replaced = (supply: Supply): Option => {
    const ratedA = (supply.values.ratedA as { value?: number } | undefined)?.value ?? bank.targetA
    const part = supply.parts[0]
    return option(part?.code ? `${name} replaced by ${part.name}` : `${name} replaced`, {
      ref: { ...replace, value: ratedA },
      supply,
    })
  }
  return suppliesFor(replace, job, system, shelf, lane.kind === 'charger' ? mostSizes : 2).map(replaced)
}
