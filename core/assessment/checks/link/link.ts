import { addDcdc } from '#core/remedies/arrangements'
import { socAtOpenCircuitV } from '#core/physics/lfp'
import { formatShare, joinText, nameInSentence } from '#core/units/format'
import { check, number, word } from '#core/assessment/check'
import { availableA } from '#core/system/alternators'
import { acceptanceA, demandA, highestAlternatorV } from '#core/system/currents'
import { cableOhm, isStraight, joinsVoltages } from '#core/system/lanes'
import { batteryOnOutput } from '#core/system/output'
import { atBatteryV } from '../alternator/alternator'

const linkNominal = check({
  id: 'link.nominal',
  title: 'Voltages that the link joins',
  about: 'alternator',
  ofMisjoined: true,
  why: joinText(
    'If you join two voltages directly, ',
    'hundreds of amperes flow into the lower one until something burns.',
  ),
  judge({ lane, name }, system) {
    const { q, bank } = system
    if (!isStraight(lane) || lane.alternator.$entered('nominalV') === null) return null
    const alternatorV = Number(lane.alternator.nominalV)
    const isWrong = joinsVoltages(lane, bank.nominalV)
    return {
      verdict: isWrong ? 'does-not-suit' : 'suits',
      compared: [number('alternator', alternatorV, 'V'), number('house battery', bank.nominalV, 'V')],
      limit: bank.each.$origin('nominalV'),
      formula: () => `${q(alternatorV, 'V')} ${isWrong ? '≠' : '='} ${q(bank.nominalV, 'V')}`,
      summary: () =>
        isWrong
          ? joinText(
              `${name} is a ${alternatorV} V system `,
              `and the house battery is ${bank.nominalV} V. Never join them.`,
            )
          : `${name} and the house battery are both ${alternatorV} V.`,
      remedies: () => (isWrong ? [addDcdc(lane, system)] : []),
    }
  },
})

const vsrNeverOpens = check({
  id: 'link.vsr-never-opens',
  title: 'Does the relay open at rest?',
  topic: 'opening of the relay at rest',
  about: 'alternator',
  why: joinText(
    'Lithium rests above the voltage at which this relay opens. ',
    'The house bank then feeds the starting side day and night.',
  ),
  judge({ lane, name }, system) {
    const { q } = system
    const { link } = lane
    if (link.kind !== 'vsr') return null
    const { bank, rules } = system
    const [lowRestV, highRestV] = [bank.ocv(rules.restLow / 100), bank.ocv(rules.restHigh / 100)]
    const opens = link.opensV >= highRestV
    const drainsToSoc = socAtOpenCircuitV(link.opensV, bank.nominalV)
    const ahLostPerDay = (): number => (lane.starting.standbyA + rules.leadFloatC * lane.starting.ah) * 24
    return {
      verdict: opens ? 'suits' : 'does-not-suit',
      compared: [number('lithium rests at', highRestV, 'V'), number('relay opens below', link.opensV, 'V')],
      limit: link.$origin('opensV'),
      formula: () =>
        opens
          ? `${q(highRestV, 'V')} at ${rules.restHigh} % ≤ ${q(link.opensV, 'V')}: opens`
          : joinText(
              `rests at ${q(lowRestV, 'V')} to ${q(highRestV, 'V')} `,
              `(${rules.restLow} to ${rules.restHigh} %) > ${q(link.opensV, 'V')}; `,
              `(${Math.round(lane.starting.standbyA * 1000)} + `,
              `${Math.round(rules.leadFloatC * lane.starting.ah * 1000)} mA) `,
              `× 24 h = ${q(ahLostPerDay(), 'Ah')} a day`,
            ),
      summary: () =>
        opens
          ? joinText(
              `The relay of ${nameInSentence(name)} opens at ${q(link.opensV, 'V')}, `,
              'above the resting voltage of lithium.',
            )
          : joinText(
              `The relay opens only below ${q(link.opensV, 'V')}, `,
              `but lithium rests at ${q(highRestV, 'V')}. `,
              `It stays closed down to ${formatShare(drainsToSoc)} `,
              `charge and drains ${q(ahLostPerDay(), 'Ah')} a day.`,
            ),
      remedies: () => (opens ? [] : [addDcdc(lane, system)]),
    }
  },
})

