import { barsOf } from '../circuit'
import { unitsOf } from '../rig'
import { type Bench, ampsTest, answerTest, restOf, stateIn, voltsTest } from './make'
import { nameInSentence, listInSentence, joinText } from '#core/units/format'
import { asSeen, type ProofTest } from './test'

/** Terminals of units whose two leads can be swapped. */
export const turnable = ['source', 'inverter', 'dcdc', 'load'] as const

/** Two units are looked at in a minute. */
const unitsAMinute = 2

/** Polarity at every unit in one go: whether one has its leads the wrong way round. */
function polarityTest(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  const names = turnable.flatMap((kind) => unitsOf(network, kind)).map(({ name }) => nameInSentence(name))
  if (names.length === 0) return []
  return [
    answerTest({
      id: 'polarity',
      title: 'Polarity at every unit',
      group: 'quiet',
      state: restOf(bench),
      how: joinText(
        'Before you switch each unit on: red on the plus terminal, ',
        `black on the minus terminal of ${listInSentence(names)}. `,
        'Yes if each shows a plus, no if one shows a minus.',
      ),
      instrument: 'meter',
      minutes: Math.ceil(names.length / unitsAMinute),
      always: true,
      read: (_seen, { reversed }) => (reversed.length === 0 ? 1 : 0),
    }),
  ]
}

/** With everything off: polarity at each unit, standby current, separation of batteries. */
export const quietTests = (bench: Bench): ProofTest[] => [
  ...darkTests(bench),
  ...polarityTest(bench),
  ...unitPolarityTests(bench),
  ...standbyTests(bench),
  ...separationTests(bench),
]

/** The bar without the bank. */
function darkTests(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  const off = stateIn(bench, 'switched-off')
  if (!off) return []
  const { plus, minus } = barsOf(network)
  const title = 'Bar voltage with the main switch off'
  return [voltsTest(network, plus, minus, { id: 'off-bar', title, group: 'quiet', state: off })]
}

function unitPolarityTests(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  return turnable
    .flatMap((kind) => unitsOf(network, kind))
    .map((unit) =>
      voltsTest(network, unit.plus, unit.minus, {
        id: `polarity-${unit.id}`,
        title: `Voltage and polarity at ${nameInSentence(unit.name)}`,
        group: 'quiet',
        state: restOf(bench),
        read: (seen, rig) => (rig.reversed.includes(unit.id) ? -asSeen(seen) : asSeen(seen)),
      }),
    )
}

function standbyTests(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  const main = network.runs.find(({ id }) => id === 'main-lead')
  if (!main) return []
  const title = 'Bank current with everything off'
  return [ampsTest(network, main, { id: 'quiet-amps', title, group: 'quiet', state: restOf(bench) })]
}

/** The voltage difference shows whether anything joins a starting battery to the house bank. */
function separationTests(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  const { plus } = barsOf(network)
  return unitsOf(network, 'battery')
    .filter(({ serves }) => serves === 'engine')
    .map(({ id, name, plus: engine }) =>
      voltsTest(network, plus, engine, {
        id: `parted-${id}`,
        title: `Voltage between the house and ${nameInSentence(name)}`,
        group: 'quiet',
        state: restOf(bench),
      }),
    )
}
