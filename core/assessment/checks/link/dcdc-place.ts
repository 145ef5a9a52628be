import { deratedShare } from '#core/physics/dcdc'
import { formatShare, joinText, nameInSentence } from '#core/units/format'
import { check, number, word } from '#core/assessment/check'
import { chargedAwayAh, dailyUse, laneDay, usableColdAh } from '#core/system/energy'
import {
  arrayW,
  coldestOutsideC,
  coldOpenCircuitV,
  dcdcInput,
  feedingV,
  type DcdcInput,
} from '#core/system/currents'
import { heldToCurrent, thickerCable, unjoined } from '#core/remedies/arrangements'
import { partId } from '#core/job/document'
import { inputRunsOf } from '#core/wiring/propose/links'
import { cableSizesMm2 } from '#core/physics/conductors'
import type { Run } from '#core/wiring/network'
import { ohmAtSize, runOhm } from '#core/wiring/run-ohm'
import { wiringIn } from '#core/wiring/wiring'
import { onEngineSide } from '#core/system/cables'
import { cableOhm, type AlternatorLane } from '#core/system/lanes'
import { leastSizeA, sizeUnder, type RemedyRef } from '#core/remedies/catalogue'
import type { System } from '#core/system/system'

const inputVoltage = check({
  id: 'dcdc.input-voltage',
  title: 'Voltage left at the DC-DC',
  about: 'alternator',
  why: joinText(
    'If the input sags below the minimum, the unit stops, recovers, ',
    'starts and stops again. The battery gets no charge for hours.',
  ),
  judge({ lane, name }, system) {
    const { q } = system
    const { link, alternator } = lane
    if (link.kind !== 'dcdc') return null
    const byHand = inputRunsByHand(lane, system)
    const ownOhm = byHand ? ohmOf(byHand, system) : cableOhm(lane, system.rules)
    const input = dcdcInput(lane, system, ownOhm)
    const over = input.volts < link.lowestInputV
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [number('at its input', input.volts, 'V'), number('runs down to', link.lowestInputV, 'V')],
      limit: link.$origin('lowestInputV'),
      formula: () =>
        joinText(
          `${q(feedingV(alternator), 'V')} − ${q(input.amps, 'A')} × cable = ${q(input.volts, 'V')}`,
          alternator.regulator === 'computer' ? ', at the lowest the computer lets it fall to' : '',
        ),
      summary: () =>
        over
          ? joinText(
              `At full output the DC-DC on ${nameInSentence(name)} gets ${q(input.volts, 'V')}. `,
              `It stops below ${q(link.lowestInputV, 'V')}: `,
              `the cable supplies at most ${q(input.flowsA, 'A')}.`,
            )
          : joinText(
              `At full output the DC-DC on ${nameInSentence(name)} gets ${q(input.volts, 'V')}. `,
              `It runs down to ${q(link.lowestInputV, 'V')}.`,
            ),
      remedies: over ? inputRemedies(lane, { input, ownOhm, byHand }, system) : [],
    }
  },
})

/** Properties of a run that change its resistance. */
const ohmFields = ['lengthM', 'areaMm2', 'count', 'milliohm', 'material', 'returnBy']

/**
 * The runs of the input of a DC-DC, there and back, where one of them was set by hand; null if all are as surveyed.
 */
function inputRunsByHand(lane: AlternatorLane, system: System): readonly Run[] | null {
  const { $path } = lane.link
  const paths = new Set(inputRunsOf(partId($path)).map((id) => `runs/${id}`))
  const isByHand = system.many.runs.some(
    (run) => paths.has(run.$path) && ohmFields.some((field) => run.$entered(field) !== null),
  )
  return isByHand
    ? wiringIn(system).network.runs.filter(({ of, side }) => of === $path && side === 'input')
    : null
}

/** Resistance of runs one after the other, Ω. */
const ohmOf = (runs: readonly Run[], system: System): number =>
  runs.reduce((sum, run) => sum + runOhm(run, wiringIn(system).network.cableC), 0)

/** The size of the run that loses most with which the input has no more than a resistance, Ω. */
function thickerRun(runs: readonly Run[], mostOhm: number, system: System): RemedyRef[] {
  const { cableC } = wiringIn(system).network
  const most = runs.reduce((a, b) => (runOhm(b, cableC) > runOhm(a, cableC) ? b : a))
  const othersOhm = ohmOf(runs, system) - runOhm(most, cableC)
  const value = cableSizesMm2.find(
    (areaMm2) => othersOhm + ohmAtSize(most, { areaMm2, count: most.count }, cableC) <= mostOhm,
  )
  return value === undefined ? [] : [{ id: 'run.thicker', on: `runs/${most.id}`, value }]
}

