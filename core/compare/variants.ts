import { completeJob } from '#core/job/complete'
import { addDcdc } from '#core/remedies/arrangements'
import { applyRemedy, canTry, type RemedyRef } from '#core/remedies/catalogue'
import { factsOf, usualSystem, type ShopSettings } from '#core/system/system'
import { withField, type JobDocument } from '#core/job/document'
import { asFitted } from '#core/job/as-fitted'
import { asSpecified } from '#core/job/as-specified'
import { provingOf } from '#core/job/proving-edits'
import { plantOf } from '#core/simulation/plant-of-job'
import type { Plant } from '#core/simulation/plant'

/** A system to run next to another. */
export interface Variant {
  readonly id: string
  readonly title: string
  readonly plant: Plant
}

/**
 * What can be run of a job side by side: as entered, the old lead, every change made, and ways of holding the
 * alternator.
 */
export function variantsOf(job: JobDocument, shop: ShopSettings, changes: readonly RemedyRef[]): Variant[] {
  const variants: Variant[] = [
    { id: 'new', title: 'New battery, as entered', plant: plantOf(job, shop, 'new') },
    { id: 'old', title: 'Old lead-acid bank', plant: plantOf(job, shop, 'old') },
  ]
  if (job.specified)
    variants.push({
      id: 'specified',
      title: `As specified: ${job.specified.name}`,
      plant: plantOf(asSpecified(job), shop, 'new'),
    })
  if (provingOf(job).fitted.length > 0)
    variants.push({ id: 'fitted', title: 'As fitted', plant: plantOf(asFitted(job), shop, 'new') })
  const tried = changes.filter(canTry)
  if (tried.length > 0) {
    const changed = tried.reduce((next, remedy) => applyRemedy(next, remedy), completeJob(job))
    variants.push({
      id: 'changed',
      title: tried.length === 1 ? 'With the change' : `With all ${tried.length} changes`,
      plant: plantOf(changed, shop, 'new'),
    })
  }
  const arrangement = (mixed: string): JobDocument =>
    ['chargeStop', 'isolators'].reduce(
      (next, name) => withField(next, `use/${name}`, { value: 'yes', how: 'assumed' }),
      withField(job, 'use/mixed', { value: mixed, how: 'assumed' }),
    )
  if ((job.use.mixed?.value ?? 'replaced') === 'replaced')
    variants.push({
      id: 'hybrid',
      title: 'Hybrid: lead-acid and lithium in parallel, with stops',
      plant: plantOf(arrangement('hybrid'), shop, 'new'),
    })
  else
    variants.push({
      id: 'separate',
      title: 'Separate: only lithium in the house bank',
      plant: plantOf(arrangement('replaced'), shop, 'new'),
    })
  const system = usualSystem(factsOf(job, shop))
  const lane = system.lanes.find((l) => l.kind === 'alternator')
  if (lane?.kind === 'alternator' && lane.link.kind !== 'none') {
    const linked = completeJob(job)
    const path = lane.link.$path
    const set = (values: Readonly<Record<string, unknown>>): JobDocument =>
      Object.entries(values).reduce(
        (next, [name, value]) => withField(next, `${path}/${name}`, { value, how: 'assumed' }),
        linked,
      )
    if (lane.link.kind !== 'dcdc') {
      const remedy = addDcdc(lane, system)
      variants.push({
        id: 'dcdc',
        title: `With a ${remedy.value} A DC-DC`,
        plant: plantOf(applyRemedy(linked, remedy), shop, 'new'),
      })
    } else {
      variants.push({
        id: 'straight',
        title: 'Directly through a relay',
        plant: plantOf(
          set({
            kind: 'vsr',
            closesV: 13.3 * (Number(lane.alternator.nominalV) / 12),
            opensV: 12.8 * (Number(lane.alternator.nominalV) / 12),
            delayS: 0,
            bothWay: 'no',
          }),
          shop,
          'new',
        ),
      })
    }
    if (lane.link.kind !== 'duty' && lane.alternator.nominalV === String(system.bank.nominalV)) {
      const amps = Math.max(10, Math.round(system.bank.recommendedA / 5) * 5)
      variants.push({
        id: 'duty',
        title: `Duty-cycling relay at ${amps} A`,
        plant: plantOf(set({ kind: 'duty', opensAboveA: amps, offTimeS: 60 }), shop, 'new'),
      })
    }
  }
  // The changes asked for may be one of the ways of holding the alternator: it is then shown once, by its name.
  const changed = JSON.stringify(variants.find((v) => v.id === 'changed')?.plant)
  return variants.filter(
    (v, i) =>
      v.id !== 'changed' || variants.every((other, k) => k === i || JSON.stringify(other.plant) !== changed),
  )
}
