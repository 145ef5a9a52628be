import { availableA } from '#core/system/alternators'
import { highestV } from '#core/system/currents'
import { onEngineSide } from '#core/system/cables'
import type { View } from '#core/system/scene'
import { usualM, type Builder } from './builder'
import type { Joint } from './house'

/** What a lead battery of a cranking current gives way by, Ω: its label's current at 7.2 V of a 12 V one, from 12.6 V. */
const crankingOhm = (cca: number, nominalV: number): number => (5.4 * nominalV) / 12 / Math.max(1, cca)
/** Lead, low, rested and full, V of 12. */
const leadV = { low: 12.2, rest: 12.65, full: 12.9 } as const

/** What full lead takes at its charging voltage, as a share of its ampere-hours (engineering default). */
const fullLeadTakes = 0.05

const idOf = (path: string): string => path.slice(path.indexOf('/') + 1)

/** The engine's side: each alternator with its battery and its starter, and the link to the house. */
export function enginesOf(build: Builder, house: Joint): void {
  const { many, one, craft } = build.system
  if (many.alternators.length > 0) {
    build.post('chassis', 'chassis', {
      name:
        craft === 'vessel' ? 'Engine block' : craft === 'trailer' ? 'Chassis of the tow vehicle' : 'Chassis',
      pole: 'negative',
      state: 'found',
      opposite: house.plus,
      nominalV: house.nominalV,
    })
    // A trailer’s negative reaches the tow vehicle by its plug alone.
    if (one.use.negatives === 'common' && craft !== 'trailer') bondOf(build, house)
  }
  for (const alternator of many.alternators) engineOf(build, house, alternator)
}

/** The one bond of the house’s negative: afloat to the engine block, ashore to the body, whose metal is a conductor too. */
function bondOf(build: Builder, house: Joint): void {
  const { craft, many } = build.system
  if (craft === 'vessel') {
    build.run('bond', house.minus, 'chassis', { role: 'bond', usualM: usualM.bond })
    return
  }
  build.post('body', 'chassis', {
    name: 'Body, at the house bank',
    pole: 'negative',
    state: 'found',
    opposite: house.plus,
    nominalV: house.nominalV,
  })
  build.run('bond', house.minus, 'body', { role: 'bond', usualM: usualM.bond })
  const cable = many.conductors.find(({ $of }) => $of?.startsWith('links/')) ?? null
  build.run('body-metal', 'body', 'chassis', { role: 'return', state: 'found', cable, byChassis: true })
}

function engineOf(build: Builder, house: Joint, alternator: View<'alternators'>): void {
  const { system } = build
  const { many, rules } = system
  const id = idOf(alternator.$path)
  const nominalV = Number(alternator.nominalV)
  const starting = many.startingBatteries.find(({ $of }) => $of === alternator.$path)
  const link = many.links.find(({ $of }) => $of === alternator.$path)
  const battery = starting?.present === 'yes' ? startingBatteryOf(build, starting, nominalV) : null
  const opposite = battery?.minus ?? 'chassis'
  build.post(`${id}-plus`, 'terminal', {
    name: alternator.$name,
    of: alternator.$path,
    state: build.stateOf(alternator.$path),
    opposite,
    nominalV,
  })
  const drawA = alternator.vehicleDrawA
  build.unit({
    kind: 'alternator',
    id,
    name: alternator.$name,
    of: alternator.$path,
    plus: `${id}-plus`,
    minus: 'chassis',
    state: build.stateOf(alternator.$path),
    setV: highestV(alternator),
    ratedA: alternator.ratedA,
    idleA: availableA(alternator, 'idle', rules) + drawA,
    cruiseA: availableA(alternator, 'cruise', rules) + drawA,
    drawA,
  })
  if (battery && link?.kind !== 'diode')
    build.run(`${id}-feed`, `${id}-plus`, battery.plus, {
      leastA: alternator.ratedA,
      role: 'charge',
      state: 'found',
      of: alternator.$path,
      usualM: usualM.crank,
    })
  if (starting && (starting.present === 'yes' || starting.present === 'no'))
    starterOf(build, starting, battery?.plus ?? house.plus, battery ? 'chassis' : house.minus, nominalV)
  if (link && link.kind !== 'none')
    linkOf(build, house, {
      link,
      alternator: id,
      nominalV,
      opposite,
      head: battery?.plus ?? `${id}-plus`,
      headMinus: battery?.minus ?? 'chassis',
      battery: battery !== null,
      ratedA: alternator.ratedA,
      machinePlus: `${id}-plus`,
    })
}

