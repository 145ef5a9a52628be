import { firstOf, present } from '#core/collections/held'
import { suppliesFor } from '#core/remedies/supply'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { ShelfPart } from '#core/shelf/kinds'
import { keep, option, type Axis, type Battery, type Ground, type Option } from '../option'

const mostBatteries = 10
/** Assumed price of a battery without one: it comes after all that have one. */
const dearest = Number.MAX_VALUE

/** Which battery and how many of it, where something asks for more or for another. */
export function batteryAxes(ground: Ground): Axis[] {
  const { job, system, findings, shelf } = ground
  // A source may ask for it as well: cold cells that its charge would harm.
  const own = findings.filter(({ remedies }) =>
    remedies.some((ref) => ref.id === 'battery.other' || ref.id === 'battery.more-parallel'),
  )
  if (own.length === 0) return []
  const asked = own.flatMap(({ remedies }) =>
    remedies.flatMap((ref) => (ref.id === 'battery.more-parallel' ? [present(ref.value)] : [])),
  )
  const counts = [...new Set(asked)].sort((a, b) => a - b)
  const name = job.candidate.name ?? 'the new battery'
  const more = counts.map((count): Option => {
    const ref: RemedyRef = { id: 'battery.more-parallel', on: 'candidate', value: count }
    return option(`${count} × ${name}`, { ref, supply: firstOf(suppliesFor(ref, job, system, shelf)) })
  })
  const others = othersOf(ground).map((battery): Option => ({
    words: `${battery.parallel > 1 ? `${battery.parallel} × ` : ''}${battery.part.name} instead`,
    steps: [],
    battery,
  }))
  return [{ about: 'candidate', options: [keep(name), ...more, ...others] }]
}

/** Other banks of the shelf of a like size, the cheapest first, those without a price last. */
function othersOf({ job, system, shelf }: Ground): Battery[] {
  const { ah, each, nominalV } = system.bank
  const notFor = each.purpose === 'house' ? 'starter' : 'house'
  const fits = ({ kind, code, values }: ShelfPart): boolean =>
    kind === 'batteries' &&
    values.chemistry === 'lfp' &&
    values.purpose !== notFor &&
    Number(values.nominalV) === nominalV &&
    code !== job.candidate.shelf?.code
  const isLikeSized = ({ part, parallel }: Battery): boolean => {
    const all = Number(part.values.ahEach) * parallel
    return all >= ah * 0.7 && all <= Math.max(ah * 3, ah + 300)
  }
  const price = ({ part, parallel }: Battery): number =>
    part.values.price == null ? dearest : Number(part.values.price) * parallel
  return shelf
    .filter(fits)
    .flatMap((part) =>
      Array.from({ length: Number(part.values.mostParallel ?? 1) }, (_, i) => ({ part, parallel: i + 1 })),
    )
    .filter(isLikeSized)
    .sort((a, b) => price(a) - price(b))
    .slice(0, mostBatteries)
}
