import type { Network, WiringUnit } from '#core/wiring/network'
import { nameInSentence } from '#core/units/format'
import { isKeeper, unitsOf } from '../rig'
import type { TestState } from '../states'
import { stateIn, voltsTest, type Bench } from './make'
import type { ProofTest, TestGroup } from './test'

/** A load that draws less is not worth a reading, A. */
const leastA = 1

/** A drop over a whole side: one probe stays on the bank by a long lead. */
const sideMinutes = 1.5

/** A pair of posts at one end of a way. */
interface End {
  readonly id: string
  readonly name: string
  readonly plus: string
  readonly minus: string
}

/** A path with a large current, from source to load, read on both sides. */
interface Way {
  readonly id: string
  readonly from: End
  readonly to: End
  readonly state: TestState
  readonly group: TestGroup
}

/**
 * The drop of a whole side, from source to load: one reading covers all runs, fuses and joints between, and halves
 * the search for a poor joint.
 */
export const sideTests = (bench: Bench): ProofTest[] =>
  [...waysToHouse(bench), ...waysToConverters(bench)].flatMap((way) =>
    (['plus', 'minus'] as const).flatMap((pole) => sideTest(bench.rig.network, way, pole)),
  )

function sideTest(
  network: Network,
  { id, from, to, state, group }: Way,
  pole: 'plus' | 'minus',
): ProofTest[] {
  const covers = runsBetween(network, from[pole], to[pole])
  if (covers.length === 0) return []
  // Current comes back the other way.
  const [red, black] = pole === 'plus' ? [from.plus, to.plus] : [to.minus, from.minus]
  return [
    voltsTest(network, red, black, {
      id: `side-${pole}-${id}`,
      title: `Voltage drop, ${from.name} to ${to.name}, ${pole} side`,
      group,
      state,
      minutes: sideMinutes,
      covers,
    }),
  ]
}

/** From the bank to each load, and from each source to the bank; of a bank in parallel from each battery as well. */
const waysToHouse = (bench: Bench): Way[] => [...waysToLoads(bench), ...waysFromSources(bench)]

const bank: End = { id: 'bank', name: 'the bank', plus: 'bank-plus', minus: 'bank-minus' }

function waysToLoads(bench: Bench): Way[] {
  const { network } = bench.rig
  const loads = stateIn(bench, 'loads')
  if (!loads) return []
  const packs = unitsOf(network, 'battery')
    .filter(({ serves, plus }) => serves === 'house' && plus !== bank.plus)
    .map(endOf)
  const drawing = [...unitsOf(network, 'load'), ...unitsOf(network, 'inverter')].filter(
    (unit) => unit.kind === 'inverter' || unit.amps >= leastA,
  )
  return drawing.flatMap((unit) =>
    [bank, ...packs].map((from): Way => ({
      id: from === bank ? unit.id : `${from.id}-${unit.id}`,
      from,
      to: endOf(unit),
      state: loads,
      group: 'loads',
    })),
  )
}

function waysFromSources(bench: Bench): Way[] {
  const { network } = bench.rig
  const cruise = stateIn(bench, 'cruise')
  const sources = unitsOf(network, 'source').map(
    (unit) => [unit, stateIn(bench, `charge-${unit.id}`)] as const,
  )
  const converters = unitsOf(network, 'dcdc')
    .filter((unit) => !isKeeper(unit))
    .map((unit) => [unit, cruise] as const)
  const machines = unitsOf(network, 'alternator').map((unit) => [unit, cruise] as const)
  return [...sources, ...converters, ...machines].flatMap(([unit, state]): Way[] => {
    if (!state) return []
    const group = unit.kind === 'source' ? 'chargers' : 'engine'
    return [{ id: unit.id, from: endOf(unit), to: bank, state, group }]
  })
}

/** From each alternator to the DC-DC that it feeds. */
function waysToConverters(bench: Bench): Way[] {
  const { network } = bench.rig
  const state = stateIn(bench, 'cruise')
  if (!state) return []
  return unitsOf(network, 'dcdc').flatMap((unit): Way[] => {
    const machine = unitsOf(network, 'alternator').find(({ id }) => id === unit.alternator)
    if (!machine) return []
    const to = { id: unit.id, name: nameInSentence(unit.name), plus: unit.inPlus, minus: unit.inMinus }
    return [{ id: `in-${unit.id}`, from: endOf(machine), to, state, group: 'engine' }]
  })
}

const endOf = ({ id, name, plus, minus }: WiringUnit): End => ({
  id,
  name: nameInSentence(name),
  plus,
  minus,
})

/** Runs on the shortest path between two posts; empty if there is none. */
export function runsBetween({ runs }: Network, from: string, to: string): string[] {
  const came = new Map<string, { readonly run: string; readonly post: string } | null>([[from, null]])
  const queue = [from]
  for (const post of queue) {
    if (post === to) break
    for (const run of runs) {
      const next = run.from === post ? run.to : run.to === post ? run.from : null
      if (next === null || came.has(next)) continue
      came.set(next, { run: run.id, post })
      queue.push(next)
    }
  }
  const way: string[] = []
  for (let step = came.get(to); step; step = came.get(step.post)) way.push(step.run)
  return way
}
