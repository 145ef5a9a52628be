import { firstOf } from '#core/collections/held'
import { leadCapacityAh } from '#core/physics/lead'
import { houseLeadOf, lfpOf } from '#core/simulation/plant-of-job'
import { restedLeadSoc, shareOf, type Sharing } from '#core/simulation/sharing'
import { formatShare, listInSentence, joinText, type Write } from '#core/units/format'
import { check, number, word, type Judgement } from '#core/assessment/check'
import { dcAtOnceA, isOldLithium, leadHealth, loadA, sharesBus } from '#core/system/energy'
import type { RemedyRef } from '#core/remedies/catalogue'
import { voltageRemedies } from '#core/remedies/arrangements'
import { laneCurrentA } from '#core/system/currents'
import type { Bank } from '#core/system/bank'
import type { ChargeUnit } from '#core/system/lanes'
import type { System } from '#core/system/system'
import { charges, lessTogether, mostTogetherA, passesStopAt, staysJoined, stopsFrom } from './together'

const school = check({
  id: 'mixed.school',
  title: 'Lead and lithium together',
  about: 'battery',
  why: joinText(
    'In a joint bank the lithium works first and the lead rests. ',
    'A failed battery drains the other unless you can disconnect each.',
  ),
  judge(_subject, system) {
    const { mixed } = system.one.use
    if (mixed === 'replaced' || mixed === 'series' || isOldLithium(system)) return null
    if (mixed === 'dcdc') return setApart(system)
    return system.rules.mixedSchool === 'never' ? refusedByShop(mixed) : underConditions(system)
  },
})

function setApart({ rules }: System): Judgement {
  return {
    verdict: 'suits',
    compared: [
      word('between them', 'a DC-DC'),
      word('shop wants', rules.mixedSchool === 'never' ? 'a DC-DC between' : 'that, or conditions'),
    ],
    limit: { kind: 'rule', text: 'shop rule: lithium in direct parallel with lead-acid' },
    formula: () => 'each has its own voltage; the DC-DC keeps the lead full',
    summary: () =>
      joinText(
        'A DC-DC separates lead and lithium. ',
        'Sources and loads are on the lithium; the lead stays full as a reserve.',
      ),
  }
}

/** The shop joins lead and lithium under no conditions. */
function refusedByShop(mixed: 'hybrid' | 'relay'): Judgement {
  return {
    verdict: 'does-not-suit',
    compared: [
      word('requested', mixed === 'hybrid' ? 'in parallel' : 'behind a relay'),
      word('shop rule', 'DC-DC between'),
    ],
    limit: { kind: 'rule', text: 'shop rule: lithium in direct parallel with lead-acid, never' },
    formula: () => 'joined directly ≠ a DC-DC between; the rules of this job can allow a hybrid bank',
    summary: () =>
      joinText(
        'The customer wants lead and lithium joined. The shop’s rule is a DC-DC between them; ',
        'another rule would allow it under conditions.',
      ),
    remedies: [{ id: 'mixed.separate', on: 'use' }],
  }
}

function underConditions({ bank, one, rules, q }: System): Judgement {
  const { chargeStop, isolators } = one.use
  const weakV = rules.weakLeadV * bank.scale
  const missing = [
    ...(bank.each.leadParallel === 'no' ? ['the maker’s permission'] : []),
    ...(chargeStop === 'no' ? ['charge and discharge stops'] : []),
    ...(isolators === 'no' ? ['a switch for each'] : []),
    ...(one.houseBank.restedV < weakV ? [`healthy lead (${q(one.houseBank.restedV, 'V')} rested)`] : []),
  ]
  const forbidden = bank.each.leadParallel === 'no'
  return {
    verdict: missing.length === 0 ? 'suits' : forbidden ? 'does-not-suit' : 'suits-once-changed',
    compared: [
      word('missing', missing.length === 0 ? 'nothing' : `${missing.length} of 4 conditions`),
      word('wanted', 'all of them'),
    ],
    limit: forbidden
      ? bank.each.$origin('leadParallel')
      : { kind: 'rule', text: 'shop rule: hybrid bank with conditions' },
    formula: () =>
      missing.length === 0 ? 'permitted, stops, switches, healthy lead' : `missing: ${missing.join(', ')}`,
    summary: () =>
      missing.length === 0
        ? 'The hybrid bank meets its conditions.'
        : `The hybrid bank lacks ${listInSentence(missing)}.`,
    remedies:
      missing.length === 0
        ? []
        : forbidden
          ? [
              { id: 'battery.other', on: 'candidate' },
              { id: 'mixed.separate', on: 'use' },
            ]
          : [
              { id: 'mixed.conditions', on: 'use', value: 12.7 * bank.scale },
              { id: 'mixed.separate', on: 'use' },
            ],
  }
}

