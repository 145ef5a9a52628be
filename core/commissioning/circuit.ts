import { fieldOf } from '#core/collections/held'
import type { Circuit, Element, Resistor } from '#core/circuit/circuit'
import { Circuits, openOhm, wholeOf } from '#core/wiring/circuits'
import { elementsOf } from '#core/wiring/elements'
import { battery, current, diode } from '#core/circuit/law'
import { joinedOf, type Joined } from '#core/wiring/joined'
import type { BatteryUnit, Network, Run, WiringUnit } from '#core/wiring/network'
import { runOhm } from '#core/wiring/run-ohm'
import { leastShare } from './parameters'
import { unitsOf, withEmf, type Rig } from './rig'
import { runSignal, stopSignal } from './signals'
import type { Doing, TestState } from './states'

/** A pack that takes nothing more, or gives nothing, Ω. */
const shutOhm = 1e5
/** Resistance of a diode beyond its drop, Ω, as of an isolator’s. */
const diodeOhm = 0.001
/** The standby current fades below this voltage, V. */
const fadesBelowV = 6
/** Resting voltage of a nearly full bank, and the distance to absorption, V of 12 (engineering defaults). */
const nearlyFullV = 13.4
const nearAbsorptionV = 0.8

/** A circuit with everything that a state or a fault may join: for putting its equations in order. */
export function wholeCircuit(rig: Rig): Circuit {
  const whole = wholeOf(rig.network)
  const join = (from: string, to: string): Resistor => ({ id: `${from} ${to}`, from, to, ohm: 1 })
  const bars = barsOf(rig.network)
  const batteries = unitsOf(rig.network, 'battery')
  return {
    ...whole,
    resistors: [
      ...whole.resistors,
      join(bars.plus, bars.minus),
      ...batteries.map(({ plus }) => join(plus, bars.plus)),
      ...rig.network.runs.map(({ from }) => join(from, rig.network.ground)),
      ...rig.network.runs.map(({ to }) => join(to, rig.network.ground)),
    ],
  }
}

/** The post to which the loads of the house are joined. */
export function barsOf({ posts }: Network): { readonly plus: string; readonly minus: string } {
  const has = (id: string): boolean => posts.some((post) => post.id === id)
  return {
    plus: has('bar-plus') ? 'bar-plus' : 'bank-plus',
    minus: has('bar-minus') ? 'bar-minus' : 'bank-minus',
  }
}

/** The circuit of a rig in a state. */
export function circuitIn(rig: Rig, state: TestState): Circuit {
  const network = networkIn(rig, state)
  const wiring = wiringOf(network)
  const plain = new Circuits(network, wiring.joined).in(state.at)
  const diodes: Element[] = []
  const resistors = plain.resistors.flatMap((resistor): Resistor[] => {
    const found = asFound(resistor, rig, wiring, state)
    const dropV = rig.diodes[resistor.id]
    if (dropV === undefined) return [found]
    const law = diode(dropV, found.ohm + diodeOhm)
    diodes.push({ id: `diode-${resistor.id}`, nodes: [found.from, found.to], law })
    return []
  })
  const stray = rig.stray.map(({ from, to, ohm }, i) => ({ id: `stray-${i}`, from, to, ohm }))
  const elements = plain.elements.flatMap((element) => {
    const unit = network.units.find(({ id }) => id === element.id)
    return unit ? asFoundUnit(element, unit, rig, state) : [element]
  })
  return {
    ...plain,
    resistors: [...resistors, ...stray],
    elements: [...elements, ...diodes, ...standingDraw(rig, state)],
  }
}

/** Draw with everything off; zero while the bank is apart or switched off. */
export function standingDraw(rig: Rig, { doing }: TestState): Element[] {
  if (rig.standingA <= 0 || doing.kind === 'apart') return []
  const { plus, minus } = barsOf(rig.network)
  return [{ id: 'standing', nodes: [plus, minus], law: current(rig.standingA, fadesBelowV) }]
}

/** The units as a state has them. */
function networkIn(rig: Rig, state: TestState): Network {
  const { network } = rig
  const { kind } = state.doing
  if (kind !== 'absorbing' && kind !== 'floating') return network
  return { ...network, units: network.units.map((unit) => unitIn(unit, rig, state)) }
}

/** A unit as a state has it: near the end of a charge the bank takes little, and in float its source holds less. */
function unitIn(unit: WiringUnit, rig: Rig, { doing }: TestState): WiringUnit {
  if (doing.kind !== 'absorbing' && doing.kind !== 'floating') return unit
  if (unit.kind === 'battery' && unit.serves === 'house')
    return nearlyFull(unit, fieldOf(rig.tailA, doing.source), rig.nominalV / 12)
  if (unit.kind !== 'source' || unit.id !== doing.source || doing.kind !== 'floating') return unit
  return { ...unit, setV: rig.charging[unit.id]?.floatV ?? unit.setV }
}

