import { withId } from '#core/collections/held'
import { asSpecified } from '#core/job/as-specified'
import { partId, type JobDocument, type PartPath } from '#core/job/document'
import type { BatteryUnit, Network, WiringUnit } from '#core/wiring/network'
import { networkIn } from '#core/wiring/of-job'
import { airAroundC, heatOf, shaftRpm } from '#core/system/alternators'
import { factsOf, usualSystem, type ShopSettings, type System } from '#core/system/system'
import { warningOf } from '#core/system/warning'
import type { Risk } from './harm'

/** A conductor that nobody specified. */
interface StrayLink {
  readonly from: string
  readonly to: string
  readonly ohm: number
}

/** How the case of an alternator warms at cruise. */
export interface CaseHeat {
  readonly ratedA: number
  readonly rpm: number
  readonly airC: number
  readonly riseK: number
  readonly tauMin: number
}

/** Panels before their controller. */
export interface Panels {
  readonly openV: number
  /** Strings side by side, whether each has a fuse, and how many of them give nothing. */
  readonly strings: number
  readonly fused: boolean
  readonly dark: number
}

/** Settings of the monitor, and its display errors. */
export interface Monitor {
  readonly sign: 1 | -1
  /** Displayed share of the true current: 1 if it is set for its own shunt. */
  readonly ratio: number
  readonly zeroA: number
  readonly capacityAh: number
}

/** The state of a charger once the bank is full. */
export interface Charging {
  readonly floatV: number | null
}

/**
 * The system to prove: the wiring as it should be, and its deviations. A fault changes a
 * rig into another. Everything else is as specified. Plain data.
 */
export interface Rig {
  readonly network: Network
  /** Extra resistance of runs, Ω; Infinity for an open run. */
  readonly addedOhm: Readonly<Record<string, number>>
  /** Fuses whose element is open, by post. */
  readonly blown: readonly string[]
  /** Relays and switches stuck open or closed, by post. */
  readonly stuckOpen: readonly string[]
  readonly stuckClosed: readonly string[]
  /** Drop of a diode that lies in a run, V, by run. */
  readonly diodes: Readonly<Record<string, number>>
  readonly stray: readonly StrayLink[]
  /** Returns that land on the battery’s own post, before the shunt, by run. */
  readonly pastShunt: readonly string[]
  /** Signals and protections that do not arrive: see `signals.ts`. */
  readonly dead: readonly string[]
  /** Batteries that are not joined, take no charge, or stop it when nearly full, by unit. */
  readonly absent: readonly string[]
  readonly chargeShut: readonly string[]
  readonly cutsWhenFull: readonly string[]
  /** Units whose leads are on the wrong posts. */
  readonly reversed: readonly string[]
  /** Capacity of each battery of the house, Ah. */
  readonly capacityAh: Readonly<Record<string, number>>
  /** How far the post on which a regulator’s sense lead is lies above the battery’s, V, by unit. */
  readonly senseOffV: Readonly<Record<string, number>>
  /** Units whose display shows another setting than is specified. */
  readonly wronglySet: readonly string[]
  /** Runs with a loose lug, and runs with a visibly corroded pin. */
  readonly loose: readonly string[]
  readonly corroded: readonly string[]
  /** Standby draw with everything off, A. */
  readonly standingA: number
  readonly monitor: Monitor | null
  readonly heat: Readonly<Record<string, CaseHeat>>
  readonly panels: Readonly<Record<string, Panels>>
  readonly charging: Readonly<Record<string, Charging>>
  /** Current that each battery of the house still takes when a source's absorption is read, A, by source. */
  readonly tailA: Readonly<Record<string, number>>
  /** Size that is printed on a run, mm², where another was fitted than is specified. */
  readonly printedMm2: Readonly<Record<string, number>>
  /** The same of a fuse, A, by its post. */
  readonly printedA: Readonly<Record<string, number>>
  /** The part each unit belongs to has its running signal by a wire. */
  readonly signalWires: readonly string[]
  readonly protections: readonly string[]
  readonly nominalV: number
  /** Essential tests are added until no more than this stays hidden, by the shop’s rules. */
  readonly enough: Risk
}

/** Share of charge at which a bank is proved: charged, then used a little (engineering default). */
const provedSoc = 0.7
/** Lead that was charged and rested, V of 12. */
const restedLeadV = 12.65
/** In a hybrid both batteries have settled to one voltage; lead lies a little lower. */
const settledUnderV = 0.02
/** Draw of monitor and electronics when all is off, A. */
const quietA = 0.05

/** A job as specified, without faults. */
export function rigOf(job: JobDocument, shop: ShopSettings = {}): Rig {
  const system = usualSystem(factsOf(asSpecified(job), shop))
  return rigIn(system, networkIn(system, job))
}