const series = check({
  id: 'mixed.series',
  title: 'Lead and lithium in series',
  about: 'battery',
  why: joinText(
    'In series the same current flows through both. ',
    'One is full or empty first, and is then overcharged or reversed.',
  ),
  judge(_subject, system) {
    const { one } = system
    const bad = one.use.mixed === 'series'
    if (!bad && (one.use.mixed === 'replaced' || isOldLithium(system))) return null
    return {
      verdict: bad ? 'does-not-suit' : 'suits',
      compared: [word('joined', bad ? 'in series' : 'in parallel'), word('never', 'in series')],
      limit: { kind: 'physics', text: 'batteries in series carry the same charge' },
      formula: () =>
        bad ? 'one current, two capacities, two voltage windows' : 'in parallel: each takes its own current',
      summary: () =>
        bad
          ? 'Lead and lithium, or different lithium batteries, must never be joined in series.'
          : 'No unlike batteries are joined in series.',
      remedies: bad ? [{ id: 'mixed.separate', on: 'use' }] : [],
    }
  },
})

const sharing = check({
  id: 'mixed.sharing',
  title: 'Sharing of the current',
  about: 'battery',
  why: joinText(
    'On one bus the lithium carries nearly all charge and load. ',
    'The lead works only when the lithium cuts out.',
  ),
  judge(_subject, system) {
    const { q } = system
    if (!sharesBus(system)) return null
    const { bank, lanes } = system
    const chargeA = lanes.reduce((sum, lane) => sum + laneCurrentA(lane, system), 0)
    const [lfp, lead] = [lfpOf(system), houseLeadOf(system)]
    const at = (soc: number, amps: number): Sharing => shareOf(lfp, lead, soc, amps)
    const charging = charges.map((soc) => at(soc, chargeA))
    const [rest, load] = [at(0.5, 0), at(0.5, -dcAtOnceA(system))]
    const mostA = Math.max(...charging.map((row) => row.lfpA))
    const off = firstOf(charging).off
    const over = mostA > bank.largestA
    const holds = (amps: number): boolean =>
      staysJoined(amps, system) && charges.every((soc) => at(soc, amps).lfpA <= bank.largestA)
    const bad = over || off
    return {
      verdict: bad ? 'suits-once-changed' : 'suits',
      compared: [number('lithium takes', mostA, 'A'), number('its largest', bank.largestA, 'A')],
      limit: bank.each.$origin('largestChargeA'),
      formula: () =>
        joinText(
          `all sources ${q(chargeA, 'A')}: `,
          `lithium ${charging.map((row) => `${q(row.lfpA, 'A')} at ${formatShare(row.soc)}`).join(', ')}; `,
          `at rest ${q(rest.leadA, 'A')} into the lead; `,
          `under ${q(dcAtOnceA(system), 'A')} the lithium gives `,
          `${q(-load.lfpA, 'A')} and the lead ${q(-load.leadA, 'A')}`,
        ),
      summary: () =>
        joinText(
          off
            ? joinText(
                `At ${q(chargeA, 'A')} the charge stop disconnects the lithium, `,
                'and the lead gets the whole current',
              )
            : `On one bus the lithium draws ${q(mostA, 'A')} of ${q(chargeA, 'A')} while charging`,
          over ? `, and its maker allows ${q(bank.largestA, 'A')}` : '',
          `; half charged it delivers ${q(-load.lfpA, 'A')} to loads of ${q(dcAtOnceA(system), 'A')}`,
          load.leadA > 0.5 ? ', the rest to the lead.' : '.',
        ),
      remedies: bad
        ? [...lessTogether(mostTogetherA(chargeA, holds), system), { id: 'mixed.separate', on: 'use' }]
        : [],
      cautions: () => leadAloneCautions(chargeA, system),
    }
  },
})

/** Charge of the lead-acid after the lithium has left the bus. */
function leadAloneCautions(chargeA: number, { one, rules, q }: System): readonly string[] {
  const takesA = rules.leadChargeRateC * one.houseBank.ahEach * one.houseBank.parallel
  if (chargeA <= takesA) return []
  return [
    joinText(
      `With the lithium disconnected, all ${q(chargeA, 'A')} go to the lead-acid battery; `,
      `it takes about ${q(takesA, 'A')} until it gasses.`,
    ),
  ]
}

