import { listInSentence, durationWords, joinText } from '#core/units/format'
import type { View } from '#core/system/scene'
import { addDcdc } from '#core/remedies/arrangements'
import { openCircuitV } from '#core/physics/lfp'
import { check, number, word, type Judgement } from '#core/assessment/check'
import type { RemedyRef } from '#core/remedies/catalogue'
import type { ShopRules } from '#core/rules/rules'
import type { Bank } from '#core/system/bank'
import type { System } from '#core/system/system'

type Starting = View<'startingBatteries'>

/** A path by which a starter can draw on the house bank, with its starter and its remedy. */
interface CrankingWay {
  readonly words: string
  readonly starting: Starting
  readonly remedy: RemedyRef
}

/** Ways through the battery of one engine itself. */
function waysOf(starting: Starting): CrankingWay[] {
  if (starting.present === 'no')
    return [
      {
        words: 'the starter cable from this bank',
        starting,
        remedy: { id: 'start.own-battery', on: starting.$path },
      },
    ]
  if (starting.present !== 'yes' || starting.jumpSwitch !== 'yes') return []
  return [{ words: 'the jump switch', starting, remedy: { id: 'start.no-jump', on: starting.$path } }]
}

/** Every way there is, by its words and the engine it leads to. */
function crankingWays(system: System): CrankingWay[] {
  const through = system.lanes.flatMap((lane): CrankingWay[] => {
    if (lane.kind !== 'alternator' || lane.starting.present === 'noEngine') return []
    const { link, starting } = lane
    if (link.kind === 'vsr' && link.bothWay === 'yes')
      return [{ words: 'the both-way relay', starting, remedy: { id: 'link.one-way', on: link.$path } }]
    return link.kind === 'switch'
      ? [{ words: 'the battery switch on “both”', starting, remedy: addDcdc(lane, system) }]
      : []
  })
  return [...system.many.startingBatteries.flatMap(waysOf), ...through]
}

/** No path lets a starter draw on the house battery. */
const outOfReach: Judgement = {
  verdict: 'suits',
  compared: [word('can a starter reach it', 'no'), word('must be', 'no')],
  limit: { kind: 'physics', text: 'a starter draws more than a house BMS carries' },
  formula: () => 'no jump switch, no switch on “both”, no both-way relay',
  summary: () => 'No path lets a starter draw on the house battery.',
}

/**
 * Charge that one start takes of a starting battery, and the time in which the house bank returns it with the key
 * off.
 */
function transferOf(needA: number, { bank, rules }: System) {
  const startAh = (needA * rules.startS) / 3600
  const flowsA = Math.min(
    bank.continuousA,
    (openCircuitV(0.5, bank.nominalV) - 12.2 * bank.scale) / (bank.ohm + rules.cableMohm / 1000),
  )
  const hours = (startAh / Math.max(flowsA, 1)) * 1.5
  return { startAh, flowsA, words: durationWords(hours) }
}

const transferCaution = (takes: string): string =>
  joinText(
    `With the key off, joining them for ${takes} charges the starting battery for about one start. `,
    'Separate them before you crank.',
  )

const cranking = check({
  id: 'battery.cranking',
  title: 'Kept off engine starting',
  about: 'battery',
  why: joinText(
    'A starter draws hundreds of amperes at once. ',
    'A house battery’s BMS opens, and may not close again at the roadside.',
  ),
  judge(_subject, system) {
    const { q } = system
    const { bank } = system
    if (bank.each.purpose === 'starter') return null
    const ways = crankingWays(system)
    if (ways.length === 0) return outOfReach
    const needA = Math.max(...ways.map(({ starting }) => starting.engineNeedA))
    const fromHouse = ways.some(({ starting }) => starting.present === 'no')
    const bearsA = bank.each.overCurrentA * bank.each.parallel * bank.sharing
    const over = needA > bearsA
    const transfer = transferOf(needA, system)
    const list = listInSentence([...new Set(ways.map(({ words }) => words))])
    return {
      verdict: !over ? 'suits' : fromHouse ? 'does-not-suit' : 'suits-once-changed',
      compared: [number('starter draws', needA, 'A'), number('BMS opens at', bearsA, 'A')],
      limit: bank.each.$origin('overCurrentA'),
      formula: () =>
        joinText(
          `${q(needA, 'A')} through ${list}; BMS ${q(bank.each.overCurrentA, 'A')} × ${bank.each.parallel}. `,
          `One start is ${q(transfer.startAh, 'Ah')}: `,
          `about ${transfer.words} of transfer at ${q(transfer.flowsA, 'A')}, `,
          'key off',
        ),
      summary: () =>
        joinText(
          `Through ${list} a starter of ${q(needA, 'A')} can draw on the battery, `,
          over ? `whose BMS opens at ${q(bearsA, 'A')}.` : `which tolerates ${q(bearsA, 'A')}.`,
        ),
      remedies: over ? [...new Map(ways.map((way) => [way.remedy.id, way.remedy])).values()] : [],
      cautions: () => (fromHouse ? [] : [transferCaution(transfer.words)]),
    }
  },
})

/** Share of its cranking current that a battery gives, %: all from 10 °C up, the shop’s share from −10 °C down. */
function crankingShare(coldestC: number, { crankColdShare }: ShopRules): number {
  const warmth = Math.min(1, Math.max(0, (coldestC + 10) / 20))
  return crankColdShare + (100 - crankColdShare) * warmth
}

