import { lastOf } from '#core/collections/held'
import { joinText, nameInSentence } from '#core/units/format'
import { clearDays } from '#core/weather/sun'
import { home } from '#core/weather/places'
import { check, number, word, type Judgement } from '#core/assessment/check'
import { chargedAwayAh, dailyUse, laneDay, workingV } from '#core/system/energy'
import { arrayA, arrayW, coldestOutsideC, coldOpenCircuitV } from '#core/system/currents'
import type { SolarLane } from '#core/system/lanes'
import type { System } from '#core/system/system'
import { isWorse } from '#core/system/verdict'
import { absorptionOf, floatOf } from '../charger/charger'

const voltage = check({
  id: 'solar.voltage',
  title: 'Stages of the solar controller',
  about: 'solar',
  why: joinText(
    'The sun shines whether anybody is there or not. ',
    'A wrong float or stage works on the battery every day.',
  ),
  judge({ lane, name, path }, system): Judgement | null {
    if (lane.solar.through === 'dcdc') return null
    const subject = { unit: lane.solar, lane, name, path }
    const [absorbs, floats] = [absorptionOf(subject, system), floatOf(subject, system)]
    return absorbs && floats && isWorse(floats.verdict, absorbs.verdict) ? floats : absorbs
  },
})

const days = { worst: 355, best: 172 } as const

const suns = new Map<number, Float64Array>()
/**
 * Hours of a clear day on a tilted panel at the shop's place, W/m². Calculated once for a day and a tilt: it
 * asks where the sun stands.
 */
function clearSunWm2(dayOfYear: number, tiltDeg: number): Float64Array {
  const key = dayOfYear * 1000 + tiltDeg
  let sun = suns.get(key)
  if (!sun)
    suns.set(
      key,
      (sun = clearDays({
        dayMs: Date.UTC(2025, 0, dayOfYear),
        days: 1,
        ...home,
        tiltDeg,
        clearness: 1,
        meanC: 15,
        swingC: 0,
      }).panelWm2),
    )
  return sun
}

/** The sun by which panels are labelled, W/m². */
const fullSunWm2 = 1000

/**
 * Charge of an array on a mean day of the worst and of the best month, Ah: clear-sky sun at the shop's place, times
 * the shop's share of it, less shade and losses of heat, cable and controller.
 */
function monthlyYieldAh(
  { solar }: SolarLane,
  { bank, rules }: System,
): { readonly worst: number; readonly best: number } {
  const left = (rules.clearness / 100) * (rules.solarDerate / 100) * (1 - solar.shading / 100)
  const of = (dayOfYear: number): number => {
    const perHour = (arrayA(solar, workingV(bank)) / fullSunWm2) * left
    return clearSunWm2(dayOfYear, solar.tilt).reduce(
      (ah, wm2) => ah + Math.min(solar.ratedA, wm2 * perHour),
      0,
    )
  }
  return { worst: of(days.worst), best: of(days.best) }
}

const yieldOfYear = check({
  id: 'solar.yield',
  title: 'Energy from the sun',
  about: 'solar',
  why: 'Panels are rated for midsummer. The customer also travels in March.',
  judge({ lane, name }, system) {
    const { q } = system
    const { one } = system
    const { worst, best } = monthlyYieldAh(lane, system)
    const use = dailyUse(system)
    const sun = laneDay(lane, system)
    const othersAh = Math.max(0, chargedAwayAh(system) - sun.amps * sun.hours)
    const short = one.use.daysAway > 2 && othersAh === 0 && best < use.ah / one.use.daysAway
    return {
      verdict: short ? 'suits-once-changed' : 'suits',
      compared: [number('best month, a day', best, 'Ah'), number('worst month, a day', worst, 'Ah')],
      limit: { kind: 'rule', text: 'shop rules: share of a clear sky’s sun, solar yield' },
      formula: () =>
        joinText(
          `${q(arrayW(lane.solar), 'W')} under a clear sky of midsummer and midwinter, `,
          `flat or tilted ${q(lane.solar.tilt, '°')}, `,
          `× ${system.rules.clearness} % sun × ${system.rules.solarDerate} % `,
          `× (1 − ${q(lane.solar.shading, '%')} shade) = ${q(best, 'Ah')} and ${q(worst, 'Ah')}; `,
          `used ${q(use.ah, 'Ah')} a day`,
        ),
      summary: () =>
        joinText(
          `${name} brings about ${q(best, 'Ah')} a day in `,
          `the best month and ${q(worst, 'Ah')} in the worst; `,
          `${q(use.ah, 'Ah')} a day are used.`,
        ),
      remedies: short
        ? [{ id: 'use.charge-more', on: 'use', value: Math.ceil(use.ah / one.use.daysAway - best) }]
        : [],
    }
  },
})

