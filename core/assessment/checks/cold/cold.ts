import { firstOf } from '#core/collections/held'
import { mostWarmerK, warmerPlace } from '#core/remedies/warmer-place'
import { holdBack, limitCurrent } from '#core/remedies/arrangements'
import { formatShare, joinText, nameInSentence } from '#core/units/format'
import { check, number, type Judgement } from '#core/assessment/check'
import { dailyUse, parallelFor, usableAh, usableAtAh, usableColdAh, workingC } from '#core/system/energy'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { Bank } from '#core/system/bank'
import { laneCurrentA } from '#core/system/currents'
import type { Origin } from '#core/system/facts'
import { hoursOf, type Lane } from '#core/system/lanes'
import { allowsParallel } from '#core/system/more-batteries'
import type { System } from '#core/system/system'

const chargeCut = check({
  id: 'cold.charge-cut',
  title: 'Charging in the cold',
  about: 'lane',
  why: 'Charging LFP below its limit plates lithium on the cells. The damage is permanent and a later risk.',
  judge({ lane, name }, system) {
    const { bank, one, rules, q } = system
    const { coldestC } = one.place
    const limitC = bank.coldLimitC
    const limit: Origin =
      limitC === bank.each.coldLimitC
        ? bank.each.$origin('coldLimitC')
        : { kind: 'rule', text: 'shop rule: 0 °C for everything' }
    const base = {
      compared: [number('coldest', coldestC, '°C'), number('no charging below', limitC, '°C')] as const,
      limit,
      formula: () =>
        coldestC >= limitC
          ? `${q(coldestC, '°C')} is ${q(coldestC - limitC, '°C')} above the limit of ${q(limitC, '°C')}`
          : joinText(
              `${q(coldestC, '°C')} is ${q(limitC - coldestC, '°C')} under the limit of ${q(limitC, '°C')}, `,
              `for up to ${q(hoursOf(lane, rules), 'h')} of charge a day`,
            ),
    }
    if (coldestC >= limitC)
      return {
        ...base,
        verdict: 'suits',
        summary: () =>
          `The battery stays at ${q(coldestC, '°C')} or warmer; charging is allowed from ${q(limitC, '°C')}.`,
      }
    const refused: RefusedCharge = { lane, name, system, base }
    if (bank.each.coldCut !== 'yes') return chargedInTheCold(refused)
    return bank.each.heater === 'yes' ? heatedFirst(refused) : refusedByBms(refused)
  },
})

/** Shared by the judgements of charging below the limit. */
interface RefusedCharge {
  readonly lane: Lane
  readonly name: string
  readonly system: System
  readonly base: Pick<Judgement, 'compared' | 'limit' | 'formula'>
}

/** The BMS refuses the charge until the heater has warmed the cells. */
function heatedFirst({ name, system: { bank, one, q }, base }: RefusedCharge): Judgement {
  return {
    ...base,
    verdict: 'suits',
    summary: () =>
      joinText(
        `At ${q(one.place.coldestC, '°C')} the BMS refuses charge from ${nameInSentence(name)} `,
        `until the heater has warmed the cells above ${q(bank.coldLimitC, '°C')}.`,
      ),
    cautions: () => [`The heater uses ${nameInSentence(name)} first, so charging starts late on a cold day.`],
  }
}

function refusedByBms({ lane, name, system, base }: RefusedCharge): Judgement {
  const { one, rules, q } = system
  return {
    ...base,
    verdict: 'suits-once-changed',
    remedies: [{ id: 'cold.heater', on: 'candidate' }, ...warmth(system)],
    summary: () =>
      joinText(
        `At ${q(one.place.coldestC, '°C')} the BMS refuses all charge from ${nameInSentence(name)}: `,
        `up to ${q(hoursOf(lane, rules), 'h')} a day are lost.`,
      ),
    cautions: () => [
      'Do not rely on the BMS: it is the last protection, and the source keeps charging against it.',
    ],
  }
}