const leadHealthCheck = check({
  id: 'mixed.lead-health',
  title: 'Loss to a weak lead battery',
  about: 'battery',
  why: 'A weak lead-acid battery turns charge into heat day and night. Lithium keeps feeding it.',
  judge(_subject, system) {
    const { q } = system
    if (!sharesBus(system)) return null
    const { one, bank, rules } = system
    const lostAh = houseLeadOf(system).ownA * 24
    const mostAh = (rules.leadLossMost / 100) * bank.ah
    const [restedV, weakV] = [one.houseBank.restedV, rules.weakLeadV * bank.scale]
    const low = restedV < weakV
    const weak = low || lostAh > mostAh
    return {
      verdict: weak ? 'suits-once-changed' : 'suits',
      compared: low
        ? [number('rested', restedV, 'V'), number('healthy from', weakV, 'V')]
        : [number('lost a day', lostAh, 'Ah'), number('at most', mostAh, 'Ah')],
      limit: {
        kind: 'rule',
        text: low
          ? 'shop rule: rested voltage of healthy lead'
          : 'shop rule: most the lead may lose inside in a day',
      },
      formula: () =>
        joinText(
          `${formatShare(leadHealth(system))} of its capacity left → ${q(lostAh, 'Ah')} a day lost inside; `,
          `${rules.leadLossMost} % of ${q(bank.ah, 'Ah')} = ${q(mostAh, 'Ah')}; rested ${q(restedV, 'V')}`,
        ),
      summary: () =>
        joinText(
          `The lead rests at ${q(restedV, 'V')} and loses about ${q(lostAh, 'Ah')} a day inside, `,
          'which the lithium replaces.',
        ),
      remedies: weak
        ? [
            { id: 'mixed.fresh-lead', on: 'houseBank', value: 12.7 * bank.scale },
            { id: 'mixed.separate', on: 'use' },
          ]
        : [],
    }
  },
})

/** The stops of a hybrid bank against its chargers and its BMS. */
interface Stops {
  readonly chargeV: number
  readonly dischargeV: number
  /** A charger that absorbs at no more than the charge stop. */
  readonly under: ChargeUnit | undefined
  /** Whether the lithium leaves the bus before its BMS cuts. */
  readonly isBeforeBms: boolean
}

function stopsWords({ chargeV, dischargeV, under, isBeforeBms }: Stops, q: Write): string {
  if (under)
    return joinText(
      `${under.$name} absorbs at no more than the charge stop of ${q(chargeV, 'V')}: `,
      'the lithium never disconnects, and the lead never gets its absorption.',
    )
  return isBeforeBms
    ? joinText(
        `The lithium disconnects at ${q(chargeV, 'V')}, before the chargers absorb, `,
        `and at ${q(dischargeV, 'V')}, before its BMS cuts out. `,
        'Then the lead takes charge and load alone.',
      )
    : 'The discharge stop is under the voltage at which the BMS cuts.'
}

const stops = check({
  id: 'mixed.stops',
  title: 'Charge stop and discharge stop',
  about: 'battery',
  why: joinText(
    'Lithium must leave the bus before the charger’s absorption, ',
    'so that the lead gets its own. It must leave again before its BMS cuts out.',
  ),
  judge(_subject, system) {
    const { q } = system
    if (!sharesBus(system) || system.one.use.chargeStop === 'no') return null
    const { bank, rules, lanes } = system
    const stopV = rules.chargeStopV * bank.scale
    const chargers = lanes.flatMap((lane) => (lane.kind === 'charger' ? [lane.charger] : []))
    const under = chargers.find(({ absorptionV }) => absorptionV <= stopV)
    const dischargeV = rules.dischargeStopV * bank.scale
    const beforeBms = dischargeV > bank.bmsUnderV
    const chargeA = lanes.reduce((sum, lane) => sum + laneCurrentA(lane, system), 0)
    const passesAt = chargeA > 0 ? passesStopAt(chargeA, system) : null
    if (passesAt !== null && !under && beforeBms) return chatters(chargeA, passesAt, system)
    const bad = under !== undefined || !beforeBms
    const absorbs = chargers.map(({ absorptionV }) => absorptionV)
    return {
      verdict: bad ? 'suits-once-changed' : 'suits',
      compared: [
        number('charge stop', stopV, 'V'),
        absorbs.length > 0
          ? number('chargers absorb from', Math.min(...absorbs), 'V')
          : word('chargers', 'none on mains'),
      ],
      limit: { kind: 'rule', text: 'shop rules: charge stop and discharge stop of a hybrid bank' },
      formula: () =>
        joinText(
          `stop ${q(stopV, 'V')} `,
          under ? '≥' : '<',
          ` absorption; discharge stop ${q(dischargeV, 'V')} `,
          beforeBms ? '>' : '≤',
          ` BMS ${q(bank.bmsUnderV, 'V')}`,
        ),
      summary: () => stopsWords({ chargeV: stopV, dischargeV, under, isBeforeBms: beforeBms }, q),
      remedies: bad
        ? [...(under ? absorbsHigher(under, stopV, bank) : []), { id: 'mixed.separate', on: 'use' }]
        : [],
    }
  },
})

