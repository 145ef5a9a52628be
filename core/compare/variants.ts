import { completeJob } from '#core/job/complete'
import { addDcdc } from '#core/remedies/arrangements'
import { applyRemedy, canTry, type RemedyRef } from '#core/remedies/catalogue'
import { factsOf, usualSystem, type ShopSettings } from '#core/system/system'
import { withAssumed, type JobDocument } from '#core/job/document'
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
 * Variants of a job for comparison in runs: as entered, with the old lead-acid, with all changes, and with each way
 * of limiting the alternator.
 */
export function variantsOf(job: JobDocument, shop: ShopSettings, changes: readonly RemedyRef[]): Variant[] {
  const variants: Variant[] = [
    { id: 'new', title: 'New battery, as entered', plant: plantOf(job, shop, 'new') },
    { id: 'old', title: 'Old lead-acid bank', plant: plantOf(job, shop, 'old') },
    ...decidedVariants(job, shop, changes),
    leadBesideIt(job, shop),
    ...waysOfHolding(job, shop),
  ]
  // The changes asked for may be one of the ways of holding the alternator: it is then shown once, by its name.
  const changed = JSON.stringify(variants.find((v) => v.id === 'changed')?.plant)
  return variants.filter(
    (v, i) =>
      v.id !== 'changed' || variants.every((other, k) => k === i || JSON.stringify(other.plant) !== changed),
  )
}

/** As specified, as fitted, and with the changes that the checks ask for. */
function decidedVariants(job: JobDocument, shop: ShopSettings, changes: readonly RemedyRef[]): Variant[] {
  const tried = changes.filter(canTry)
  const changed = tried.reduce((next, remedy) => applyRemedy(next, remedy), completeJob(job))
  const { specified } = job
  return [
    ...(specified
      ? [
          {
            id: 'specified',
            title: `As specified: ${specified.name}`,
            plant: plantOf(asSpecified(job), shop, 'new'),
          },
        ]
      : []),
    ...(provingOf(job).fitted.length > 0
      ? [{ id: 'fitted', title: 'As fitted', plant: plantOf(asFitted(job), shop, 'new') }]
      : []),
    ...(tried.length > 0
      ? [
          {
            id: 'changed',
            title: tried.length === 1 ? 'With the change' : `With all ${tried.length} changes`,
            plant: plantOf(changed, shop, 'new'),
          },
        ]
      : []),
  ]
}

/** The other way of living with the old lead: beside the lithium where it goes, gone where it stays. */
function leadBesideIt(job: JobDocument, shop: ShopSettings): Variant {
  const arrangement = (mixed: string): JobDocument =>
    withAssumed(job, 'use', { mixed, chargeStop: 'yes', isolators: 'yes' })
  return (job.use.mixed?.value ?? 'replaced') === 'replaced'
    ? {
        id: 'hybrid',
        title: 'Hybrid: lead-acid and lithium in parallel, with stops',
        plant: plantOf(arrangement('hybrid'), shop, 'new'),
      }
    : {
        id: 'separate',
        title: 'Separate: only lithium in the house bank',
        plant: plantOf(arrangement('replaced'), shop, 'new'),
      }
}

/** Other ways by which the first alternator that is joined could charge the bank. */
function waysOfHolding(job: JobDocument, shop: ShopSettings): Variant[] {
  const system = usualSystem(factsOf(job, shop))
  const lane = system.lanes.find(({ kind }) => kind === 'alternator')
  if (lane?.kind !== 'alternator' || lane.link.kind === 'none') return []
  const { alternator, link } = lane
  const linked = completeJob(job)
  const set = (values: Readonly<Record<string, unknown>>): Plant =>
    plantOf(withAssumed(linked, link.$path, values), shop, 'new')
  const scale = Number(alternator.nominalV) / 12
  const dcdc = addDcdc(lane, system)
  const relay = { kind: 'vsr', closesV: 13.3 * scale, opensV: 12.8 * scale, delayS: 0, bothWay: 'no' }
  const ways: Variant[] = [
    link.kind === 'dcdc'
      ? { id: 'straight', title: 'Directly through a relay', plant: set(relay) }
      : {
          id: 'dcdc',
          title: `With a ${dcdc.value} A DC-DC`,
          plant: plantOf(applyRemedy(linked, dcdc), shop, 'new'),
        },
  ]
  if (link.kind === 'duty' || alternator.nominalV !== String(system.bank.nominalV)) return ways
  const amps = Math.max(10, Math.round(system.bank.recommendedA / 5) * 5)
  return [
    ...ways,
    {
      id: 'duty',
      title: `Duty-cycling relay at ${amps} A`,
      plant: set({ kind: 'duty', opensAboveA: amps, offTimeS: 60 }),
    },
  ]
}