function startingBatteryOf(
  build: Builder,
  starting: View<'startingBatteries'>,
  nominalV: number,
): { readonly plus: string; readonly minus: string } {
  const id = idOf(starting.$path)
  const [plus, minus] = [`${id}-plus`, `${id}-minus`]
  const own = { of: starting.$path, state: build.stateOf(starting.$path), nominalV } as const
  build.post(plus, 'battery', { ...own, name: `${starting.$name}, positive`, opposite: minus })
  build.post(minus, 'battery', {
    ...own,
    name: `${starting.$name}, negative`,
    pole: 'negative',
    opposite: plus,
  })
  const ohm = crankingOhm(starting.cca, nominalV)
  build.unit({
    kind: 'battery',
    id,
    name: starting.$name,
    of: starting.$path,
    plus,
    minus,
    state: own.state,
    chemistry: 'lead',
    serves: 'engine',
    lowV: (leadV.low * nominalV) / 12,
    restV: (leadV.rest * nominalV) / 12,
    fullV: (leadV.full * nominalV) / 12,
    ohm,
    shortOhm: ohm,
    chargingOhm: ((14.4 - leadV.rest) * nominalV) / 12 / Math.max(0.1, fullLeadTakes * starting.ah),
    label: `${starting.ah} Ah`,
  })
  build.run(`${id}-earth`, minus, 'chassis', {
    role: 'return',
    state: 'found',
    of: starting.$path,
    usualM: usualM.earth,
  })
  return { plus, minus }
}

function starterOf(
  build: Builder,
  starting: View<'startingBatteries'>,
  from: string,
  minus: string,
  nominalV: number,
): void {
  const id = idOf(starting.$path)
  const name = 'Starter motor'
  build.post(`${id}-starter-plus`, 'terminal', {
    name,
    of: starting.$path,
    state: 'found',
    opposite: minus,
    nominalV,
  })
  build.unit({
    kind: 'starter',
    id: `${id}-starter`,
    name,
    of: starting.$path,
    plus: `${id}-starter-plus`,
    minus,
    state: 'found',
    amps: starting.engineNeedA,
  })
  build.run(`${id}-crank`, from, `${id}-starter-plus`, {
    role: 'cranking',
    state: 'found',
    of: starting.$path,
    usualM: usualM.crank,
  })
}

interface LinkAt {
  readonly link: View<'links'>
  readonly alternator: string
  readonly nominalV: number
  /** Where the link begins: the starting battery, or the machine that has none. */
  readonly head: string
  readonly headMinus: string
  readonly machinePlus: string
  readonly opposite: string
  readonly battery: boolean
  /** Of the machine, A. */
  readonly ratedA: number
}

function linkOf(build: Builder, house: Joint, at: LinkAt): void {
  const { link } = at
  const cables = build.system.many.conductors.filter(({ $of }) => $of === link.$path)
  if (link.kind === 'dcdc') dcdcOf(build, house, at, cables)
  else straightOf(build, house, at, cables[0] ?? null)
}

/** A link without a DC-DC: nothing, a relay, a switch, or a diode isolator; a fuse at each end that has a source. */
function straightOf(build: Builder, house: Joint, at: LinkAt, cable: View<'conductors'> | null): void {
  const { link, nominalV, opposite } = at
  const id = idOf(link.$path)
  const state = build.stateOf(link.$path)
  const own = { of: link.$path, nominalV, opposite } as const
  const stub = { role: 'charge', of: link.$path, usualM: usualM.stub } as const
  let from = at.head
  if (link.kind === 'diode') from = diodeOf(build, at, state)
  else if (at.battery) {
    build.fitting(`${id}-far-fuse`, 'fuse', {
      ...own,
      ...farFuse(cable),
      name: `Fuse of ${link.$name} at the starting battery`,
      reason: 'The starting battery feeds a fault from this end.',
    })
    build.run(`${id}-far-stub`, from, `${id}-far-fuse`, { ...stub, like: `${id}-feed` })
    from = `${id}-far-fuse`
  }
  if (link.kind !== 'diode' && link.kind !== 'direct') {
    const kind = link.kind === 'switch' ? 'switch' : 'relay'
    build.fitting(`${id}-relay`, kind, {
      ...own,
      state,
      name: link.$name,
      ratedA: link.relayA,
      reason: 'It joins the starting battery and the house while the engine runs, and parts them after.',
    })
    build.run(`${id}-in`, from, `${id}-relay`, {
      role: 'charge',
      state: 'found',
      of: link.$path,
      usualM: usualM.main,
      like: `${id}-feed`,
    })
    if (link.kind !== 'switch') build.relays.push({ post: `${id}-relay`, alternator: at.alternator })
    from = `${id}-relay`
  }
  build.fitting(`${id}-fuse`, 'fuse', {
    ...own,
    ...nearFuse(cable),
    opposite: house.minus,
    name: `Fuse of ${link.$name} at the house bank`,
    reason: 'The lithium feeds a fault from this end.',
  })
  build.run(`${id}-feed`, from, `${id}-fuse`, { role: 'charge', state, of: link.$path, cable })
  // By the chassis it goes the way of the bond.
  if (!build.returnsByChassis(`${id}-feed`, cable))
    build.run(`${id}-return`, house.minus, at.headMinus, {
      role: 'return',
      state,
      of: link.$path,
      returnOf: `${id}-feed`,
      cable,
    })
  build.run(`${id}-stub`, `${id}-fuse`, house.plus, { ...stub, like: `${id}-feed` })
}