/** Lowest voltage down to which DC-DC units are made to run, V at 12 V (engineering default). */
const lowestMadeV = 9
/** Left over the lowest running voltage when a cable or a current is chosen, V at 12 V. */
const overLowestV = 0.2

/** Voltage and current at a DC-DC, the resistance up to it, Ω, and the hand-set runs on the way. */
interface Input {
  readonly input: DcdcInput
  readonly ownOhm: number
  readonly byHand: readonly Run[] | null
}

/** A thicker cable to it, less current, or a unit that runs lower: whichever there is. */
function inputRemedies(lane: AlternatorLane, { input, ownOhm, byHand }: Input, system: System): RemedyRef[] {
  const { link, alternator } = lane
  const { rules } = system
  const scale = Number(alternator.nominalV) / 12
  const sourceV = feedingV(alternator)
  const leastV = link.lowestInputV + overLowestV * scale
  const watts = (link.absorptionV * link.ratedA) / (rules.dcdcEfficiency / 100)
  const spareV = sourceV - leastV
  const runsLowerAt = Math.floor((input.volts / scale) * 2) / 2
  const lower: RemedyRef[] =
    runsLowerAt >= lowestMadeV ? [{ id: 'dcdc.lower-input', on: link.$path, value: runsLowerAt * scale }] : []
  if (spareV <= 0) return [...lower, unjoined(lane)]
  const ohm = (leastV * spareV) / watts
  const lessA = Math.floor((link.ratedA * ohm) / ownOhm)
  const limit = heldToCurrent(link, lessA)
  const smaller: RemedyRef =
    lessA >= leastSizeA
      ? {
          id: 'charger.replace',
          on: link.$path,
          value: sizeUnder(lessA),
          values: { absorptionV: link.absorptionV },
        }
      : unjoined(lane)
  // A thicker cable alone is the cheaper way only where fuses and plugs bear the unit at full output.
  const cable = byHand
    ? thickerRun(byHand, ohm, system)
    : [thickerCable(lane.cables, ohm - ownOhm, system)].filter((one) => one !== null)
  const cableAlone = cable.length > 0 && bearsRunning(lane, watts / leastV)
  return cableAlone ? [...cable, ...limit, smaller, ...lower] : [...limit, smaller, ...cable, ...lower]
}

/** Whether the fuses and plugs on the way to a DC-DC bear a current, A, as far as they were entered. */
const bearsRunning = ({ cables }: AlternatorLane, amps: number): boolean =>
  cables
    .filter(onEngineSide)
    .every((cable) =>
      [cable.$entered('fuseA'), cable.$entered('farFuseA'), cable.$entered('connectorA')].every(
        (ratedA) => ratedA === null || Number(ratedA) >= amps,
      ),
    )

/** An engine space in summer, °C: an engineering default. */
const engineSpaceC = 60

const place = check({
  id: 'dcdc.place',
  title: 'Place of the DC-DC',
  about: 'alternator',
  why: joinText(
    'Power electronics derate when hot. ',
    'Most makers forbid the engine space because of heat, fumes and spray.',
  ),
  judge({ lane, name }, { one, q }) {
    const { link } = lane
    if (link.kind !== 'dcdc') return null
    const engine = link.stands === 'engine'
    const bad = engine && link.engineSpace === 'no'
    const celsius = engine ? engineSpaceC : one.place.hottestC
    const givesA = link.ratedA * deratedShare(celsius)
    return {
      verdict: bad ? 'suits-once-changed' : 'suits',
      compared: [
        word('is in', engine ? 'the engine space' : 'a cool place'),
        word('allowed in', link.engineSpace === 'yes' ? 'either' : 'a cool place'),
      ],
      limit: link.$origin('engineSpace'),
      formula: () =>
        joinText(
          `${q(link.ratedA, 'A')} × ${formatShare(deratedShare(celsius))} `,
          `at ${q(celsius, '°C')} = ${q(givesA, 'A')}`,
        ),
      summary: () =>
        bad
          ? `The DC-DC on ${nameInSentence(name)} is in the engine space, which its maker forbids.`
          : joinText(
              `At ${q(celsius, '°C')} the DC-DC on ${nameInSentence(name)} `,
              `delivers ${q(givesA, 'A')} of its ${q(link.ratedA, 'A')}.`,
            ),
      remedies: bad ? [{ id: 'dcdc.move', on: link.$path }] : [],
    }
  },
})

