import { inSentence, joinText, type Write } from '#core/units/format'
import { warmerPlace } from '#core/remedies/warmer-place'
import { canBeSet, limitCurrent, replacement } from '#core/remedies/arrangements'
import { nightOn, runOf } from '#core/assessment/foresight'
import { check, number, physics, word, type Judgement } from '#core/assessment/check'
import { inputsOf } from '#core/simulation/inputs'
import { broughtAhOf, type Totals } from '#core/simulation/totals'
import { chargerSupplyW, sharesBus } from '#core/system/energy'
import type { ShopRules } from '#core/rules/rules'
import type { Bank } from '#core/system/bank'
import type { View } from '#core/system/scene'
import type { System } from '#core/system/system'
import type { RemedyRef } from '#core/remedies/catalogue'

/** Why a night on mains does not fill the battery: the BMS refuses, the voltage is too low, or the loads take it. */
function whyNotFull(totals: Totals, volts: number, system: System): string {
  const { bank, q } = system
  if (totals.coldRefusedH > 0)
    return inputsOf(system, 'mains-night').coldC < bank.coldLimitC
      ? `the BMS refuses charge under ${q(bank.coldLimitC, '°C')}`
      : `the BMS refuses charge above ${q(bank.each.chargeHotC, '°C')}`
  if (volts < bank.lowV) return `${q(volts, 'V')} is below the window, which starts at ${q(bank.lowV, 'V')}`
  if (totals.cutOuts > 0) return 'the BMS cuts out on the way'
  return `it delivers ${q(totals.mainsAh, 'Ah')} and the loads use ${q(totals.loadAh, 'Ah')}`
}

type Against = Pick<Judgement, 'compared' | 'limit'>

interface Supply {
  /** Drawn at the end of bulk, where it is the most, A. */
  readonly drawsA: number
  /** Output of the supply if that is less, A. */
  readonly tooSmallA: number | null
}

function supplyOf(charger: View<'chargers'>): Supply {
  const drawsA = chargerSupplyW(charger) / charger.supplyV
  const { supplyLimitA } = charger
  return { drawsA, tooSmallA: supplyLimitA !== null && drawsA > supplyLimitA ? supplyLimitA : null }
}

const supplyWords = (
  { ratedA, absorptionV, efficiency, powerFactor, supplyV }: View<'chargers'>,
  q: Write,
): string =>
  joinText(
    `supply ${q(absorptionV, 'V')} × ${q(ratedA, 'A')} `,
    `÷ (${efficiency} % × ${powerFactor} × ${q(supplyV, 'V')})`,
  )

/** Less current where the supply gives too little; a larger charger, or a charge now and then, where it is slow. */
function timeRemedies(
  unit: View<'chargers'>,
  { drawsA, tooSmallA }: Supply,
  isSlow: boolean,
  bank: Bank,
): RemedyRef[] {
  const mostA = tooSmallA === null ? null : Math.max(1, (unit.ratedA * tooSmallA) / Math.max(0.1, drawsA))
  const larger = replacement(unit, bank)
  return [
    ...(mostA === null ? [] : limitCurrent(unit, bank, mostA)),
    ...(isSlow && larger.value > unit.ratedA ? [larger] : []),
    ...(isSlow ? [{ id: 'charger.top-up', on: unit.$path } as const] : []),
  ]
}

/** Whether a night on mains fills the battery, up to the verb that follows. */
function fillsWords(totals: Totals, volts: number, system: System): string {
  const { rules, q } = system
  const from = `the battery from ${rules.lowChargeFrom} %`
  return totals.fullAfterH === null
    ? `does not fill ${from} in a day with the loads on: ${whyNotFull(totals, volts, system)}. It`
    : `fills ${from} in ${q(totals.fullAfterH, 'h')} with the loads on, and`
}

/** Hours to full against the longest that the shop allows. */
const againstLongest = (hours: number | null, { chargeHoursMost }: ShopRules): Against => ({
  compared: [
    hours === null ? word('to full', 'not reached in a day') : number('to full', hours, 'h'),
    number('at most', chargeHoursMost, 'h'),
  ],
  limit: { kind: 'rule', text: 'shop rule: longest charge from low to full on mains' },
})

