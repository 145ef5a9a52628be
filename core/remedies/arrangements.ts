import { loopOhm } from '#core/physics/conductors'
import type { ShopRules } from '#core/rules/rules'
import { sureBudgetA } from '#core/system/alternators'
import type { Bank } from '#core/system/bank'
import { dcdcOutputA } from '#core/system/currents'
import {
  cableOhm,
  isolatorDropV,
  isStraight,
  loopOhmThere,
  type AlternatorLane,
  type ChargeUnit,
  type Lane,
} from '#core/system/lanes'
import { sizeForOhm } from '#core/system/cables'
import type { View } from '#core/system/scene'
import { keepsOwnLead, batteryOnOutput } from '#core/system/output'
import type { System } from '#core/system/system'
import { sumOf, type Giving } from '#core/system/together'
import { chargerSizesA, dcdcSizesA, leastSizeA, sizeUnder, type RemedyRef, type ValuedRef } from './catalogue'

const isMainsCharger = (unit: ChargeUnit): boolean => 'feeds' in unit

/** A lithium unit in its place, of the largest usual size under a limit. */
export const replacement = (unit: ChargeUnit, bank: Bank, limitA = bank.targetA): ValuedRef => ({
  id: 'charger.replace',
  on: unit.$path,
  value: isMainsCharger(unit) ? sizeUnder(limitA, chargerSizesA) : sizeUnder(limitA),
  values: { absorptionV: bank.middleV },
})

/**
 * A lithium unit in its place that gives as much: of the smallest usual size from the rating of the old unit on, and
 * no more than the battery should get.
 */
export function likeForLike(unit: ChargeUnit, bank: Bank): RemedyRef {
  const ownA = unit.$entered('ratedA')
  const sizes = isMainsCharger(unit) ? chargerSizesA : dcdcSizesA
  const nextA = typeof ownA === 'number' ? (sizes.find((size) => size >= ownA) ?? ownA) : bank.targetA
  return replacement(unit, bank, Math.min(nextA, bank.targetA))
}

/** Whether the voltages of a unit can be set, or chosen with a profile. */
export const canBeSet = ({ profile }: ChargeUnit): boolean =>
  profile === 'adjustable' || profile === 'selectable'

/** Remedies for wrong voltages: set them, set the profile, or replace the unit. */
export function voltageRemedies(unit: ChargeUnit, bank: Bank, setting: RemedyRef): RemedyRef[] {
  const replace = likeForLike(unit, bank)
  if (unit.profile === 'adjustable') return [setting, replace]
  if (unit.profile === 'selectable')
    return [{ id: 'charger.use-lithium-profile', on: unit.$path, value: bank.middleV }, replace]
  return [replace]
}

type HeldUnit = Pick<ChargeUnit, 'currentLimit' | '$path'>
/** Whether the current of a unit can be set. */
export const canBeHeld = ({ currentLimit }: HeldUnit): boolean => currentLimit === 'adjustable'
/** A unit set to a current, A, in whole amperes. */
export const limitTo = ({ $path }: HeldUnit, limitA: number): RemedyRef => ({
  id: 'charger.limit-current',
  on: $path,
  value: Math.floor(limitA),
})
/** A unit set to a current, A, if it can be set and something of it is left. */
export const heldToCurrent = (unit: HeldUnit, limitA: number): RemedyRef[] =>
  canBeHeld(unit) && limitA >= 1 ? [limitTo(unit, limitA)] : []

/** A unit held to a current, or one in its place that gives no more; another battery where none is made so small. */
export function limitCurrent(unit: ChargeUnit, bank: Bank, limitA: number): RemedyRef[] {
  const smaller = replacement(unit, bank, limitA)
  return [
    ...heldToCurrent(unit, limitA),
    smaller.value <= limitA ? smaller : { id: 'battery.other', on: 'candidate' },
  ]
}

/** The start signal of a new DC-DC: a wire, unless the shop trusts voltage and no computer moves it. */
export const runningSignal = (
  { alternator }: AlternatorLane,
  { signalSchool }: ShopRules,
): { readonly signal: 'wire' | 'voltage' } => ({
  signal: signalSchool === 'voltage' && alternator.regulator !== 'computer' ? 'voltage' : 'wire',
})

/**
 * A DC-DC in place of the link, sized so that neither the battery nor the alternator is asked for more than
 * it may give.
 */
export function addDcdc(lane: AlternatorLane, system: System, mostA = system.bank.targetA): ValuedRef {
  const { bank, rules } = system
  const budgetA = dcdcOutputA(lane, sureBudgetA(lane.alternator, rules), bank.middleV, system)
  return {
    id: 'dcdc.add',
    on: lane.link.$path,
    value: sizeUnder(Math.min(bank.targetA, mostA, budgetA)),
    values: {
      absorptionV: bank.middleV,
      inputV: lane.alternator.nominalV,
      outputV: String(bank.nominalV),
      ...runningSignal(lane, rules),
    },
  }
}

/**
 * The existing DC-DC limited to the alternator's all-day current, or a smaller one in its place; null if the
 * alternator gives too little for any.
 */