function chargedInTheCold({ name, system, base }: RefusedCharge): Judgement {
  const { bank, one, q } = system
  return {
    ...base,
    verdict: 'does-not-suit',
    remedies: [...warmth(system), { id: 'battery.other', on: 'candidate' }],
    summary: () =>
      joinText(
        `At ${q(one.place.coldestC, '°C')} ${nameInSentence(name)} would charge the cells, `,
        `which must not be charged below ${q(bank.coldLimitC, '°C')}. `,
        bank.each.heater === 'yes'
          ? 'Neither the heater nor the BMS stops the charge.'
          : 'The BMS does not stop it.',
      ),
  }
}

/** A place that stays above the limit; a starting battery can also be of lead over the winter. */
const warmth = (system: System): readonly RemedyRef[] => [
  ...warmerPlace(system.bank.coldLimitC, system),
  ...(system.bank.each.purpose === 'starter' ? [{ id: 'start.winter-lead', on: 'candidate' } as const] : []),
]

/**
 * Charge rate allowed at a cell temperature as a share of C, and where that comes from: never more than the largest.
 * Between the bands there are steps, as makers give them.
 */
function allowedRate(
  celsius: number,
  bank: Bank,
  hotShare: number,
): { readonly share: number; readonly origin: Origin } {
  const largest = { share: bank.largestA / bank.ah, origin: bank.each.$origin('largestChargeA') }
  const band = bandAt(celsius, bank, hotShare)
  return band && band.share < largest.share ? band : largest
}

/** The band of reduced charge that a temperature lies in; null if the battery takes its largest current. */
function bandAt(
  celsius: number,
  { each }: Bank,
  hotShare: number,
): { readonly share: number; readonly origin: Origin } | null {
  if (celsius < 5) return { share: each.band0To5C, origin: each.$origin('band0To5C') }
  if (celsius < 10) return { share: each.band5To10C, origin: each.$origin('band5To10C') }
  if (celsius <= 45) return null
  return {
    share: celsius <= 55 ? hotShare : 0,
    origin: { kind: 'rule', text: 'shop rule: charge rate from 45 to 55 °C, none above' },
  }
}

const rate = check({
  id: 'cold.rate',
  title: 'Charge rate when cold or hot',
  about: 'lane',
  why: joinText(
    'Cold cells accept charge slowly, and hot cells age from it. ',
    'A source at full current does not reduce itself.',
  ),
  judge({ lane, name }, system) {
    const { q } = system
    const { bank, one, rules } = system
    const amps = laneCurrentA(lane, system)
    // Below the limit nothing may be charged at all, which is cold.charge-cut; the coldest that may is the
    // limit itself. A heater brings the cells to its own temperature before they are charged.
    const warmedC = bank.each.heater === 'yes' ? bank.each.heaterStartC : -Infinity
    // Nor is anything charged above the maker's limit, which is battery.hot.
    const hottestC = Math.min(one.place.hottestC, bank.each.chargeHotC)
    const temperatures = [Math.max(one.place.coldestC, bank.coldLimitC, warmedC), hottestC]
    const [cold, hot] = temperatures.map((celsius) => ({
      celsius,
      ...allowedRate(celsius, bank, rules.hotBand45To55C),
    })) as [RateAt, RateAt]
    const tighter = hot.share < cold.share ? hot : cold
    const allowedA = tighter.share * bank.ah
    const over = amps > allowedA
    const tooHot = over && tighter.share === 0
    return {
      verdict: !over ? 'suits' : tooHot ? 'does-not-suit' : 'suits-once-changed',
      compared: [number('gives', amps, 'A'), number(`allowed at ${q(tighter.celsius, '°C')}`, allowedA, 'A')],
      limit: tighter.origin,
      formula: () =>
        joinText(
          `${formatShare(tighter.share)} of ${q(bank.ah, 'Ah')} `,
          `at ${q(tighter.celsius, '°C')} = ${q(allowedA, 'A')}; `,
          `${nameInSentence(name)} gives ${q(amps, 'A')}`,
        ),
      summary: () =>
        over
          ? joinText(
              `At ${q(tighter.celsius, '°C')} the battery accepts ${q(allowedA, 'A')}, `,
              `and ${nameInSentence(name)} delivers ${q(amps, 'A')}.`,
            )
          : joinText(
              `${name} delivers ${q(amps, 'A')}, which the battery accepts `,
              `from ${q(cold.celsius, '°C')} to ${q(hot.celsius, '°C')}.`,
            ),
      remedies: () =>
        over ? rateRemedies(lane, allowedA, tighter === cold && amps <= bank.largestA, system) : [],
    }
  },
})

