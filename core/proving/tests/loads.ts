import type { Run } from '#core/network/network'
import { isKeeper, unitsOf } from '../rig'
import type { State } from '../states'
import { ampsTest, stateIn, voltsTest, type Bench } from './make'
import { inside } from '#core/units/format'
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
        title: `Volts left at ${inside(name)}`,
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

/** The drop of a whole side, from the bank to a unit: it halves the way on which a poor joint must be looked for. */
export function sideTests(bench: Bench): ProofTest[] {
  const { network } = bench.rig
  const units = [
    ...(['load', 'inverter', 'source'] as const).flatMap((kind) => unitsOf(network, kind)),
    ...unitsOf(network, 'dcdc').filter((unit) => !isKeeper(unit)),
  ]
  return units.flatMap((unit) => {
    const state = stateIn(
      bench,
      unit.kind === 'source' ? `charge-${unit.id}` : unit.kind === 'dcdc' ? 'cruise' : 'loads',
    )
    if (!state || (unit.kind === 'load' && unit.amps < leastA)) return []
    const gives = unit.kind === 'source' || unit.kind === 'dcdc'
    const side = (pole: 'plus' | 'minus'): ProofTest => {
      const [bank, own] = [`bank-${pole}`, unit[pole]]
      const [from, to] = (pole === 'plus') === gives ? [own, bank] : [bank, own]
      return voltsTest(network, from, to, {
        id: `side-${pole}-${unit.id}`,
        title: `Drop from the bank to ${inside(unit.name)}, ${pole} side`,
        group: gives ? (unit.kind === 'source' ? 'chargers' : 'engine') : 'loads',
        state,
        minutes: 2,
        onlyAsked: true,
      })
    }
    return [side('plus'), side('minus')]
  })
}

const isFeedOfLoad = ({ to }: Run, { rig }: Bench): boolean =>
  rig.network.units.some((unit) => (unit.kind === 'load' || unit.kind === 'inverter') && unit.plus === to)

/** The state in which most flows in a run; null where hardly anything does. */
function mostIn(bench: Bench, run: Run): { readonly state: State; readonly amps: number } | null {
  let best: { state: State; amps: number } | null = null
  for (const state of bench.states) {
    if (state.doing.kind !== 'nothing' || (state.at.kind === 'cranking') !== (run.role === 'cranking'))
      continue
    const flows = bench.solved(state).amps.get(run.id) ?? 0
    if (Math.abs(flows) > Math.abs(best?.amps ?? 0) + 1e-6) best = { state, amps: flows }
  }
  return best && Math.abs(best.amps) >= leastA ? best : null
}

function dropOf(bench: Bench, run: Run): ProofTest[] {
  const most = mostIn(bench, run)
  if (!most) return []
  const turned = most.amps < 0
  const [from, to] = turned ? [run.to, run.from] : [run.from, run.to]
  // Where the current has two ways back, only a clamp tells whether it takes this one. Nobody clamps the metal of a body.
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
              onlyAsked: true,
            },
            turned,
          ),
        ]
      : []
  return [
    voltsTest(bench.rig.network, from, to, {
      id: `drop-${run.id}`,
      title: `Drop over ${run.number}`,
      group: groupOf(most.state),
      state: most.state,
      minutes: 2,
      run: run.id,
    }),
    ...shared,
  ]
}

const groupOf = ({ at }: State): TestGroup =>
  at.kind === 'loads' ? 'loads' : at.kind === 'charge' ? 'chargers' : 'engine'
