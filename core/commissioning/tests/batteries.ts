import { withId } from '#core/collections/held'
import { fieldOf } from '#core/collections/held'
import { unitsOf } from '../rig'
import { voltsTest, type Bench, plainTest } from './make'
import { nameInSentence, joinText } from '#core/units/format'
import type { BatteryUnit } from '#core/wiring/network'
import type { TestState } from '../states'
import type { ProofTest } from './test'

/** Each battery alone, before anything is joined. */
export function batteryTests(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  const state = withId(bench.states, 'apart')
  const batteries = unitsOf(network, 'battery')
  return [
    ...batteries.map(({ id, name, plus, minus }) =>
      voltsTest(network, plus, minus, {
        id: `rested-${id}`,
        title: `Resting voltage of ${nameInSentence(name)}`,
        group: 'batteries',
        state,
        keptAs: { quantity: 'restingVoltage', part: name },
      }),
    ),
    ...batteries
      .filter(({ id }) => bench.rig.capacityAh[id] !== undefined)
      .map((battery) => capacityTest(battery, state)),
  ]
}

/** Minutes that a full battery takes to give all it has, at a quarter of its capacity an hour. */
const emptyMinutes = 240

/** Charge of one battery from full to its own cut-off. */
const capacityTest = ({ id, name }: BatteryUnit, state: TestState): ProofTest => ({
  id: `capacity-${id}`,
  title: `Capacity of ${nameInSentence(name)}`,
  group: 'batteries',
  state,
  ...plainTest,
  quantity: 'ampere-hours',
  unit: 'Ah',
  instrument: 'counted',
  keptAs: { quantity: 'capacity', part: name },
  how: joinText(
    `Charge ${nameInSentence(name)} full on its own. Discharge it at a steady current, `,
    'at most a quarter of its capacity per hour, until it cuts off. Read the counted charge on the monitor.',
  ),
  minutes: 15,
  waits: emptyMinutes,
  read: (_seen, rig) => fieldOf(rig.capacityAh, id),
})
