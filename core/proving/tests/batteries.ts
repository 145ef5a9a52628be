import { unitsOf } from '../rig'
import { stateIn, voltsTest, type Bench } from './make'
import { inside } from '#core/units/format'
import type { ProofTest } from './test'

/** Each battery by itself, before anything is joined. */
export function batteryTests(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  const state = stateIn(bench, 'apart')!
  return unitsOf(network, 'battery').map(({ id, name, plus, minus }) =>
    voltsTest(network, plus, minus, {
      id: `rested-${id}`,
      title: `Rested volts of ${inside(name)}`,
      group: 'batteries',
      state,
      minutes: 1,
    }),
  )
}
