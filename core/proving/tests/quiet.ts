import { barsOf } from '../circuit'
import { unitsOf } from '../rig'
import { ampsTest, stateIn, voltsTest, type Bench } from './make'
import { inside } from '#core/units/format'
import type { ProofTest } from './test'

/** Terminals of what has two leads that can be changed over. */
export const turnable = ['source', 'inverter', 'dcdc', 'load'] as const

/** With everything off: polarity at each unit, what draws all the same, what is parted from what. */
export function quietTests(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  const rest = stateIn(bench, 'rest')!
  const off = stateIn(bench, 'switched-off')
  const { plus, minus } = barsOf(network)
  const main = network.runs.find(({ id }) => id === 'main-lead')
  return [
    ...(off
      ? [
          voltsTest(network, plus, minus, {
            id: 'off-bar',
            title: 'Bar dead with the main switch off',
            group: 'quiet',
            state: off,
          }),
        ]
      : []),
    ...turnable
      .flatMap((kind) => unitsOf(network, kind))
      .map((unit) =>
        voltsTest(network, unit.plus, unit.minus, {
          id: `polarity-${unit.id}`,
          title: `Volts and polarity at ${inside(unit.name)}`,
          group: 'quiet',
          state: rest,
          read: ([seen], rig) => (rig.reversed.includes(unit.id) ? -seen! : seen!),
        }),
      ),
    ...(main
      ? [
          ampsTest(network, main, {
            id: 'quiet-amps',
            title: 'Current of the bank with all off',
            group: 'quiet',
            state: rest,
          }),
        ]
      : []),
    // A battery of an engine stands beside the house: whether anything joins them shows in their difference.
    ...unitsOf(network, 'battery')
      .filter(({ serves }) => serves === 'engine')
      .map(({ id, name, plus: engine }) =>
        voltsTest(network, plus, engine, {
          id: `parted-${id}`,
          title: `House parted from ${inside(name)}`,
          group: 'quiet',
          state: rest,
        }),
      ),
  ]
}
