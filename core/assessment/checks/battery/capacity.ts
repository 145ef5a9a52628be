import { metric } from '#core/units/display'
import { formatNumber, formatShare, joinText } from '#core/units/format'
import { check, number, word } from '#core/assessment/check'
import {
  chargedAwayAh,
  chargedDailyAh,
  dailyUse,
  dayAway,
  freshUsableAh,
  leadHealth,
  isOldLithium,
  leadUsableAh,
  oldUsableAh,
  parallelFor,
  sharesBus,
  usableColdAh,
  workingC,
} from '#core/system/energy'
import { allowsParallel } from '#core/system/more-batteries'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { System } from '#core/system/system'

const other: RemedyRef = { id: 'battery.other', on: 'candidate' }

const usable = check({
  id: 'battery.usable',
  title: 'Usable capacity, old and new',
  about: 'battery',
  why: joinText(
    'Labels mislead in both directions. Half of a lead-acid battery is usable, ',
    'less of an old one. The new battery should not hold less.',
  ),
  judge(_subject, system) {
    const { q } = system
    const { bank, rules, one } = system
    if (bank.each.purpose === 'starter') return null
    const fresh = freshUsableAh(system)
    const old = oldUsableAh(system) * (Number(one.houseBank.nominalV) / bank.nominalV)
    const share = isOldLithium(system)
      ? `${rules.usableLithium} %, aged`
      : `${formatShare(leadHealth(system))} left × ${rules.usableLead} % at its typical current`
    const less = fresh < old
    const needed = parallelFor(old, system, 25)
    const allowed = allowsParallel(needed, system)
    return {
      verdict: !less ? 'suits' : allowed ? 'suits-once-changed' : 'does-not-suit',
      compared: [number('new battery', fresh, 'Ah'), number('old battery now', old, 'Ah')],
      limit: one.houseBank.$origin(one.houseBank.testedAh === null ? 'ageYears' : 'testedAh'),
      formula: () =>
        joinText(
          `${q(bank.ah, 'Ah')} × ${100 - bank.each.reserve} % × ${rules.usableLithium} %`,
          sharesBus(system) ? ' and the lead that stays' : '',
          ` = ${q(fresh, 'Ah')}; old ${q(one.houseBank.ahEach * one.houseBank.parallel, 'Ah')} `,
          `× ${share} = ${q(old, 'Ah')}`,
        ),
      summary: () =>
        joinText(
          `The new battery holds ${q(fresh, 'Ah')} usable, the old one ${q(old, 'Ah')}: `,
          less
            ? 'less than the customer is used to'
            : `${formatNumber(fresh / Math.max(old, 0.1), '×', metric)} times as much`,
          '.',
        ),
      remedies: !less
        ? []
        : [
            ...(allowed ? [{ id: 'battery.more-parallel', on: 'candidate', value: needed } as const] : []),
            other,
          ],
    }
  },
})

/** Says that the sources bring less than the daily use, also with mains: the battery is empty some day. */
function fallingBehind(system: System): readonly string[] {
  const { q } = system
  const { use, usedAh } = dayAway(system)
  const dailyAh = chargedDailyAh(system)
  const isUseKnown = use.from === 'loads' || system.one.use.$settled('dailyAh')
  if (dailyAh === null || !isUseKnown || dailyAh >= usedAh) return []
  const days = usableColdAh(system) / (usedAh - dailyAh)
  return [
    joinText(
      `All sources together return ${q(dailyAh, 'Ah')} of the ${q(usedAh, 'Ah')} used a day. `,
      `Charge the battery from the mains or a generator within ${q(days, 'days')}.`,
    ),
  ]
}

