import { present } from '#core/collections/held'
import { familyWords } from '#core/job/parts/wiring'
import { partId, type PartPath } from '#core/job/document'
import { type Write } from '#core/units/format'
import type { SignalLine, Network, Post, Run, PartState, WiringUnit } from '#core/wiring/network'
import { ratingWords, sizeWords } from '#core/wiring/words'

/** The symbol of a node. */
export type Symbol =
  | WiringUnit['kind']
  | 'link'
  | 'fuse'
  | 'switch'
  | 'relay'
  | 'stop'
  | 'shunt'
  | 'plug'
  | 'bar'
  | 'chassis'
  | 'joint'

/** A unit, a fitting or a bar on the drawing, with its words. */
export interface DrawnNode {
  readonly id: string
  readonly symbol: Symbol
  readonly title: string
  readonly lines: readonly string[]
  readonly state: PartState
  /** Where its verdicts and fields are; null if it has none. */
  readonly path: PartPath | null
  /** Fields set by hand. */
  readonly isSet: boolean
}

/** The conductors that a line represents: one pole, or both of a branch. */
type Pole = 'positive' | 'negative' | 'both'

/** A run on the drawing. */
export interface DrawnEdge {
  readonly id: string
  readonly from: string
  readonly to: string
  readonly pole: Pole
  readonly title: string
  readonly lines: readonly string[]
  readonly state: PartState
  readonly path: PartPath
  readonly isSet: boolean
}

export interface Drawing {
  readonly nodes: readonly DrawnNode[]
  readonly edges: readonly DrawnEdge[]
}

/**
 * The drawing of a network, before it has places: sources above the bar, loads below. The main path is drawn in both
 * poles: battery, fuse, switch and positive bar; battery, shunt, negative bar and bond. The line of a branch stands
 * for both of its conductors; where its return is special, the line says so.
 */
export function drawingOf(network: Network, q: Write): Drawing {
  const nodeAt = nodesOfPosts(network)
  const nodes = [...unitNodes(network, q), ...fittingNodes(network, q)]
  // Sources are above the bar.
  const charging = new Set(
    network.units.flatMap(({ kind, of }) => (kind === 'source' && of !== null ? [of] : [])),
  )
  const edges: DrawnEdge[] = []
  for (const run of network.runs) {
    if (!isDrawn(run)) continue
    const [from, to] = [nodeAt.get(run.from), nodeAt.get(run.to)]
    if (from === undefined || to === undefined || from === to) continue
    const edge = edgeOf(run, from, to, network, q)
    edges.push(charging.has(run.of ?? '') ? { ...edge, from: to, to: from } : edge)
  }
  const used = new Set(edges.flatMap(({ from, to }) => [from, to]))
  return { nodes: [...nodes.filter(({ id }) => used.has(id)), ...goneNodes(network)], edges }
}

/** Returns of branches and the metal of the body have no separate line. */
const isDrawn = ({ role }: Run): boolean => role !== 'return'

/** The node of a unit: the diodes of one isolator are one. */
const nodeOf = (unit: WiringUnit): string => (unit.kind === 'diode' ? partId(present(unit.of)) : unit.id)

/** The node of each post in the drawing: its unit, otherwise its fitting. */
function nodesOfPosts({ posts, units }: Network): ReadonlyMap<string, string> {
  const nodes = new Map<string, string>()
  for (const { id, kind } of posts) if (kind !== 'terminal' && kind !== 'battery') nodes.set(id, id)
  for (const unit of units) {
    const node = nodeOf(unit)
    nodes.set(unit.plus, node)
    if (unit.kind === 'dcdc') nodes.set(unit.inPlus, node)
    if (unit.kind === 'diode') nodes.set(unit.out, node)
    if (unit.kind === 'battery') nodes.set(unit.minus, node)
  }
  return nodes
}

/** The node on which a probe at a post is drawn, for both poles. */
export function nodesOfProbes(network: Network): ReadonlyMap<string, string> {
  const nodes = new Map(nodesOfPosts(network))
  for (const unit of network.units)
    for (const minus of [unit.minus, ...(unit.kind === 'dcdc' ? [unit.inMinus] : [])])
      if (!nodes.has(minus)) nodes.set(minus, nodeOf(unit))
  return nodes
}

function unitNodes({ units, lines }: Network, q: Write): DrawnNode[] {
  const seen = new Set<string>()
  return units.flatMap((unit): DrawnNode[] => {
    const id = nodeOf(unit)
    if (seen.has(id)) return []
    seen.add(id)
    return [
      {
        id,
        symbol: unit.kind,
        title: unit.name.replace(/^The (.)/, (_, first: string) => first.toUpperCase()),
        lines: [...wordsOf(unit, q), ...tagsOfUnit(unit, lines)],
        state: unit.state,
        path: unit.of,
        isSet: false,
      },
    ]
  })
}

function wordsOf(unit: WiringUnit, q: Write): string[] {
  switch (unit.kind) {
    case 'battery':
      return [`${unit.label} ${unit.chemistry}`]
    case 'source':
      return [`${q(unit.mostA, 'A')}, ${q(unit.setV, 'V')}`]
    case 'alternator':
      return [`${q(unit.ratedA, 'A')}, ${q(unit.setV, 'V')}`]
    case 'dcdc':
      return [`${q(unit.mostA, 'A')}, from ${q(unit.lowestInputV, 'V')}`]
    case 'inverter':
      return [`takes ${q(unit.takesW, 'W')}`]
    case 'load':
      return [unit.amps > 0 ? q(unit.amps, 'A') : 'nothing yet']
    case 'starter':
      return [q(unit.amps, 'A')]
    case 'diode':
      return [`drops ${q(unit.dropV, 'V')}`]
  }
}

