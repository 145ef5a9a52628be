import { said } from '#core/units/format'
import { beginsAt, type RunId, type RunInputs } from '#core/simulation/run-kinds'
import { holdBack, replacement } from '#core/remedies/arrangements'
import { caseLimitC, steadyCaseC, usualHeat } from '#core/physics/alternator'
import { plantFrom } from '#core/simulation/plant-of-job'
import { inputsOf } from '#core/simulation/inputs'
import type { Plant } from '#core/simulation/plant'
import { hoursSince } from '#core/simulation/surroundings'
import { totalsOf, type Totals } from '#core/simulation/runs'
import { check, mid, number, word } from '#core/assessment/check'
import { sharesBus } from '#core/system/energy'
import type { RemedyRef } from '#core/remedies/catalogue'
import {
  airAroundC,
  allDayA,
  allDayWords,
  availableA,
  measuredHeat,
  shaftRpm,
} from '#core/system/alternators'
import { acceptanceA, dcdcInput } from '#core/system/currents'
import { isStraight, type ChargerLane, type Lane, type SolarLane } from '#core/system/lanes'
import { Reads } from '#core/system/reads'
import type { System } from '#core/system/system'

// Checks that look ahead: each carries out the run of the run view, with the inputs that view begins with.
// The unknowns a check asks about are those it reads itself; all else that the run needs is taken as usual,
// as there.

/** The plant of a system as its scene has it, put together once for all scenes that assume the same. */
function plantIn(system: System): Plant {
  const { facts, assumed, reads } = system.scene
  const { plant, from } = facts.once(['plant', [...assumed]], () => {
    const own = new Reads(facts.slots)
    return { plant: plantFrom(system.asUsual(own), 'new'), from: own.slots }
  })
  reads.noteAll(from)
  return plant
}

/**
 * A run of the system as its scene has it, carried out once for the same plant and inputs.
 * @param part of the plant, where something else is to be left out
 */
function runOf(
  system: System,
  run: RunId,
  own: Partial<RunInputs> = {},
  part: (plant: Plant) => Plant = (plant) => plant,
): Totals {
  // Of the plant, its name and what was assumed for it change nothing.
  const plant = { ...part(plantIn(system)), name: '', assumed: [] }
  const inputs = { ...inputsOf(system, run), ...own }
  return system.scene.facts.once([run, plant, inputs], () => totalsOf(run, plant, inputs))
}

/** Which of the lanes of its kind a lane is: the same place as in the plant. */
const placeAmong = (lane: Lane, { lanes }: System): number =>
  lanes.filter(({ kind }) => kind === lane.kind).findIndex(({ id }) => id === lane.id)

/** The mains night of a job on one of its chargers alone, loads on. */
export function nightOn(lane: ChargerLane, system: System): Totals {
  const alone = placeAmong(lane, system)
  return runOf(system, 'mains-night', {}, (plant) => ({
    ...plant,
    chargers: plant.chargers.slice(alone, alone + 1),
  }))
}

/**
 * Hours from the shop's low charge to full on one source, loads on, in mild weather: on mains the run of
 * charger.time, on an alternator or another source the same night with that source alone, all day, an engine
 * under way. Infinity where three days do not fill it.
 */
export function hoursToFullOn(lane: Exclude<Lane, SolarLane>, system: System): number {
  switch (lane.kind) {
    case 'charger':
      return nightOn(lane, system).fullAfterH ?? Infinity
    case 'alternator':
      return (
        runOf(system, 'mains-night', { ...allDay, driveH: 24, idleShare: 0 }, (plant) => ({
          ...plant,
          sources: [],
          sides: plant.sides.filter(({ id }) => id === lane.id),
        })).fullAfterH ?? Infinity
      )
    case 'source': {
      const alone = placeAmong(lane, system)
      return (
        runOf(system, 'mains-night', allDay, (plant) => ({
          ...plant,
          sources: plant.sources.slice(alone, alone + 1).map((source) => ({ ...source, hours: 24 })),
        })).fullAfterH ?? Infinity
      )
    }
  }
}
/** Values of a lane without which nothing can be said of its hours: where one is not known they are not run. */
export function decidesHours(lane: Exclude<Lane, SolarLane>): readonly number[] {
  switch (lane.kind) {
    case 'charger':
      return [lane.charger.ratedA, lane.charger.absorptionV]
    case 'alternator':
      return [
        lane.alternator.ratedA,
        lane.alternator.regulatorV,
        ...(lane.link.kind === 'dcdc' ? [lane.link.ratedA, lane.link.absorptionV] : []),
      ]
    case 'source':
      return [lane.source.largestA, lane.source.regulatorV]
  }
}
const allDay: Partial<RunInputs> = { mainsH: 0, days: 3 }

