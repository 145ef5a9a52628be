import { durationWords, formatShare, joinText } from '#core/units/format'
import { check, number, word } from '#core/assessment/check'
import { fewestParallel, highestDischargeA, surgeA, usableAh, type Demand } from '#core/system/energy'
import type { RemedyRef } from '#core/remedies/catalogue'
import { allowsParallel } from '#core/system/more-batteries'
import type { System } from '#core/system/system'

const other: RemedyRef = { id: 'battery.other', on: 'candidate' }

/** Minutes a bank gives a current, from full to its usable floor. */
const minutesAt = (amps: number, system: System): number => (usableAh(system) / amps) * 60

/**
 * Remedies for a current that is too large: more batteries if the maker allows them, less from the inverters,
 * another battery.
 */
export function tooMuch(needed: number, leftW: number | null, system: System): readonly RemedyRef[] {
  return [
    ...(allowsParallel(needed, system)
      ? [{ id: 'battery.more-parallel', on: 'candidate', value: needed } as const]
      : []),
    ...(leftW !== null && leftW > 0
      ? [{ id: 'inverter.limit', on: 'inverters', value: Math.floor(leftW / 50) * 50 } as const]
      : []),
    other,
  ]
}

/** Current of this many batteries together, at this many amperes each, A. */
const givenBy = (count: number, eachA: number, { rules }: System): number =>
  count > 1 ? (count * eachA * rules.sharing) / 100 : eachA

/** An inverter held to this share of its power is still the inverter that the customer has. */
const nearlyAll = 0.9

/** Power that the inverters may give with this many amperes at a voltage, W; null without inverters. */
export const inverterW = ({ watts, takenW }: Demand, amps: number, volts: number): number | null =>
  watts === 0 ? null : (Math.max(0, amps * volts) * watts) / takenW

const discharge = check({
  id: 'battery.discharge',
  title: 'Discharge current',
  about: 'battery',
  why: 'Above its protection current the battery disconnects everything at once, lights and radio included.',
  judge(_subject, system) {
    const { q } = system
    const { bank, rules } = system
    const demand = highestDischargeA(system)
    const { amps, dcA, inverterA, takenW, volts } = demand
    const over = amps > bank.continuousA
    const needed = fewestParallel(
      demand,
      system,
      (under, count) => under.amps <= givenBy(count, bank.each.continuousA, system),
    )
    const leftV = bank.ocv(rules.lowSoc / 100) - bank.continuousA * bank.ohm
    const leftW = inverterW(demand, bank.continuousA - dcA, leftV)
    const isNearly = leftW !== null && leftW >= nearlyAll * demand.watts
    const isCurable = isNearly || allowsParallel(needed, system)
    return {
      verdict: !over ? 'suits' : isCurable ? 'suits-once-changed' : 'does-not-suit',
      compared: [number('loads draw', amps, 'A'), number('battery delivers', bank.continuousA, 'A')],
      limit: bank.each.$origin('continuousA'),
      formula: () =>
        joinText(
          `${q(dcA, 'A')} DC`,
          inverterA > 0 ? ` + ${q(inverterA, 'A')} (${q(takenW, 'W')} ÷ ${q(volts, 'V')} under load)` : '',
          ` = ${q(amps, 'A')}; BMS ${q(bank.each.continuousA, 'A')} × ${bank.each.parallel}`,
          bank.sharing < 1 ? ` × ${formatShare(bank.sharing)} sharing` : '',
          ` = ${q(bank.continuousA, 'A')}`,
        ),
      summary: () =>
        joinText(
          `The loads draw up to ${q(amps, 'A')}. The battery can deliver ${q(bank.continuousA, 'A')}`,
          over ? `, so it falls ${q(amps - bank.continuousA, 'A')} short` : '',
          over ? `. At that current it would last ${durationWords(minutesAt(amps, system) / 60)}` : '',
          '.',
        ),
      remedies: over ? tooMuch(needed, leftW, system) : [],
    }
  },
})

