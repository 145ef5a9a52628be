import { monitorSettings } from '#core/system/monitor'
import { socAtOpenCircuitV } from '#core/physics/lfp'
import { worstShare } from '#core/physics/sharing'
import { capital, formatShare, joinText } from '#core/units/format'
import { check, number, word } from '#core/assessment/check'
import { highestDischargeA } from '#core/system/energy'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { Bank } from '#core/system/bank'
import type { View } from '#core/system/scene'
import type { System } from '#core/system/system'
import { showStopSignal, warningOf } from '#core/system/warning'

const chemistryNames = { lfp: 'LFP', nmc: 'NMC or cobalt', other: 'other lithium' } as const
const other: RemedyRef = { id: 'battery.other', on: 'candidate' }

const chemistry = check({
  id: 'battery.chemistry',
  title: 'Chemistry',
  about: 'battery',
  why: joinText(
    'Other lithium chemistries burn fiercely when they fail and feed their own fire. ',
    'All rules here are for LFP.',
  ),
  judge(_subject, { bank }) {
    const kind = bank.each.chemistry
    const suits = kind === 'lfp'
    return {
      verdict: suits ? 'suits' : 'does-not-suit',
      compared: [word('battery is', chemistryNames[kind]), word('must be', 'LFP')],
      limit: { kind: 'physics', text: 'thermal runaway of other lithium chemistries' },
      formula: () => (suits ? 'LFP = LFP' : `${chemistryNames[kind]} ≠ LFP`),
      summary: () =>
        suits
          ? 'The battery is lithium iron phosphate.'
          : `The battery is ${chemistryNames[kind]}; only LFP is fitted here.`,
      remedies: suits ? [] : [other],
    }
  },
})

/** The unequal quantity in an old bank of several strings in a row. */
function oldBankCaution({ one: { houseBank }, rules, q }: System): readonly string[] {
  const strings = houseBank.parallel
  if (!houseBank.$settled('parallel') || strings <= rules.leadParallelMost) return []
  const even = 1 / (strings * worstShare(strings, 0.006, rules.bankLinkMohm / 1000, 'ladder'))
  return [
    joinText(
      `The old bank has ${strings} strings in parallel: `,
      `in a row the nearest carried ${q(even * strings, '×')} times its share. `,
      'The new one should not be joined that way.',
    ),
  ]
}

const parallel = check({
  id: 'battery.parallel',
  title: 'How many in parallel',
  about: 'battery',
  why: joinText(
    'Each BMS acts alone. Beyond the maker’s count, ',
    'one that opens throws its load on the others, which open in turn.',
  ),
  judge(_subject, system) {
    const { bank } = system
    const { parallel: count, mostParallel } = bank.each
    const over = count > mostParallel
    return {
      verdict: over ? 'does-not-suit' : 'suits',
      compared: [number('in parallel', count, ''), number('maker allows', mostParallel, '')],
      limit: bank.each.$origin('mostParallel'),
      formula: () =>
        joinText(
          `${count} `,
          over ? '>' : '≤',
          ` ${mostParallel}`,
          count > 1
            ? joinText(
                `; each carries at most ${formatShare(1 / (count * bank.sharing))} of the current, `,
                `${formatShare(1 / count)} if shared evenly`,
              )
            : '',
        ),
      summary: () =>
        over
          ? `${count} in parallel are planned, and the maker allows ${mostParallel}.`
          : count === 1
            ? 'There is one battery.'
            : `${count} in parallel, as the maker allows.`,
      remedies: over ? [other] : [],
      cautions: () => [
        ...(count > 1
          ? ['Charge each battery alone to the same resting voltage before you join them. Fuse each.']
          : []),
        ...oldBankCaution(system),
      ],
    }
  },
})