/** Strings in parallel from which the others can feed a shorted one with more than its rated current. */
const fusedFromStrings = 3
/** A string fuse holds this many times the short-circuit current, and is made in these sizes, A (usual practice). */
const stringFuseShare = 1.56
const stringFuseSizesA = [4, 6, 8, 10, 12, 15, 20, 25, 30, 40, 50, 63, 80]

const stringFuses = check({
  id: 'solar.string-fuses',
  title: 'Fuse in each string',
  about: 'solar',
  why: joinText(
    'In a short in one string, all the others feed it. ',
    'Its cable and panels are made for the current of one string.',
  ),
  judge({ lane: { solar }, name }, { q }) {
    if (solar.parallel < fusedFromStrings) return null
    const others = solar.parallel - 1
    const intoOneA = others * solar.shortCircuitA
    const isFused = solar.stringFuses === 'yes'
    const leastA = solar.shortCircuitA * stringFuseShare
    const value = stringFuseSizesA.find((size) => size >= leastA) ?? lastOf(stringFuseSizesA)
    return {
      verdict: isFused ? 'suits' : 'suits-once-changed',
      compared: [
        number('others feed one string', intoOneA, 'A'),
        number('one string gives', solar.shortCircuitA, 'A'),
      ],
      limit: { kind: 'physics', text: 'parallel panels feed a short in one of them' },
      formula: () =>
        joinText(
          `${others} × ${q(solar.shortCircuitA, 'A')} = ${q(intoOneA, 'A')}; `,
          `fuse from ${stringFuseShare} × ${q(solar.shortCircuitA, 'A')} = ${q(leastA, 'A')}`,
        ),
      summary: () =>
        isFused
          ? `Each of the ${solar.parallel} strings of ${nameInSentence(name)} has its own fuse.`
          : joinText(
              `The ${solar.parallel} strings of ${nameInSentence(name)} have no fuses. `,
              `A short in one string gets ${q(intoOneA, 'A')} from the others.`,
            ),
      cautions: () =>
        isFused
          ? []
          : ['The label of the panel names the largest fuse allowed in its string. That limit decides.'],
      remedies: isFused ? [] : [{ id: 'solar.string-fuses', on: solar.$path, value }],
    }
  },
})

const coldVoc = check({
  id: 'solar.cold-voc',
  title: 'Panel voltage in the cold',
  about: 'solar',
  why: 'Panels reach their highest voltage on a cold bright morning. A controller with no margin fails then.',
  judge({ lane: { solar }, name }, system) {
    const { q } = system
    if (solar.through === 'dcdc') return null
    const coldC = coldestOutsideC(system)
    const { volts, factor } = coldOpenCircuitV(solar, coldC)
    const over = volts > solar.maxPvV
    const side = over && solar.series > 1 && solar.openCircuitV * factor <= solar.maxPvV
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [
        number(`panels at ${q(coldC, '°C')}`, volts, 'V'),
        number('controller allows', solar.maxPvV, 'V'),
      ],
      limit: solar.$origin('maxPvV'),
      formula: () =>
        joinText(
          `${solar.series} × ${q(solar.openCircuitV, 'V')} × (1 + `,
          `${q(solar.vocPerC, '%/°C')} × ${q(25 - coldC, 'Δ°C')}) = ${q(volts, 'V')}`,
        ),
      summary: () =>
        `${name} reaches ${q(volts, 'V')} in the cold; its controller allows ${q(solar.maxPvV, 'V')}.`,
      remedies: !over
        ? []
        : [
            ...(side ? [{ id: 'solar.in-parallel', on: solar.$path } as const] : []),
            { id: 'solar.controller', on: solar.$path, value: Math.ceil(volts * 1.1) },
          ],
    }
  },
})