const surge = check({
  id: 'battery.surge',
  title: 'Surge current',
  about: 'battery',
  why: joinText(
    'Motors and inverters draw several times their current when they start. ',
    'A BMS faster than the surge cuts out.',
  ),
  judge(_subject, system) {
    const { q } = system
    const { bank } = system
    const demand = surgeA(system)
    const { amps, seconds, volts, takenW } = demand
    if (seconds === 0) return null
    const long = seconds > bank.each.peakS
    const givesA = long ? bank.continuousA : bank.peakA
    const over = amps > givesA
    const eachA = long ? bank.each.continuousA : Math.max(bank.each.peakA, bank.each.continuousA)
    const needed = fewestParallel(
      demand,
      system,
      (under, count) => under.amps <= givenBy(count, eachA, system),
    )
    return {
      verdict: !over ? 'suits' : allowsParallel(needed, system) ? 'suits-once-changed' : 'does-not-suit',
      compared: [
        number('starting draws', amps, 'A'),
        number(long ? 'battery delivers' : `battery gives for ${q(bank.each.peakS, 's')}`, givesA, 'A'),
      ],
      limit: bank.each.$origin(long ? 'continuousA' : 'peakA'),
      formula: () =>
        joinText(
          `${q(amps, 'A')} for ${q(seconds, 's')}`,
          takenW > 0 ? ` at ${q(volts, 'V')} under load; ` : '; ',
          long ? `the peak of the BMS lasts ${q(bank.each.peakS, 's')}, so its continuous` : 'BMS peak',
          ` ${q(eachA, 'A')} × ${bank.each.parallel}`,
          bank.sharing < 1 ? ` × ${formatShare(bank.sharing)}` : '',
          ` = ${q(givesA, 'A')}`,
        ),
      summary: () =>
        joinText(
          `The hardest load draws ${q(amps, 'A')} for ${q(seconds, 's')} when it starts; `,
          `the battery can deliver ${q(givesA, 'A')}`,
          over ? `, ${q(amps - givesA, 'A')} too little` : '',
          '.',
        ),
      remedies: over ? tooMuch(needed, null, system) : [],
    }
  },
})

const inverterCap = check({
  id: 'battery.inverter-cap',
  title: 'Largest inverter',
  about: 'battery',
  why: 'Makers limit the inverter size. Its ripple and surge stress the BMS more than its watts suggest.',
  judge(_subject, system) {
    const { q } = system
    const { bank, many } = system
    if (many.inverters.length === 0) return null
    const { watts, inverterA } = highestDischargeA(system)
    const { mostInverterW: eachW } = bank.each
    const capW = eachW === null ? null : eachW * bank.count
    const over = capW !== null && watts > capW
    const needed = eachW === null ? 1 : Math.ceil(watts / eachW / bank.each.series)
    const minutes = minutesAt(Math.max(inverterA, 1e-9), system)
    return {
      verdict: !over ? 'suits' : allowsParallel(needed, system) ? 'suits-once-changed' : 'does-not-suit',
      compared: [
        number('inverters', watts, 'W'),
        capW === null ? word('maker allows', 'no limit stated') : number('maker allows', capW, 'W'),
      ],
      limit: bank.each.$origin('mostInverterW'),
      formula: () =>
        joinText(
          `${q(watts, 'W')}`,
          eachW === null ? '' : ` against ${q(eachW, 'W')} × ${bank.count}`,
          `; usable ${q(usableAh(system), 'Ah')} ÷ ${q(inverterA, 'A')} `,
          `= ${durationWords(minutes / 60)} at full load`,
        ),
      summary: () =>
        joinText(
          over
            ? `The inverters total ${q(watts, 'W')}, and the maker allows ${q(capW, 'W')}`
            : `The inverters total ${q(watts, 'W')}`,
          `; at full load the battery lasts ${durationWords(minutes / 60)}.`,
        ),
      remedies: over ? tooMuch(needed, capW, system) : [],
    }
  },
})

export const checks = [discharge, surge, inverterCap] as const