const daily = check({
  id: 'dcdc.daily',
  title: 'Charge on a driving day',
  about: 'alternator',
  foretells: true,
  why: joinText(
    'A DC-DC small enough for the alternator can be too small for a day’s use. ',
    'Find out now, not on the third evening.',
  ),
  judge({ lane, name }, system) {
    const { q } = system
    const { link } = lane
    if (link.kind !== 'dcdc') return null
    const { one } = system
    const use = dailyUse(system)
    const { amps, hours } = laneDay(lane, system)
    const bringsAh = Math.min(amps * hours, use.ah)
    const othersAh = Math.max(0, chargedAwayAh(system) - amps * hours)
    const shortAh = Math.max(0, use.ah - bringsAh - othersAh)
    const daysAway = Math.max(1, one.use.daysAway)
    const bridged = shortAh * daysAway <= usableColdAh(system)
    return {
      verdict: bridged ? 'suits' : 'suits-once-changed',
      compared: [number('delivers a day', bringsAh, 'Ah'), number('used a day', use.ah, 'Ah')],
      limit: one.use.$origin(use.from === 'counted' ? 'dailyAh' : 'dcAtOnceA'),
      formula: () =>
        joinText(
          `min(${q(amps, 'A')} × ${q(hours, 'h')}, ${q(use.ah, 'Ah')}) = ${q(bringsAh, 'Ah')}; `,
          `other sources ${q(othersAh, 'Ah')}; short ${q(shortAh, 'Ah')} a day × `,
          `${q(daysAway, 'days')} against ${q(usableColdAh(system), 'Ah')} usable`,
        ),
      summary: () =>
        joinText(
          `A driving day on ${nameInSentence(name)} delivers `,
          `${q(bringsAh, 'Ah')} of the ${q(use.ah, 'Ah')} used`,
          shortAh > 0.5
            ? joinText(
                `. ${q(shortAh, 'Ah')} a day is missing`,
                amps > 0 ? `, which takes ${q(shortAh / amps, 'h')} more driving` : '',
                bridged ? '; the battery covers it' : '; the battery does not cover it',
              )
            : '',
          '.',
        ),
      remedies: bridged
        ? []
        : [{ id: 'use.charge-more', on: 'use', value: Math.ceil(shortAh - usableColdAh(system) / daysAway) }],
    }
  },
})

const solarInput = check({
  id: 'dcdc.solar-input',
  title: 'Solar input of the DC-DC',
  about: 'solar',
  why: joinText(
    'The solar input of a combined unit accepts far less voltage than a separate controller. ',
    'A cold bright morning destroys it.',
  ),
  judge({ lane: { solar }, name }, system) {
    const { many, q } = system
    if (solar.through !== 'dcdc') return null
    const link = many.links.find((other) => other.kind === 'dcdc')
    if (!link) return null
    const coldC = coldestOutsideC(system)
    const { volts, factor } = coldOpenCircuitV(solar, coldC)
    const watts = arrayW(solar)
    const [overV, overW] = [volts > link.solarMostV, watts > link.solarMostW]
    const side = overV && solar.series > 1 && solar.openCircuitV * factor <= link.solarMostV && !overW
    return {
      verdict: overV || overW ? 'suits-once-changed' : 'suits',
      compared:
        overW && !overV
          ? [number('panels', watts, 'W'), number('input takes', link.solarMostW, 'W')]
          : [number(`panels at ${q(coldC, '°C')}`, volts, 'V'), number('input takes', link.solarMostV, 'V')],
      limit: link.$origin(overW && !overV ? 'solarMostW' : 'solarMostV'),
      formula: () =>
        joinText(
          `${solar.series} × ${q(solar.openCircuitV, 'V')} × ${factor.toFixed(2)} `,
          `= ${q(volts, 'V')} against ${q(link.solarMostV, 'V')}; `,
          `${q(watts, 'W')} against ${q(link.solarMostW, 'W')}`,
        ),
      summary: () =>
        joinText(
          `${name} reaches ${q(volts, 'V')} in the cold and ${q(watts, 'W')}; `,
          `the solar input of the DC-DC accepts ${q(link.solarMostV, 'V')} and ${q(link.solarMostW, 'W')}.`,
        ),
      remedies:
        overV || overW
          ? [
              ...(side ? [{ id: 'solar.in-parallel', on: solar.$path } as const] : []),
              { id: 'solar.own-controller', on: solar.$path },
            ]
          : [],
    }
  },
})

export const checks = [inputVoltage, place, daily, solarInput] as const