function diodeOf(build: Builder, at: LinkAt, state: 'new' | 'found' | 'goes'): string {
  const { link, alternator, nominalV, opposite } = at
  const id = idOf(link.$path)
  const own = { of: link.$path, state, nominalV, opposite } as const
  build.post(`${id}-in`, 'terminal', { ...own, name: `${link.$name}, input` })
  build.run(`${alternator}-feed`, at.machinePlus, `${id}-in`, {
    leastA: at.ratedA,
    role: 'charge',
    state: 'found',
    of: link.$path,
    usualM: usualM.crank,
  })
  const out = (end: string): string => {
    build.post(`${id}-${end}`, 'terminal', { ...own, name: `${link.$name}, output` })
    build.unit({
      kind: 'diode',
      id: `${id}-${end}-diode`,
      name: link.$name,
      of: link.$path,
      plus: `${id}-in`,
      minus: opposite,
      out: `${id}-${end}`,
      state,
      dropV: link.dropV,
    })
    return `${id}-${end}`
  }
  if (at.battery)
    build.run(`${id}-start-feed`, out('start'), at.head, {
      leastA: at.ratedA,
      role: 'charge',
      state: 'found',
      of: link.$path,
      usualM: usualM.crank,
    })
  return out('house')
}

/** A DC-DC: fed from the starting battery through a fuse there, and joined to the house through one at the bar. */
function dcdcOf(build: Builder, house: Joint, at: LinkAt, cables: readonly View<'conductors'>[]): void {
  const { link, nominalV, opposite } = at
  const { rules } = build.system
  const id = idOf(link.$path)
  const state = build.stateOf(link.$path)
  const inCable = cables.find((cable) => onEngineSide(cable)) ?? cables[0] ?? null
  const outCable = cables.find((cable) => cable !== inCable) ?? null
  const isolated = link.isolation === 'isolated'
  const minus = `${id}-minus`
  const stub = { role: 'charge', of: link.$path, usualM: usualM.stub } as const
  const inMinus = isolated ? `${id}-in-minus` : minus
  const input = { of: link.$path, nominalV, opposite } as const
  const output = { of: link.$path, nominalV: house.nominalV, opposite: house.minus } as const
  build.fitting(`${id}-in-fuse`, 'fuse', {
    ...input,
    ...nearFuse(inCable),
    name: `Fuse of ${link.$name}, input`,
    reason: at.battery
      ? 'The starting battery feeds a fault in this cable.'
      : 'The alternator feeds a fault in this cable.',
  })
  build.run(`${id}-in-stub`, at.head, `${id}-in-fuse`, { ...stub, like: `${id}-in-feed` })
  build.post(`${id}-in-plus`, 'terminal', { ...input, state, name: `${link.$name}, input` })
  feedOf(build, id, `${id}-in-fuse`, `${id}-in-plus`, at, inCable)
  build.post(minus, 'terminal', {
    ...output,
    state,
    name: `${link.$name}, negative`,
    pole: 'negative',
    opposite: `${id}-out-plus`,
  })
  if (isolated)
    build.post(inMinus, 'terminal', {
      ...input,
      state,
      name: `${link.$name}, input negative`,
      pole: 'negative',
      opposite: `${id}-in-plus`,
    })
  const feed = `${id}-in-feed`
  if (build.returnsByChassis(feed, inCable)) {
    if (isolated)
      build.run(`${id}-in-return`, inMinus, 'chassis', {
        role: 'return',
        of: link.$path,
        returnOf: feed,
        byChassis: true,
      })
  } else
    build.run(`${id}-in-return`, inMinus, at.headMinus, {
      role: 'return',
      of: link.$path,
      returnOf: feed,
      cable: inCable,
    })
  build.post(`${id}-out-plus`, 'terminal', { ...output, state, name: `${link.$name}, output` })
  build.fitting(`${id}-out-fuse`, 'fuse', {
    ...output,
    ...nearFuse(outCable),
    name: `Fuse of ${link.$name}, output`,
    reason: 'The house bank feeds a fault in this cable.',
  })
  build.run(`${id}-out-feed`, `${id}-out-plus`, `${id}-out-fuse`, {
    leastA: link.ratedA,
    role: 'charge',
    of: link.$path,
    cable: outCable,
    ...(outCable ? {} : { usualM: usualM.bond }),
  })
  build.run(`${id}-out-stub`, `${id}-out-fuse`, house.plus, {
    ...stub,
    leastA: link.ratedA,
    like: `${id}-out-feed`,
  })
  build.run(`${id}-return`, minus, house.minus, {
    role: 'return',
    of: link.$path,
    returnOf: `${id}-out-feed`,
  })
  build.unit({
    kind: 'dcdc',
    id,
    name: link.$name,
    of: link.$path,
    plus: `${id}-out-plus`,
    minus,
    inPlus: `${id}-in-plus`,
    inMinus,
    state,
    setV: link.absorptionV,
    mostA: link.ratedA,
    efficiency: rules.dcdcEfficiency / 100,
    lowestInputV: link.lowestInputV,
    alternator: at.alternator,
  })
}

