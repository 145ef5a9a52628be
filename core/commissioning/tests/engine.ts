import { fieldOf, present, withId } from '#core/collections/held'
import type { AlternatorUnit, DcdcUnit } from '#core/wiring/network'
import { steadyCaseC } from '#core/physics/alternator'
import { isKeeper, unitsOf, type CaseHeat, type Rig } from '../rig'
import { barsOf } from '../circuit'
import { type TestState } from '../states'
import { runSignal } from '../signals'
import { runsBetween } from './sides'
import { asSeen, amps } from './test'
import { type Bench, ampsTest, answerTest, restOf, stateIn, voltsTest } from './make'
import { nameInSentence, joinText } from '#core/units/format'
import type { ProofTest } from './test'

/** Minutes over which the case’s temperature is followed, and those of them that are work. */
export const heatMinutes = 30
const heatWorkMinutes = 2

/** Engine running: alternators, their links, their heat, and the effect of a missing run signal. */
export function engineTests(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  // Without the running signal nothing loads the machine: only then does its regulator hold its own voltage.
  const speeds = [stateIn(bench, 'idle'), stateIn(bench, 'cruise'), stateIn(bench, 'no-signal')].filter(
    (state) => state !== null,
  )
  return [
    ...unitsOf(network, 'alternator').flatMap((unit) => [
      ...speeds.flatMap((state) => machineTests(bench, unit, state)),
      ...heatTest(bench, unit),
    ]),
    ...unitsOf(network, 'dcdc').flatMap((unit) => dcdcTests(bench, unit)),
    ...relayTests(bench),
    ...crankTests(bench),
    ...senseTests(bench),
    ...directTest(bench),
  ]
}

function machineTests(
  bench: Bench,
  { id, name, plus, minus }: AlternatorUnit,
  state: TestState,
): ProofTest[] {
  const { network } = bench.rig
  const feed = network.runs.find(({ from }) => from === plus)
  const isFree = state.doing.kind === 'no-signal'
  const speed = isFree ? 'free' : state.at.id
  const words = isFree ? 'with nothing charging the house' : `at ${speed}`
  return [
    voltsTest(network, plus, minus, {
      id: `${speed}-volts-${id}`,
      title: `Voltage of ${nameInSentence(name)} ${words}`,
      group: 'engine',
      state,
    }),
    ...(feed && !isFree
      ? [
          ampsTest(network, feed, {
            id: `${speed}-amps-${id}`,
            title: `Current of ${nameInSentence(name)} ${words}`,
            group: 'engine',
            state,
          }),
        ]
      : []),
  ]
}

/** The case after a time at a steady load, °C, begun at the air around it: see `core/physics/alternator.ts`. */
export function caseC(heat: CaseHeat, loadA: number, minutes: number): number {
  const settlesC = steadyCaseC(Math.max(0, loadA), heat.ratedA, heat.rpm, heat.airC, heat)
  return settlesC + (heat.airC - settlesC) * Math.exp(-minutes / heat.tauMin)
}

/** Output of the machine: the current in its lead, and the draw of engine and lights. */
export const loadOfMachineA = (leadA: number, { drawA }: Pick<AlternatorUnit, 'drawA'>): number =>
  Math.abs(leadA) + drawA

function heatTest(bench: Bench, { id, name, plus }: AlternatorUnit): ProofTest[] {
  const { network } = bench.rig
  const state = stateIn(bench, 'cruise')
  const feed = network.runs.find(({ from }) => from === plus)
  if (!state || !feed || !bench.rig.heat[id]) return []
  return [
    {
      ...ampsTest(network, feed, {
        id: `case-${id}`,
        title: `Case temperature of ${nameInSentence(name)} after ${heatMinutes} min`,
        group: 'engine',
        state,
      }),
      quantity: 'celsius',
      unit: '°C',
      instrument: 'probe',
      keptAs: { quantity: 'caseTemperature', part: name },
      how: 'Fix the probe to the case beside the diodes. Start with a warm engine and keep the speed steady.',
      minutes: heatWorkMinutes,
      waits: heatMinutes - heatWorkMinutes,
      always: true,
      probes: [amps(feed.id)],
      read: (seen, rig) => {
        const machine = withId(unitsOf(rig.network, 'alternator'), id)
        return caseC(fieldOf(rig.heat, id), loadOfMachineA(asSeen(seen), machine), heatMinutes)
      },
    },
  ]
}

function dcdcTests(bench: Bench, unit: DcdcUnit): ProofTest[] {
  const { network } = bench.rig
  const { id, name } = unit
  const lower = nameInSentence(name)
  const runs = isKeeper(unit) ? chargingState(bench) : stateIn(bench, 'cruise')
  const silent = bench.rig.signalWires.includes(id) ? stateIn(bench, 'no-signal') : null
  const runTo = (post: string) => network.runs.find(({ to }) => to === post)
  const input = runTo(unit.inPlus)
  const output = network.runs.find(({ from }) => from === unit.plus)
  if (!runs || !input || !output) return []
  const own = { group: isKeeper(unit) ? 'chargers' : 'engine', state: runs } as const
  return [
    voltsTest(network, unit.inPlus, unit.inMinus, {
      ...own,
      id: `in-volts-${id}`,
      title: `Input voltage of ${lower}`,
    }),
    ampsTest(network, input, { ...own, id: `in-amps-${id}`, title: `Input current of ${lower}` }),
    voltsTest(network, unit.plus, unit.minus, {
      ...own,
      id: `out-volts-${id}`,
      title: `Output voltage of ${lower}`,
    }),
    ampsTest(network, output, { ...own, id: `out-amps-${id}`, title: `Output current of ${lower}` }),
    ...absorbing(bench, unit),
    ...(silent
      ? [
          signalTest(id, `Run signal at ${lower}`, runs),
          ampsTest(network, output, {
            id: `silent-amps-${id}`,
            title: `Output of ${lower} without its run signal`,
            group: 'engine',
            state: silent,
          }),
        ]
      : []),
  ]
}