const current = check({
  id: 'solar.current',
  title: 'Controller current',
  about: 'solar',
  why: 'A controller that is too small wastes the best hours of sun, or overheats.',
  judge({ lane: { solar }, name }, { bank, q }) {
    if (solar.through === 'dcdc') return null
    const amps = arrayA(solar, bank.lowV)
    const over = amps > solar.ratedA
    // One that can be set to a limit holds its panels there, as it is told to.
    const isLimited = over && solar.currentLimit === 'adjustable'
    const tooMuch = over && !isLimited
    return {
      verdict: tooMuch ? 'suits-once-changed' : 'suits',
      compared: [
        number('panels give', amps, 'A'),
        number(isLimited ? 'controller limits to' : 'controller rated', solar.ratedA, 'A'),
      ],
      limit: solar.$origin('ratedA'),
      formula: () =>
        solar.controller === 'pwm'
          ? `PWM passes Imp: ${solar.parallel} × ${q(solar.maxPowerA, 'A')} = ${q(amps, 'A')}`
          : `${q(arrayW(solar), 'W')} ÷ ${q(bank.lowV, 'V')} = ${q(amps, 'A')}`,
      summary: () =>
        isLimited
          ? `${name} can give ${q(amps, 'A')}. Its controller limits that to ${q(solar.ratedA, 'A')}.`
          : `${name} can give ${q(amps, 'A')}. Its controller is rated ${q(solar.ratedA, 'A')}.`,
      remedies: tooMuch ? [{ id: 'solar.larger', on: solar.$path, value: Math.ceil(amps / 5) * 5 }] : [],
    }
  },
})

const sourceVoltage = check({
  id: 'source.voltage',
  title: 'Regulator of the source',
  about: 'source',
  why: 'A regulator set for lead-acid either never fills the battery or exceeds its limit.',
  judge({ lane: { source }, name }, { bank, q }) {
    const volts = source.regulatorV
    const [over, under] = [volts > bank.highV, volts < bank.lowV]
    return {
      verdict: over ? 'does-not-suit' : under ? 'suits-once-changed' : 'suits',
      compared: [
        number('regulator holds', volts, 'V'),
        number(under ? 'charge at least' : 'charge at most', under ? bank.lowV : bank.highV, 'V'),
      ],
      limit: bank.each.$origin(under ? 'chargeLowV' : bank.highField),
      formula: () => `window ${q(bank.lowV, 'V')} to ${q(bank.highV, 'V')}; regulator ${q(volts, 'V')}`,
      summary: () =>
        over
          ? `${name} holds ${q(volts, 'V')} and the battery allows ${q(bank.highV, 'V')}.`
          : under
            ? joinText(
                `${name} stops at ${q(volts, 'V')}, below the window that starts at ${q(bank.lowV, 'V')}: `,
                'it charges most of the way and never balances the cells.',
              )
            : `${name} holds ${q(volts, 'V')}, inside the window.`,
      remedies: over
        ? [{ id: 'source.regulator', on: source.$path, value: bank.middleV }]
        : under
          ? [
              { id: 'charger.top-up', on: source.$path },
              { id: 'source.regulator', on: source.$path, value: bank.middleV },
            ]
          : [],
    }
  },
})

const onOpening = { diversion: 'diversion load', brake: 'brake', none: 'nothing' } as const

const unloaded = check({
  id: 'source.unloaded',
  title: 'Cut-out of the battery',
  about: 'source',
  why: joinText(
    'A turbine or shaft generator that loses its battery spins freely. ',
    'Its voltage climbs until something burns.',
  ),
  judge({ lane: { source }, name }) {
    const safe = source.onDisconnect !== 'none'
    return {
      verdict: safe ? 'suits' : 'does-not-suit',
      compared: [word('takes over', onOpening[source.onDisconnect]), word('wanted', 'diversion or brake')],
      limit: { kind: 'physics', text: 'without a load nothing limits its voltage' },
      formula: () => `BMS opens → ${onOpening[source.onDisconnect]}`,
      summary: () =>
        safe
          ? joinText(
              'If the battery cuts out, ',
              `a ${onOpening[source.onDisconnect]} takes over from ${nameInSentence(name)}.`,
            )
          : `If the battery cuts out, nothing limits the voltage of ${nameInSentence(name)}.`,
      remedies: safe ? [] : [{ id: 'source.diversion', on: source.$path }],
    }
  },
})

export const checks = [voltage, yieldOfYear, stringFuses, coldVoc, current, sourceVoltage, unloaded] as const
