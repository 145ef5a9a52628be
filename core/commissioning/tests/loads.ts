import type { Run } from '#core/wiring/network'
import { unitsOf } from '../rig'
import type { TestState } from '../states'
import { ampsTest, stateIn, voltsTest, type Bench } from './make'
import { nameInSentence } from '#core/units/format'
import type { ProofTest, TestGroup } from './test'

/** A run in which less flows at most is not worth a reading, A. */
const leastA = 1

/** The drop over every run, in the state in which most flows in it; the volts that are left at each load. */
export function loadTests(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  const loads = stateIn(bench, 'loads')
  const drops = network.runs.flatMap((run) => dropOf(bench, run))
  if (!loads) return drops
  const left = [...unitsOf(network, 'inverter'), ...unitsOf(network, 'load')]
    .filter((unit) => unit.kind === 'inverter' || unit.amps > 0)
    .map(({ id, name, plus, minus }) =>
      voltsTest(network, plus, minus, {
        id: `left-${id}`,
        title: `Voltage at ${nameInSentence(name)} under load`,
        group: 'loads',
        state: loads,
      }),
    )
  const drawn = network.runs
    .filter((run) => isFeedOfLoad(run, bench) || run.id === 'main-lead')
    .map((run) =>
      ampsTest(network, run, {
        id: `draws-${run.id}`,
        title: `Current in ${run.number} with all loads on`,
        group: 'loads',
        state: loads,
      }),
    )
  return [...left, ...drawn, ...drops]
}

const isFeedOfLoad = ({ to }: Run, { rig }: Bench): boolean =>
  rig.network.units.some((unit) => (unit.kind === 'load' || unit.kind === 'inverter') && unit.plus === to)

/** The state in which most flows in a run; null if hardly anything does. */
function largestIn(bench: Bench, run: Run): { readonly state: TestState; readonly amps: number } | null {
  let best: { state: TestState; amps: number } | null = null
  for (const state of bench.states) {
    if (state.doing.kind !== 'nothing' || (state.at.kind === 'cranking') !== (run.role === 'cranking'))
      continue
    const flows = bench.solved(state).amps.get(run.id) ?? 0
    if (Math.abs(flows) > Math.abs(best?.amps ?? 0) + 1e-6) best = { state, amps: flows }
  }
  return best && Math.abs(best.amps) >= leastA ? best : null
}

function dropOf(bench: Bench, run: Run): ProofTest[] {
  const most = largestIn(bench, run)
  if (!most) return []
  const turned = most.amps < 0
  const [from, to] = turned ? [run.to, run.from] : [run.from, run.to]
  // With two return paths only a clamp shows the current of this one. The metal of a body cannot be clamped.
  const shared =
    (run.role === 'return' || run.role === 'bond') && run.areaMm2 !== null
      ? [
          ampsTest(
            bench.rig.network,
            run,
            {
              id: `clamp-${run.id}`,
              title: `Current in ${run.number}`,
              group: groupOf(most.state),
              state: most.state,
            },
            turned,
          ),
        ]
      : []
  return [
    voltsTest(bench.rig.network, from, to, {
      id: `drop-${run.id}`,
      title: `Voltage drop over ${run.number}`,
      group: groupOf(most.state),
      state: most.state,
      run: run.id,
      covers: [run.id],
    }),
    ...shared,
  ]
}

const groupOf = ({ at }: TestState): TestGroup =>
  at.kind === 'loads' ? 'loads' : at.kind === 'charge' ? 'chargers' : 'engine'
