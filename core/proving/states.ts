import { casesOf, circuitOf, elementsOf, runOhm, wholeOf, type Case } from '#core/network/cases'
import type { Circuit, Element, Resistor } from '#core/network/circuit'
import { battery, current, diode } from '#core/network/law'
import type { BatteryUnit, Network, Unit } from '#core/network/network'
import { unitsOf, withEmf, type Rig } from './rig'
import { leastShare } from './parameters'
import { runSignal, stopSignal } from './signals'

/** What is done to the system while it is looked at, beyond what is on. */
export type Doing =
  | { readonly kind: 'nothing' }
  /** Every battery by itself, its leads off. */
  | { readonly kind: 'apart' }
  | { readonly kind: 'switched-off' }
  /** The bank nearly full, held at the set voltage of a source; or an hour later. */
  | { readonly kind: 'absorbing' | 'floating'; readonly source: string }
  /** The battery’s sensor made cold. */
  | { readonly kind: 'cold' }
  /** The battery’s charge stop made to act. */
  | { readonly kind: 'stopped' }
  /** The running signal taken off. */
  | { readonly kind: 'no-signal' }

/** A state of the system in which something is read. */
export interface State {
  /** `loads`, `charge-charger-1`, `absorb-charger-1`: that of the network’s case where nothing else is done. */
  readonly id: string
  /** What is on, in words. */
  readonly name: string
  readonly at: Case
  readonly doing: Doing
  /** Minutes until it is set up from rest. */
  readonly minutes: number
}

const nothing: Doing = { kind: 'nothing' }
const openOhm = 1e6
/** A pack that takes nothing more, or gives nothing, Ω. */
const shutOhm = 1e5
/** Current that a full bank still takes at its set voltage, as a share of its amperes at ten hours (engineering default). */
const tailA = 3
/** Resistance of a diode beyond its drop, Ω, as of an isolator’s. */
const diodeOhm = 0.001
/** The draw of what stands by fades below, V. */
const fadesBelowV = 6

const setUpMinutes: Readonly<Record<Case['kind'], number>> = {
  rest: 1,
  loads: 2,
  charge: 3,
  engine: 5,
  together: 6,
  cranking: 3,
  short: 0,
}

/** Every state in which something of a rig is read. */
export function statesOf({ network, charging, signalWires, protections }: Rig): State[] {
  const cases = casesOf(network).filter(({ kind }) => kind !== 'short' && kind !== 'together')
  const byId = new Map(cases.map((one) => [one.id, one]))
  const rest = byId.get('rest')!
  const states: State[] = cases.map((at) => ({
    id: at.id,
    name: nameOf(at),
    at,
    doing: nothing,
    minutes: setUpMinutes[at.kind],
  }))
  states.push({
    id: 'apart',
    name: 'Batteries apart, their leads off',
    at: rest,
    doing: { kind: 'apart' },
    minutes: 4,
  })
  if (network.posts.some(({ id }) => id === 'main-switch'))
    states.push({
      id: 'switched-off',
      name: 'Main switch off',
      at: rest,
      doing: { kind: 'switched-off' },
      minutes: 1,
    })
  for (const { id, name } of unitsOf(network, 'source')) {
    const at = byId.get(`charge-${id}`)!
    const lower = name.replace(/^The /, 'the ')
    if (charging[id]) {
      states.push({
        id: `absorb-${id}`,
        name: `Bank nearly full, ${lower} in absorption`,
        at,
        doing: { kind: 'absorbing', source: id },
        minutes: 20,
      })
      if (charging[id].floatV !== null)
        states.push({
          id: `float-${id}`,
          name: `An hour after, ${lower} in float`,
          at,
          doing: { kind: 'floating', source: id },
          minutes: 30,
        })
    }
    if (network.signals.some(({ of }) => of !== null && of.endsWith(`/${id}`)))
      states.push({
        id: `stop-${id}`,
        name: `Charging from ${lower}, charge stop made to act`,
        at,
        doing: { kind: 'stopped' },
        minutes: 4,
      })
  }
  for (const { id, name } of unitsOf(network, 'dcdc')) {
    const at = byId.get('cruise')
    if (at)
      states.push({
        id: `absorb-${id}`,
        name: `Engine at cruise, bank nearly full, ${name.replace(/^The /, 'the ')} in absorption`,
        at,
        doing: { kind: 'absorbing', source: id },
        minutes: 20,
      })
  }
  const charger = states.find(({ at, doing }) => at.kind === 'charge' && doing.kind === 'nothing')
  if (charger && protections.includes('cold-gate'))
    states.push({
      id: 'cold',
      name: `${charger.name}, the battery’s sensor cooled`,
      at: charger.at,
      doing: { kind: 'cold' },
      minutes: 8,
    })
  const cruise = byId.get('cruise')
  if (cruise && (signalWires.length > 0 || network.relays.length > 0))
    states.push({
      id: 'no-signal',
      name: 'Engine at cruise, running signal taken off',
      at: cruise,
      doing: { kind: 'no-signal' },
      minutes: 6,
    })
  return states
}

