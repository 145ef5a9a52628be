import { firstOf } from '#core/collections/held'
import { limitCurrent } from '#core/remedies/arrangements'
import { joinText } from '#core/units/format'
import { check, number, type Judgement } from '#core/assessment/check'
import { chargerSupplyW, generatorW } from '#core/system/energy'
import { type ChargeUnit } from '#core/system/lanes'
import type { System } from '#core/system/system'

/** A unit's current against the charge current of the bank: one rule for chargers and DC-DC units. */
export function currentAgainstBank(unit: ChargeUnit, name: string, { bank, q }: System): Judgement {
  const amps = unit.ratedA
  const recommended = bank.targetField === 'recommendedChargeA'
  const limitA = bank.targetA
  const over = amps > limitA
  const settable = unit.currentLimit === 'adjustable'
  const hopeless = amps > bank.largestA && !settable
  return {
    verdict: !over ? 'suits' : hopeless ? 'does-not-suit' : 'suits-once-changed',
    compared: [
      number('gives', amps, 'A'),
      number(recommended ? 'battery recommends' : 'battery allows', limitA, 'A'),
    ],
    limit: bank.each.$origin(bank.targetField),
    formula: () =>
      over
        ? joinText(
            `${q(amps, 'A')} − ${q(limitA, 'A')} = ${q(amps - limitA, 'A')} over; `,
            `largest ${q(bank.largestA, 'A')}`,
          )
        : `${q(limitA, 'A')} − ${q(amps, 'A')} = ${q(limitA - amps, 'A')} to spare`,
    summary: () =>
      joinText(
        `${name} delivers ${q(amps, 'A')}; the battery `,
        recommended ? 'should get' : 'may get',
        ` ${q(limitA, 'A')}`,
        over ? '' : ' or less',
        '.',
      ),
    remedies: () => (over ? limitCurrent(unit, bank, limitA) : []),
  }
}

export const current = check({
  id: 'charger.current',
  title: 'Charge current',
  about: 'unit',
  why: joinText(
    'More current than the battery allows trips its BMS. ',
    'More than the maker recommends shortens its life.',
  ),
  judge: ({ unit, name, lane }, system) =>
    lane.kind === 'charger' || lane.kind === 'solar' ? currentAgainstBank(unit, name, system) : null,
})

const generator = check({
  id: 'charger.generator',
  title: 'Charger on the generator',
  about: 'unit',
  why: joinText(
    'A charger at full current draws more than its rated watts. ',
    'The generator sags, trips, or runs hot for hours.',
  ),
  judge({ unit, lane, name }, system) {
    const { many, q } = system
    if (lane.kind !== 'charger' || many.generators.length === 0) return null
    const givesW = generatorW(system)
    const drawsW = chargerSupplyW(lane.charger)
    const over = drawsW > givesW
    const fitsA = Math.floor((unit.ratedA * givesW) / drawsW)
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [number('draws', drawsW, 'W'), number('generator gives', givesW, 'W')],
      limit: firstOf(many.generators).$origin('watts'),
      formula: () =>
        joinText(
          `${q(unit.absorptionV, 'V')} × ${q(unit.ratedA, 'A')} ÷ `,
          `(${lane.charger.efficiency} % × ${lane.charger.powerFactor}) = ${q(drawsW, 'W')}`,
        ),
      summary: () =>
        `${name} draws ${q(drawsW, 'W')} at full current; the generator delivers ${q(givesW, 'W')}.`,
      remedies: () => (over ? limitCurrent(unit, system.bank, fitsA) : []),
    }
  },
})

export const checks = [current, generator] as const
