import { familyWords } from '#core/job/parts/wiring'
import { partId, type PartPath } from '#core/job/document'
import { type Write } from '#core/units/format'
import type { Line, Network, Post, Run, State, Unit } from './network'
import { firstBar, secondBar } from './propose/bars'
import { ratingWords, sizeWords } from './words'

/** What a node of the drawing is drawn as. */
export type Symbol =
  | Unit['kind']
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
  readonly state: State
  /** Where its verdicts and fields are; null where it has none. */
  readonly path: PartPath | null
  /** What of it was set by hand. */
  readonly isSet: boolean
}

/** A run on the drawing: one line for both conductors. */
export interface DrawnEdge {
  readonly id: string
  readonly from: string
  readonly to: string
  readonly title: string
  readonly lines: readonly string[]
  readonly state: State
  readonly path: PartPath
  readonly isSet: boolean
}

export interface Drawing {
  readonly nodes: readonly DrawnNode[]
  readonly edges: readonly DrawnEdge[]
}

/**
 * The single-line drawing of a network, before it has places: sources above the bar, loads below. A line stands for
 * both conductors; what is special in the negative, as the shunt, the bond or a return by the chassis, is drawn on it.
 */
export function drawingOf(network: Network, q: Write): Drawing {
  const nodeAt = nodesOfPosts(network)
  const nodes = [...unitNodes(network, q), ...fittingNodes(network, q)]
  // What charges stands above the bar.
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
  const drawn = throughShunt(edges, network, q)
  const used = new Set(drawn.flatMap(({ from, to }) => [from, to]))
  return { nodes: [...nodes.filter(({ id }) => used.has(id)), ...goneNodes(network)], edges: drawn }
}

/** Returns run beside what they return, and the metal of the body is no line of its own. */
const isDrawn = ({ role, returnOf }: Run): boolean => returnOf === null && role !== 'return'

/** The node of a unit: the diodes of one isolator are one. */
const nodeOf = (unit: Unit): string => (unit.kind === 'diode' ? partId(unit.of!) : unit.id)

/** The node that each positive post is part of: its unit, else its fitting. */
function nodesOfPosts({ posts, units }: Network): ReadonlyMap<string, string> {
  const nodes = new Map<string, string>()
  for (const { id, kind } of posts) if (kind !== 'terminal' && kind !== 'battery') nodes.set(id, id)
  for (const unit of units) {
    const node = nodeOf(unit)
    nodes.set(unit.plus, node)
    if (unit.kind === 'dcdc') nodes.set(unit.inPlus, node)
    if (unit.kind === 'diode') nodes.set(unit.out, node)
  }
  // A negative bar is drawn with the positive one beside it.
  const bars = posts.filter(({ kind, pole, fitting }) => kind === 'bar' && pole === 'negative' && fitting)
  for (const { id } of bars) {
    const beside = id.replace('minus', 'plus')
    nodes.set(id, nodes.has(beside) ? beside : (nodes.get('bank-plus') ?? id))
  }
  const bank = nodes.get('bank-plus')
  if (bank) nodes.set('bank-minus', bank)
  return nodes
}

/** The node on which a probe at a post is drawn, of either pole: what a single line draws once. */
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

function wordsOf(unit: Unit, q: Write): string[] {
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
    if ((!fitting && !isBar) || (post.pole === 'negative' && kind === 'bar')) return []
    return [
      {
        id,
        symbol: kind as Symbol,
        title: fitting?.number ? fitting.number : titleOf(post, network),
        lines: [...fittingWords(post, q), ...tagsOfFitting(post, network.lines)],
        state,
        path: fitting || kind === 'joint' ? `fittings/${id}` : null,
        isSet: set.length > 0 || kind === 'joint',
      },
    ]
  })
}

/** A thin line is not drawn across the rest: both its ends bear its number. */
const tagOf = { stop: 'stop', run: 'running signal', sense: 'sense lead' } as const
const tagsOf = (lines: readonly Line[]): string[] =>
  lines.map(({ number, kind }) => `${number} ${tagOf[kind]}`)

/** Tags of the lines that end at a unit; at the battery those by which it stops others. */
function tagsOfUnit({ kind, of }: Unit, lines: readonly Line[]): string[] {
  if (kind !== 'battery') return tagsOf(lines.filter((line) => line.of === of))
  const stops = lines.filter((line) => line.kind === 'stop').map(({ number }) => number)
  return of === 'candidate' && stops.length > 0 ? [`${stops.join(', ')} stop`] : []
}

/** The part at which the line to a fitting of a kind ends. */
function tagsOfFitting({ kind, of }: Post, lines: readonly Line[]): string[] {
  const ends = { stop: 'candidate', shunt: 'use', relay: of }[kind as string]
  return ends ? tagsOf(lines.filter((line) => line.of === ends)) : []
}

function titleOf({ id, name }: Post, { posts }: Network): string {
  if (id === firstBar) return posts.some((post) => post.id === 'bar-minus') ? 'Bars + and −' : 'Bar +'
  if (id === secondBar) return `${name.replace(/ bar, .*/, ' bars')} + and −`
  return name
}

function fittingWords({ kind, fitting, name }: Post, q: Write): string[] {
  if (!fitting) return []
  const rated = ratingWords(fitting, q)
  if (kind === 'fuse') return [rated, fitting.family ? familyWords(fitting.family) : '']
  if (kind === 'bar') return [rated]
  return [name, rated]
}

function edgeOf(run: Run, from: string, to: string, network: Network, q: Write): DrawnEdge {
  const back = network.runs.find(({ returnOf }) => returnOf === run.id)
  const byChassis = back?.areaMm2 === null
  const length = run.lengthKnown === 'open' ? 'length?' : q(run.lengthM, 'm')
  return {
    id: run.id,
    from,
    to,
    title: run.role === 'bond' ? `${run.number} bond −` : run.number,
    lines: [`${sizeWords(run, q)}, ${length}`, ...(byChassis ? ['back by the chassis'] : [])],
    state: run.state,
    path: `runs/${run.id}`,
    isSet: run.lengthKnown === 'set' || run.areaKnown === 'set',
  }
}

/** The shunt stands in the negative; on the one line of both it is drawn before the bar. */
function throughShunt(edges: DrawnEdge[], { runs, posts }: Network, q: Write): DrawnEdge[] {
  if (!posts.some(({ id }) => id === 'shunt')) return edges
  const last =
    edges.find(({ to }) => to === firstBar && edges.some(({ id }) => id === 'main-lead')) &&
    edges.findLast(({ id }) => id.startsWith('main-feed-'))
  const behind = runs.find(({ id }) => id === 'main-return-2')
  if (!last || !behind) return edges
  return edges.flatMap((edge): DrawnEdge[] =>
    edge !== last
      ? [edge]
      : [
          { ...edge, to: 'shunt' },
          {
            ...edge,
            id: behind.id,
            from: 'shunt',
            title: behind.number,
            lines: [`${sizeWords(behind, q)}, ${q(behind.lengthM, 'm')}`],
            path: `runs/${behind.id}`,
            isSet: behind.lengthKnown === 'set' || behind.areaKnown === 'set',
          },
        ],
  )
}

/** What is taken out stands apart, crossed out. */
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