/** Power drawn from the supply, against its limit. */
const againstSupply = (charger: View<'chargers'>, drawsA: number, givesA: number): Against => ({
  compared: [number('draws from the supply', drawsA, 'A'), number('supply gives', givesA, 'A')],
  limit: charger.$origin('supplyLimitA'),
})

const time = check({
  id: 'charger.time',
  title: 'Hours to full on mains',
  about: 'unit',
  foretells: true,
  takesTime: true,
  why: 'A charger with correct voltages can still be too slow for one night.',
  judge({ lane, name }, system) {
    const { q } = system
    if (lane.kind !== 'charger') return null
    const { bank, rules, many } = system
    const { charger } = lane
    const { ratedA, absorptionV: volts } = charger
    const totals = nightOn(lane, system)
    const hours = totals.fullAfterH
    const slow = hours === null || hours > rules.chargeHoursMost
    const supply = supplyOf(charger)
    const { drawsA: supplyA, tooSmallA } = supply
    const takes = hours === null ? 'more than a day' : q(hours, 'h')
    return {
      verdict: slow || tooSmallA !== null ? 'suits-once-changed' : 'suits',
      ...(tooSmallA === null ? againstLongest(hours, rules) : againstSupply(charger, supplyA, tooSmallA)),
      formula: () =>
        joinText(
          `run “mains night” from ${rules.lowChargeFrom} %, `,
          `loads on, ${q(ratedA, 'A')} up to ${q(volts, 'V')}: `,
          hours === null ? 'not full' : `full after ${q(hours, 'h')}`,
          `; ${supplyWords(charger, q)} = ${q(supplyA, 'A')}`,
        ),
      summary: () =>
        joinText(
          `${name} ${fillsWords(totals, volts, system)} draws ${q(supplyA, 'A')} from the supply`,
          tooSmallA === null ? '' : `, which gives ${q(tooSmallA, 'A')}`,
          '.',
        ),
      remedies: timeRemedies(charger, supply, slow, bank),
      cautions: () =>
        many.generators.length > 0 ? [`From the generator that takes ${takes} of running.`] : [],
    }
  },
})

/** The heater in a cold week. */
interface ColdWeek {
  readonly totals: Totals
  readonly days: number
  /** Charge is refused on the first day, h. */
  readonly refusedH: number
  readonly runs: boolean
  /** No source runs it, although the charge is refused. */
  readonly never: boolean
  /** A day's heat and charge, Ah. */
  readonly heatAh: number
  readonly broughtAh: number
  /** It takes as much as is charged. */
  readonly dear: boolean
}

function coldWeek(system: System): ColdWeek {
  // The coldest is asked for where it is unknown; a run's own inputs are not.
  const { coldestC } = system.one.place
  const air = { coldC: coldestC, warmC: coldestC + 4 }
  const { coldRefusedH: refusedH } = runOf(system, 'cold-week', { ...air, days: 1 })
  const totals = runOf(system, 'cold-week', air)
  const days = totals.hours / 24
  const heatAh = totals.heaterWh / days / system.bank.nominalV
  const broughtAh = broughtAhOf(totals) / days
  const runs = totals.heaterWh >= 1
  const never = refusedH > 0 && !runs
  return { totals, days, refusedH, runs, never, heatAh, broughtAh, dear: runs && heatAh >= broughtAh }
}

function coldWeekWords(week: ColdWeek, q: Write): string {
  const { totals, refusedH, runs, never, heatAh, broughtAh, dear } = week
  if (never)
    return joinText(
      'In a cold week no source runs the heater: ',
      `charge is refused for ${q(refusedH, 'h')} on the first day.`,
    )
  if (!runs) return 'In a cold week no source charges the battery, so the heater stays off.'
  const heat = `In a cold week the heater uses ${q(heatAh, 'Ah')} a day`
  return dear
    ? `${heat}. ${sourceWords(totals)} delivers only ${q(broughtAh, 'Ah')} a day.`
    : joinText(
        `${heat}, mostly from ${inSentence(sourceWords(totals))}. `,
        `On the first day the charge begins after ${q(refusedH, 'h')}.`,
      )
}