export function smallerDcdc(lane: AlternatorLane, system: System): RemedyRef | null {
  const { link, alternator } = lane
  const budgetA = sureBudgetA(alternator, system.rules)
  const fitsA = Math.floor(dcdcOutputA(lane, budgetA, link.absorptionV, system))
  const [held] = heldToCurrent(link, fitsA)
  if (held) return held
  if (fitsA < leastSizeA) return null
  const values = { absorptionV: link.absorptionV }
  return { id: 'charger.replace', on: link.$path, value: sizeUnder(fitsA), values }
}

/** Nothing charges from an alternator that has nothing to give. */
export const unjoined = ({ link }: AlternatorLane): RemedyRef => ({ id: 'link.unjoined', on: link.$path })

/** The longest cable that anyone lays for its resistance alone, m. */
const longestCableM = 15

/** Resistance of a run of 25 mm² there and back, mΩ a metre. */
const mohmPerM = loopOhm({ lengthM: 1, areaMm2: 25, returnBy: 'cable' }) * 1000

/**
 * Ways to limit an alternator to its own limit and the battery's: the shop's school first. If a computer controls
 * it, or the voltages differ, only a DC-DC helps.
 * @param mostA largest current into the battery, A
 */
export function holdBack(lane: AlternatorLane, system: System, mostA = system.bank.largestA): RemedyRef[] {
  const { bank, rules } = system
  const { alternator, link } = lane
  const dcdc = addDcdc(lane, system, mostA)
  const dcdcFits = dcdc.value <= mostA
  if (alternator.regulator === 'computer' || Number(alternator.nominalV) !== bank.nominalV)
    return dcdcFits ? [dcdc] : [{ id: 'battery.other', on: 'candidate' }]
  const chargeA = Math.max(1, Math.floor(Math.min(mostA, sureBudgetA(alternator, rules))))
  const loopOhm = Math.max(
    0,
    (alternator.regulatorV - isolatorDropV(lane) - bank.ocv(rules.lowSoc / 100)) / chargeA - bank.ohm,
  )
  const cableM = Math.ceil(((loopOhm * 1000) / mohmPerM) * 10) / 10
  // Behind a DC-DC the alternator has its own battery alone, not the lead of the house.
  const losesLead = batteryOnOutput(lane, system) !== null && !keepsOwnLead(lane)
  // A limit on the current lowers the voltage as well: it must still reach the window.
  const arrivesV =
    alternator.regulatorV - isolatorDropV(lane) - bank.tailA * (cableOhm(lane, rules) + loopOhm)
  const isCableUseful = cableM > 0.5 && cableM <= longestCableM && arrivesV >= bank.lowV
  const ways: Readonly<Record<typeof rules.alternatorSchool, readonly RemedyRef[]>> = {
    dcdc: dcdcFits && !losesLead ? [dcdc] : [],
    // Each time it opens, something must be left on the alternator.
    duty: keepsOwnLead(lane) ? [{ id: 'link.duty', on: link.$path, value: chargeA }] : [],
    regulator: [
      {
        id: 'alternator.limit-current',
        on: alternator.$path,
        value: Math.floor(chargeA + alternator.vehicleDrawA),
      },
    ],
    cable: isCableUseful ? [{ id: 'link.cable', on: link.$path, value: cableM }] : [],
  }
  return [...new Set([ways[rules.alternatorSchool], ...Object.values(ways)])].flat()
}

/**
 * Limits one source so that the total stays within a limit: the largest first.
 * @param giving sources that charge at the same time
 * @param mostA limit of the total, A
 */
export function oneHeldBack(giving: readonly Giving[], mostA: number, system: System): RemedyRef[] {
  const overA = sumOf(giving) - mostA
  return giving
    .toSorted((a, b) => b.amps - a.amps)
    .flatMap(({ lane, amps }) => heldTo(lane, Math.floor(amps - overA), system))
}

/** A source held to a current, A, where that leaves something of it and it can be held. */
function heldTo(lane: Lane, amps: number, system: System): RemedyRef[] {
  if (amps < 1 || lane.kind === 'source') return []
  if (lane.kind === 'alternator' && isStraight(lane)) return holdBack(lane, system, amps)
  const unit = lane.kind === 'charger' ? lane.charger : lane.kind === 'solar' ? lane.solar : lane.link
  return heldToCurrent(unit, amps)
}

/**
 * The worst cable of a run, thick enough that all of it has less resistance by this much; null if there is none,
 * or no usual size does.
 * @param sparedOhm negative: this much too much, Ω
 */
export function thickerCable(
  cables: readonly View<'conductors'>[],
  sparedOhm: number,
  { rules }: System,
): RemedyRef | null {
  const [worst] = cables.toSorted((a, b) => loopOhmThere(b, rules) - loopOhmThere(a, rules))
  if (!worst) return null
  const value = sizeForOhm(worst, loopOhmThere(worst, rules) + sparedOhm, rules.cableC)
  return value === null ? null : { id: 'cable.thicker', on: worst.$path, value }
}