/** State of charge at which a pack at rest is near its under-voltage cut. */
const nearlyEmpty = 0.02

/** The drains on a laid-up battery, and how long it lasts. */
interface Rest {
  /** Taken by the batteries themselves, by the vehicle, and by self-discharge in a week. */
  readonly ownA: number
  readonly vehicleA: number
  readonly leaksAh: number
  /** Left above the under-voltage cut, Ah. */
  readonly storedAh: number
  /** How long that lasts at a current, weeks. */
  readonly weeksAt: (amps: number) => number
}

function restOf({ bank, many, rules }: System): Rest {
  const vehicleA = many.startingBatteries.reduce(
    (sum, starting) => sum + (starting.present === 'no' ? starting.standbyA : 0),
    0,
  )
  const ownA = (bank.each.standbyMa * bank.each.parallel) / 1000
  const leaksAh = (bank.ah * rules.selfDischarge) / 100 / (365.25 / 12 / 7)
  const storedAh = bank.ah * (rules.layupSoc / 100 - nearlyEmpty)
  return { ownA, vehicleA, leaksAh, storedAh, weeksAt: (amps) => storedAh / (amps * 168 + leaksAh) }
}

const openSwitch: RemedyRef = { id: 'layup.disconnect', on: 'candidate' }
const topUpEvery = (weeks: number): RemedyRef => ({
  id: 'layup.top-up',
  on: 'use',
  value: Math.max(1, Math.floor(weeks)),
})

const layup = check({
  id: 'cold.layup',
  title: 'Lay-up',
  about: 'battery',
  why: 'A small draw over the winter empties the battery below its cut-off. It may not wake again.',
  judge(_subject, system) {
    const { one, rules, q } = system
    if (one.use.layupWeeks === 0) return null
    const rests = rules.layupSchool === 'rest'
    const { ownA, vehicleA, leaksAh, storedAh, weeksAt } = restOf(system)
    const weeks = weeksAt(ownA + (rests ? 0 : vehicleA))
    const wanted = one.use.layupWeeks * (1 + rules.layupMargin / 100)
    const short = weeks < wanted
    const helpsToOpen = !rests && weeksAt(ownA) >= wanted
    return {
      verdict: short ? 'suits-once-changed' : 'suits',
      compared: [number('lasts', weeks, 'weeks'), number('laid up, with a margin', wanted, 'weeks')],
      limit: one.use.$origin('layupWeeks'),
      formula: () =>
        joinText(
          `${q(storedAh, 'Ah')} from ${rules.layupSoc} % ÷ ((${q(ownA * 1000, 'mA')}`,
          rests ? '' : ` + ${q(vehicleA * 1000, 'mA')} of the vehicle`,
          `) × 168 h + ${q(leaksAh, 'Ah')} self-discharge) = ${q(weeks, 'weeks')}; `,
          `${q(one.use.layupWeeks, 'weeks')} + ${rules.layupMargin} %`,
        ),
      summary: () =>
        joinText(
          `Left at ${rules.layupSoc} % and `,
          rests ? 'disconnected' : 'connected',
          `, it lasts ${q(weeks, 'weeks')}; the lay-up is ${q(one.use.layupWeeks, 'weeks')}`,
          rests && vehicleA > 0
            ? `. Left connected it would last ${q(weeksAt(ownA + vehicleA), 'weeks')}`
            : '',
          '.',
        ),
      remedies: short
        ? [...(helpsToOpen ? [openSwitch] : []), topUpEvery(weeks / (1 + rules.layupMargin / 100))]
        : [],
      cautions: () => ['In lay-up, check the battery every month. Do not leave it on a charger that floats.'],
    }
  },
})

