import { joinText } from '#core/units/format'
import { candidatePaths, withCandidate } from '#core/job/candidates'
import { type JobDocument, type PartPath } from '#core/job/document'
import { decidesHours, hoursToFullOn } from '#core/assessment/foresight'
import type { Facts } from '#core/system/facts'
import type { Lane } from '#core/system/lanes'
import { factsOf, usualSystem, ifKnown, type ShopSettings, type System } from '#core/system/system'
import { ifSolvable } from '#core/physics/unsolvable'
import type { Footprint, Placed } from '#core/physics/packing'
import { shortcomingsOf, type Shortcoming } from './shortcomings'
import { dayAway, freshUsableAh, highestDischargeA, oldUsableAh, usableAh } from '#core/system/energy'
import { placing } from '#core/system/more-batteries'
import type { Verdict } from '#core/system/verdict'

export interface SourceHours {
  readonly name: string
  /**
   * From the shop's low charge to full, h; Infinity where it never gets there; null while something it needs
   * is unknown, or where its run has no result; `sets` for the sun, which does before.
   */
  readonly hours: number | 'sets' | null
}

/** One battery or bank arrangement on this job. A figure is null while something it needs is unknown. */
export interface CandidateColumn {
  readonly path: PartPath
  readonly name: string
  /** `2 × 100 Ah`. */
  readonly arrangement: string
  readonly verdict: Verdict
  readonly headline: string
  /** The checks that are worse than Suits, worst first. */
  readonly against: readonly Shortcoming[]
  readonly usableAh: number | null
  readonly usableOldAh: number | null
  /** Days it lasts at the net daily use; Infinity where sources bring it all. */
  readonly days: number | null
  readonly minutesFullLoad: number | null
  readonly hoursToFull: readonly SourceHours[]
  readonly weightKg: number | null
  readonly oldWeightKg: number | null
  readonly fits: boolean | null
  readonly space: Footprint | null
  readonly placed: readonly Placed[]
  readonly price: number | null
  /** Price ÷ energy that walks it over its life at the shop's depth. */
  readonly pricePerKwh: number | null
}

/** Checks each candidate on the whole job, and calculates their differences. */
export const compareCandidates = (job: JobDocument, shop: ShopSettings = {}): CandidateColumn[] =>
  candidatePaths(job).map((path) => columnOf(withCandidate(job, path), path, shop))

const order: readonly Verdict[] = ['does-not-suit', 'measure-first', 'suits-once-changed']

/** The figures of one candidate on a job in which it is the new battery. */
export function columnOf(job: JobDocument, path: PartPath, shop: ShopSettings): CandidateColumn {
  const facts = factsOf(job, shop)
  const { verdict, headline, against } = shortcomingsOf(facts, shop)
  const known = <T>(work: (system: System) => T): T | null => ifKnown(facts, work)
  const placed = known(placing)
  const sized =
    known(({ bank: { each }, one: { place } }) => [
      each.widthMm,
      each.depthMm,
      each.heightMm,
      place.widthMm,
      place.depthMm,
      place.heightMm,
    ]) !== null
  const price = known(({ bank }) => (bank.each.price === null ? null : bank.each.price * bank.count))
  const { one, lanes } = usualSystem(facts)
  return {
    path,
    verdict,
    headline,
    name: job.candidate.name ?? (path === 'candidate' ? 'New battery' : 'Candidate'),
    arrangement: known(arrangementOf) ?? 'size unknown',
    against: order.flatMap((worse) => against.filter((c) => c.verdict === worse)),
    usableAh: known(freshUsableAh),
    usableOldAh: known(oldUsableAh),
    days: known((system) => dayAway(system).lastsDays),
    minutesFullLoad: known(minutesFullLoadOf),
    hoursToFull: lanes.map((lane, place) => ({ name: lane.name, hours: hoursOf(lane, place, facts) })),
    weightKg: known(({ bank }) => bank.kg),
    oldWeightKg: known(
      ({ one: { houseBank } }) => houseBank.weightEachKg * houseBank.series * houseBank.parallel,
    ),
    fits: sized ? placed !== null : null,
    placed: placed ?? [],
    space: sized ? { widthMm: one.place.widthMm, depthMm: one.place.depthMm } : null,
    price,
    pricePerKwh: price === null ? null : known((system) => price / lifeKwh(system)),
  }
}

function arrangementOf({ bank: { count, each } }: System): string {
  return joinText(
    `${count > 1 ? `${count} × ` : ''}${each.ahEach} `,
    `Ah${each.series > 1 ? `, ${each.series} in series` : ''}`,
  )
}

function minutesFullLoadOf(system: System): number | null {
  const { amps, inverterA } = highestDischargeA(system)
  return inverterA > 0 ? (usableAh(system) / amps) * 60 : null
}

/**
 * Hours to full on one lane. The run uses typical values; the lane's own values must be
 * known.
 */
function hoursOf(lane: Lane, place: number, facts: Facts): SourceHours['hours'] {
  if (lane.kind === 'solar') return 'sets'
  return ifKnown(facts, (system) => {
    const own = system.lanes[place] as typeof lane
    decidesHours(own)
    return ifSolvable(() => hoursToFullOn(own, system))
  })
}

/**
 * Energy through the bank over its life at the shop's depth, kWh. Cycles at that depth from the maker's by
 * the usual power law of LFP, N ~ depth^-1.3 (an engineering default); 3.2 V a cell.
 */
export function lifeKwh({ bank, rules }: System): number {
  const depth = rules.usableLithium / 100
  const cycles = bank.each.cycles * (bank.each.cycleDepth / 100 / depth) ** 1.3
  return (cycles * depth * bank.ah * 3.2 * 4 * bank.scale) / 1000
}
