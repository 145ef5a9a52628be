import { formatQuantity as q, formatShare } from '../../units/format'
import { check, mid, number } from '../check'
import type { RemedyRef } from '../remedies'
import type { Origin } from '../scene'
import { laneCurrentA, type Bank, type Lane, type System } from '../system'
import { replacement } from './charger'

const hoursOf = (lane: Lane): number => (lane.kind === 'charger' ? lane.charger.hours : lane.alternator.driveHours)

export const chargeCut = check({
  id: 'cold.charge-cut',
  title: 'Charging in the cold',
  about: 'lane',
  why: 'Charging LFP below its limit plates lithium on the cells: damage that stays, and a risk later.',
  judge({ lane, name }, { bank, one }) {
    const { coldestC } = one.place
    const limitC = bank.each.coldLimitC
    const base = {
      compared: [number('coldest', coldestC, '°C'), number('no charging below', limitC, '°C')] as const,
      limit: bank.each.$origin('coldLimitC'),
      formula: () => (coldestC >= limitC ? `${q(coldestC, '°C')} is ${q(coldestC - limitC, '°C')} above the limit of ${q(limitC, '°C')}` : `${q(coldestC, '°C')} is ${q(limitC - coldestC, '°C')} under the limit of ${q(limitC, '°C')}, for up to ${q(hoursOf(lane), 'h')} of charge a day`),
    }
    if (coldestC >= limitC) return { ...base, verdict: 'suits', summary: () => `The battery stays at ${q(coldestC, '°C')} or warmer; charging is allowed from ${q(limitC, '°C')}.` }
    if (bank.each.heater === 'yes') {
      return { ...base, verdict: 'suits', summary: () => `It gets to ${q(coldestC, '°C')}, and the battery is warmed before it charges.`, cautions: () => [`The heater takes its share from ${mid(name)} first: charging starts late on a cold day.`] }
    }
    const warm: readonly RemedyRef[] = [{ id: 'cold.heater', on: 'candidate' }, { id: 'cold.warmer-place', on: 'place', value: limitC }]
    if (bank.each.coldCut === 'yes') {
      return {
        ...base, verdict: 'suits-once-changed', remedies: warm,
        summary: () => `At ${q(coldestC, '°C')} the BMS refuses all charge from ${mid(name)}: up to ${q(hoursOf(lane), 'h')} a day are lost.`,
        cautions: () => ['The BMS is the last line, not the plan: it guards the cells while the source keeps pushing.'],
      }
    }
    return {
      ...base, verdict: 'does-not-suit', remedies: [...warm, { id: 'battery.other', on: 'candidate' }],
      summary: () => `At ${q(coldestC, '°C')} ${mid(name)} would charge cells that must not be charged below ${q(limitC, '°C')}, and the BMS does not stop it.`,
    }
  },
})

/** Charge rate allowed at a cell temperature as a share of C, and where that comes from. Between the bands there are steps, as makers give them. */
export function allowedRate(celsius: number, bank: Bank, hotShare: number): { readonly share: number; readonly origin: Origin } {
  if (celsius < 5) return { share: bank.each.band0To5C, origin: bank.each.$origin('band0To5C') }
  if (celsius < 10) return { share: bank.each.band5To10C, origin: bank.each.$origin('band5To10C') }
  if (celsius <= 45) return { share: bank.largestA / bank.ah, origin: bank.each.$origin('largestChargeA') }
  return { share: celsius <= 55 ? hotShare : 0, origin: { kind: 'rule', text: 'shop rule: charge rate from 45 to 55 °C, none above' } }
}

export const rate = check({
  id: 'cold.rate',
  title: 'Charge rate when cold or hot',
  about: 'lane',
  why: 'Cold cells take charge slowly and hot ones age by it; a source that pushes full current does not know.',
  judge({ lane, name }, system) {
    const { bank, one, rules } = system
    const amps = laneCurrentA(lane, system)
    // Below the limit nothing may be charged at all, which is cold.charge-cut; the coldest that may is the limit itself.
    const temperatures = [Math.max(one.place.coldestC, bank.each.coldLimitC), one.place.hottestC]
    const [cold, hot] = temperatures.map((celsius) => ({ celsius, ...allowedRate(celsius, bank, rules.hotBand45To55C) })) as [RateAt, RateAt]
    const tighter = hot.share < cold.share ? hot : cold
    const allowedA = tighter.share * bank.ah
    const over = amps > allowedA
    const tooHot = over && tighter.share === 0
    return {
      verdict: !over ? 'suits' : tooHot ? 'does-not-suit' : 'suits-once-changed',
      compared: [number('gives', amps, 'A'), number(`allowed at ${q(tighter.celsius, '°C')}`, allowedA, 'A')],
      limit: tighter.origin,
      formula: () => `${formatShare(tighter.share)} of ${q(bank.ah, 'Ah')} at ${q(tighter.celsius, '°C')} = ${q(allowedA, 'A')}; ${mid(name)} gives ${q(amps, 'A')}`,
      summary: () => over
        ? `At ${q(tighter.celsius, '°C')} the battery may take ${q(allowedA, 'A')} and ${mid(name)} gives ${q(amps, 'A')}.`
        : `${name} gives ${q(amps, 'A')}, within what the battery may take from ${q(cold.celsius, '°C')} to ${q(hot.celsius, '°C')}.`,
      remedies: over ? rateRemedies(lane, allowedA, tighter === cold && amps <= bank.largestA, system) : [],
    }
  },
})

/** Less current where it can be had; a warmer place where warmth alone would do. */
function rateRemedies(lane: Lane, allowedA: number, warmthHelps: boolean, { bank }: System): RemedyRef[] {
  const warmer: RemedyRef[] = warmthHelps ? [{ id: 'cold.warmer-place', on: 'place', value: 10 }] : []
  if (lane.kind === 'alternator' && lane.link.kind !== 'dcdc') {
    return [...warmer, { id: 'alternator.limit-current', on: lane.alternator.$path, value: Math.max(1, Math.floor(allowedA + lane.alternator.vehicleDrawA)) }]
  }
  const unit = lane.kind === 'charger' ? lane.charger : lane.link
  if (allowedA < 1) return [...warmer, { id: 'battery.other', on: 'candidate' }]
  return unit.currentLimit === 'adjustable'
    ? [{ id: 'charger.limit-current', on: unit.$path, value: Math.floor(allowedA) }, ...warmer]
    : [...warmer, replacement(unit, bank, allowedA)]
}

type RateAt = { celsius: number; share: number; origin: Origin }