function fittingNodes(network: Network, q: Write): DrawnNode[] {
  return network.posts.flatMap((post): DrawnNode[] => {
    const { id, kind, fitting, state, set } = post
    const isBar = kind === 'bar' || kind === 'chassis' || kind === 'joint'
    if (!fitting && !isBar) return []
    return [
      {
        id,
        symbol: kind as Symbol,
        title: fitting?.number ? fitting.number : titleOf(post),
        lines: [...fittingWords(post, hasReturnAt(post, network), q), ...tagsOfFitting(post, network.lines)],
        state,
        path: fitting || kind === 'joint' ? `fittings/${id}` : null,
        isSet: set.length > 0 || kind === 'joint',
      },
    ]
  })
}

/** A thin line is not drawn across the rest: both its ends bear its number. */
const tagOf = { stop: 'stop', run: 'running signal', sense: 'sense lead' } as const
const tagsOf = (lines: readonly SignalLine[]): string[] =>
  lines.map(({ number, kind }) => `${number} ${tagOf[kind]}`)

/** Tags of the lines that end at a unit; at the battery those by which it stops others. */
function tagsOfUnit({ kind, of }: WiringUnit, lines: readonly SignalLine[]): string[] {
  if (kind !== 'battery') return tagsOf(lines.filter((line) => line.of === of))
  const stops = lines.filter((line) => line.kind === 'stop').map(({ number }) => number)
  return of === 'candidate' && stops.length > 0 ? [`${stops.join(', ')} stop`] : []
}

/** The part at which the line to a fitting of a kind ends. */
function tagsOfFitting({ kind, of }: Post, lines: readonly SignalLine[]): string[] {
  const ends = { stop: 'candidate', shunt: 'use', relay: of }[kind as string]
  return ends ? tagsOf(lines.filter((line) => line.of === ends)) : []
}

/** A bar by its pole: `Load bar +`. */
function titleOf({ name, kind, pole }: Post): string {
  if (kind !== 'bar') return name
  const sign = pole === 'positive' ? '+' : '−'
  return `${name.replace(/^(Positive|Negative) bar$/, 'Bar').replace(/, (positive|negative)$/, '')} ${sign}`
}

function fittingWords({ kind, fitting, name }: Post, hasReturn: boolean, q: Write): string[] {
  if (!fitting) return []
  const rated = ratingWords(fitting, q)
  if (kind === 'fuse') return [rated, fitting.family ? familyWords(fitting.family) : '']
  if (kind === 'bar') return [rated]
  // Both conductors of its branch pass it. The list names the branch.
  return kind === 'plug' ? ['Plug', rated, hasReturn ? 'pins + and −' : 'pin +'] : [name, rated]
}

/** Whether the current that passes a fitting comes back in a cable next to it. */
const hasReturnAt = ({ id }: Post, { runs }: Network): boolean => {
  const through = new Set(runs.filter(({ from, to }) => from === id || to === id).map((run) => run.id))
  return runs.some(({ returnOf, areaMm2 }) => returnOf !== null && through.has(returnOf) && areaMm2 !== null)
}

/** Where the return of a branch is special, in words. */
function returnWords(run: Run, { runs, posts }: Network): string[] {
  const back = runs.find(({ returnOf, role }) => returnOf === run.id && role === 'return')
  if (!back) return []
  if (back.areaMm2 === null) return ['back by the chassis']
  const hasBar = posts.some(({ id }) => id === 'bar-minus')
  const onBattery = hasBar && (back.to === 'bank-minus' || back.from === 'bank-minus')
  return onBattery ? ['− on the battery post'] : []
}

const isPositive = (id: string, { posts }: Network): boolean =>
  posts.find((post) => post.id === id)?.pole === 'positive'

/** The main path is drawn for each pole; a branch line represents both. */
const poleOf = (run: Run, network: Network): Pole => {
  if (run.role !== 'main' && run.role !== 'bond') return 'both'
  return isPositive(run.from, network) ? 'positive' : 'negative'
}

function edgeOf(run: Run, from: string, to: string, network: Network, q: Write): DrawnEdge {
  const length = run.lengthKnown === 'open' ? 'length?' : q(run.lengthM, 'm')
  const size = run.isStud ? 'on the stud' : `${sizeWords(run, q)}, ${length}`
  return {
    id: run.id,
    from,
    to,
    pole: poleOf(run, network),
    title: run.role === 'bond' ? `${run.number} bond` : run.number,
    lines: [size, ...returnWords(run, network)],
    state: run.state,
    path: `runs/${run.id}`,
    isSet: run.lengthKnown === 'set' || run.areaKnown === 'set',
  }
}

/** Removed parts, shown apart and crossed out. */
const goneNodes = ({ gone }: Network): DrawnNode[] =>
  gone.map(({ id, name, of, was }) => ({
    id,
    symbol: was,
    title: name,
    lines: ['taken out'],
    state: 'goes',
    path: of,
    isSet: false,
  }))
