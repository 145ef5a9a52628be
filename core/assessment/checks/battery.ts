import { socAtOpenCircuitV } from '../../physics/lfp'
import { formatQuantity as q, formatShare } from '../../units/format'
import { check, number, word } from '../check'
import type { RemedyRef } from '../remedies'
import type { System } from '../system'

const chemistryNames = { lfp: 'LFP', nmc: 'NMC or cobalt', other: 'other lithium' } as const

export const chemistry = check({
  id: 'battery.chemistry',
  title: 'Chemistry',
  about: 'battery',
  why: 'Other lithium chemistries burn fiercely when they fail and feed their own fire. All rules here are for LFP.',
  judge(_subject, { bank }) {
    const kind = bank.each.chemistry
    const suits = kind === 'lfp'
    return {
      verdict: suits ? 'suits' : 'does-not-suit',
      compared: [word('battery is', chemistryNames[kind]), word('must be', 'LFP')],
      limit: { kind: 'physics', text: 'thermal runaway of other lithium chemistries' },
      formula: () => (suits ? 'LFP = LFP' : `${chemistryNames[kind]} ≠ LFP`),
      summary: () => (suits ? 'The battery is lithium iron phosphate.' : `The battery is ${chemistryNames[kind]}; only LFP is fitted here.`),
      remedies: suits ? [] : [{ id: 'battery.other', on: 'candidate' }],
    }
  },
})

/** Highest sustained discharge current, A: DC loads at once and each inverter at full power from a bank that is low. */
export function highestDischargeA({ bank, many, one, rules }: System): { readonly amps: number; readonly inverterA: number; readonly watts: number; readonly atV: number } {
  const atV = bank.ocv(rules.lowSoc / 100)
  const inverterA = many.inverters.reduce((sum, inverter) => sum + inverter.continuousW / (atV * (inverter.efficiency / 100)), 0)
  const watts = many.inverters.reduce((sum, inverter) => sum + inverter.continuousW, 0)
  return { amps: one.use.dcAtOnceA + inverterA, inverterA, watts, atV }
}

export const discharge = check({
  id: 'battery.discharge',
  title: 'Discharge current',
  about: 'battery',
  why: 'Past its protection current the battery switches everything off at once, lights and radio with it.',
  judge(_subject, system) {
    const { bank, one, rules } = system
    const { amps, inverterA, watts, atV } = highestDischargeA(system)
    const over = amps > bank.continuousA
    const needed = Math.ceil(amps / ((bank.each.continuousA * rules.sharing) / 100))
    const moreAllowed = needed <= bank.each.mostParallel
    const leftW = watts * ((bank.continuousA - one.use.dcAtOnceA) / Math.max(inverterA, 1e-9))
    const remedies: RemedyRef[] = !over ? [] : [
      ...(moreAllowed ? [{ id: 'battery.more-parallel', on: 'candidate', value: needed } as const] : []),
      ...(leftW > 0 && inverterA > 0 ? [{ id: 'inverter.limit', on: 'inverters', value: Math.floor(leftW / 50) * 50 } as const] : []),
      { id: 'battery.other', on: 'candidate' },
    ]
    return {
      verdict: !over ? 'suits' : moreAllowed ? 'suits-once-changed' : 'does-not-suit',
      compared: [number('loads draw', amps, 'A'), number('battery gives', bank.continuousA, 'A')],
      limit: bank.each.$origin('continuousA'),
      formula: () => `${q(one.use.dcAtOnceA, 'A')} DC${inverterA > 0 ? ` + ${q(watts, 'W')} ÷ (${q(atV, 'V')} × efficiency) = ${q(inverterA, 'A')}` : ''} = ${q(amps, 'A')}; BMS ${q(bank.each.continuousA, 'A')} × ${bank.each.parallel}${bank.sharing < 1 ? ` × ${formatShare(bank.sharing)} sharing` : ''} = ${q(bank.continuousA, 'A')}`,
      summary: () => `The loads draw up to ${q(amps, 'A')} and the battery gives ${q(bank.continuousA, 'A')}${over ? `: ${q(amps - bank.continuousA, 'A')} too much` : ''}.`,
      remedies,
    }
  },
})

export const voltageDevices = check({
  id: 'battery.voltage-devices',
  title: 'Set by voltage',
  about: 'device',
  why: 'Lithium holds its voltage almost to the end: what was set for lead says “full” until the lights go out.',
  judge({ device, name }, system) {
    const { bank, rules } = system
    const restSoc = socAtOpenCircuitV(device.tripV, bank.nominalV)
    const loadA = highestDischargeA(system).amps
    const loadSoc = socAtOpenCircuitV(device.tripV + loadA * bank.ohm, bank.nominalV)
    const [low, high] = [rules.deviceTripLow / 100, rules.deviceTripHigh / 100]
    const useful = restSoc >= low && loadSoc <= high
    const wrong = restSoc < low ? 'too late to be of use' : 'with energy to spare'
    return {
      verdict: useful ? 'suits' : 'suits-once-changed',
      compared: [number('trips at', restSoc * 100, '%'), number(restSoc < low ? 'useful from' : 'useful up to', (restSoc < low ? low : high) * 100, '%')],
      limit: { kind: 'rule', text: 'shop rule: the charge at which a voltage device is useful' },
      formula: () => `${q(device.tripV, 'V')} on LFP is ${formatShare(restSoc)} at rest, ${formatShare(loadSoc)} with ${q(loadA, 'A')} flowing`,
      summary: () => (useful ? `${name} at ${q(device.tripV, 'V')} acts near ${formatShare(restSoc)} charge.` : `${name} at ${q(device.tripV, 'V')} acts at ${formatShare(restSoc)} charge: ${wrong}.`),
      remedies: useful ? [] : [{ id: 'device.replace-by-monitor', on: device.$path }],
    }
  },
})