export const time = check({
  id: 'charger.time',
  title: 'Hours to full on mains',
  about: 'unit',
  foretells: true,
  takesTime: true,
  why: 'A charger that is right in every voltage can still be too slow for the night it has.',
  judge({ unit, lane, name }, system) {
    const { q } = system
    if (lane.kind !== 'charger') return null
    const { bank, rules, many } = system
    const { charger } = lane
    const [ratedA, volts] = [unit.ratedA, unit.absorptionV]
    const totals = nightOn(lane, system)
    const hours = totals.fullAfterH
    const slow = hours === null || hours > rules.chargeHoursMost
    const { supplyLimitA } = charger
    const tooSmallA = supplyLimitA !== null && totals.acSupplyA > supplyLimitA ? supplyLimitA : null
    const larger = replacement(unit, bank)
    const generatorW = many.generators.reduce((sum, generator) => sum + generator.watts, 0)
    const drawsW = totals.acSupplyA * charger.supplyV
    const remedies: RemedyRef[] = [
      ...(tooSmallA !== null
        ? [
            {
              id: 'charger.limit-current',
              on: unit.$path,
              value: Math.max(1, Math.floor((ratedA * tooSmallA) / Math.max(0.1, totals.acSupplyA))),
            } as const,
          ]
        : []),
      ...(slow && larger.value! > ratedA ? [larger] : []),
      ...(slow ? [{ id: 'charger.top-up', on: unit.$path } as const] : []),
    ]
    return {
      verdict: slow || tooSmallA !== null ? 'suits-once-changed' : 'suits',
      compared:
        tooSmallA !== null
          ? [number('draws from the supply', totals.acSupplyA, 'A'), number('supply gives', tooSmallA, 'A')]
          : [
              hours === null ? word('to full', 'not reached in a day') : number('to full', hours, 'h'),
              number('at most', rules.chargeHoursMost, 'h'),
            ],
      limit:
        tooSmallA !== null
          ? charger.$origin('supplyLimitA')
          : { kind: 'rule', text: 'shop rule: longest charge from low to full on mains' },
      formula: () =>
        said(
          `run “mains night” from ${rules.lowChargeFrom} %, loads on, ${q(ratedA, 'A')} up to ${q(volts, 'V')}: `,
          hours === null ? 'not full' : `full after ${q(hours, 'h')}`,
          `; supply ${q(volts, 'V')} × ${q(ratedA, 'A')} ÷ (${charger.efficiency} % × ${charger.powerFactor} × ${q(charger.supplyV, 'V')}) = ${q(totals.acSupplyA, 'A')}`,
        ),
      summary: () =>
        said(
          `${name} `,
          hours === null
            ? `does not fill the battery from ${rules.lowChargeFrom} % in a day`
            : `fills the battery from ${rules.lowChargeFrom} % in ${q(hours, 'h')}`,
          ` with the loads on, and draws ${q(totals.acSupplyA, 'A')} from the supply`,
          tooSmallA === null ? '' : `, which gives ${q(tooSmallA, 'A')}`,
          '.',
        ),
      remedies,
      cautions: () =>
        generatorW > 0
          ? [
              said(
                'From the generator that is ',
                hours === null ? 'more than a day' : q(hours, 'h'),
                ' of running',
                drawsW > generatorW ? `, and ${q(drawsW, 'W')} is more than its ${q(generatorW, 'W')}` : '',
                '.',
              ),
            ]
          : [],
    }
  },
})

