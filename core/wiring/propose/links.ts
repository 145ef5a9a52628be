import { nameInSentence } from '#core/units/format'
import { partId } from '#core/job/document'
import { onEngineSide } from '#core/system/cables'
import type { View } from '#core/system/scene'
import { barOf } from './bars'
import { usualM, type Builder } from './builder'
import type { Joint } from './house'
import { farFuse, nearFuse, type Cable } from './surveyed'

/** A link with its start. */
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

/** The link of an alternator’s side to the house: only a cable, a relay, an isolator, a DC-DC. */
export function linkOf(build: Builder, house: Joint, at: LinkAt): void {
  const { link } = at
  const id = partId(link.$path)
  const cables = build.system.many.conductors.filter(({ $of }) => $of === link.$path)
  if (link.kind === 'dcdc') dcdcOf(build, barOf(build, house, `${id}-out-fuse`), at, cables)
  else straightOf(build, barOf(build, house, `${id}-fuse`), at, cables[0] ?? null)
}

/** A link without a DC-DC: nothing, a relay, a switch, or a diode isolator; a fuse at each end that has a source. */
function straightOf(build: Builder, house: Joint, at: LinkAt, cable: Cable | null): void {
  const { link, nominalV, opposite } = at
  const id = partId(link.$path)
  const state = build.stateOf(link.$path)
  const own = { of: link.$path, nominalV, opposite } as const
  const stub = { role: 'charge', of: link.$path, usualM: usualM.stub } as const
  let from = at.head
  if (link.kind === 'diode') from = diodeOf(build, at, state)
  else if (at.battery) from = fusedAtHead(build, at, cable)
  if (link.kind !== 'diode' && link.kind !== 'direct') from = parted(build, at, from)
  build.fitting(`${id}-fuse`, 'fuse', {
    ...own,
    ...nearFuse(build, cable),
    opposite: house.minus,
    name: `Fuse of ${nameInSentence(link.$name)} at the house bank`,
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

/** A fuse at the starting battery. @returns where the link goes on */
function fusedAtHead(
  build: Builder,
  { link, head, nominalV, opposite }: LinkAt,
  cable: Cable | null,
): string {
  const id = partId(link.$path)
  const own = { of: link.$path, nominalV, opposite } as const
  build.fitting(`${id}-far-fuse`, 'fuse', {
    ...own,
    ...farFuse(build, cable),
    isAtFarEnd: true,
    name: `Fuse of ${nameInSentence(link.$name)} at the starting battery`,
    reason: 'The starting battery feeds a fault from this end.',
  })
  build.run(`${id}-far-stub`, head, `${id}-far-fuse`, {
    role: 'charge',
    of: link.$path,
    usualM: usualM.stub,
    like: `${id}-feed`,
  })
  return `${id}-far-fuse`
}

/** A relay or a switch, which parts both sides. @returns where the link goes on */
function parted(build: Builder, { link, alternator, nominalV, opposite }: LinkAt, from: string): string {
  const id = partId(link.$path)
  const state = build.stateOf(link.$path)
  const own = { of: link.$path, nominalV, opposite } as const
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
  if (link.kind !== 'switch') build.relays.push({ post: `${id}-relay`, alternator })
  return `${id}-relay`
}

function diodeOf(build: Builder, at: LinkAt, state: 'new' | 'found' | 'goes'): string {
  const { link, alternator, nominalV, opposite } = at
  const id = partId(link.$path)
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

/** Ids of the runs at the input of a DC-DC, there and back: not every input has all of them. */
export const inputRunsOf = (link: string): readonly string[] =>
  ['stub', 'feed', 'far-feed', 'far-stub', 'return'].map((piece) => `${link}-in-${piece}`)

/** A DC-DC between its two sides, while it is wired. */
interface DcdcAt {
  readonly build: Builder
  readonly house: Joint
  readonly at: LinkAt
  readonly id: string
  readonly state: ReturnType<Builder['stateOf']>
  readonly place: 'engine' | null
  readonly minus: string
  /** The negative of its input: its own where it is isolated. */
  readonly inMinus: string
  readonly input: { readonly of: string; readonly nominalV: number; readonly opposite: string }
  readonly output: { readonly of: string; readonly nominalV: number; readonly opposite: string }
  readonly stub: { readonly role: 'charge'; readonly of: string; readonly usualM: number }
}

const inputSide = { side: 'input' } as const
const outputSide = { side: 'output' } as const

/** A DC-DC: fed from the starting battery through a fuse there, and joined to the house through one at the bar. */
function dcdcOf(build: Builder, house: Joint, at: LinkAt, cables: readonly Cable[]): void {
  const { link, nominalV, opposite } = at
  const id = partId(link.$path)
  const inCable = cables.find((cable) => onEngineSide(cable)) ?? cables[0] ?? null
  const outCable = cables.find((cable) => cable !== inCable) ?? null
  const minus = `${id}-minus`
  const dcdc: DcdcAt = {
    build,
    house,
    at,
    id,
    state: build.stateOf(link.$path),
    place: link.stands === 'engine' ? 'engine' : null,
    minus,
    inMinus: link.isolation === 'isolated' ? `${id}-in-minus` : minus,
    input: { of: link.$path, nominalV, opposite },
    output: { of: link.$path, nominalV: house.nominalV, opposite: house.minus },
    stub: { role: 'charge', of: link.$path, usualM: usualM.stub },
  }
  dcdcInput(dcdc, inCable)
  dcdcNegatives(dcdc)
  dcdcInputReturn(dcdc, inCable)
  dcdcOutput(dcdc, outCable)
  build.unit({
    kind: 'dcdc',
    id,
    name: link.$name,
    of: link.$path,
    plus: `${id}-out-plus`,
    minus,
    inPlus: `${id}-in-plus`,
    inMinus: dcdc.inMinus,
    state: dcdc.state,
    setV: link.absorptionV,
    mostA: link.ratedA,
    efficiency: build.system.rules.dcdcEfficiency / 100,
    lowestInputV: link.lowestInputV,
    alternator: at.alternator,
  })
}

/** Its feed, from the source through the fuse there to the terminal. */
function dcdcInput({ build, at, id, state, place, input, stub }: DcdcAt, cable: Cable | null): void {
  const { link } = at
  build.fitting(`${id}-in-fuse`, 'fuse', {
    ...input,
    ...nearFuse(build, cable),
    name: `Fuse of ${nameInSentence(link.$name)}, input`,
    reason: at.battery
      ? 'The starting battery feeds a fault in this cable.'
      : 'The alternator feeds a fault in this cable.',
  })
  build.run(`${id}-in-stub`, at.head, `${id}-in-fuse`, { ...stub, ...inputSide, like: `${id}-in-feed` })
  build.post(`${id}-in-plus`, 'terminal', { ...input, state, place, name: `${link.$name}, input` })
  feedOf(build, id, `${id}-in-fuse`, `${id}-in-plus`, at, cable)
}

function dcdcNegatives({ build, at, id, state, place, minus, inMinus, input, output }: DcdcAt): void {
  const negative = { state, place, pole: 'negative' } as const
  const { $name } = at.link
  build.post(minus, 'terminal', {
    ...output,
    ...negative,
    name: `${$name}, negative`,
    opposite: `${id}-out-plus`,
  })
  if (inMinus !== minus)
    build.post(inMinus, 'terminal', {
      ...input,
      ...negative,
      name: `${$name}, input negative`,
      opposite: `${id}-in-plus`,
    })
}

/** The return of its input: by cable, or by the chassis, to which only an isolated input needs a run of its own. */
function dcdcInputReturn({ build, at, id, minus, inMinus }: DcdcAt, cable: Cable | null): void {
  const returnOf = `${id}-in-feed`
  const back = { ...inputSide, role: 'return', of: at.link.$path, returnOf } as const
  if (!build.returnsByChassis(returnOf, cable))
    build.run(`${id}-in-return`, inMinus, at.headMinus, { ...back, cable })
  else if (inMinus !== minus) build.run(`${id}-in-return`, inMinus, 'chassis', { ...back, byChassis: true })
}

/** Its output, through the fuse at the bar, and back. */
function dcdcOutput(
  { build, house, at, id, state, place, minus, output, stub }: DcdcAt,
  cable: Cable | null,
): void {
  const { link } = at
  const leastA = link.ratedA
  build.post(`${id}-out-plus`, 'terminal', { ...output, state, place, name: `${link.$name}, output` })
  build.fitting(`${id}-out-fuse`, 'fuse', {
    ...output,
    ...nearFuse(build, cable),
    name: `Fuse of ${nameInSentence(link.$name)}, output`,
    reason: 'The house bank feeds a fault in this cable.',
  })
  build.run(`${id}-out-feed`, `${id}-out-plus`, `${id}-out-fuse`, {
    ...outputSide,
    leastA,
    role: 'charge',
    of: link.$path,
    cable,
    ...(cable ? {} : { usualM: usualM.bond }),
  })
  build.run(`${id}-out-stub`, `${id}-out-fuse`, house.plus, {
    ...stub,
    ...outputSide,
    leastA,
    like: `${id}-out-feed`,
  })
  build.run(`${id}-return`, minus, house.minus, {
    role: 'return',
    of: link.$path,
    returnOf: `${id}-out-feed`,
  })
}

/** The first half of a cable, up to its plug. @returns where it goes on */
function pluggedAt(
  build: Builder,
  id: string,
  from: string,
  { link, nominalV, opposite }: LinkAt,
  cable: Cable,
): string {
  const own = { of: link.$path, nominalV, opposite } as const
  build.fitting(`${id}-plug`, 'plug', {
    ...own,
    name: `Plug of ${nameInSentence(link.$name)}`,
    state: build.stateOf(`${cable.$path}/connectorA`),
    ratedA: cable.connectorA,
    mostMm2: cable.connectorMostMm2 < 1000 ? cable.connectorMostMm2 : null,
    reason: 'The trailer parts from the vehicle here.',
  })
  build.run(`${id}-in-feed`, from, `${id}-plug`, {
    role: 'charge',
    side: 'input',
    of: link.$path,
    state: build.stateOf(link.$path),
    cable,
    share: 0.5,
  })
  return `${id}-plug`
}

/** The cable to a DC-DC, through its plug and far fuse if it has them. */
function feedOf(build: Builder, id: string, from: string, to: string, at: LinkAt, cable: Cable | null): void {
  const { link, nominalV, opposite } = at
  const own = { of: link.$path, nominalV, opposite } as const
  const charge = { role: 'charge', of: link.$path, side: 'input' } as const
  const state = build.stateOf(link.$path)
  const plugged = cable?.connectorA != null
  const farFused = cable !== null && cable.farFuseKind !== 'none'
  let next = from
  if (plugged) next = pluggedAt(build, id, from, at, cable)
  if (farFused || plugged) {
    build.fitting(`${id}-in-far-fuse`, 'fuse', {
      ...own,
      ...farFuse(build, cable),
      isAtFarEnd: true,
      name: `Fuse of ${nameInSentence(link.$name)} at its input`,
      reason: 'Behind the plug the cable can be touched from the other side: it is fused at both ends.',
    })
    build.run(plugged ? `${id}-in-far-feed` : `${id}-in-feed`, next, `${id}-in-far-fuse`, {
      ...charge,
      state,
      cable,
      ...(plugged ? { share: 0.5 } : {}),
    })
    build.run(`${id}-in-far-stub`, `${id}-in-far-fuse`, to, {
      ...charge,
      usualM: usualM.stub,
      like: `${id}-in-feed`,
    })
  } else build.run(`${id}-in-feed`, next, to, { ...charge, state, cable })
}
