import { present } from '#core/collections/held'
import { caseLimitC, steadyCaseC, type AlternatorHeat } from '#core/physics/alternator'
import { runOf } from '#core/assessment/foresight'
import { check, number, word, type Judgement } from '#core/assessment/check'
import { holdBack, smallerDcdc, unjoined } from '#core/remedies/arrangements'
import { inputsOf } from '#core/simulation/inputs'
import { beginsAt } from '#core/simulation/run-kinds'
import { hoursSince } from '#core/simulation/surroundings'
import { airAroundC, availableA, heatOf, measuredHeat, shaftRpm, type Speed } from '#core/system/alternators'
import { acceptanceA, dcdcInput } from '#core/system/currents'
import { isStraight, type AlternatorLane } from '#core/system/lanes'
import type { System } from '#core/system/system'
import { durationWords, joinText, nameInSentence } from '#core/units/format'

const heat = check({
  id: 'alternator.heat',
  title: 'Heat of the alternator',
  about: 'alternator',
  foretells: true,
  takesTime: true,
  why: joinText(
    'Lithium keeps the alternator at full output for an hour. ',
    'Diodes and insulation overheat at idle under a hot bonnet.',
  ),
  judge({ lane, name }, system) {
    const { q } = system
    const { alternator, link } = lane
    if (link.kind === 'none') return null
    if (alternator.machine === 'magnet') return magnetHeat(lane, name)
    const machineHeat = present(heatOf(alternator))
    const { peakC, limitMin } = drivingDay(lane, system)
    const hot = peakC > caseLimitC
    const { amps, speed, steadyC } = hottestLoad(lane, machineHeat, system)
    const minutes =
      limitMin === null
        ? 'stays under its limit'
        : `passes ${caseLimitC} °C after ${durationWords(limitMin / 60)} of driving`
    const measured = measuredHeat(alternator) !== null
    return {
      verdict: hot ? 'suits-once-changed' : 'suits',
      compared: [number('case reaches', peakC, '°C'), number('at most', caseLimitC, '°C')],
      limit: measured
        ? { kind: 'measured', text: 'readings of its case, fitted' }
        : { kind: 'assumed', text: `typical case limit; its rise: ${alternator.$origin('riseK').text}` },
      formula: () =>
        joinText(
          `run “driving day”: peak ${q(peakC, '°C')}, ${minutes}; `,
          `${q(amps + alternator.vehicleDrawA, 'A')} at ${speed} would settle at ${q(steadyC, '°C')} `,
          `(rise ${q(machineHeat.riseK, 'Δ°C')}, ${q(machineHeat.tauMin, 'min')}, `,
          `air ${q(airAroundC(alternator), '°C')})`,
        ),
      summary: () =>
        joinText(
          `On a driving day the case of ${nameInSentence(name)} reaches ${q(peakC, '°C')}`,
          measured ? ' by its readings' : '',
          ` and ${minutes}.`,
        ),
      remedies: !hot
        ? []
        : isStraight(lane)
          ? holdBack(lane, system)
          : [smallerDcdc(lane, system) ?? unjoined(lane)],
    }
  },
})

/**
 * How hot the case gets on a driving day, and when it passes its limit: until the engine stops, then it only cools.
 */
function drivingDay({ id, alternator: { driveHours } }: AlternatorLane, system: System) {
  const { driveFrom } = inputsOf(system, 'driving-day')
  const days = Math.max(0.05, (hoursSince(beginsAt, driveFrom) + driveHours) / 24)
  const { machines } = runOf(system, 'driving-day', { days, driveH: driveHours })
  const machine = machines.find(({ side }) => side === id)
  return { peakC: machine?.peakC ?? 0, limitMin: machine?.limitMin ?? null }
}

/** The heat of a machine with permanent magnets: hardly a matter of the battery. */
const magnetHeat = ({ alternator }: AlternatorLane, name: string): Judgement => ({
  verdict: 'suits',
  compared: [word('warms by', 'its speed'), word('by the battery', 'hardly')],
  limit: alternator.$origin('machine'),
  formula: () => 'permanent magnets: the regulator shunts the unused current',
  summary: () =>
    joinText(
      `${name} has permanent magnets: its heat hardly depends `,
      'on the battery current, so the maker’s figure applies.',
    ),
  cautions: () => [
    'Ask the maker of the alternator how much its regulator tolerates, and ventilate the regulator.',
  ],
})

/** The load of an alternator at which its case would settle hottest, of the speeds it is driven at. */
function hottestLoad(
  lane: AlternatorLane,
  machineHeat: AlternatorHeat,
  system: System,
): { readonly amps: number; readonly speed: Speed; readonly steadyC: number } {
  const { alternator } = lane
  const { rules } = system
  const loads = (['idle', 'cruise'] as const).map((speed) => {
    const amps = isStraight(lane)
      ? acceptanceA(lane, rules.lowSoc / 100, speed, system)
      : Math.min(dcdcInput(lane, system).flowsA, availableA(alternator, speed, rules))
    const rpm = shaftRpm(alternator, speed)
    const steadyC = steadyCaseC(
      amps + alternator.vehicleDrawA,
      alternator.ratedA,
      rpm,
      airAroundC(alternator),
      machineHeat,
    )
    return { amps, speed, steadyC }
  })
  const [idle, cruise] = loads as [(typeof loads)[0], (typeof loads)[0]]
  return alternator.idleShare > 0 && idle.steadyC > cruise.steadyC ? idle : cruise
}

export const checks = [heat] as const