/** A charger is set to absorb above the charge stop, if it can be. */
const absorbsHigher = (charger: ChargeUnit, stopV: number, bank: Bank): RemedyRef[] =>
  voltageRemedies(charger, bank, {
    id: 'charger.set-absorption',
    on: charger.$path,
    value: Math.min(bank.highV, Math.round((stopV + 0.4 * bank.scale) * 10) / 10),
  })

/** All sources together lift the bus over the charge stop before the lithium is charged. */
function chatters(chargeA: number, passesAt: number, system: System): Judgement {
  const { bank, rules, q } = system
  const stopV = rules.chargeStopV * bank.scale
  const mostA = mostTogetherA(chargeA, (amps) => staysJoined(amps, system))
  return {
    verdict: 'suits-once-changed',
    compared: [number('all sources', chargeA, 'A'), number('before the stop opens', mostA, 'A')],
    limit: { kind: 'rule', text: 'shop rules: charge stop and discharge stop of a hybrid bank' },
    formula: () =>
      joinText(
        `under ${q(chargeA, 'A')} the bus passes ${q(stopV, 'V')} `,
        `with the lithium at ${formatShare(passesAt)}; `,
        `with ${q(mostA, 'A')} it stays under it up to ${formatShare(stopsFrom)}`,
      ),
    summary: () =>
      joinText(
        'All sources together raise the bus above the charge ',
        `stop of ${q(stopV, 'V')} while the lithium is only `,
        `at ${formatShare(passesAt)}: it chatters and hardly charges, `,
        `and the lead gets all ${q(chargeA, 'A')}.`,
      ),
    remedies: [...lessTogether(mostA, system), { id: 'mixed.separate', on: 'use' }],
  }
}

const takeover = check({
  id: 'mixed.takeover',
  title: 'Lead alone after a cut-out',
  about: 'battery',
  foretells: true,
  why: 'When the lithium cuts out at night, essential loads run on the lead alone, with the lead’s capacity.',
  judge(_subject, system) {
    const { q } = system
    if (!sharesBus(system)) return null
    const { many, rules, one } = system
    const essential = many.loads.filter((load) => load.essential === 'yes')
    if (essential.length === 0) return null
    const amps = essential.reduce((sum, load) => sum + loadA(load, system) * (load.duty / 100), 0)
    const ah =
      leadCapacityAh(one.houseBank.ahEach, amps / one.houseBank.parallel, 15) *
      one.houseBank.parallel *
      leadHealth(system) *
      restedLeadSoc
    const hours = amps > 0 ? ah / amps : Infinity
    const short = hours < rules.leadTakeoverH
    return {
      verdict: short ? 'suits-once-changed' : 'suits',
      compared: [
        amps > 0 ? number('lead carries on for', hours, 'h') : word('essential loads', 'draw nothing'),
        number('at least', rules.leadTakeoverH, 'h'),
      ],
      limit: { kind: 'rule', text: 'shop rule: hours for which the lead-acid alone carries essential loads' },
      formula: () =>
        joinText(
          `${q(ah, 'Ah')} left in the lead-acid at ${q(amps, 'A')} and 15 °C`,
          amps > 0 ? ` ÷ ${q(amps, 'A')} = ${q(hours, 'h')}` : '',
        ),
      summary: () =>
        amps > 0
          ? `If the lithium cuts out, the lead supplies the essential ${q(amps, 'A')} for ${q(hours, 'h')}.`
          : 'The essential loads draw nothing on average.',
      remedies: short
        ? [
            { id: 'mixed.fresh-lead', on: 'houseBank', value: (12.7 * Number(one.houseBank.nominalV)) / 12 },
            { id: 'mixed.separate', on: 'use' },
          ]
        : [],
    }
  },
})

export const checks = [school, series, sharing, leadHealthCheck, stops, takeover] as const
