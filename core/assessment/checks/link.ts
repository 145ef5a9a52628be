import { socAtOpenCircuitV } from '../../physics/lfp'
import { formatQuantity as q, formatShare } from '../../units/format'
import { check, mid, number } from '../check'
import { acceptanceA, availableA, cableOhm, demandA } from '../system'
import { addDcdc, atBatteryV } from './alternator'

export const vsrNeverOpens = check({
  id: 'link.vsr-never-opens',
  title: 'Relay opens at rest',
  about: 'alternator',
  why: 'Lithium rests above the voltage at which such a relay opens, so the house bank carries the starting side day and night.',
  judge({ lane, name }, system) {
    const { link } = lane
    if (link.kind !== 'vsr') return null
    const { bank, rules, one } = system
    const [lowRestV, highRestV] = [bank.ocv(rules.restLow / 100), bank.ocv(rules.restHigh / 100)]
    const opens = link.opensV >= highRestV
    const heldDownTo = socAtOpenCircuitV(link.opensV, bank.nominalV)
    const ahLostPerDay = (): number => (one.startingBattery.standbyA + rules.leadFloatC * one.startingBattery.ah) * 24
    return {
      verdict: opens ? 'suits' : 'does-not-suit',
      compared: [number('lithium rests at', highRestV, 'V'), number('relay opens below', link.opensV, 'V')],
      limit: link.$origin('opensV'),
      formula: () => opens
        ? `${q(highRestV, 'V')} at ${rules.restHigh} % ≤ ${q(link.opensV, 'V')}: opens`
        : `rests at ${q(lowRestV, 'V')} to ${q(highRestV, 'V')} (${rules.restLow} to ${rules.restHigh} %) > ${q(link.opensV, 'V')}; (${Math.round(one.startingBattery.standbyA * 1000)} + ${Math.round(rules.leadFloatC * one.startingBattery.ah * 1000)} mA) × 24 h = ${q(ahLostPerDay(), 'Ah')} a day`,
      summary: () => opens
        ? `The relay of ${mid(name)} opens at ${q(link.opensV, 'V')}, above where lithium rests.`
        : `The relay opens below ${q(link.opensV, 'V')} and lithium rests at ${q(highRestV, 'V')}: it stays closed down to ${formatShare(heldDownTo)} and loses ${q(ahLostPerDay(), 'Ah')} a day.`,
      remedies: opens ? [] : [addDcdc(lane, system)],
    }
  },
})

export const vsrNeverCloses = check({
  id: 'link.vsr-never-closes',
  title: 'Relay closes and holds',
  about: 'alternator',
  why: 'A relay that never closes gives no charge; one that drops out under the lithium’s pull chatters until it burns.',
  judge({ lane, name }, system) {
    const { link, alternator } = lane
    if (link.kind !== 'vsr') return null
    const { bank, rules } = system
    const soc = rules.lowSoc / 100
    const reachesV = alternator.regulatorV
    const takesA = acceptanceA(lane, soc, 'idle', system)
    const limited = demandA(lane, soc, system) > availableA(alternator, 'idle', rules)
    const busV = limited ? bank.ocv(soc) + takesA * (bank.ohm + cableOhm(lane, rules)) : reachesV
    const closes = reachesV >= link.closesV
    const holds = busV > link.opensV
    return {
      verdict: closes && holds ? 'suits' : 'does-not-suit',
      compared: closes && !holds
        ? [number('lithium pulls it to', busV, 'V'), number('relay opens below', link.opensV, 'V')]
        : [number('alternator reaches', reachesV, 'V'), number('relay closes at', link.closesV, 'V')],
      limit: link.$origin(closes && !holds ? 'opensV' : 'closesV'),
      formula: () => `reaches ${q(reachesV, 'V')}, closes at ${q(link.closesV, 'V')}; with lithium at ${formatShare(soc)} on it and ${q(takesA, 'A')} at idle: ${q(busV, 'V')}, opens below ${q(link.opensV, 'V')}`,
      summary: () => !closes ? `${name} reaches ${q(reachesV, 'V')} and the relay closes at ${q(link.closesV, 'V')}: it never closes.`
        : !holds ? `Lithium pulls the relay’s side down to ${q(busV, 'V')}, and it opens below ${q(link.opensV, 'V')}: it chatters.`
        : `${name} reaches ${q(reachesV, 'V')}; the relay closes at ${q(link.closesV, 'V')} and holds.`,
      remedies: closes && holds ? [] : [addDcdc(lane, system)],
    }
  },
})

export const diode = check({
  id: 'link.diode',
  title: 'Drop of the diode isolator',
  about: 'alternator',
  why: 'Lead forgives half a volt less; lithium under its window is never full.',
  judge({ lane, name }, system) {
    const { link } = lane
    if (link.kind !== 'diode') return null
    const { bank, rules } = system
    const volts = atBatteryV(lane, system)
    const without = volts + link.dropV
    const takenOut = volts < bank.lowV
    const lowLossV = without - rules.lowLossDropV
    const swapped = takenOut && lowLossV >= bank.lowV && lowLossV <= bank.highV
    return {
      verdict: !takenOut ? 'suits' : swapped ? 'suits-once-changed' : 'does-not-suit',
      compared: [number('behind the isolator', volts, 'V'), number('charge at least', bank.lowV, 'V')],
      limit: bank.each.$origin('chargeLowV'),
      formula: () => `${q(without, 'V')} − ${q(link.dropV, 'V')} = ${q(volts, 'V')}${takenOut ? `, ${q(bank.lowV - volts, 'V')} under` : ''}; with a low-loss one ${q(lowLossV, 'V')}`,
      summary: () => takenOut
        ? `The isolator takes ${q(link.dropV, 'V')} off ${mid(name)}: ${q(volts, 'V')} is left and the battery wants ${q(bank.lowV, 'V')}.`
        : `The isolator takes ${q(link.dropV, 'V')} off ${mid(name)}, and ${q(volts, 'V')} is still enough.`,
      remedies: !takenOut ? [] : [...(swapped ? [{ id: 'link.low-loss-isolator', on: link.$path, value: rules.lowLossDropV } as const] : []), addDcdc(lane, system)],
    }
  },
})