const series = check({
  id: 'battery.series',
  title: 'How many in series',
  about: 'battery',
  why: joinText(
    'The BMS of each battery in series does not know the others. ',
    'Beyond the maker’s count they cannot switch the total voltage.',
  ),
  judge(_subject, { bank, one, q }) {
    const { series: count, mostSeries } = bank.each
    const houseV = Number(one.houseBank.nominalV)
    const wrongV = bank.nominalV !== houseV
    const over = count > mostSeries
    return {
      verdict: over || wrongV ? 'does-not-suit' : 'suits',
      compared: wrongV
        ? [number('bank makes', bank.nominalV, 'V'), number('house system', houseV, 'V')]
        : [number('in series', count, ''), number('maker allows', mostSeries, '')],
      limit: wrongV ? one.houseBank.$origin('nominalV') : bank.each.$origin('mostSeries'),
      formula: () =>
        joinText(
          `${count} × ${bank.each.nominalV} V = ${q(bank.nominalV, 'V')}; `,
          `house ${one.houseBank.nominalV} V; `,
          `${count} `,
          over ? '>' : '≤',
          ` ${mostSeries} in series`,
        ),
      summary: () =>
        wrongV
          ? `The new bank has ${q(bank.nominalV, 'V')}; the house system is ${one.houseBank.nominalV} V.`
          : over
            ? `${count} in series are planned, and the maker allows ${mostSeries}.`
            : count === 1
              ? 'No batteries are in series.'
              : `${count} in series, as the maker allows.`,
      remedies: over || wrongV ? [other] : [],
      cautions: () =>
        count > 1
          ? ['Use batteries of the same maker and age. Charge each to full alone before you join them.']
          : [],
    }
  },
})

/** The consequence of a voltage device that acts too late, or too early. */
function consequence({ kind, tripV }: View<'devices'>, isLate: boolean, { bmsUnderV }: Bank): string {
  const lastMoment =
    tripV > bmsUnderV
      ? 'that is before the BMS cuts out, but hardly anything is left by then'
      : 'the BMS cuts out before it does'
  const [late, early] = {
    gauge: [
      'it shows half full until the lights go out',
      'it shows half empty while the battery is nearly full',
    ],
    alarm: ['it sounds too late to be of use', 'it sounds with energy to spare'],
    disconnect: [lastMoment, 'it takes the loads away with energy to spare'],
    appliance: [lastMoment, 'it stops with energy to spare'],
  }[kind] as [string, string]
  return isLate ? late : early
}

const voltageDevices = check({
  id: 'battery.voltage-devices',
  title: 'Gauges and alarms set by voltage',
  about: 'device',
  why: joinText(
    'Lithium holds its voltage almost to the end. ',
    'A gauge or alarm set for lead-acid says “full” until the lights go out.',
  ),
  judge({ device, name }, system) {
    const { q } = system
    const { bank, rules } = system
    const restSoc = socAtOpenCircuitV(device.tripV, bank.nominalV)
    const loadA = highestDischargeA(system).amps
    const loadSoc = socAtOpenCircuitV(device.tripV + loadA * bank.ohm, bank.nominalV)
    const [low, high] = [rules.deviceTripLow / 100, rules.deviceTripHigh / 100]
    const [late, early] = [restSoc < low, loadSoc > high]
    const useful = !late && !early
    const acts = joinText(
      `at ${formatShare(restSoc)} charge at rest and at `,
      `${formatShare(loadSoc)} with ${q(loadA, 'A')} flowing`,
    )
    return {
      verdict: useful ? 'suits' : 'suits-once-changed',
      compared: early
        ? [number('trips under load at', loadSoc * 100, '%'), number('useful up to', high * 100, '%')]
        : [number('trips at', restSoc * 100, '%'), number('useful from', low * 100, '%')],
      limit: { kind: 'rule', text: 'shop rule: the charge at which a voltage device is useful' },
      formula: () =>
        joinText(
          `${q(device.tripV, 'V')} at rest is ${formatShare(restSoc)}; `,
          `with ${q(loadA, 'A')} × ${q(bank.ohm * 1000, 'mΩ')} `,
          `the rest is at ${q(device.tripV + loadA * bank.ohm, 'V')}: ${formatShare(loadSoc)}`,
        ),
      summary: () =>
        useful
          ? `${name} at ${q(device.tripV, 'V')} acts ${acts}.`
          : late && early
            ? `${name} at ${q(device.tripV, 'V')} acts ${acts}. The load triggers it, not the charge.`
            : `${name} at ${q(device.tripV, 'V')} acts ${acts}: ${consequence(device, late, bank)}.`,
      remedies: useful ? [] : [{ id: 'device.replace-by-monitor', on: device.$path }],
    }
  },
})

