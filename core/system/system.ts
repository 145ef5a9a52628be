import { partName, partsOf, withNewPart, type JobDocument, type PartPath } from '#core/job/document'
import { partKindIds, partKinds, type Known, type ManyKindId, type OneKindId, type PartKindId } from '#core/job/fields'
import { caseLimitC, fitHeat, hotOutputA, loadAtCaseA, openSpaceC, underBonnetC, type AlternatorHeat, type CaseReading } from '#core/physics/alternator'
import { copperFactor, loopOhm } from '#core/physics/conductors'
import { worstShare } from '#core/physics/sharing'
import { openCircuitV } from '#core/physics/lfp'
import type { ShopRules } from '#core/rules/rules'
import { formatQuantity } from '#core/units/format'
import type { Origin, Scene, View } from './scene'

/** The candidate bank as one battery, from the data of each and the count in series and parallel. */
export class Bank {
  constructor(readonly each: View<'candidate'>, private readonly rules: ShopRules) {}

  get nominalV(): number { return Number(this.each.nominalV) * this.each.series }
  /** Times the 12 V figures of the shop rules. */
  get scale(): number { return this.nominalV / 12 }
  get ah(): number { return this.each.ahEach * this.each.parallel }
  get lowV(): number { return this.each.chargeLowV * this.each.series }
  get highV(): number { return this.each.chargeHighV * this.each.series }
  /** Where a setting is aimed, V to two decimals: the maker's recommended voltage, else the middle of the window. */
  get middleV(): number { return Math.round(this.each.chargeRecommendedV * this.each.series * 100) / 100 }
  get absoluteV(): number { return this.each.absoluteHighV * this.each.series }
  get bmsOverV(): number { return this.each.bmsOverV * this.each.series }
  get maxFloatV(): number { return this.each.maxFloatV * this.each.series }
  get balanceStartV(): number { return this.rules.balanceStartV * this.scale }
  get recommendedA(): number { return this.each.recommendedChargeA * this.each.parallel }
  /** What it should be charged with by the shop's school, A: the maker's recommended figure, or the largest. */
  get wishedA(): number { return this.rules.chargeRateSchool === 'largest' ? this.largestA : this.recommendedA }
  get largestA(): number { return Math.max(this.each.largestChargeA, this.each.recommendedChargeA) * this.each.parallel }
  /** Share of the BMS rating each battery of a parallel bank can be counted on for: the shop's, or less where the cabling is worse. */
  get sharing(): number {
    const { parallel, layout } = this.each
    return parallel > 1 ? Math.min(this.rules.sharing / 100, worstShare(parallel, this.stringOhm, this.rules.bankLinkMohm / 1000, layout)) : 1
  }
  private get stringOhm(): number { return (this.each.resistanceMohm / 1000) * this.each.series }
  get continuousA(): number { return this.each.continuousA * this.each.parallel * this.sharing }
  get peakA(): number { return Math.max(this.each.peakA, this.each.continuousA) * this.each.parallel * this.sharing }
  get count(): number { return this.each.series * this.each.parallel }
  get kg(): number { return this.each.weightKg * this.count }
  /** Lowest temperature at which it may be charged, °C: the maker's, or not below 0 °C where the shop holds to that. */
  get coldLimitC(): number { return this.rules.coldSchool === 'zero' ? Math.max(0, this.each.coldLimitC) : this.each.coldLimitC }
  get ohm(): number { return this.stringOhm / this.each.parallel }
  get tailA(): number { return this.rules.tailRateC * this.ah }
  ocv(soc: number): number { return openCircuitV(soc, this.nominalV) }
}

/** Stage-making units are read alike: mains charger, DC-DC or solar controller. */
export type ChargeUnit = View<'chargers'> | View<'links'> | View<'solar'>

/** What temperature compensation adds to a unit's voltage at a temperature, V: lead cells × coefficient × (25 − T), and the count of cells. */
export function compensation(unit: ChargeUnit, bank: Bank, celsius: number): { readonly volts: number; readonly leadCells: number } {
  const leadCells = (6 * bank.nominalV) / 12
  return { leadCells, volts: (leadCells * unit.compensationMv * (25 - celsius)) / 1000 }
}

interface LaneBase {
  /** Path of the charger, the link, the array or the source: one lane each. */
  readonly id: PartPath
  readonly name: string
  readonly cables: readonly View<'conductors'>[]
}
export interface ChargerLane extends LaneBase {
  readonly kind: 'charger'
  readonly charger: View<'chargers'>
}
export interface AlternatorLane extends LaneBase {
  readonly kind: 'alternator'
  readonly alternator: View<'alternators'>
  readonly link: View<'links'>
}
export interface SolarLane extends LaneBase {
  readonly kind: 'solar'
  readonly solar: View<'solar'>
}
export interface SourceLane extends LaneBase {
  readonly kind: 'source'
  readonly source: View<'sources'>
}
/** A way by which charge reaches the house bank: a source, its link and its cables. */
export type Lane = ChargerLane | AlternatorLane | SolarLane | SourceLane

