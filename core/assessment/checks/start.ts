import { addDcdc } from '#core/remedies/arrangements'
import { openCircuitV } from '#core/physics/lfp'
import { check, number, word } from '#core/assessment/check'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { System } from '#core/system/system'

/** Ways by which a starter can draw on the house bank: what they are, and what takes them away. */
function crankingWays(system: System): { readonly words: string; readonly remedy: RemedyRef }[] {
  const { one, lanes } = system
  const { present } = one.startingBattery
  if (present === 'noEngine') return []
  const ways: { words: string; remedy: RemedyRef }[] = []
  if (present === 'no') ways.push({ words: 'the engine starts from this bank', remedy: { id: 'start.own-battery', on: 'startingBattery' } })
  if (present === 'yes' && one.startingBattery.jumpSwitch === 'yes') ways.push({ words: 'the jump switch', remedy: { id: 'start.no-jump', on: 'startingBattery' } })
  for (const lane of lanes) {
    if (lane.kind !== 'alternator') continue
    if (lane.link.kind === 'vsr' && lane.link.bothWay === 'yes') ways.push({ words: 'the both-way relay', remedy: { id: 'link.one-way', on: lane.link.$path } })
    if (lane.link.kind === 'switch') ways.push({ words: 'the battery switch on “both”', remedy: addDcdc(lane, system) })
  }
  return ways
}

export const cranking = check({
  id: 'battery.cranking',
  title: 'Must not crank',
  about: 'battery',
  why: 'A starter takes hundreds of amperes in the first instant. A house battery’s protection opens, and may not close again at the roadside.',
  judge(_subject, system) {
    const { q } = system
    const { bank, one, rules } = system
    if (bank.each.purpose === 'starter') return null
    const ways = crankingWays(system)
    const starting = one.startingBattery
    if (ways.length === 0) {
      return {
        verdict: 'suits',
        compared: [word('can a starter reach it', 'no'), word('must be', 'no')],
        limit: { kind: 'physics', text: 'a starter draws more than a house BMS carries' },
        formula: () => 'no jump switch, no switch on “both”, no both-way relay',
        summary: () => 'Nothing lets a starter draw on the house battery.',
      }
    }
    const needA = starting.engineNeedA
    const bearsA = bank.each.overCurrentA * bank.each.parallel * bank.sharing
    const over = needA > bearsA
    const startAh = (needA * rules.startS) / 3600
    const flowsA = Math.min(bank.continuousA, (openCircuitV(0.5, bank.nominalV) - 12.2 * bank.scale) / (bank.ohm + rules.cableMohm / 1000))
    const minutes = (startAh / Math.max(flowsA, 1)) * 60 * 1.5
    const list = ways.map((way) => way.words).join(' and ')
    return {
      verdict: !over ? 'suits' : starting.present === 'no' ? 'does-not-suit' : 'suits-once-changed',
      compared: [number('starter draws', needA, 'A'), number('BMS opens at', bearsA, 'A')],
      limit: bank.each.$origin('overCurrentA'),
      formula: () => `${q(needA, 'A')} through ${list}; BMS ${q(bank.each.overCurrentA, 'A')} × ${bank.each.parallel}. One start is ${q(startAh, 'Ah')}: about ${q(minutes, 'min')} of transfer at ${q(flowsA, 'A')}, key off`,
      summary: () => over
        ? `Through ${list} a starter of ${q(needA, 'A')} can draw on the battery, whose BMS opens at ${q(bearsA, 'A')}.`
        : `Through ${list} a starter of ${q(needA, 'A')} can draw on the battery, which bears ${q(bearsA, 'A')}.`,
      remedies: over ? [...new Map(ways.map((way) => [way.remedy.id, way.remedy])).values()] : [],
      cautions: () => (starting.present === 'yes' ? [`Joined for about ${q(minutes, 'min')} with the key off, the house battery lends the starting battery one start. Part them before cranking.`] : []),
    }
  },
})