/** One unit in the circuit of a state. */
export function elementsIn(unit: WiringUnit, rig: Rig, state: TestState): Element[] {
  const own = unitIn(unit, rig, state)
  return elementsOf(own, state.at, rig.network).flatMap((element) =>
    element.id === unit.id ? asFoundUnit(element, own, rig, state) : [element],
  )
}

/** A nearly full battery: at its resting voltage, with little current at a higher voltage. */
const nearlyFull = (unit: BatteryUnit, tailA: number, scale: number): BatteryUnit => ({
  ...withEmf(unit, nearlyFullV * scale),
  chargingOhm: (nearAbsorptionV * scale) / Math.max(0.01, tailA),
})

/** The unchanging part of a wiring: looked up once, because a job is solved thousands of times. */
interface Wiring {
  readonly joined: Joined
  readonly runs: ReadonlyMap<
    string,
    { readonly run: Run; readonly ohm: number; readonly isBatteryLead: boolean }
  >
  readonly relays: ReadonlySet<string>
  readonly ground: string
}
const wirings = new WeakMap<Network['runs'], Wiring>()

function wiringOf(network: Network): Wiring {
  const known = wirings.get(network.runs)
  if (known) return known
  const { relays, runs, cableC, ground } = network
  const wiring: Wiring = {
    joined: joinedOf(network),
    runs: new Map(
      runs.map((run) => [
        run.id,
        { run, ohm: runOhm(run, cableC), isBatteryLead: isBatteryLead(run, network) },
      ]),
    ),
    relays: new Set(relays.map(({ post }) => post)),
    ground,
  }
  wirings.set(runs, wiring)
  return wiring
}

/** A run in a state, with its faults. */
function asFound(
  resistor: Resistor,
  rig: Rig,
  { runs, relays, ground }: Wiring,
  { at, doing }: TestState,
): Resistor {
  const known = runs.get(resistor.id)
  if (!known) return resistor
  const { run, ohm: own } = known
  const engine = at.kind === 'engine' && doing.kind !== 'no-signal'
  const signalled = !relays.has(run.to) || (engine && !rig.dead.includes(runSignal(run.to)))
  const switchedOff = doing.kind === 'switched-off' && run.to === 'main-switch'
  const shouldOpen = switchedOff || !signalled
  const opens =
    rig.stuckOpen.includes(run.to) ||
    rig.blown.includes(run.to) ||
    (shouldOpen && !rig.stuckClosed.includes(run.to))
  const apart = doing.kind === 'apart' && known.isBatteryLead
  const addedOhm = Math.min(openOhm, rig.addedOhm[run.id] ?? 0)
  const ohm = opens || apart ? openOhm : Math.max(leastShare * own, own + addedOhm)
  const past = rig.pastShunt.includes(run.id) ? { to: ground } : {}
  return { ...resistor, ...past, ohm }
}

const isBatteryLead = ({ from, to }: { from: string; to: string }, network: Network): boolean =>
  network.units.some((unit) => unit.kind === 'battery' && (unit.plus === from || unit.plus === to))

/** A unit in a state, with its faults. */
function asFoundUnit(element: Element, unit: WiringUnit, rig: Rig, { doing, at }: TestState): Element[] {
  switch (unit.kind) {
    case 'battery':
      return [{ ...element, law: batteryLaw(unit, rig, doing) ?? element.law }]
    case 'dcdc': {
      const wired = rig.signalWires.includes(unit.id)
      const silent = wired && (doing.kind === 'no-signal' || rig.dead.includes(runSignal(unit.id)))
      return at.kind === 'engine' && silent ? [] : [element]
    }
    case 'source':
      return doing.kind === 'stopped' && !rig.dead.includes(stopSignal(unit.id)) ? [] : [element]
    default:
      return [element]
  }
}

/** How a battery behaves that is not there, or lets nothing in; null if it is as it should be. */
function batteryLaw(unit: BatteryUnit, rig: Rig, doing: Doing): Element['law'] | null {
  if (rig.absent.includes(unit.id)) return battery(unit.restV, shutOhm)
  const cold = doing.kind === 'cold' && unit.chemistry === 'lithium' && !rig.dead.includes('cold-gate')
  const cut = doing.kind === 'absorbing' && rig.cutsWhenFull.includes(unit.id)
  const shut = cold || cut || rig.chargeShut.includes(unit.id)
  return shut ? battery(unit.restV, unit.ohm, shutOhm) : null
}