const starterRated = check({
  id: 'battery.starter-rated',
  title: 'Rating for engine starting',
  about: 'battery',
  why: 'A starter battery that is strong in summer can fail on the first cold morning, far from home.',
  judge(_subject, system) {
    const { q } = system
    const { bank, one, many, rules } = system
    if (bank.each.purpose !== 'starter') return null
    const starting = many.startingBatteries.find(({ present }) => present === 'no')
    if (!starting) return carriesHouseLoads(bank)
    const { coldestC } = one.place
    const share = crankingShare(coldestC, rules)
    const givesA = (bank.each.crankingA * bank.each.parallel * share) / 100
    const weak = givesA < starting.engineNeedA
    return {
      verdict: weak ? 'does-not-suit' : 'suits',
      compared: [
        number(`cranks at ${q(coldestC, '°C')}`, givesA, 'A'),
        number('engine needs', starting.engineNeedA, 'A'),
      ],
      limit: starting.$origin('engineNeedA'),
      formula: () =>
        joinText(
          `${q(bank.each.crankingA, 'A')} × ${Math.round(share)} % at ${q(coldestC, '°C')} `,
          `= ${q(givesA, 'A')}; `,
          `engine ${q(starting.engineNeedA, 'A')}`,
        ),
      summary: () =>
        joinText(
          `On the coldest start it cranks with ${q(givesA, 'A')}`,
          weak ? ' and' : ';',
          ` the engine needs ${q(starting.engineNeedA, 'A')}.`,
        ),
      remedies: weak
        ? [
            { id: 'battery.other', on: 'candidate' },
            ...(coldestC < 0 ? [{ id: 'start.winter-lead', on: starting.$path } as const] : []),
          ]
        : [],
      cautions: () => startCautions(starting, coldestC),
    }
  },
})

/** A battery that is made to start an engine, and starts none. */
function carriesHouseLoads({ each }: Bank): Judgement {
  return {
    verdict: 'does-not-suit',
    compared: [word('made for', 'starting'), word('used for', 'house loads')],
    limit: each.$origin('purpose'),
    formula: () => 'starter-rated ≠ house use',
    summary: () => 'The battery is made to start an engine, and here it would carry house loads.',
    remedies: [{ id: 'battery.other', on: 'candidate' }],
  }
}

/** Cautions of starting an engine with lithium. */
const startCautions = (starting: Starting, coldestC: number): readonly string[] => [
  ...(coldestC < 0
    ? [
        joinText(
          'Below freezing the first turn is slow and warms the cells: ',
          'switch the lights on for a minute, then crank again.',
        ),
      ]
    : []),
  ...(starting.monitored === 'yes'
    ? [
        joinText(
          'The vehicle watches its battery: the new one must be registered, ',
          'kind and capacity, or it is charged as lead.',
        ),
      ]
    : []),
]

/** A source for a starting battery, as a word and as the subject of a sentence. */
const feeders = {
  dcdc: { by: 'the DC-DC', subject: 'The DC-DC' },
  charger: { by: 'a charger or the sun', subject: 'A charger or solar' },
} as const

/** The source that keeps a starting battery charged while the vehicle is parked; null if there is none. */
function fedBy(starting: Starting, { lanes }: System): keyof typeof feeders | null {
  const isFedBack = lanes.some(
    (lane) =>
      lane.kind === 'alternator' &&
      lane.starting.$path === starting.$path &&
      lane.link.kind === 'dcdc' &&
      lane.link.backFeed === 'yes',
  )
  if (isFedBack) return 'dcdc'
  return starting.fedByCharger === 'yes' ? 'charger' : null
}

/** How long half of a starting battery lasts by its standing draw and self-discharge, weeks. */
const lastsFor = ({ ah, health, standbyA }: Starting): number =>
  (ah * 0.5 * (health / 100)) / (standbyA * 168 + ah * 0.01)

const upkeepWords = { trickle: 'trickle it', leave: 'leave it to the engine' } as const

const upkeep = check({
  id: 'start.upkeep',
  title: 'Starting battery at rest',
  about: 'starting',
  why: joinText(
    'The old link charged both batteries. With a lithium house bank, ',
    'nothing may be left to charge the starting battery.',
  ),
  judge({ starting }, system) {
    const { one, rules, q } = system
    if (starting.present !== 'yes') return null
    const weeks = one.use.standsWeeks
    const stands = weeks > rules.standWeeks
    const fed = fedBy(starting, system)
    const lastsWeeks = lastsFor(starting)
    const short = rules.upkeepSchool === 'trickle' && stands && !fed && lastsWeeks < weeks
    return {
      verdict: short ? 'suits-once-changed' : 'suits',
      compared: [
        number('is parked for', weeks, 'weeks'),
        fed ? word('fed by', feeders[fed].by) : number('lasts', lastsWeeks, 'weeks'),
      ],
      limit: {
        kind: 'rule',
        text: `shop rule: starting battery when plugged in or parked, ${upkeepWords[rules.upkeepSchool]}`,
      },
      formula: () =>
        joinText(
          `half of ${q(starting.ah, 'Ah')} × ${q(starting.health, '%')} ÷ `,
          `(${q(starting.standbyA, 'A')} × 168 h + 1 % a week self-discharge) = ${q(lastsWeeks, 'weeks')}`,
        ),
      summary: () =>
        fed
          ? joinText(feeders[fed].subject, ' keeps the starting battery charged while the vehicle is parked.')
          : joinText(
              'Nothing charges the starting battery while the vehicle is parked. ',
              `It lasts ${q(lastsWeeks, 'weeks')}`,
              weeks > 0 ? `, and the vehicle is parked for up to ${q(weeks, 'weeks')}` : '',
              stands && rules.upkeepSchool === 'leave' && lastsWeeks < weeks
                ? '. The shop leaves it to the engine'
                : '',
              '.',
            ),
      remedies: short ? [{ id: 'start.trickle', on: starting.$path }] : [],
    }
  },
})

export const checks = [cranking, starterRated, upkeep] as const