/** The job as checks see it: every part as a view of one scene. */
export interface System {
  readonly scene: Scene
  readonly rules: ShopRules
  readonly bank: Bank
  readonly one: { readonly [K in OneKindId]: View<K> }
  readonly many: { readonly [K in ManyKindId]: readonly View<K>[] }
  readonly lanes: readonly Lane[]
}

/** A copy of the job in which every alternator has a link, if only an unknown one, so that it has a lane. */
export function completeLinks(job: JobDocument): JobDocument {
  const linked = new Set(partsOf(job, 'links').map((ref) => ref.part.from))
  return partsOf(job, 'alternators').filter((ref) => !linked.has(ref.path)).reduce((next, ref) => withNewPart(next, 'links', { from: ref.path }).job, job)
}

/** Builds the views. The scene's job should have gone through {@link completeLinks}. */
export function systemOf(scene: Scene): System {
  const { job, rules } = scene
  const views = <K extends PartKindId>(kind: K): View<K>[] =>
    partsOf(job, kind).map((ref) => scene.view(ref as typeof ref & { kind: K }, ref.part.name || `The ${partName(job, ref.path).toLowerCase()}`))
  const many = Object.fromEntries(partKindIds.filter((kind) => partKinds[kind].many).map((kind) => [kind, views(kind)])) as unknown as System['many']
  const one = Object.fromEntries(partKindIds.filter((kind) => !partKinds[kind].many).map((kind) => [kind, views(kind)[0]!])) as unknown as System['one']
  const cablesOf = (path: PartPath) => many.conductors.filter((cable) => cable.$ref.part.of === path)
  const lanes: Lane[] = many.chargers.filter((charger) => charger.feeds !== 'starting').map((charger) => ({ kind: 'charger', id: charger.$path, name: charger.$name, charger, cables: cablesOf(charger.$path) }))
  for (const link of many.links) {
    const alternator = many.alternators.find((view) => view.$path === link.$ref.part.from)
    const joined = (link.$ref.part.kind as Known<string> | undefined)?.value !== 'none'
    if (alternator && joined) lanes.push({ kind: 'alternator', id: link.$path, name: alternator.$name, alternator, link, cables: cablesOf(link.$path) })
  }
  lanes.push(...many.solar.map((solar) => ({ kind: 'solar', id: solar.$path, name: solar.$name, solar, cables: cablesOf(solar.$path) }) as const))
  lanes.push(...many.sources.map((source) => ({ kind: 'source', id: source.$path, name: source.$name, source, cables: cablesOf(source.$path) }) as const))
  return { scene, rules, one, many, lanes, bank: new Bank(one.candidate, rules) }
}

/** Resistance of a lane's cables there and back, Ω; the shop's figure where none is entered. */
export function cableOhm(lane: Lane, rules: ShopRules): number {
  if (lane.cables.length === 0) return rules.cableMohm / 1000
  return lane.cables.reduce((sum, cable) => sum + loopOhm(cable), 0) * copperFactor(rules.cableC)
}

/** What the diode isolator of a lane takes off, V. */
export const isolatorDropV = ({ link }: AlternatorLane): number => (link.kind === 'diode' ? link.dropV : 0)

export type Speed = 'idle' | 'cruise'

/** What a warm alternator has left for charging at a speed, A: hot output, held to a fitted limit, less the vehicle's own draw. */
export function availableA(alternator: View<'alternators'>, speed: Speed, rules: ShopRules): number {
  const output = hotOutputA(alternator.ratedA, shaftRpm(alternator, speed), rules.hotOutputShare / 100)
  return Math.max(0, Math.min(output, alternator.limitA) - alternator.vehicleDrawA)
}

/** Air around an alternator of this craft, °C: an open engine space afloat, else under a bonnet. */
export const airAroundC = (job: JobDocument): number => (job.job.craft === 'vessel' ? openSpaceC : underBonnetC)

/** Fits that were made, by readings, then by what else they depend on: the rating and the air around the machine. */
const fits = new WeakMap<readonly CaseReading[], Map<string, AlternatorHeat | null>>()
/** Heat of an alternator as its readings say; null where there are none that say anything. */
export function measuredHeat(alternator: View<'alternators'>): AlternatorHeat | null {
  const { temperatureReadings: readings, ratedA } = alternator
  if (!readings) return null
  const airC = airAroundC(alternator.$scene.job)
  const key = `${ratedA} ${airC}`
  const ofReadings = fits.get(readings) ?? new Map<string, AlternatorHeat | null>()
  fits.set(readings, ofReadings)
  if (!ofReadings.has(key)) ofReadings.set(key, fitHeat(readings, ratedA, airC)?.heat ?? null)
  return ofReadings.get(key)!
}

/** Its shaft speed, rpm. */
export const shaftRpm = (alternator: View<'alternators'>, speed: Speed): number => Math.min((speed === 'idle' ? alternator.idleRpm : alternator.cruiseRpm) * alternator.pulleyRatio, 15_000)

