import { entryOf, firstOf, withId } from '#core/collections/held'
import type { ELK, ElkExtendedEdge, ElkLabel, ElkNode, ElkPort, ElkShape } from 'elkjs/lib/elk-api'
import type { Drawing, DrawnEdge, DrawnNode } from './drawing'

/** A rectangle, from its upper left corner. */
export interface Room {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}
/** A node with its place; `text` has its words, `mark` its symbol. */
export interface PlacedNode extends DrawnNode, Room {}
export interface PlacedEdge extends DrawnEdge {
  readonly points: readonly (readonly [x: number, y: number])[]
  /** Place of its words. */
  readonly label: Room
}
export interface Layout {
  readonly nodes: readonly PlacedNode[]
  readonly edges: readonly PlacedEdge[]
  readonly width: number
  readonly height: number
}

/** Height of a line of text, and mean and largest width of its letters, in the units of the drawing. */
const line = 14
const letter = 6.1
const boldLetter = 6.9
/** Room for the symbol of a box, and the size of the symbol of a fitting. */
export const boxMark = 34
export const fittingMark = { width: 14, height: 30 } as const
const barHeight = 8

const textWidth = (title: string, lines: readonly string[]): number =>
  Math.max(title.length * boldLetter, ...lines.map((words) => words.length * letter))

const isBox = ({ symbol }: DrawnNode): boolean =>
  !['fuse', 'switch', 'relay', 'stop', 'shunt', 'plug', 'bar', 'chassis', 'joint'].includes(symbol)