const autonomy = check({
  id: 'battery.autonomy',
  title: 'Days away',
  about: 'battery',
  why: 'A battery that runs empty before the customer reaches a charger is too small.',
  judge(_subject, system) {
    const { q } = system
    const { bank, one } = system
    if (bank.each.purpose === 'starter') return null
    const daysAway = Math.max(1, one.use.daysAway)
    const { use, heatAh, usedAh, chargedAh, netAh, lastsDays: lasts } = dayAway(system)
    const capacity = usableColdAh(system)
    const short = lasts < daysAway
    const needed = parallelFor(netAh * daysAway, system, workingC(system))
    const allowed = allowsParallel(needed, system)
    return {
      verdict: !short ? 'suits' : allowed ? 'suits-once-changed' : 'does-not-suit',
      compared: [
        lasts === Infinity ? word('lasts', 'as long as sources run') : number('lasts', lasts, 'days'),
        number('away for', daysAway, 'days'),
      ],
      limit: one.use.$origin('daysAway'),
      formula: () =>
        joinText(
          `${q(capacity, 'Ah')} usable in the cold ÷ (${q(use.ah, 'Ah')} used `,
          use.from === 'loads' ? '(from the loads) ' : '',
          heatAh > 0 ? `+ ${q(heatAh, 'Ah')} of the heater ` : '',
          `− ${q(Math.min(chargedAh, usedAh), 'Ah')} charged a day)`,
          lasts === Infinity ? ': no shortfall' : ` = ${q(lasts, 'days')}`,
        ),
      summary: () =>
        lasts === Infinity
          ? `Away from mains the sources cover the daily use of ${q(usedAh, 'Ah')}.`
          : joinText(
              `Away from mains the sources fall ${q(netAh, 'Ah')} a day short. `,
              `The battery lasts ${q(lasts, 'days')}; the customer needs ${q(daysAway, 'days')}.`,
            ),
      cautions: () => (short ? [] : fallingBehind(system)),
      remedies: !short
        ? []
        : [
            ...(allowed ? [{ id: 'battery.more-parallel', on: 'candidate', value: needed } as const] : []),
            other,
            { id: 'use.charge-more', on: 'use', value: Math.ceil(netAh - capacity / daysAway) },
          ],
    }
  },
})

const needed = check({
  id: 'battery.needed',
  title: 'Is lithium needed?',
  topic: 'need for lithium',
  about: 'battery',
  why: joinText(
    'Honest advice keeps a customer. Always plugged in and lightly used, ',
    'a good lead-acid battery does the job for less.',
  ),
  judge(_subject, system) {
    const { q } = system
    const { bank, rules, one } = system
    if (bank.each.purpose === 'starter' || isOldLithium(system)) return null
    const days = Math.max(1, one.use.daysAway)
    const use = dailyUse(system)
    const needAh = Math.max(use.ah - chargedAwayAh(system), 0) * (days - 1) + use.ah
    const freshAh = leadUsableAh(system, 1) * (Number(one.houseBank.nominalV) / bank.nominalV)
    const limitAh = (freshAh * rules.enoughShare) / 100
    const does = needAh <= limitAh
    return {
      verdict: does ? 'suits-once-changed' : 'suits',
      compared: [number('used until charged', needAh, 'Ah'), number('lead-acid would hold', limitAh, 'Ah')],
      limit: { kind: 'rule', text: 'shop rule: daily use at which lead would do' },
      formula: () =>
        joinText(
          `${q(use.ah, 'Ah')} a day, ${q(days, 'days')} away = ${q(needAh, 'Ah')}; `,
          `lead as new ${q(freshAh, 'Ah')} usable × ${rules.enoughShare} % = ${q(limitAh, 'Ah')}`,
        ),
      summary: () =>
        does
          ? joinText(
              `The customer uses ${q(needAh, 'Ah')} between charges; `,
              `a new lead-acid battery of the old size holds ${q(freshAh, 'Ah')}. `,
              'A well-kept lead-acid battery is enough.',
            )
          : joinText(
              `The customer uses ${q(needAh, 'Ah')} between charges, `,
              'more than a lead-acid battery of the old size holds.',
            ),
      remedies: does ? [{ id: 'battery.keep-lead', on: 'candidate' }] : [],
    }
  },
})

export const checks = [usable, autonomy, needed] as const
