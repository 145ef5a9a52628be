import { elementAt, entryOf, present } from '#core/collections/held'
import { runsEngine, type Case } from './cases'
import type { Circuit, Element, Resistor } from '#core/circuit/circuit'
import { elementsOf, emfV } from './elements'
import { joinedOf, type Joined } from './joined'
import { resistance } from '#core/circuit/law'
import type { Network } from './network'
import { runOhm } from './run-ohm'

/** An open switch, Ω. */
export const openOhm = 1e6
/** Resistance from an unconnected part to ground, Ω, which gives it a voltage: no current can flow in it. */
const tieOhm = 1
/** A bolted short, Ω. */
export const boltedOhm = 1e-4
/** Where a search begins: a regulator holds a little less than it is set to, V. */
const startUnderV = 0.05

/**
 * Initial voltages of a case, V, by post: the voltage of the nearest battery or source, and zero in the negative.
 * Any start leads to the same end; a near one leads there sooner.
 */
export function startOf(
  { posts, runs, units }: Network,
  at: Case,
  { beyond }: Joined = joinedOf({ posts, runs, units }),
): Map<string, number> {
  const start = new Map<string, number>()
  let front: [string, number][] = units.flatMap((unit): [string, number][] => {
    // While an engine runs, its alternator holds the voltage on its side.
    if (unit.kind === 'battery' && !(unit.serves === 'engine' && runsEngine(at)))
      return [[unit.plus, emfV(unit, at)]]
    return unit.kind === 'alternator' && runsEngine(at) ? [[unit.plus, unit.setV - startUnderV]] : []
  })
  const positive = new Set(posts.filter(({ pole }) => pole === 'positive').map(({ id }) => id))
  while (front.length > 0) {
    const reached: [string, number][] = []
    for (const [post, volts] of front) {
      if (start.has(post) || !positive.has(post)) continue
      start.set(post, volts)
      for (const [next, dropV] of beyond.get(post) ?? []) reached.push([next, volts - dropV])
    }
    front = reached
  }
  for (const { id, pole, nominalV } of posts)
    if (!start.has(id)) start.set(id, pole === 'negative' ? 0 : nominalV)
  return start
}

/** The circuits of a network: one for each case. */
export class Circuits {
  private readonly nodes: readonly string[]
  /** The runs while no engine runs, and while one does. */
  private readonly runs = new Map<boolean, readonly Resistor[]>()

  /** @param joined the connections, if known already */
  constructor(
    private readonly network: Network,
    private readonly joined: Joined = joinedOf(network),
  ) {
    this.nodes = network.posts.map(({ id }) => id)
  }

  in(at: Case): Circuit {
    const { network, nodes } = this
    const units = network.units.flatMap((unit) => elementsOf(unit, at, network))
    const elements = [...units, ...shortIn(at, network)]
    const resistors = [...this.runsWhile(runsEngine(at)), ...loose(network, this.joined, elements)]
    return { nodes, ground: network.ground, resistors, elements }
  }

  /** Relays that an alternator's signal closes are open while no engine runs. */
  private runsWhile(isRunning: boolean): readonly Resistor[] {
    let runs = this.runs.get(isRunning)
    if (!runs) {
      const { network } = this
      const open = new Set(isRunning ? [] : network.relays.map(({ post }) => post))
      runs = network.runs.map((run): Resistor => {
        const ohm = open.has(run.to) ? openOhm : runOhm(run, network.cableC)
        return { id: run.id, from: run.from, to: run.to, ohm }
      })
      this.runs.set(isRunning, runs)
    }
    return runs
  }
}

/** The circuit of a network in one case. */
export const circuitOf = (network: Network, at: Case): Circuit => new Circuits(network).in(at)

function shortIn(at: Case, { posts }: Network): Element[] {
  if (at.kind !== 'short') return []
  const { id, opposite } = present(posts.find((post) => at.id === `short-${post.id}`))
  return [{ id: 'short', nodes: [id, opposite], law: resistance(boltedOhm) }]
}

/** A circuit with everything that any case of a network has: for putting its equations in order. */
export function wholeOf(network: Network): Circuit {
  const resistors = network.runs.map(({ id, from, to }): Resistor => ({ id, from, to, ohm: 1 }))
  const law = resistance(1)
  const units = network.units.map((unit): Element => ({
    id: unit.id,
    nodes:
      unit.kind === 'dcdc'
        ? [unit.plus, unit.minus, unit.inPlus, unit.inMinus]
        : unit.kind === 'diode'
          ? [unit.plus, unit.out]
          : [unit.plus, unit.minus],
    law,
  }))
  const shorts = network.posts
    .filter(({ pole }) => pole === 'positive')
    .map(({ id, opposite }): Element => ({ id: `short-${id}`, nodes: [id, opposite], law }))
  return {
    nodes: network.posts.map(({ id }) => id),
    ground: network.ground,
    resistors,
    elements: [...units, ...shorts],
  }
}

/**
 * A tie to the ground for each part of the network that neither a run nor a unit joins to it: a current needs two.
 */
function loose({ ground }: Network, { islands, firsts }: Joined, elements: readonly Element[]): Resistor[] {
  const bridged = new Map<string, string>()
  const rootOf = (post: string): string => {
    let root = entryOf(islands, post)
    for (let next = bridged.get(root); next !== undefined; next = bridged.get(root)) root = next
    return root
  }
  // Terminals of a unit come in pairs; from one pair to the other nothing is joined.
  for (const { nodes } of elements)
    for (let i = 0; i < nodes.length; i += 2) {
      const [one, other] = [rootOf(elementAt(nodes, i)), rootOf(elementAt(nodes, i + 1))]
      if (one !== other) bridged.set(one, other)
    }
  const tied = new Set([rootOf(ground)])
  return firsts.flatMap((post): Resistor[] => {
    const root = rootOf(post)
    if (tied.has(root)) return []
    tied.add(root)
    return [{ id: `tie-${post}`, from: post, to: ground, ohm: tieOhm }]
  })
}