/** Letters in a line of a box. */
const boxLetters = 20
/** Breaks words into lines of at most this many letters; a longer word stays whole. */
export function broken(words: string, most = boxLetters): string[] {
  const lines: string[] = []
  for (const word of words.split(' ')) {
    const last = lines.at(-1)
    if (last !== undefined && last.length + 1 + word.length <= most)
      lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines
}

/** The lines of a node as they are drawn: its title first. */
export const linesOf = (
  node: DrawnNode,
): { readonly title: readonly string[]; readonly lines: readonly string[] } => ({
  title: broken(node.title),
  lines: node.lines.filter((words) => words !== '').flatMap((words) => broken(words, 22)),
})

function sizeOf(
  node: DrawnNode,
  edges: readonly DrawnEdge[],
): { readonly width: number; readonly height: number } {
  const { title, lines } = linesOf(node)
  const words = textWidth('', [...lines])
  const width = Math.max(...title.map((one) => one.length * boldLetter), words)
  if (node.symbol === 'bar') {
    const at = Math.max(
      edges.filter(({ to }) => to === node.id).length,
      edges.filter(({ from }) => from === node.id).length,
      1,
    )
    return { width: node.path === null ? 24 : at * 40, height: barHeight }
  }
  const height = (title.length + lines.length) * line
  if (isBox(node)) return { width: boxMark + width + 10, height: Math.max(38, height + 12) }
  return { width: fittingMark.width + 8 + width, height: Math.max(fittingMark.height, height) }
}

/** The words of a bar are at its right; the layout leaves room for them. */
const barLabel = (node: DrawnNode): ElkLabel => ({
  text: barWords(node),
  width: barWords(node).length * boldLetter + 24,
  height: line,
  layoutOptions: { 'elk.nodeLabels.placement': 'OUTSIDE H_RIGHT V_CENTER' },
})

/** The words next to a bar, on one line. */
export const barWords = ({ title, lines }: DrawnNode): string =>
  [title, ...lines].filter((words) => words !== '').join(', ')

/** Direction of an edge on the page: sources are above, loads below. */
function portsOf(node: DrawnNode, size: { readonly width: number; readonly height: number }): ElkPort[] {
  if (isBox(node) || node.symbol === 'bar') return []
  const x = fittingMark.width / 2
  const top = (size.height - fittingMark.height) / 2
  return [
    { id: `${node.id}:in`, x, y: top, width: 0, height: 0, layoutOptions: { 'elk.port.side': 'NORTH' } },
    {
      id: `${node.id}:out`,
      x,
      y: size.height - top,
      width: 0,
      height: 0,
      layoutOptions: { 'elk.port.side': 'SOUTH' },
    },
  ]
}

const options: Readonly<Record<string, string>> = {
  'elk.algorithm': 'layered',
  'elk.direction': 'DOWN',
  'elk.edgeRouting': 'ORTHOGONAL',
  'elk.layered.nodePlacement.strategy': 'NETWORK_SIMPLEX',
  'elk.layered.spacing.nodeNodeBetweenLayers': '16',
  'elk.spacing.nodeNode': '18',
  'elk.spacing.edgeNode': '10',
  'elk.spacing.edgeLabel': '4',
  'elk.edgeLabels.inline': 'false',
  'elk.layered.edgeLabels.sideSelection': 'ALWAYS_DOWN',
  'elk.layered.considerModelOrder.strategy': 'NODES_AND_EDGES',
  'elk.spacing.componentComponent': '30',
}

/** Space between boxes in rows, in the units of the drawing. */
const rowGap = 26

/** Boxes of removed parts, in rows below the drawing and no wider than it. */
function inRows(
  boxes: readonly (DrawnNode & { readonly width: number; readonly height: number })[],
  { width, from }: { readonly width: number; readonly from: number },
): PlacedNode[] {
  let [x, y, tall] = [0, from, 0]
  return boxes.map((box) => {
    if (x > 0 && x + box.width > width) {
      ;[x, y, tall] = [0, y + tall + rowGap, 0]
    }
    const here = { ...box, x, y }
    x += box.width + rowGap
    tall = Math.max(tall, box.height)
    return here
  })
}

/**
 * Places for a drawing: layers from the sources down to the loads, by a layered layout.
 * @param elk the layout engine
 */
export async function layoutOf(drawing: Drawing, elk: Pick<ELK, 'layout'>): Promise<Layout> {
  const sizes = new Map(drawing.nodes.map((node) => [node.id, sizeOf(node, drawing.edges)]))
  const byId = new Map(drawing.nodes.map((node) => [node.id, node]))
  const placed = await elk.layout(graphOf(drawing, sizes, byId))
  const { width, height } = boxOf(placed)
  const nodes = (placed.children ?? []).map((child): PlacedNode => ({
    ...entryOf(byId, child.id),
    ...boxOf(child),
  }))
  const going = drawing.nodes.filter(({ state }) => state === 'goes')
  const below = inRows(
    going.map((node) => ({ ...node, ...entryOf(sizes, node.id) })),
    { width, from: height + (going.length > 0 ? rowGap : 0) },
  )
  return {
    width,
    height: Math.max(height, ...below.map(({ y, height }) => y + height)),
    nodes: [...nodes, ...below],
    edges: (placed.edges as ElkExtendedEdge[]).map((edge) => placedEdge(edge, drawing)),
  }
}

/** Input of the layout engine: boxes with their sizes, and lines with their labels. */
function graphOf(
  drawing: Drawing,
  sizes: ReadonlyMap<string, ReturnType<typeof sizeOf>>,
  byId: ReadonlyMap<string, Drawing['nodes'][number]>,
): ElkNode {
  const hasPorts = (id: string): boolean => {
    const node = entryOf(byId, id)
    return !isBox(node) && node.symbol !== 'bar'
  }
  const standing = drawing.nodes.filter(({ state }) => state !== 'goes')
  return {
    id: 'drawing',
    layoutOptions: options,
    children: standing.map((node): ElkNode => {
      const size = entryOf(sizes, node.id)
      return {
        id: node.id,
        ...size,
        ports: portsOf(node, size),
        labels: node.symbol === 'bar' ? [barLabel(node)] : [],
        layoutOptions: hasPorts(node.id) ? { 'elk.portConstraints': 'FIXED_POS' } : {},
      }
    }),
    edges: drawing.edges.map((edge): ElkExtendedEdge => ({
      id: edge.id,
      sources: [hasPorts(edge.from) ? `${edge.from}:out` : edge.from],
      targets: [hasPorts(edge.to) ? `${edge.to}:in` : edge.to],
      labels: [
        {
          text: edge.title,
          width: textWidth(edge.title, edge.lines) + 4,
          height: (1 + edge.lines.length) * line,
          layoutOptions: { 'elk.edgeLabels.placement': 'CENTER' },
        },
      ],
    })),
  }
}

function placedEdge(edge: ElkExtendedEdge, drawing: Drawing): PlacedEdge {
  const { startPoint, bendPoints = [], endPoint } = firstOf(edge.sections ?? [])
  return {
    ...withId(drawing.edges, edge.id),
    points: [startPoint, ...bendPoints, endPoint].map(({ x, y }) => [x, y] as const),
    label: boxOf(firstOf(edge.labels ?? [])),
  }
}

type Box = Record<'x' | 'y' | 'width' | 'height', number>

/** Where a thing was placed, and its size: the layout leaves none out. */
const boxOf = ({ x = 0, y = 0, width = 0, height = 0 }: ElkShape): Box => ({ x, y, width, height })