const heater = check({
  id: 'cold.heater',
  title: 'Warming the cells',
  about: 'battery',
  foretells: true,
  takesTime: true,
  why: joinText(
    'The heater uses the same source as the charge. ',
    'On a cold day it runs first, and a short drive may end before charging starts.',
  ),
  judge(_subject, system) {
    const { q } = system
    const { bank, one, rules } = system
    // Without a cut nothing holds the charge off while the cells are cold: cold.charge-cut says so.
    const { heater, coldCut } = bank.each
    if (heater !== 'yes' || coldCut !== 'yes' || one.place.coldestC >= bank.coldLimitC) return null
    const watts = bank.each.heaterW * bank.count
    const week = coldWeek(system)
    const { totals, days, refusedH, heatAh, broughtAh, dear } = week
    const fails = refusedH > rules.heaterMostH || week.never || dear
    return {
      verdict: fails ? 'suits-once-changed' : 'suits',
      compared: dear
        ? [number('heat a day', heatAh, 'Ah'), number('charge a day', broughtAh, 'Ah')]
        : [number('charge refused', refusedH, 'h'), number('at most', rules.heaterMostH, 'h')],
      limit: dear
        ? physics
        : { kind: 'rule', text: 'shop rule: longest wait for a heater before the charge begins' },
      formula: () =>
        joinText(
          `run “cold week” from ${q(one.place.coldestC, '°C')}: `,
          `charge refused for ${q(refusedH, 'h')} on the first day; `,
          `mean of a day ${q(watts, 'W')} into ${q(bank.kg, 'kg')}: `,
          `${q(totals.heaterWh / days, 'Wh')} ÷ ${q(bank.nominalV, 'V')} `,
          `= ${q(heatAh, 'Ah')} for heat, ${q(broughtAh, 'Ah')} charged`,
        ),
      summary: () => coldWeekWords(week, q),
      remedies: fails
        ? [...warmerPlace(Math.ceil(bank.coldLimitC), system), { id: 'battery.other', on: 'candidate' }]
        : [],
    }
  },
})

/** The source that brought the most. */
function sourceWords({ engineAh, mainsAh, solarAh, sourceAh }: Totals): string {
  const most = Math.max(engineAh, mainsAh, solarAh, sourceAh)
  if (most === mainsAh) return 'Mains'
  if (most === engineAh) return 'The engine'
  return most === solarAh ? 'The sun' : 'The other source'
}

const gassing = check({
  id: 'mixed.gassing',
  title: 'Lead above gassing, and below full',
  about: 'battery',
  foretells: true,
  takesTime: true,
  why: joinText(
    'Next to lithium, lead is held at a high voltage for hours, ',
    'then stays below full for days. Both shorten its life.',
  ),
  judge(_subject, system) {
    const { q } = system
    const { rules } = system
    if (!sharesBus(system)) return null
    const charger = system.lanes.find((lane) => lane.kind === 'charger')
    const mainsH = charger ? charger.charger.hours : 0
    const totals = runOf(system, 'driving-day', { days: 1, mainsH })
    const hours = totals.leadGassingH
    const floats = charger && charger.charger.floatMode === 'on' && canBeSet(charger.charger)
    const over = hours > rules.leadGassingMostH
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [number('above gassing', hours, 'h'), number('a day at most', rules.leadGassingMostH, 'h')],
      limit: { kind: 'rule', text: 'shop rule: most hours a day above gassing' },
      formula: () =>
        joinText(
          `run “driving day” with ${q(mainsH, 'h')} on mains: `,
          `${q(hours, 'h')} of ${q(totals.hours, 'h')} above its gassing voltage; `,
          'the lithium was ',
          totals.fullAfterH === null ? 'not full in that time' : `full after ${q(totals.fullAfterH, 'h')}`,
        ),
      summary: () =>
        joinText(
          `On a driving day the lead spends ${q(hours, 'h')} `,
          `of ${q(totals.hours, 'h')} above its gassing voltage`,
          totals.fullAfterH === null
            ? ', and neither battery fills'
            : `; until ${q(totals.fullAfterH, 'h')} it stays below full while the lithium fills`,
          '.',
        ),
      remedies: over
        ? [
            ...(floats ? [{ id: 'charger.float-off', on: charger.id } as const] : []),
            { id: 'mixed.separate', on: 'use' },
          ]
        : [],
    }
  },
})

export const checks = [time, heater, gassing] as const