export const heat = check({
  id: 'alternator.heat',
  title: 'Heat of the alternator',
  about: 'alternator',
  foretells: true,
  takesTime: true,
  why: 'Lithium keeps the machine at full output for an hour; its diodes and its insulation do not bear that at idle under a hot bonnet.',
  judge({ lane, name }, system) {
    const { q } = system
    const { alternator, link } = lane
    const { rules } = system
    if (link.kind === 'none') return null
    const straight = isStraight(lane)
    const at = (speed: 'idle' | 'cruise'): { amps: number; allDay: number } => {
      const asked = straight
        ? acceptanceA(lane, rules.lowSoc / 100, speed, system)
        : Math.min(dcdcInput(lane, system).amps, availableA(alternator, speed, rules))
      return { amps: asked, allDay: allDayA(alternator, speed, rules) }
    }
    const idleShare = alternator.idleShare / 100
    // With what share of the drive it is at idle, the worse of the two counts only where it is driven so.
    const worse =
      at('idle').amps - at('idle').allDay > at('cruise').amps - at('cruise').allDay && idleShare > 0
        ? 'idle'
        : 'cruise'
    const { amps, allDay } = at(worse)
    const inputs = inputsOf(system, 'driving-day')
    // Until the engine stops: after that the case only cools.
    const totals = runOf(system, 'driving-day', {
      days: Math.max(0.05, (hoursSince(beginsAt, inputs.driveFrom) + alternator.driveHours) / 24),
      driveH: alternator.driveHours,
    }).machines.find(({ side }) => side === lane.id)
    const measured = measuredHeat(alternator)
    const peakC = totals?.peakC ?? 0
    const hot = measured ? peakC > caseLimitC : amps > allDay + 0.5
    const steadyC = steadyCaseC(
      amps + alternator.vehicleDrawA,
      alternator.ratedA,
      shaftRpm(alternator, worse),
      airAroundC(system.craft),
      measured ?? usualHeat,
    )
    const limitMin = totals?.limitMin ?? null
    const minutes =
      limitMin === null ? 'stays under its limit' : `reaches ${caseLimitC} °C after ${q(limitMin, 'min')}`
    const reduce: RemedyRef[] = straight
      ? holdBack(lane, system)
      : [
          {
            id: link.currentLimit === 'adjustable' ? 'charger.limit-current' : 'charger.replace',
            on: link.$path,
            value: Math.max(5, Math.floor((link.ratedA * allDay) / Math.max(1, amps))),
            values: { absorptionV: link.absorptionV },
          },
        ]
    return {
      verdict: hot ? 'suits-once-changed' : 'suits',
      compared: measured
        ? [number('case reaches', peakC, '°C'), number('at most', caseLimitC, '°C')]
        : [number(`asked of it at ${worse}`, amps, 'A'), number('it gives all day', allDay, 'A')],
      limit: measured
        ? { kind: 'measured', text: 'readings of its case, fitted' }
        : allDayWords(alternator, worse, rules, q).origin,
      formula: () =>
        said(
          `run “driving day”: peak ${q(peakC, '°C')}, ${minutes}; ${q(amps + alternator.vehicleDrawA, 'A')} at ${worse} would settle at ${q(steadyC, '°C')}`,
          measured
            ? ''
            : said(
                ` (defaults ${usualHeat.riseK} K, ${usualHeat.tauMin} min: `,
                'good to a factor of two, so the shop’s share decides)',
              ),
        ),
      summary: () =>
        said(
          `On a driving day the case of ${mid(name)} reaches ${q(peakC, '°C')}`,
          measured ? ' by its readings' : ' by the usual figures',
          ` and ${minutes}`,
          hot && !measured
            ? `; ${q(amps, 'A')} are asked of it at ${worse} and it gives ${q(allDay, 'A')} all day`
            : '',
          '.',
        ),
      remedies: hot ? reduce : [],
      cautions: () =>
        !measured && !hot && peakC > caseLimitC
          ? [
              'The usual figures would make it too hot. Put a probe on the case for half an hour under load before it is handed over.',
            ]
          : [],
    }
  },
})