export const starterRated = check({
  id: 'battery.starter-rated',
  title: 'Rated to start an engine',
  about: 'battery',
  why: 'A starter battery that is strong enough in summer and weak on the first cold morning is found out far from home.',
  judge(_subject, system) {
    const { q } = system
    const { bank, one, rules } = system
    if (bank.each.purpose !== 'starter') return null
    const starting = one.startingBattery
    if (starting.present !== 'no') {
      return {
        verdict: 'does-not-suit',
        compared: [word('made for', 'starting'), word('used for', 'house loads')],
        limit: bank.each.$origin('purpose'),
        formula: () => 'starter-rated ≠ house use',
        summary: () => 'The battery is made to start an engine, and here it would carry house loads.',
        remedies: [{ id: 'battery.other', on: 'candidate' }],
      }
    }
    const { coldestC } = one.place
    const share = coldestC >= 10 ? 100 : coldestC <= -10 ? rules.crankColdShare : rules.crankColdShare + ((100 - rules.crankColdShare) * (coldestC + 10)) / 20
    const givesA = (bank.each.crankingA * bank.each.parallel * share) / 100
    const weak = givesA < starting.engineNeedA
    return {
      verdict: weak ? 'does-not-suit' : 'suits',
      compared: [number(`cranks at ${q(coldestC, '°C')}`, givesA, 'A'), number('engine needs', starting.engineNeedA, 'A')],
      limit: starting.$origin('engineNeedA'),
      formula: () => `${q(bank.each.crankingA, 'A')} × ${Math.round(share)} % at ${q(coldestC, '°C')} = ${q(givesA, 'A')}; engine ${q(starting.engineNeedA, 'A')}`,
      summary: () => (weak ? `On the coldest start it cranks with ${q(givesA, 'A')} and the engine needs ${q(starting.engineNeedA, 'A')}.` : `On the coldest start it cranks with ${q(givesA, 'A')}; the engine needs ${q(starting.engineNeedA, 'A')}.`),
      remedies: weak ? [{ id: 'battery.other', on: 'candidate' }] : [],
      cautions: () => [
        ...(coldestC < 0 ? ['Below freezing the first turn is slow and warms the cells: switch the lights on for a minute, then crank again.'] : []),
        ...(starting.monitored === 'yes' ? ['The vehicle watches its battery: the new one must be registered, kind and capacity, or it is charged as lead.'] : []),
      ],
    }
  },
})

export const upkeep = check({
  id: 'start.upkeep',
  title: 'Starting battery while it stands',
  about: 'battery',
  why: 'The old link charged both batteries; once the house is lithium, nothing may be left that keeps the one that starts the engine.',
  judge(_subject, { one, lanes, rules, q }) {
    const starting = one.startingBattery
    if (starting.present !== 'yes') return null
    const weeks = one.use.standsWeeks
    const stands = weeks > rules.standWeeks
    const fedBack = lanes.some((lane) => lane.kind === 'alternator' && lane.link.kind === 'dcdc' && lane.link.backFeed === 'yes')
    const fed = starting.fedByCharger === 'yes' || fedBack
    const lastsWeeks = (starting.ah * 0.5 * (starting.health / 100)) / (starting.standbyA * 168 + starting.ah * 0.01)
    const short = rules.upkeepSchool === 'trickle' && stands && !fed && lastsWeeks < weeks
    return {
      verdict: short ? 'suits-once-changed' : 'suits',
      compared: [number('stands for', weeks, 'weeks'), fed ? word('fed by', fedBack ? 'the DC-DC' : 'a charger or the sun') : number('lasts', lastsWeeks, 'weeks')],
      limit: { kind: 'rule', text: `shop rule: starting battery when plugged in or parked, ${rules.upkeepSchool === 'trickle' ? 'trickle it' : 'leave it to the engine'}` },
      formula: () => `half of ${q(starting.ah, 'Ah')} × ${q(starting.health, '%')} ÷ (${q(starting.standbyA, 'A')} × 168 h + 1 % a week of itself) = ${q(lastsWeeks, 'weeks')}`,
      summary: () => fed ? `The starting battery is kept by ${fedBack ? 'the DC-DC' : 'a charger or the sun'} while the vehicle stands.`
        : `Nothing feeds the starting battery while it stands; it lasts ${q(lastsWeeks, 'weeks')}, and it stands ${q(weeks, 'weeks')} at the longest${stands && rules.upkeepSchool === 'leave' && lastsWeeks < weeks ? '. The shop leaves it to the engine' : ''}.`,
      remedies: short ? [{ id: 'start.trickle', on: 'startingBattery' }] : [],
    }
  },
})
