import type { DcdcUnit, SourceUnit } from '#core/wiring/network'
import { type Bench } from '#core/commissioning/tests/make'
import { nameInSentence } from '#core/units/format'
import { isKeeper, unitsOf, withUnit, type Rig } from '#core/commissioning/rig'
import { stepsBetween, timesBetween, withOne, type Fault, type FaultPlace } from './fault'

type Charger = SourceUnit | DcdcUnit

const chargersOf = ({ rig: { network } }: Bench): Charger[] => [
  ...unitsOf(network, 'source').filter(({ from }) => from !== 'other'),
  ...unitsOf(network, 'dcdc'),
]
/** Units whose voltage a test can see. Lead-acid behind a DC-DC takes hours to reach it. */
const seenHolding = (bench: Bench): Charger[] => chargersOf(bench).filter((unit) => !isKeeper(unit))
const placed = (chargers: readonly Charger[], sizes: (charger: Charger) => readonly number[]): FaultPlace[] =>
  chargers.map((charger) => ({
    at: charger.id,
    where: `at ${nameInSentence(charger.name)}`,
    sizes: sizes(charger),
  }))

/** The rig with the voltage of a charger moved, and that of its float. */
function withSetV(rig: Rig, at: string, absorptionV: number, floatV: number): Rig {
  const moved = withUnit(rig, at, (unit) =>
    unit.kind === 'source' || unit.kind === 'dcdc' ? { ...unit, setV: unit.setV + absorptionV } : unit,
  )
  const charging = moved.charging[at]
  if (!charging || charging.floatV === null) return moved
  return { ...moved, charging: { ...moved.charging, [at]: { floatV: charging.floatV + floatV } } }
}

/** The rig with a unit whose display shows the wrong setting. */
const wronglySet = (rig: Rig, at: string): Rig => ({ ...rig, wronglySet: withOne(rig.wronglySet, at) })

/**
 * Voltage of a lead-acid profile above that of lithium, V at 12 V (engineering default): by its kind, and by the
 * cold.
 */
const leadAbove = { least: 0.25, most: 0.9, float: 0.25 } as const

const leadProfile: Fault = {
  id: 'lead-profile',
  title: 'Lead-acid profile selected',
  prior: 3,
  unit: 'V',
  scale: 'apart',
  harm: 'damage',
  places: (bench) =>
    placed(seenHolding(bench), () => {
      const scale = bench.rig.nominalV / 12
      return stepsBetween(leadAbove.least * scale, leadAbove.most * scale, 5)
    }),
  change: (rig, at, volts) => wronglySet(withSetV(rig, at, volts, (leadAbove.float * rig.nominalV) / 12), at),
  mend: 'Select the lithium profile. Switch off equalise and temperature compensation. Measure again.',
}

export const wrongVoltage: Fault = {
  id: 'wrong-voltage',
  title: 'Wrong absorption voltage',
  prior: 1.5,
  unit: 'V',
  scale: 'apart',
  harm: 'nuisance',
  places: (bench) => {
    const scale = bench.rig.nominalV / 12
    return placed(seenHolding(bench), () => stepsBetween(-1 * scale, -0.25 * scale, 6))
  },
  change: (rig, at, volts) => wronglySet(withSetV(rig, at, volts, 0), at),
  mend: 'Set the specified voltage. Measure again at the battery posts.',
}

/** Smallest wrong current limit, as a share of the right one. */
const leastShare = 0.25

const wrongCurrent: Fault = {
  id: 'wrong-current',
  title: 'Wrong current limit',
  prior: 1.5,
  unit: 'A',
  scale: 'times',
  harm: 'nuisance',
  places: (bench) =>
    placed(
      chargersOf(bench).filter((unit) => !(unit.kind === 'source' && unit.from === 'sun')),
      ({ mostA }) => timesBetween(leastShare * mostA, 0.8 * mostA, 1.25),
    ),
  change: (rig, at, amps) =>
    wronglySet(
      withUnit(rig, at, (unit) =>
        unit.kind === 'source' || unit.kind === 'dcdc' ? { ...unit, mostA: amps } : unit,
      ),
      at,
    ),
  mend: 'Set the specified current.',
}

export const monitorSettings: Fault = {
  id: 'monitor-settings',
  title: 'Wrong capacity setting',
  prior: 1.5,
  unit: 'Ah',
  scale: 'times',
  harm: 'stranded',
  places: ({ rig: { monitor } }) =>
    monitor
      ? [
          {
            at: 'monitor',
            where: 'in the monitor',
            sizes: [
              ...timesBetween(monitor.capacityAh / 4, monitor.capacityAh / 1.1, 1.2),
              ...timesBetween(monitor.capacityAh * 1.1, monitor.capacityAh * 3, 1.2),
            ],
          },
        ]
      : [],
  change: (rig, _at, capacityAh) => ({ ...rig, monitor: rig.monitor && { ...rig.monitor, capacityAh } }),
  mend: 'Set the capacity of the new battery.',
}