const vsrNeverCloses = check({
  id: 'link.vsr-never-closes',
  title: 'Does the relay close and hold?',
  topic: 'closing and holding of the relay',
  about: 'alternator',
  why: joinText(
    'A relay that never closes passes no charge. ',
    'A relay that drops out under the lithium’s current chatters until it burns.',
  ),
  judge({ lane, name }, system) {
    const { q } = system
    const { link, alternator } = lane
    if (link.kind !== 'vsr') return null
    const { bank, rules } = system
    const soc = rules.lowSoc / 100
    const reachesV = highestAlternatorV(alternator)
    const takesA = acceptanceA(lane, soc, 'idle', system)
    const limited = demandA(lane, soc, system) > availableA(alternator, 'idle', rules)
    const busV = limited ? bank.ocv(soc) + takesA * (bank.ohm + cableOhm(lane, rules)) : reachesV
    const closes = reachesV >= link.closesV
    const holds = busV > link.opensV
    return {
      verdict: closes && holds ? 'suits' : 'does-not-suit',
      compared:
        closes && !holds
          ? [number('lithium pulls it to', busV, 'V'), number('relay opens below', link.opensV, 'V')]
          : [number('alternator reaches', reachesV, 'V'), number('relay closes at', link.closesV, 'V')],
      limit: link.$origin(closes && !holds ? 'opensV' : 'closesV'),
      formula: () =>
        joinText(
          `reaches ${q(reachesV, 'V')}, closes at ${q(link.closesV, 'V')}; `,
          `with lithium at ${formatShare(soc)} on it and ${q(takesA, 'A')} at idle: `,
          `${q(busV, 'V')}, opens below ${q(link.opensV, 'V')}`,
        ),
      summary: () =>
        !closes
          ? joinText(
              `${name} reaches ${q(reachesV, 'V')}, `,
              `but the relay closes at ${q(link.closesV, 'V')}. It never closes.`,
            )
          : !holds
            ? joinText(
                `Lithium pulls the relay’s side down to ${q(busV, 'V')}, `,
                `and the relay opens below ${q(link.opensV, 'V')}. It chatters.`,
              )
            : `${name} reaches ${q(reachesV, 'V')}; the relay closes at ${q(link.closesV, 'V')} and holds.`,
      remedies: () => (closes && holds ? [] : [addDcdc(lane, system)]),
    }
  },
})

const diode = check({
  id: 'link.diode',
  title: 'Drop of the diode isolator',
  about: 'alternator',
  why: 'Lead-acid tolerates half a volt less. Lithium below its window never fills.',
  judge({ lane }, system) {
    const { q } = system
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
      formula: () =>
        joinText(
          `${q(without, 'V')} − ${q(link.dropV, 'V')} = ${q(volts, 'V')}`,
          takenOut ? `, ${q(bank.lowV - volts, 'V')} under` : '',
          `; with a low-loss one ${q(lowLossV, 'V')}`,
        ),
      summary: () =>
        joinText(
          `The diode isolator drops ${q(link.dropV, 'V')}. The battery gets ${q(volts, 'V')}`,
          takenOut ? ` and needs ${q(bank.lowV, 'V')}.` : ', which is enough.',
        ),
      remedies: () =>
        !takenOut
          ? []
          : [
              ...(swapped
                ? [{ id: 'link.low-loss-isolator', on: link.$path, value: rules.lowLossDropV } as const]
                : []),
              addDcdc(lane, system),
            ],
    }
  },
})

const rating = check({
  id: 'link.rating',
  title: 'Rating of relay, isolator or switch',
  about: 'alternator',
  why: joinText(
    'Lead-acid drew full current for minutes. ',
    'Lithium draws it for an hour, so warm contacts now weld or burn.',
  ),
  judge({ lane, name }, system) {
    const { q } = system
    const { link } = lane
    if (!isStraight(lane) || link.kind === 'direct' || link.relayA === null) return null
    const { relayA } = link
    const flowsA = acceptanceA(lane, system.rules.lowSoc / 100, 'cruise', system)
    const over = flowsA > relayA
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [number('flows', flowsA, 'A'), number('rated', relayA, 'A')],
      limit: link.$origin('relayA'),
      formula: () =>
        `${q(flowsA, 'A')} at cruise into ${system.rules.lowSoc} % ${over ? '>' : '≤'} ${q(relayA, 'A')}`,
      summary: () =>
        joinText(
          `The link from ${nameInSentence(name)} to the house bank is `,
          `rated ${q(relayA, 'A')} and carries ${q(flowsA, 'A')} at cruise.`,
        ),
      remedies: () =>
        over
          ? [
              { id: 'link.larger', on: link.$path, value: Math.ceil((flowsA * 1.25) / 10) * 10 },
              addDcdc(lane, system),
            ]
          : [],
    }
  },
})

const batterySwitch = check({
  id: 'link.battery-switch',
  title: 'Battery switch off, 1, 2, both',
  about: 'alternator',
  why: joinText(
    'Turning it through Off with the engine running disconnects the alternator. ',
    'On Both, lithium and lead form one bank and feed the starter.',
  ),
  judge({ lane, name }, system) {
    const { link, alternator } = lane
    if (link.kind !== 'switch') return null
    const guarded = batteryOnOutput(lane, system) !== null || alternator.surgeProtector === 'yes'
    return {
      verdict: guarded ? 'suits-once-changed' : 'does-not-suit',
      compared: [
        word('turned through off', guarded ? 'a protector takes the spike' : 'nothing limits the alternator'),
        word('wanted', 'lead that stays on its output'),
      ],
      limit: { kind: 'physics', text: 'the field of an alternator decays slowly' },
      formula: () =>
        joinText(
          'off: alternator open; 1 or 2: one bank alone; ',
          'both: lead and lithium in parallel, on the starter too',
        ),
      summary: () =>
        joinText(
          `The switch can leave ${nameInSentence(name)} without a battery and can join lead, `,
          'lithium and starter. One wrong turn is enough',
          guarded ? ', but a protector absorbs the spike' : '',
          '.',
        ),
      remedies: () => [
        addDcdc(lane, system),
        ...(guarded ? [] : [{ id: 'alternator.surge-protector', on: alternator.$path } as const]),
      ],
      cautions: () => ['Label each position with what it does now. Off is for the yard, engine stopped.'],
    }
  },
})

export const checks = [linkNominal, vsrNeverOpens, vsrNeverCloses, diode, rating, batterySwitch] as const