/** A state in which a source charges the house: a mains charger if there is one. */
const chargingState = ({ states }: Bench): TestState | null =>
  states.find(({ at, doing }) => at.kind === 'charge' && doing.kind === 'nothing') ??
  states.find(({ id }) => id === 'cruise') ??
  null

/** A DC-DC with the bank nearly full: the voltage it holds is seen only then. */
function absorbing(bench: Bench, { id, name, plus, minus }: DcdcUnit): ProofTest[] {
  const state = stateIn(bench, `absorb-${id}`)
  if (!state) return []
  return [
    voltsTest(bench.rig.network, plus, minus, {
      id: `absorb-volts-${id}`,
      title: `Voltage of ${nameInSentence(name)} in absorption`,
      group: 'engine',
      state,
    }),
    voltsTest(bench.rig.network, 'bank-plus', 'bank-minus', {
      id: `absorb-battery-${id}`,
      title: `Voltage at the battery, ${nameInSentence(name)} in absorption`,
      group: 'engine',
      state,
      always: true,
    }),
  ]
}

/** Voltage of each starting battery while it turns its engine. */
const crankTests = (bench: Bench): ProofTest[] =>
  unitsOf(bench.rig.network, 'battery')
    .filter(({ serves }) => serves === 'engine')
    .flatMap(({ id, name, of, plus, minus }) => {
      const starter = unitsOf(bench.rig.network, 'starter').find((unit) => unit.of === of)
      const state = starter && stateIn(bench, `cranking-${starter.id}`)
      if (!state) return []
      return [
        voltsTest(bench.rig.network, plus, minus, {
          id: `crank-volts-${id}`,
          title: `Voltage of ${nameInSentence(name)} while cranking`,
          group: 'engine',
          state,
          always: true,
        }),
      ]
    })

/** Voltage at a regulator’s sense lead, against that of the battery that it should measure. */
function senseTests(bench: Bench): ProofTest[] {
  const { network, senseOffV } = bench.rig
  const state = stateIn(bench, 'cruise')
  if (!state) return []
  return network.units
    .filter(({ id }) => senseOffV[id] !== undefined)
    .map(({ id, name, plus }) => ({
      ...voltsTest(network, plus, plus, {
        id: `sense-${id}`,
        title: `Sense lead of ${nameInSentence(name)} against the battery`,
        group: 'engine',
        state,
        minutes: 2,
      }),
      how: joinText(
        `Red on the sense terminal of ${nameInSentence(name)}, `,
        'black on the plus post of the battery that it charges.',
      ),
      probes: [],
      read: (_seen: readonly number[], rig: Rig) => fieldOf(rig.senseOffV, id),
    }))
}

/** Current and voltage at the battery of an alternator without a DC-DC. */
function directTest(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  const state = stateIn(bench, 'cruise')
  const isDirect = unitsOf(network, 'alternator').some(
    ({ plus }) => runsBetween(network, plus, 'bank-plus').length > 0,
  )
  if (!state || !isDirect) return []
  return [
    voltsTest(network, 'bank-plus', 'bank-minus', {
      id: 'cruise-battery',
      title: 'Voltage at the battery, engine at cruise',
      group: 'engine',
      state,
      always: true,
    }),
  ]
}

const signalTest = (id: string, title: string, state: TestState): ProofTest =>
  answerTest({
    id: `signal-${id}`,
    title,
    group: 'engine',
    state,
    how: 'Meter on the signal terminal. Yes if it shows the alternator voltage, no if it shows none.',
    instrument: 'eye',
    read: (_seen, rig) => (rig.dead.includes(runSignal(id)) ? 0 : 1),
  })

/** A relay: the voltage across it closed and open, and the signal at its coil. */
function relayTests(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  const cruise = stateIn(bench, 'cruise')
  const rest = restOf(bench)
  if (!cruise) return []
  const { plus } = barsOf(network)
  return network.relays.flatMap(({ post }) => {
    const before = network.runs.find(({ to }) => to === post)
    const name = present(network.posts.find(({ id }) => id === post)).name
    if (!before || before.from === plus) return []
    const across = (state: TestState, id: string, words: string): ProofTest =>
      voltsTest(network, post, before.from, {
        id: `${id}-${post}`,
        title: `Voltage across ${nameInSentence(name)}, ${words}`,
        group: 'engine',
        state,
      })
    return [
      across(cruise, 'closed', 'engine running'),
      across(rest, 'open', 'engine off'),
      signalTest(post, `Run signal at ${nameInSentence(name)}`, cruise),
      ampsTest(network, before, {
        id: `amps-${post}`,
        title: `Current through ${nameInSentence(name)}`,
        group: 'engine',
        state: cruise,
      }),
    ]
  })
}