/**
 * Displayed share of the true current with the setting for another shunt: common pairs of 50 mV and 75 mV, 200 to 600
 * A.
 */
const wrongRatios = [0.4, 0.5, 0.6, 0.67, 0.75, 1.33, 1.5, 1.67, 2, 2.5]

const shuntRatio: Fault = {
  id: 'shunt-ratio',
  title: 'Wrong shunt rating',
  prior: 1.5,
  unit: '×',
  scale: 'each',
  harm: 'stranded',
  places: ({ rig: { monitor } }) =>
    monitor ? [{ at: 'monitor', where: 'in the monitor', sizes: wrongRatios }] : [],
  change: (rig, _at, ratio) => ({ ...rig, monitor: rig.monitor && { ...rig.monitor, ratio } }),
  mend: 'Read the rating and the millivolts on the shunt. Enter both in the monitor.',
}

/** Voltages off to both sides, from the lowest up, V: this many to each, from limits for 12 V. */
function eitherWay(
  { least, most }: { readonly least: number; readonly most: number },
  nominalV: number,
  count: number,
): number[] {
  const steps = stepsBetween((least * nominalV) / 12, (most * nominalV) / 12, count)
  return [...steps.map((volts) => -volts).toReversed(), ...steps]
}

/** The rig with the voltage moved that a regulator holds, V. */
const withRegulatorV = (rig: Rig, at: string, volts: number): Rig =>
  withUnit(rig, at, (unit) =>
    unit.kind === 'alternator' || unit.kind === 'source' ? { ...unit, setV: unit.setV + volts } : unit,
  )

/** Error of a wrong regulator setting, or of one for lead-acid in the cold, V of 12 (engineering default). */
const regulatorOff = { least: 0.3, most: 1.5 } as const

const regulatorVoltage: Fault = {
  id: 'regulator-voltage',
  title: 'Regulator set too high or too low',
  prior: 1.5,
  unit: 'V',
  scale: 'each',
  harm: (_bench, _at, volts) => (volts > 0 ? 'damage' : 'nuisance'),
  places: ({ rig: { network, nominalV } }) =>
    [
      ...unitsOf(network, 'alternator'),
      ...unitsOf(network, 'source').filter(({ from }) => from === 'other'),
    ].map((unit) => ({
      at: unit.id,
      where: `at ${nameInSentence(unit.name)}`,
      sizes: eitherWay(regulatorOff, nominalV, 5),
    })),
  change: withRegulatorV,
  mend: 'Set the regulator to the specified voltage, or replace it. Measure again at cruise.',
}

const monitorZero: Fault = {
  id: 'monitor-zero',
  title: 'Zero not set',
  prior: 1,
  unit: 'A',
  scale: 'apart',
  harm: 'nuisance',
  places: ({ rig: { monitor } }) =>
    monitor ? [{ at: 'monitor', where: 'in the monitor', sizes: stepsBetween(0.3, 2, 5) }] : [],
  change: (rig, _at, zeroA) => ({ ...rig, monitor: rig.monitor && { ...rig.monitor, zeroA } }),
  mend: 'Set the zero with everything off.',
}

/** How far the voltage of a wrong post lies from the battery’s, V of 12 (engineering default). */
const senseOff = { least: 0.15, most: 1 } as const

const senseLead: Fault = {
  id: 'sense-lead',
  title: 'Sense lead on the wrong post',
  prior: 2,
  unit: 'V',
  scale: 'each',
  harm: (_bench, _at, volts) => (volts < 0 ? 'damage' : 'nuisance'),
  places: ({ rig: { network, nominalV, senseOffV } }) =>
    network.units
      .filter(({ id }) => senseOffV[id] !== undefined)
      .map(({ id, name }) => ({
        at: id,
        where: `at ${nameInSentence(name)}`,
        sizes: eitherWay(senseOff, nominalV, 4),
      })),
  // Where it senses a higher voltage than the battery has, it holds the battery that much lower.
  change: (rig, at, volts) => ({
    ...withRegulatorV(rig, at, -volts),
    senseOffV: { ...rig.senseOffV, [at]: volts },
  }),
  mend: 'Move the sense lead to the plus post of the battery that is charged.',
}

export default [
  leadProfile,
  wrongVoltage,
  wrongCurrent,
  regulatorVoltage,
  senseLead,
  monitorSettings,
  shuntRatio,
  monitorZero,
]
