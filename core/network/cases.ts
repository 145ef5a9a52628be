import { inside } from '#core/units/format'
import { chassisOhm, conductorOhm, copperFactor } from '#core/physics/conductors'
import type { Circuit, Element, Resistor } from './circuit'
import { joinedOf, type Joined } from './joined'
import { battery, converter, current, diode, held, power, resistance } from './law'
import type { AlternatorUnit, BatteryUnit, DcdcUnit, Network, Run, Unit } from './network'

/** A state of the system in which its wiring is looked at. */
export interface Case {
  /** `cruise`, `charge-charger-1`, `short-bar-plus`. */
  readonly id: string
  readonly name: string
  readonly kind: 'loads' | 'charge' | 'engine' | 'together' | 'rest' | 'cranking' | 'short'
}

/** How a regulator gives way, V/A: from no load to full, the voltage of a usual machine falls by some 0.2 V (engineering default, as in the runs). */
const regulatorOhm = 0.003
/** A diode's own resistance beyond its drop, Ω. */
const diodeOhm = 0.001
/** An open switch, Ω. */
const openOhm = 1e6
/** What ties a part that hangs on nothing to the ground, so that it has a voltage at all, Ω: nothing can flow in it. */
const tieOhm = 1
/** A bolted short, Ω. */
export const boltedOhm = 1e-4
/** Where a search begins: a regulator holds a little less than it is set to, V. */
const heldUnderV = 0.05
/** Over which a unit at its lowest voltage takes its load back, V of 12. */
const bandV = 0.3
/** A starter motor at its cranking current is a resistance: it drops so much, V of 12. */
const crankingV = 9.6

/** Resistance of a run with the fitting it comes to, Ω: as it was measured, else by its size and length. */
export const runOhm = (run: Run, cableC: number): number => run.measuredOhm ?? sizedOhm(run, cableC)

/** The same by its size and length alone, at the temperature at which the shop counts cables. */
export function sizedOhm(
  {
    areaMm2,
    lengthM,
    count,
    material,
    fittingOhm,
  }: Pick<Run, 'areaMm2' | 'lengthM' | 'count' | 'material' | 'fittingOhm'>,
  cableC: number,
): number {
  if (areaMm2 === null) return chassisOhm(lengthM)
  return (conductorOhm({ lengthM, areaMm2, material }) / count) * copperFactor(cableC) + fittingOhm
}

/** How much conductor a run is: the area of each, mm², and how many lie side by side. */
export type Conductors = Pick<Run, 'areaMm2' | 'count'>

/** Resistance of a run were it of another size, Ω: what was measured holds for the size that is there. */
export const ohmAtSize = (run: Run, size: Conductors, cableC: number): number =>
  size.areaMm2 === run.areaMm2 && size.count === run.count
    ? runOhm(run, cableC)
    : sizedOhm({ ...run, ...size }, cableC)

/** Whether a return is laid with the run it comes back for: not where the chassis is it, nor where it was set by hand. */
export const isLaidWithItsRun = ({ areaMm2, areaKnown }: Run): boolean =>
  areaMm2 !== null && areaKnown !== 'set'

/** The id of all loads on a rested battery. */
export const restedLoads = 'loads-rested'

const named = (words: string, name: string): string => `${words} ${inside(name)}`

/** Every case of a network, in the order in which it is looked at; last a short at each positive post. */
export function casesOf(network: Network): Case[] {
  const { units, posts } = network
  const cases: Case[] = []
  if (units.some(({ kind }) => kind === 'load' || kind === 'inverter'))
    cases.push({ id: 'loads', kind: 'loads', name: 'All loads, nothing charging' })
  // On a low battery a thin cable stops an inverter that draws all its power from a full one.
  if (units.some(({ kind }) => kind === 'inverter'))
    cases.push({ id: restedLoads, kind: 'loads', name: 'All loads on a rested battery' })
  for (const unit of units)
    if (unit.kind === 'source')
      cases.push({ id: `charge-${unit.id}`, kind: 'charge', name: named('Charging from', unit.name) })
  const engines = units.some(({ kind }) => kind === 'alternator')
  if (engines)
    cases.push(
      { id: 'idle', kind: 'engine', name: 'Engine at idle' },
      { id: 'cruise', kind: 'engine', name: 'Engine at cruise' },
    )
  if (engines || units.some(({ kind }) => kind === 'source'))
    cases.push({ id: 'together', kind: 'together', name: 'All sources together' })
  cases.push({ id: 'rest', kind: 'rest', name: 'At rest' })
  for (const unit of units)
    if (unit.kind === 'starter')
      cases.push({ id: `cranking-${unit.id}`, kind: 'cranking', name: named('Cranking with', unit.name) })
  for (const post of posts)
    if (post.pole === 'positive')
      cases.push({ id: `short-${post.id}`, kind: 'short', name: `A short at ${post.name}` })
  return cases
}

/** The case of a name; null where the network has none of it. */
export const caseOf = (network: Network, id: string): Case | null =>
  casesOf(network).find((one) => one.id === id) ?? null