export const heater = check({
  id: 'cold.heater',
  title: 'Warming the cells',
  about: 'battery',
  foretells: true,
  takesTime: true,
  why: 'A heater runs off the same source as the charge: on a cold day it goes first, and a short drive may be over before the charge begins.',
  judge(_subject, system) {
    const { q } = system
    const { bank, one, rules } = system
    if (bank.each.heater !== 'yes' || one.place.coldestC >= bank.coldLimitC) return null
    const watts = bank.each.heaterW * bank.count
    const totals = runOf(system, 'cold-morning', { coldC: one.place.coldestC, warmC: one.place.coldestC + 4 })
    const never = totals.coldRefusedH > 0 && totals.heaterWh < 1
    const late = totals.coldRefusedH > rules.heaterMostH
    return {
      verdict: late || never ? 'suits-once-changed' : 'suits',
      compared: [
        number('charge refused', totals.coldRefusedH, 'h'),
        number('at most', rules.heaterMostH, 'h'),
      ],
      limit: { kind: 'rule', text: 'shop rule: longest wait for a heater before the charge begins' },
      formula: () =>
        said(
          `run “cold morning” at ${q(one.place.coldestC, '°C')}: ${q(watts, 'W')} into ${q(bank.kg, 'kg')}; `,
          `${q(totals.heaterWh, 'Wh')} a cold day, charge refused ${q(totals.coldRefusedH, 'h')}`,
        ),
      summary: () =>
        never
          ? 'On a cold morning no source is there long enough to warm the cells.'
          : said(
              `On a cold morning the heater takes ${q(totals.heaterWh, 'Wh')} from `,
              totals.mainsAh > totals.engineAh ? 'mains' : 'the engine’s charge',
              `, and the charge begins after ${q(totals.coldRefusedH, 'h')}.`,
            ),
      remedies:
        late || never ? [{ id: 'cold.warmer-place', on: 'place', value: Math.ceil(bank.coldLimitC) }] : [],
    }
  },
})

export const gassing = check({
  id: 'mixed.gassing',
  title: 'Lead above gassing, and below full',
  about: 'battery',
  foretells: true,
  takesTime: true,
  why: 'Beside lithium, lead is held high for hours while the lithium fills and then sits below full for days; both wear it.',
  judge(_subject, system) {
    const { q } = system
    const { rules } = system
    if (!sharesBus(system)) return null
    const charger = system.lanes.find((lane) => lane.kind === 'charger')
    const mainsH = charger ? charger.charger.hours : 0
    const totals = runOf(system, 'driving-day', { days: 1, mainsH })
    const hours = totals.leadGassingH
    const over = hours > rules.leadGassingMostH
    return {
      verdict: over ? 'suits-once-changed' : 'suits',
      compared: [number('above gassing', hours, 'h'), number('a day at most', rules.leadGassingMostH, 'h')],
      limit: { kind: 'rule', text: 'shop rule: most hours a day above gassing' },
      formula: () =>
        said(
          `run “driving day” with ${q(mainsH, 'h')} on mains: ${q(hours, 'h')} of ${q(totals.hours, 'h')} above its gassing voltage; `,
          'the lithium was ',
          totals.fullAfterH === null ? 'not full in that time' : `full after ${q(totals.fullAfterH, 'h')}`,
        ),
      summary: () =>
        said(
          `The lead spends ${q(hours, 'h')} of ${q(totals.hours, 'h')} above its gassing voltage`,
          totals.fullAfterH === null
            ? ', and neither battery gets to full'
            : `; until ${q(totals.fullAfterH, 'h')} it waits below full for the lithium`,
          '.',
        ),
      remedies:
        over && charger
          ? [
              { id: 'charger.float-off', on: charger.id },
              { id: 'mixed.separate', on: 'use' },
            ]
          : over
            ? [{ id: 'mixed.separate', on: 'use' }]
            : [],
    }
  },
})