function rigIn(system: System, network: Network): Rig {
  const { bank, rules } = system
  return {
    network: atProving(network, bank.ocv(provedSoc)),
    addedOhm: {},
    blown: [],
    stuckOpen: [],
    stuckClosed: [],
    diodes: {},
    stray: [],
    pastShunt: [],
    dead: [],
    absent: [],
    chargeShut: [],
    cutsWhenFull: [],
    reversed: [],
    capacityAh: capacitiesIn(network, bank.ah),
    senseOffV: Object.fromEntries(sensedIn(network).map(({ id }) => [id, 0])),
    wronglySet: [],
    loose: [],
    corroded: [],
    standingA: quietA,
    monitor: network.posts.some(({ kind }) => kind === 'shunt')
      ? { sign: 1, ratio: 1, zeroA: 0, capacityAh: bank.ah }
      : null,
    heat: heatIn(system),
    panels: panelsIn(system),
    charging: chargingIn(system),
    tailA: tailsIn(network),
    printedMm2: {},
    printedA: {},
    signalWires: system.many.links
      .filter(({ kind, signal }) => kind === 'dcdc' && signal === 'wire')
      .map(({ $path }) => partId($path)),
    protections: protectionsIn(system),
    nominalV: bank.nominalV,
    enough: { hidden: rules.hiddenLeft / 100, dangerous: rules.dangerousLeft / 100 },
  }
}

const panelsIn = ({ many }: System): Rig['panels'] =>
  Object.fromEntries(
    many.solar
      .filter(({ through }) => through === 'own')
      .map(({ $path, openCircuitV, series, parallel, stringFuses }) => [
        partId($path),
        { openV: openCircuitV * series, strings: parallel, fused: stringFuses === 'yes', dark: 0 },
      ]),
  )

const protectionsIn = (system: System): Rig['protections'] => [
  'discharge-stop',
  ...(system.one.candidate.coldCut === 'yes' ? (['cold-gate'] as const) : []),
  ...(warningOf(system) ? (['warning'] as const) : []),
  'reset',
]

/** The same wiring with every battery at its charge on the day, in every case. */
function atProving(network: Network, lithiumV: number): Network {
  const emfOf = ({ chemistry, serves, plus }: BatteryUnit): number => {
    const { nominalV } = withId(network.posts, plus)
    if (chemistry === 'lithium') return lithiumV
    return serves === 'house' ? lithiumV - settledUnderV : (restedLeadV * nominalV) / 12
  }
  return {
    ...network,
    units: network.units.map((unit) => (unit.kind === 'battery' ? withEmf(unit, emfOf(unit)) : unit)),
  }
}

export const withEmf = (unit: BatteryUnit, emfV: number): BatteryUnit => ({
  ...unit,
  lowV: emfV,
  restV: emfV,
  fullV: emfV,
})

function heatIn({ many }: System): Record<string, CaseHeat> {
  return Object.fromEntries(
    many.alternators.flatMap((alternator) => {
      const heat = heatOf(alternator)
      if (!heat) return []
      const { ratedA } = alternator
      const rpm = shaftRpm(alternator, 'cruise')
      return [[partId(alternator.$path), { ...heat, ratedA, rpm, airC: airAroundC(alternator) }]]
    }),
  )
}

function chargingIn({ many }: System): Record<string, Charging> {
  const staged = [
    ...many.chargers.map(({ $path, floatMode, floatV }) => [$path, floatMode === 'on' ? floatV : null]),
    ...many.solar.map(({ $path, floatMode, floatV }) => [$path, floatMode === 'on' ? floatV : null]),
  ] as [PartPath, number | null][]
  return Object.fromEntries(staged.map(([path, floatV]) => [partId(path), { floatV }]))
}

/** Absorption is read once the current has fallen to this share of the source’s output (engineering default). */
const tailShare = 0.1

function tailsIn(network: Network): Record<string, number> {
  const house = unitsOf(network, 'battery').filter(({ serves }) => serves === 'house').length
  const sources = [...unitsOf(network, 'source'), ...unitsOf(network, 'dcdc')]
  return Object.fromEntries(sources.map(({ id, mostA }) => [id, (tailShare * mostA) / Math.max(1, house)]))
}

/** Capacity of each lithium battery of the house: they are equal. */
function capacitiesIn(network: Network, bankAh: number): Record<string, number> {
  const packs = unitsOf(network, 'battery').filter(
    ({ serves, chemistry }) => serves === 'house' && chemistry === 'lithium',
  )
  return Object.fromEntries(packs.map(({ id }) => [id, bankAh / packs.length]))
}

/** Alternators and sources with a voltage-sense lead. */
const sensedIn = ({ units, lines }: Network): readonly WiringUnit[] =>
  units.filter(
    ({ kind, of }) =>
      (kind === 'alternator' || kind === 'source') &&
      lines.some((line) => line.kind === 'sense' && line.of === of),
  )

/** The units of a kind. */
export const unitsOf = <K extends WiringUnit['kind']>(
  { units }: Network,
  kind: K,
): readonly Extract<WiringUnit, { kind: K }>[] =>
  units.filter((unit): unit is Extract<WiringUnit, { kind: K }> => unit.kind === kind)

/** A DC-DC that keeps a reserve full from the house. */
export const isKeeper = (unit: WiringUnit): boolean => unit.kind === 'dcdc' && unit.alternator === null

/** The same rig with some of its units changed. */
export const withUnit = (rig: Rig, id: string, change: (unit: WiringUnit) => WiringUnit): Rig => ({
  ...rig,
  network: {
    ...rig.network,
    units: rig.network.units.map((unit) => (unit.id === id ? change(unit) : unit)),
  },
})