/**
 * Where a search for the voltages of a case may begin, V, by post: at what the nearest battery or source holds by
 * itself, and at nought in the negative. Any start leads to the same end; a near one leads there sooner.
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
    return unit.kind === 'alternator' && runsEngine(at) ? [[unit.plus, unit.setV - heldUnderV]] : []
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

const runsEngine = ({ kind }: Case): boolean => kind === 'engine' || kind === 'together' || kind === 'short'

/** The circuit of a network in a case. @param joined what is joined to what, where that is known already */
export function circuitOf(network: Network, at: Case, joined: Joined = joinedOf(network)): Circuit {
  const open = new Set(runsEngine(at) ? [] : network.relays.map(({ post }) => post))
  const runs = network.runs.map((run): Resistor => ({
    id: run.id,
    from: run.from,
    to: run.to,
    ohm: open.has(run.to) ? openOhm : runOhm(run, network.cableC),
  }))
  const elements = network.units.flatMap((unit) => elementsOf(unit, at, network))
  if (at.kind === 'short') {
    const post = network.posts.find(({ id }) => at.id === `short-${id}`)!
    elements.push({ id: 'short', nodes: [post.id, post.opposite], law: resistance(boltedOhm) })
  }
  const resistors = [...runs, ...loose(network, joined, elements)]
  return { nodes: network.posts.map(({ id }) => id), ground: network.ground, resistors, elements }
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

/** A tie to the ground for each part of the network that neither a run nor a unit joins to it: a current needs two. */
function loose({ posts, ground }: Network, { islands }: Joined, elements: readonly Element[]): Resistor[] {
  const bridged = new Map<string, string>()
  const rootOf = (post: string): string => {
    let root = islands.get(post)!
    for (let next = bridged.get(root); next !== undefined; next = bridged.get(root)) root = next
    return root
  }
  // Terminals of a unit come in pairs; from one pair to the other nothing is joined.
  for (const { nodes } of elements)
    for (let i = 0; i < nodes.length; i += 2) {
      const [one, other] = [rootOf(nodes[i]!), rootOf(nodes[i + 1]!)]
      if (one !== other) bridged.set(one, other)
    }
  const tied = new Set([rootOf(ground)])
  return (['negative', 'positive'] as const).flatMap((pole) =>
    posts.flatMap((post): Resistor[] => {
      const root = rootOf(post.id)
      if (post.pole !== pole || tied.has(root)) return []
      tied.add(root)
      return [{ id: `tie-${post.id}`, from: post.id, to: ground, ohm: tieOhm }]
    }),
  )
}

/** What a unit is in the circuit of a case. */
export function elementsOf(unit: Unit, at: Case, network: Network): Element[] {
  const two = (law: Element['law']): Element[] => [{ id: unit.id, nodes: [unit.plus, unit.minus], law }]
  const scale = (network.posts.find(({ id }) => id === unit.plus)?.nominalV ?? 12) / 12
  const charging = runsEngine(at)
  switch (unit.kind) {
    case 'battery':
      if (at.kind === 'short') return two(battery(unit.fullV, unit.shortOhm))
      return two(battery(emfV(unit, at), unit.ohm, unit.chargingOhm))
    case 'source':
      if (at.kind === 'short') return two(pushed(unit.mostA))
      return at.kind === 'together' || at.id === `charge-${unit.id}`
        ? two(held(unit.setV, unit.mostA, regulatorOhm))
        : []
    case 'alternator':
      return charging ? alternatorAt(unit, at) : []
    case 'dcdc':
      return charging || (at.kind === 'charge' && unit.alternator === null)
        ? dcdcAt(unit, at, scale, network)
        : []
    case 'inverter':
      return at.kind === 'loads' ? two(power(unit.takesW, unit.lowestV, bandV * scale)) : []
    case 'load':
      return at.kind === 'loads' && unit.amps > 0 ? two(current(unit.amps, 6 * scale)) : []
    case 'starter':
      return at.id === `cranking-${unit.id}` ? two(resistance((crankingV * scale) / unit.amps)) : []
    case 'diode':
      return [{ id: unit.id, nodes: [unit.plus, unit.out], law: diode(unit.dropV, diodeOhm) }]
  }
}

/** A battery of the house is low when it is charged or loaded; one that turns an engine is full soon after the start. */
function emfV({ serves, lowV, restV, fullV }: BatteryUnit, { kind, id }: Case): number {
  if (kind === 'rest') return fullV
  return kind === 'cranking' || id === restedLoads || serves === 'engine' ? restV : lowV
}

/** A source whose regulator is out of it gives all its current, whatever the voltage: that of a volt many times its own. */
const pushingV = 1000
const pushed = (mostA: number): Element['law'] => battery(pushingV, pushingV / Math.max(1e-3, mostA))

/** An alternator gives what it makes at a speed, and engine and lights draw of it where it stands. */
function alternatorAt(unit: AlternatorUnit, at: Case): Element[] {
  const nodes = [unit.plus, unit.minus]
  const mostA = at.id === 'idle' ? unit.idleA : unit.cruiseA
  return [
    {
      id: unit.id,
      nodes,
      law: at.kind === 'short' ? pushed(mostA) : held(unit.setV, mostA, regulatorOhm),
    },
    ...(unit.drawA > 0 && at.kind !== 'short'
      ? [{ id: `${unit.id}-draw`, nodes, law: current(unit.drawA, 6) }]
      : []),
  ]
}

/** A DC-DC while what it runs with does. In a short it is counted by what it can give, whatever its input does. */
function dcdcAt(unit: DcdcUnit, at: Case, scale: number, { units }: Network): Element[] {
  if (at.kind === 'short') return [{ id: unit.id, nodes: [unit.plus, unit.minus], law: pushed(unit.mostA) }]
  const feeding = units.find(
    (one): one is AlternatorUnit => one.kind === 'alternator' && one.id === unit.alternator,
  )
  if (unit.alternator !== null && (!feeding || feeding.setV <= unit.lowestInputV)) return []
  return [
    {
      id: unit.id,
      nodes: [unit.plus, unit.minus, unit.inPlus, unit.inMinus],
      law: converter({
        setV: unit.setV,
        mostA: unit.mostA,
        ohm: regulatorOhm,
        efficiency: unit.efficiency,
        fullV: unit.lowestInputV + bandV * scale,
        bandV: bandV * scale,
      }),
    },
  ]
}