/** Less current where it can be had; a warmer place where warmth alone would do. */
function rateRemedies(lane: Lane, allowedA: number, warmthHelps: boolean, system: System): RemedyRef[] {
  const { bank } = system
  const warmer: RemedyRef[] = warmthHelps ? warmerPlace(10, system) : []
  if (lane.kind === 'alternator' && lane.link.kind !== 'dcdc') {
    return [...warmer, ...holdBack(lane, system, Math.max(1, allowedA))]
  }
  if (lane.kind === 'source') return [...warmer, { id: 'battery.other', on: 'candidate' }]
  const unit = lane.kind === 'charger' ? lane.charger : lane.kind === 'solar' ? lane.solar : lane.link
  const less = limitCurrent(unit, bank, allowedA)
  const [first, ...others] = [firstOf(less), ...less.slice(1)]
  return first.id === 'charger.limit-current' ? [first, ...warmer] : [...warmer, first, ...others]
}

type RateAt = { celsius: number; share: number; origin: Origin }

/** A place that stays as warm as a heated room, °C. */
const warmPlaceC = 15

const capacityInCold = check({
  id: 'cold.capacity',
  title: 'Capacity in the cold',
  about: 'battery',
  why: 'At −20 °C a fifth or more of the capacity is missing. The heater runs longest on the coldest night.',
  judge(_subject, system) {
    const { q } = system
    const { bank, one } = system
    if (bank.each.purpose === 'starter') return null
    const use = dailyUse(system)
    const chargingH = Math.max(0, ...system.lanes.map((lane) => Math.min(hoursOf(lane, system.rules), 24)))
    const needAh = (use.ah * (24 - chargingH)) / 24
    const ah = usableColdAh(system)
    const celsius = workingC(system)
    const tooCold = celsius < bank.each.dischargeColdC
    const short = tooCold || ah < needAh
    const needed = parallelFor(needAh, system, celsius)
    const more: readonly RemedyRef[] =
      !tooCold && allowsParallel(needed, system)
        ? [{ id: 'battery.more-parallel', on: 'candidate', value: needed }]
        : []
    const warmC = Math.min(warmPlaceC, celsius + mostWarmerK)
    const isEnoughWarm = warmC >= bank.each.dischargeColdC && usableAtAh(system, warmC) >= needAh
    const warm = isEnoughWarm ? warmerPlace(warmC, system) : []
    const remedies = [...warm, ...more]
    return {
      verdict: !short ? 'suits' : 'suits-once-changed',
      compared: tooCold
        ? [number('coldest', celsius, '°C'), number('no discharge below', bank.each.dischargeColdC, '°C')]
        : [number(`usable at ${q(celsius, '°C')}`, ah, 'Ah'), number('used between charges', needAh, 'Ah')],
      limit: tooCold ? bank.each.$origin('dischargeColdC') : one.place.$origin('coldestC'),
      formula: () =>
        joinText(
          `${q(usableAh(system), 'Ah')} usable at 25 °C → ${q(ah, 'Ah')} at ${q(celsius, '°C')}; `,
          `used ${q(use.ah, 'Ah')} a day × ${q(24 - chargingH, 'h')} `,
          `without charge ÷ 24 = ${q(needAh, 'Ah')}`,
        ),
      summary: () =>
        tooCold
          ? joinText(
              `At ${q(celsius, '°C')} the battery delivers nothing: `,
              `its maker allows no discharge below ${q(bank.each.dischargeColdC, '°C')}.`,
            )
          : `At ${q(celsius, '°C')} ${q(ah, 'Ah')} are usable; between charges ${q(needAh, 'Ah')} are used.`,
      remedies: !short ? [] : remedies.length > 0 ? remedies : [{ id: 'battery.other', on: 'candidate' }],
    }
  },
})

export const checks = [chargeCut, rate, layup, capacityInCold] as const