const watchWords = {
  shunt: 'shunt monitor',
  partial: 'link to one of several',
  bms: 'link to the only battery',
  voltage: 'voltage only',
  none: 'nothing',
} as const

const monitor = check({
  id: 'battery.monitor',
  title: 'How is the charge watched?',
  topic: 'watching the charge',
  about: 'battery',
  why: joinText(
    'Voltage does not show the charge of lithium. ',
    'Only a count of all current does, and a link to one of two batteries sees half.',
  ),
  judge(_subject, system) {
    const { bank, one, q } = system
    if (bank.each.purpose === 'starter') return null
    const entered = one.use.monitor
    const way = entered === 'bms' && bank.count > 1 ? 'partial' : entered
    const counts = way === 'shunt' || way === 'bms'
    return {
      verdict: counts ? 'suits' : 'suits-once-changed',
      compared: [word('watched by', watchWords[way]), word('must count', 'all current')],
      limit: { kind: 'physics', text: 'the resting voltage of LFP is flat' },
      formula: () => {
        const set = monitorSettings(system)
        return joinText(
          `set it to ${q(set.capacityAh, 'Ah')}, `,
          `charged at ${q(set.chargedV, 'V')}, tail ${q(set.tailA, 'A')}, `,
          `charge efficiency ${set.efficiencyPercent} %, floor ${set.floorPercent} %`,
        )
      },
      summary: () =>
        counts
          ? `The charge is shown by a ${watchWords[way]}.`
          : way === 'none'
            ? 'Nothing shows the charge of the battery.'
            : way === 'voltage'
              ? 'The charge is read from voltage, which stays the same almost to the end.'
              : `A ${watchWords[way]} batteries shows the charge of that one only.`,
      remedies: counts ? [] : [{ id: 'monitor.add', on: 'use' }],
    }
  },
})

const warners = {
  stop: 'the battery’s stop signal',
  alarm: 'the battery’s own alarm',
  device: 'a device on board',
} as const

const cutOutWarning = check({
  id: 'battery.warning',
  title: 'Warning before the cut-out',
  about: 'battery',
  why: 'A battery that disconnects without a warning takes lights, radio and steering with it.',
  judge(_subject, system) {
    if (system.bank.each.purpose === 'starter') return null
    const afloat = system.craft === 'vessel'
    const warning = warningOf(system)
    const by = warning && warners[warning]
    return {
      verdict: by ? 'suits' : afloat ? 'does-not-suit' : 'suits-once-changed',
      compared: [
        word('warned by', by ?? 'nothing'),
        word('wanted', afloat ? 'seen or heard, always' : 'seen or heard'),
      ],
      limit: {
        kind: 'rule',
        text: afloat ? 'common requirement on boats: check the local code' : 'good practice',
      },
      formula: () => (by ? `${by} comes first` : `battery: no sign; on board: nothing`),
      summary: () =>
        by
          ? `${capital(by)} warns before the battery cuts out.`
          : `Nothing warns before the battery cuts out${afloat ? '. On a boat something must' : ''}.`,
      cautions: () => (warning === 'stop' ? [showStopSignal] : []),
      remedies: by ? [] : [{ id: 'warning.add', on: 'use' }],
    }
  },
})

export const checks = [chemistry, parallel, series, voltageDevices, monitor, cutOutWarning] as const
