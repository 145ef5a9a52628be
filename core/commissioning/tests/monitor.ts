import { present } from '#core/collections/held'
import { type Bench, plainTest, restOf, stateIn } from './make'
import { amps, type ProofTest } from './test'
import type { TestState } from '../states'

/** The monitor against a known current: sign, zero, settings. */
export function monitorTests(bench: Bench): ProofTest[] {
  const { monitor, network } = bench.rig
  // All current of the bank comes back through the run that leaves its post for the shunt.
  const through = network.runs.find(({ to }) => to === 'shunt')
  if (!monitor || !through) return []
  const shows = (id: string, title: string, state: TestState | null): ProofTest[] =>
    state ? [shownAmps(`monitor-${id}`, title, state, through.id)] : []
  const charging = bench.states.filter(({ at, doing }) => at.kind === 'charge' && doing.kind === 'nothing')
  const rest = restOf(bench)
  return [
    ...shows('zero', 'Monitor zero', stateIn(bench, 'switched-off') ?? rest),
    ...shows('loads', 'Monitor reading with all loads on', stateIn(bench, 'loads')).map(
      (test): ProofTest => ({
        ...test,
        always: true,
      }),
    ),
    ...charging.flatMap((state) => shows(state.id, `Monitor: ${state.name.replace(/^C/, 'c')}`, state)),
    ...shows('cruise', 'Monitor reading with the engine at cruise', stateIn(bench, 'cruise')),
    {
      ...plainTest,
      id: 'monitor-capacity',
      title: 'Capacity set in the monitor',
      group: 'monitor',
      state: rest,
      quantity: 'ampere-hours',
      unit: 'Ah',
      instrument: 'eye',
      how: 'Read the capacity in the monitor settings.',
      read: (_seen, rig) => rig.monitor?.capacityAh ?? 0,
    },
  ]
}

/** The current of a run, as the monitor shows it. */
const shownAmps = (id: string, title: string, state: TestState, run: string): ProofTest => ({
  ...plainTest,
  id,
  title,
  group: 'monitor',
  state,
  quantity: 'amps',
  unit: 'A',
  instrument: 'monitor',
  how: 'Read the monitor. Plus means charging, minus means discharging.',
  probes: [amps(run)],
  read: ([seen], rig) =>
    (rig.monitor?.sign ?? 1) * (rig.monitor?.ratio ?? 1) * present(seen) + (rig.monitor?.zeroA ?? 0),
  run,
})