const nameOf = ({ kind, name }: Case): string =>
  kind === 'rest'
    ? 'Everything off, main switch on'
    : kind === 'loads'
      ? 'All loads on, nothing charging'
      : name

/** A circuit with everything that a state or a fault may join: for putting its equations in order. */
export function everythingOf(rig: Rig): Circuit {
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

/** Where what draws on the house is joined. */
export function barsOf({ posts }: Network): { readonly plus: string; readonly minus: string } {
  const has = (id: string): boolean => posts.some((post) => post.id === id)
  return {
    plus: has('bar-plus') ? 'bar-plus' : 'bank-plus',
    minus: has('bar-minus') ? 'bar-minus' : 'bank-minus',
  }
}

/** The circuit of a rig in a state. */
export function circuitIn(rig: Rig, state: State): Circuit {
  const network = networkIn(rig, state)
  const plain = circuitOf(network, state.at)
  const diodes: Element[] = []
  const resistors = plain.resistors.flatMap((resistor): Resistor[] => {
    const found = asFound(resistor, rig, network, state)
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

/** What draws when all is off; while the bank is apart or switched off nothing does. */
export function standingDraw(rig: Rig, { doing }: State): Element[] {
  if (rig.standingA <= 0 || doing.kind === 'apart') return []
  const { plus, minus } = barsOf(rig.network)
  return [{ id: 'standing', nodes: [plus, minus], law: current(rig.standingA, fadesBelowV) }]
}

/** The units as a state has them. */
function networkIn(rig: Rig, state: State): Network {
  const { network } = rig
  const { kind } = state.doing
  if (kind !== 'absorbing' && kind !== 'floating') return network
  return { ...network, units: network.units.map((unit) => unitIn(unit, rig, state)) }
}

/** A unit as a state has it: near the end of a charge the bank takes little, and in float its source holds less. */
function unitIn(unit: Unit, rig: Rig, { doing }: State): Unit {
  if (doing.kind !== 'absorbing' && doing.kind !== 'floating') return unit
  if (unit.kind === 'battery' && unit.serves === 'house') return nearlyFull(unit)
  if (unit.kind !== 'source' || unit.id !== doing.source || doing.kind !== 'floating') return unit
  return { ...unit, setV: rig.charging[unit.id]?.floatV ?? unit.setV }
}

/** What one unit is in the circuit of a state. */
export function elementsIn(unit: Unit, rig: Rig, state: State): Element[] {
  const own = unitIn(unit, rig, state)
  return elementsOf(own, state.at, rig.network).flatMap((element) =>
    element.id === unit.id ? asFoundUnit(element, own, rig, state) : [element],
  )
}

/** A battery that takes little more: it rests where it does, and gives way to a higher voltage at once. */
function nearlyFull(unit: BatteryUnit): BatteryUnit {
  const scale = unit.fullV / 13.2
  const restsV = 13.4 * scale
  return { ...withEmf(unit, restsV), chargingOhm: (0.8 * scale) / tailA }
}

/** A run as it is found, in a state. */
function asFound(resistor: Resistor, rig: Rig, network: Network, { at, doing }: State): Resistor {
  const run = network.runs.find(({ id }) => id === resistor.id)
  if (!run) return resistor
  const own = runOhm(run, network.cableC)
  const relay = network.relays.find(({ post }) => post === run.to)
  const engine = at.kind === 'engine' && doing.kind !== 'no-signal'
  const signalled = relay === undefined || (engine && !rig.dead.includes(runSignal(run.to)))
  const switchedOff = doing.kind === 'switched-off' && run.to === 'main-switch'
  const shouldOpen = switchedOff || !signalled
  const opens =
    rig.stuckOpen.includes(run.to) ||
    rig.blown.includes(run.to) ||
    (shouldOpen && !rig.stuckClosed.includes(run.to))
  const apart = doing.kind === 'apart' && isBatteryLead(run, network)
  const addedOhm = Math.min(openOhm, rig.addedOhm[run.id] ?? 0)
  const ohm = opens || apart ? openOhm : Math.max(leastShare * own, own + addedOhm)
  const past = rig.pastShunt.includes(run.id) ? { to: network.ground } : {}
  return { ...resistor, ...past, ohm }
}

const isBatteryLead = ({ from, to }: { from: string; to: string }, network: Network): boolean =>
  network.units.some((unit) => unit.kind === 'battery' && (unit.plus === from || unit.plus === to))

/** A unit as it is found, in a state. */
function asFoundUnit(element: Element, unit: Unit, rig: Rig, { doing, at }: State): Element[] {
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

/** How a battery behaves that is not there, or lets nothing in; null where it is as it should be. */
function batteryLaw(unit: BatteryUnit, rig: Rig, doing: Doing): Element['law'] | null {
  if (rig.absent.includes(unit.id)) return battery(unit.restV, shutOhm)
  const cold = doing.kind === 'cold' && unit.chemistry === 'lithium' && !rig.dead.includes('cold-gate')
  const cut = doing.kind === 'absorbing' && rig.cutsWhenFull.includes(unit.id)
  const shut = cold || cut || rig.chargeShut.includes(unit.id)
  return shut ? battery(unit.restV, unit.ohm, shutOhm) : null
}
