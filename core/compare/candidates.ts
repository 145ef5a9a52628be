import { partsOf, type AnyPart, type JobDocument, type PartPath } from '#core/job/document'
import type { Footprint, Placed } from '#core/physics/packing'
import { resolveRules, type RuleOverrides } from '#core/rules/rules'
import { assess, type CheckResult } from '#core/assessment/assess'
import { chargedAwayAh, dailyUse, freshUsableAh, highestDischargeA, leadHealth, leadUsableAh, usableAh, usableColdAh } from '#core/system/energy'
import { hoursToFullOn } from '#core/assessment/checks/ahead'
import { placing } from '#core/assessment/checks/fitting'
import { Scene } from '#core/system/scene'
import { completeLinks, systemOf, type System } from '#core/system/system'
import type { Verdict } from '#core/system/verdict'

/** Most batteries set side by side, the one in question included. */
export const mostCandidates = 4

export interface SourceHours {
  readonly name: string
  /** From the shop's low charge to full, h; Infinity where it never gets there; null while something it needs is not known; `sets` for the sun, which does before. */
  readonly hours: number | 'sets' | null
}

/** One battery or bank arrangement on this job. A figure is null while something it needs is not known. */
export interface CandidateColumn {
  readonly path: PartPath
  readonly name: string
  /** `2 × 100 Ah`. */
  readonly arrangement: string
  readonly verdict: Verdict
  readonly headline: string
  /** The checks that are worse than Suits, worst first. */
  readonly against: readonly CheckResult[]
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
  /** Price ÷ energy that goes through it over its life at the shop's depth. */
  readonly pricePerKwh: number | null
}

/** The batteries set side by side on a job: the one in question first, then the others by their number. */
export const candidatePaths = (job: JobDocument): readonly PartPath[] =>
  ['candidate', ...partsOf(job, 'alternatives').map((ref) => ref.path)].slice(0, mostCandidates)

/** The job with another candidate in question; the list of others as it was. */
export function withCandidate(job: JobDocument, path: PartPath): JobDocument {
  const part = path === 'candidate' ? job.candidate : job.alternatives[path.split('/')[1]!]
  return part ? { ...job, candidate: part } : job
}

/** The job with one of the others made the one in question; what was in question takes its place. */
export function chooseCandidate(job: JobDocument, path: PartPath): JobDocument {
  const id = path.split('/')[1]
  const chosen = id === undefined ? undefined : job.alternatives[id]
  if (!chosen) return job
  return { ...job, candidate: chosen, alternatives: { ...job.alternatives, [id!]: job.candidate } }
}

/** Judges every candidate of a job on the whole job and works out what tells them apart. */
export const compareCandidates = (job: JobDocument, shopRules: RuleOverrides = {}): CandidateColumn[] =>
  candidatePaths(job).map((path) => columnOf(withCandidate(job, path), path, shopRules))

const order: readonly Verdict[] = ['does-not-suit', 'measure-first', 'suits-once-changed']

function columnOf(job: JobDocument, path: PartPath, shopRules: RuleOverrides): CandidateColumn {
  const assessment = assess(job, shopRules)
  const scene = new Scene(completeLinks(job), resolveRules(shopRules, job.rules))
  const system = systemOf(scene)
  const known = <T>(work: () => T): T | null => {
    scene.begin(new Map())
    const value = work()
    return scene.missing === null ? value : null
  }
  const { bank, one } = system
  const price = known(() => (bank.each.price > 0 ? bank.each.price * bank.count : null))
  const placed = known(() => placing(system))
  const sized = known(() => [bank.each.widthMm, bank.each.depthMm, bank.each.heightMm, one.place.widthMm, one.place.depthMm, one.place.heightMm]) !== null
  const part = job.candidate as AnyPart
  return {
    path, name: part.name ?? (path === 'candidate' ? 'New battery' : 'Candidate'),
    arrangement: known(() => `${bank.count > 1 ? `${bank.count} × ` : ''}${bank.each.ahEach} Ah${bank.each.series > 1 ? `, ${bank.each.series} in series` : ''}`) ?? 'size not known',
    verdict: assessment.verdict, headline: assessment.headline,
    against: order.flatMap((verdict) => assessment.checks.filter((c) => c.verdict === verdict)),
    usableAh: known(() => freshUsableAh(system)), usableOldAh: known(() => leadUsableAh(system, leadHealth(system))),
    days: known(() => daysOf(system)),
    minutesFullLoad: known(() => { const { amps, inverterA } = highestDischargeA(system); return inverterA > 0 ? (usableAh(system) / amps) * 60 : null }),
    hoursToFull: system.lanes.map((lane) => ({ name: lane.name, hours: lane.kind === 'solar' ? 'sets' : known(() => hoursToFullOn(lane, system)) })),
    weightKg: known(() => bank.kg), oldWeightKg: known(() => one.houseBank.weightEachKg * one.houseBank.series * one.houseBank.parallel),
    fits: sized ? placed !== null : null, space: sized ? { widthMm: one.place.widthMm, depthMm: one.place.depthMm } : null, placed: placed ?? [],
    price, pricePerKwh: price === null ? null : known(() => price / lifeKwh(system)),
  }
}

function daysOf(system: System): number {
  const net = dailyUse(system).ah - chargedAwayAh(system)
  return net > 0 ? usableColdAh(system) / net : Infinity
}

/**
 * Energy through the bank over its life at the shop's depth, kWh. Cycles at that depth from the maker's by the usual
 * power law of LFP, N ~ depth^-1.3 (an engineering default); 3.2 V a cell.
 */
function lifeKwh({ bank, rules }: System): number {
  const depth = rules.usableLithium / 100
  const cycles = bank.each.cycles * (bank.each.cycleDepth / 100 / depth) ** 1.3
  return (cycles * depth * bank.ah * 3.2 * 4 * bank.scale) / 1000
}