/** What it gives all day at a speed without passing the limit of its case, A: by its readings, else the shop's share of its rating. */
export function allDayOutputA(alternator: View<'alternators'>, speed: Speed, rules: ShopRules): number {
  const heat = measuredHeat(alternator)
  if (heat) return Math.min(loadAtCaseA(caseLimitC, alternator.ratedA, shaftRpm(alternator, speed), airAroundC(alternator.$scene.job), heat), hotOutputA(alternator.ratedA, shaftRpm(alternator, speed), rules.hotOutputShare / 100))
  return (alternator.ratedA * (speed === 'idle' ? rules.alternatorIdleShare : rules.alternatorCruiseShare)) / 100
}

/** How that limit is known, and how it reads in a formula. */
export function allDayWords(alternator: View<'alternators'>, speed: Speed, rules: ShopRules): { readonly origin: Origin; readonly formula: string } {
  if (measuredHeat(alternator)) return { origin: { kind: 'measured', text: `readings of its case, limit ${caseLimitC} °C at ${speed}` }, formula: `${formatQuantity(allDayOutputA(alternator, speed, rules), 'A')} by its readings` }
  const share = speed === 'idle' ? rules.alternatorIdleShare : rules.alternatorCruiseShare
  return { origin: { kind: 'rule', text: `shop rule: ${share} % of rated at ${speed}, less the vehicle’s own draw` }, formula: `${formatQuantity(alternator.ratedA, 'A')} × ${share} %` }
}

/** What it may give to charging all day at a speed, A: {@link allDayOutputA} less the vehicle's own draw. */
export const allDayA = (alternator: View<'alternators'>, speed: Speed, rules: ShopRules): number =>
  Math.max(0, allDayOutputA(alternator, speed, rules) - alternator.vehicleDrawA)

/** The speed at which it has less to give all day. */
export const tighterSpeed = (alternator: View<'alternators'>, rules: ShopRules): Speed =>
  allDayA(alternator, 'idle', rules) <= allDayA(alternator, 'cruise', rules) ? 'idle' : 'cruise'

/** What it may give to charging all day whatever its speed, A: the lesser of idle and cruise. */
export const allDayBudgetA = (alternator: View<'alternators'>, rules: ShopRules): number => allDayA(alternator, tighterSpeed(alternator, rules), rules)

/** Current the bank would draw through a straight link if the alternator held its voltage, A: (Vreg − drop − OCV) ÷ total resistance. */
export function demandA(lane: AlternatorLane, soc: number, { bank, rules }: System): number {
  return Math.max(0, (lane.alternator.regulatorV - isolatorDropV(lane) - bank.ocv(soc)) / (bank.ohm + cableOhm(lane, rules)))
}

/** Current that flows straight through, A: the least of what is asked, what is there, and what a duty-cycling relay lets pass on average. */
export const acceptanceA = (lane: AlternatorLane, soc: number, speed: Speed, system: System): number =>
  Math.min(demandA(lane, soc, system), availableA(lane.alternator, speed, system.rules), lane.link.kind === 'duty' ? lane.link.opensAboveA : Infinity)

/** Lowest voltage at which an alternator feeds a DC-DC for any length of time, V: its dips where a computer controls it. */
export const feedingV = (alternator: View<'alternators'>): number => (alternator.regulator === 'computer' ? alternator.lowestV : alternator.regulatorV)

/** Input of a DC-DC at full output: current, A, and the voltage left at its terminals after the cable, V. I = V_out·I_out ÷ (η·V_in). */
export function dcdcInput(lane: AlternatorLane, { rules }: System): { readonly amps: number; readonly volts: number } {
  const watts = (lane.link.absorptionV * lane.link.ratedA) / (rules.dcdcEfficiency / 100)
  const source = feedingV(lane.alternator)
  const ohm = cableOhm(lane, rules)
  // V² − V·source + P·R = 0; without a solution the cable cannot carry that power, and half the source is the most it can keep.
  const volts = (source + Math.sqrt(Math.max(0, source * source - 4 * watts * ohm))) / 2
  return { amps: watts / volts, volts }
}

/** Whether an alternator reaches the bank without a DC-DC between. */
export const isStraight = ({ link }: AlternatorLane): boolean => link.kind !== 'dcdc' && link.kind !== 'none'

/** Open-circuit voltage of a string on the coldest bright morning, V, and as a multiple of the label's at 25 °C. */
export function coldOpenCircuitV(solar: View<'solar'>, coldestC: number): { readonly volts: number; readonly factor: number } {
  const factor = 1 + (solar.vocPerC / 100) * Math.max(0, 25 - coldestC)
  return { volts: solar.openCircuitV * solar.series * factor, factor }
}

/** Power on the label of an array, W. */
export const arrayW = (solar: View<'solar'>): number => solar.panelW * solar.series * solar.parallel

/** Largest current a lane can push into the bank, A. */
export function laneCurrentA(lane: Lane, system: System): number {
  if (lane.kind === 'charger') return lane.charger.ratedA
  if (lane.kind === 'source') return lane.source.largestA
  if (lane.kind === 'solar') return Math.min(lane.solar.ratedA, arrayW(lane.solar) / system.bank.lowV)
  if (lane.link.kind === 'none') return 0
  return lane.link.kind === 'dcdc' ? lane.link.ratedA : acceptanceA(lane, system.rules.lowSoc / 100, 'cruise', system)
}
