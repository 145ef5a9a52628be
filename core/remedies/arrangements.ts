import { loopOhm } from '#core/physics/conductors'
import type { ShopRules } from '#core/rules/rules'
import { sureBudgetA } from '#core/system/alternators'
import type { Bank } from '#core/system/bank'
import { dcdcOutputA } from '#core/system/currents'
import { isolatorDropV, loopOhmThere, type AlternatorLane, type ChargeUnit } from '#core/system/lanes'
import { sizeForOhm } from '#core/system/cables'
import type { View } from '#core/system/scene'
import type { System } from '#core/system/system'
import { sizeUnder, type RemedyRef } from './catalogue'

/** A lithium unit in its place, of the largest usual size under a limit. */
export const replacement = (unit: ChargeUnit, bank: Bank, limitA = bank.wishedA): RemedyRef => ({
  id: 'charger.replace',
  on: unit.$path,
  value: sizeUnder(limitA),
  values: { absorptionV: bank.middleV },
})

/** What a new DC-DC starts on: a wire, unless the shop trusts voltage and no computer moves it. */
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
export function addDcdc(lane: AlternatorLane, system: System, mostA = system.bank.wishedA): RemedyRef {
  const { bank, rules } = system
  const budgetA = dcdcOutputA(lane, sureBudgetA(lane.alternator, rules), bank.middleV, system)
  return {
    id: 'dcdc.add',
    on: lane.link.$path,
    value: sizeUnder(Math.min(bank.wishedA, mostA, budgetA)),
    values: {
      absorptionV: bank.middleV,
      inputV: lane.alternator.nominalV,
      outputV: String(bank.nominalV),
      ...runningSignal(lane, rules),
    },
  }
}

/** The DC-DC that is there held to what the alternator gives all day, or a smaller one in its place. */
export function smallerDcdc(lane: AlternatorLane, system: System): RemedyRef {
  const { link, alternator } = lane
  const budgetA = sureBudgetA(alternator, system.rules)
  const fitsA = Math.floor(dcdcOutputA(lane, budgetA, link.absorptionV, system))
  return link.currentLimit === 'adjustable'
    ? { id: 'charger.limit-current', on: link.$path, value: Math.max(1, fitsA) }
    : {
        id: 'charger.replace',
        on: link.$path,
        value: sizeUnder(fitsA),
        values: { absorptionV: link.absorptionV },
      }
}

/** Resistance of a run of 25 mm² there and back, mΩ a metre. */
const mohmPerM = loopOhm({ lengthM: 1, areaMm2: 25, returnBy: 'cable' }) * 1000

/**
 * Ways to hold an alternator to what it and the battery may give and take: the shop's school first, the
 * others after it. Where a computer controls it, or the voltages differ, a DC-DC alone helps.
 * @param mostA what the battery may take, A
 */
export function holdBack(lane: AlternatorLane, system: System, mostA = system.bank.largestA): RemedyRef[] {
  const { bank, rules } = system
  const { alternator, link } = lane
  const dcdc = addDcdc(lane, system, mostA)
  if (alternator.regulator === 'computer' || Number(alternator.nominalV) !== bank.nominalV) return [dcdc]
  const chargeA = Math.max(1, Math.floor(Math.min(mostA, sureBudgetA(alternator, rules))))
  const loopOhm = Math.max(
    0,
    (alternator.regulatorV - isolatorDropV(lane) - bank.ocv(rules.lowSoc / 100)) / chargeA - bank.ohm,
  )
  const ways: Readonly<Record<typeof rules.alternatorSchool, RemedyRef>> = {
    dcdc,
    duty: { id: 'link.duty', on: link.$path, value: chargeA },
    regulator: {
      id: 'alternator.limit-current',
      on: alternator.$path,
      value: Math.floor(chargeA + alternator.vehicleDrawA),
    },
    cable: { id: 'link.cable', on: link.$path, value: Math.round(((loopOhm * 1000) / mohmPerM) * 10) / 10 },
  }
  const first = ways[rules.alternatorSchool]
  return [
    first,
    ...Object.values(ways).filter((way) => way !== first && (way.id !== 'link.cable' || way.value! > 0.5)),
  ]
}

/**
 * The worst cable of a run, thick enough that all of it has less resistance by so much; null where there is none,
 * or no usual size does.
 * @param sparedOhm negative: so much too much, Ω
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