/** The cable to a DC-DC, through a plug and a fuse at its far end where it has them. */
function feedOf(
  build: Builder,
  id: string,
  from: string,
  to: string,
  at: LinkAt,
  cable: View<'conductors'> | null,
): void {
  const { link, nominalV, opposite } = at
  const own = { of: link.$path, nominalV, opposite } as const
  const stub = { role: 'charge', of: link.$path, usualM: usualM.stub } as const
  const state = build.stateOf(link.$path)
  const plugged = cable?.connectorA != null
  const farFused = cable !== null && cable.farFuseKind !== 'none'
  let next = from
  if (plugged) {
    build.fitting(`${id}-plug`, 'plug', {
      ...own,
      name: `Plug of ${link.$name}`,
      state: 'found',
      ratedA: cable.connectorA,
      mostMm2: cable.connectorMostMm2 < 1000 ? cable.connectorMostMm2 : null,
      reason: 'The trailer parts from the vehicle here.',
    })
    build.run(`${id}-in-feed`, next, `${id}-plug`, {
      role: 'charge',
      state,
      of: link.$path,
      cable,
      share: 0.5,
    })
    next = `${id}-plug`
  }
  if (farFused || plugged) {
    build.fitting(`${id}-in-far-fuse`, 'fuse', {
      ...own,
      ...farFuse(cable),
      name: `Fuse of ${link.$name} at its input`,
      reason: 'Behind the plug the cable can be touched from the other side: it is fused at both ends.',
    })
    build.run(plugged ? `${id}-in-far-feed` : `${id}-in-feed`, next, `${id}-in-far-fuse`, {
      role: 'charge',
      state,
      of: link.$path,
      cable,
      ...(plugged ? { share: 0.5 } : {}),
    })
    build.run(`${id}-in-far-stub`, `${id}-in-far-fuse`, to, { ...stub, like: `${id}-in-feed` })
  } else build.run(`${id}-in-feed`, next, to, { role: 'charge', state, of: link.$path, cable })
}

/** The fuse of a surveyed cable nearest the battery; nothing where it is not known. */
export function nearFuse(
  cable: View<'conductors'> | null,
): Partial<{ state: 'found'; family: View<'conductors'>['fuseKind']; ratedA: number; aicA: number | null }> {
  if (!cable || cable.$entered('fuseA') === null) return {}
  return {
    state: 'found',
    ratedA: cable.fuseA,
    aicA: cable.fuseAicA,
    ...(cable.$entered('fuseKind') === null ? {} : { family: cable.fuseKind }),
  }
}

function farFuse(cable: View<'conductors'> | null): ReturnType<typeof nearFuse> {
  if (!cable || cable.farFuseKind === 'none' || cable.farFuseA === null) return {}
  return { state: 'found', family: cable.farFuseKind, ratedA: cable.farFuseA, aicA: cable.farFuseAicA }
}
