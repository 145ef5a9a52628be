import { fieldOf, firstOf, lastOf, present } from '#core/collections/held'
import type { Verdict } from '#core/system/verdict'
import {
  barWords,
  boxMark,
  fittingMark,
  linesOf,
  type Layout,
  type PlacedEdge,
  type PlacedNode,
  type Room,
} from './layout'
import type { Look } from './look'
import { at, path, round, shape, text, type Shape } from './shape'
import { fittingSymbol, strokeOf, unitMark, verdictMark, weightOf } from './symbols'

const lineHeight = 14
const margin = 14

/** A drawing: existing parts thin, new ones strong, removed ones dashed and crossed out; readable without colour. */
export function svgOf(layout: Layout, look: Look): Shape {
  const [width, height] = [round(layout.width + 2 * margin), round(layout.height + 2 * margin)]
  return shape(
    'svg',
    {
      xmlns: 'http://www.w3.org/2000/svg',
      viewBox: `${-margin} ${-margin} ${width} ${height}`,
      width,
      height,
      'font-size': 12,
      'font-family': look.font ?? 'Atkinson Hyperlegible Next Variable, Atkinson, sans-serif',
    },
    ...layout.edges.map((edge) => group(edge.path, [edge.title, ...edge.lines], edgeShapes(edge, look))),
    ...layout.nodes.map((node) =>
      group(node.path ?? node.id, [node.title, ...node.lines], nodeShapes(node, look)),
    ),
    ...probesOn(layout, look),
  )
}

/** A selectable group with its words for screen readers. */
const group = (id: string, words: readonly string[], shapes: readonly Shape[]): Shape =>
  shape('g', { 'data-id': id, 'aria-label': words.filter((word) => word !== '').join(', ') }, ...shapes)

const probeRadius = 11
/** The probes of a meter, red with a plus and black with a minus, at the upper corners of their nodes. */
function probesOn({ nodes }: Layout, { probes, palette }: Look): Shape[] {
  const on = (id: string | null | undefined, sign: '+' | '−'): Shape[] => {
    const node = nodes.find((one) => one.id === id)
    if (!node) return []
    const [x, y] = [sign === '+' ? node.x : node.x + node.width, node.y]
    const red = sign === '+'
    return [
      shape('circle', {
        cx: round(x),
        cy: round(y),
        r: probeRadius,
        fill: red ? palette.verdicts['does-not-suit'] : palette.ink,
        stroke: palette.paper,
        'stroke-width': 2,
        'data-probe': red ? 'red' : 'black',
      }),
      shape(
        'text',
        {
          x: round(x),
          y: round(y + 5),
          fill: palette.paper,
          'text-anchor': 'middle',
          'font-weight': 700,
          'font-size': 16,
        },
        sign,
      ),
    ]
  }
  return [...on(probes?.red, '+'), ...on(probes?.black, '−')]
}

const marked = (verdict: Verdict | undefined, x: number, y: number, look: Look): Shape[] =>
  verdict ? [verdictMark(x, y, verdict, look)] : []

/** Values set by hand have a pencil. */
const withPencil = (words: string, { isSet }: { readonly isSet: boolean }, { byHand = '✎' }: Look): string =>
  isSet ? `${words} ${byHand}` : words

function edgeShapes(edge: PlacedEdge, look: Look): Shape[] {
  const { palette, verdicts, chosen } = look
  const [first, ...rest] = edge.points
  const d = `M${at(...present(first))}${rest.map((point) => `L${at(...point)}`).join('')}`
  const { x, y } = edge.label
  const title = withPencil(edge.title, edge, look)
  return [
    ...(edge.path === chosen ? [path(d, palette.chosen, 9, { 'stroke-opacity': 0.3 })] : []),
    path(d, strokeOfEdge(edge, look), edge.state === 'new' ? 2.4 : 1.2, {
      'stroke-dasharray': edge.pole === 'negative' ? '16 3 3 3' : null,
    }),
    ...poleSigns(edge, look),
    // A wide band that is not seen, so that a thin line can be hit.
    path(d, 'transparent', 16),
    hitArea(edge.label),
    text(x + 2, y + 11, title, palette.ink, true),
    ...edge.lines.map((words, i) => text(x + 2, y + 11 + (i + 1) * lineHeight, words, palette.soft)),
    ...marked(verdicts.get(edge.path), x + title.length * 7 + 12, y + 7, look),
  ]
}

const strokeOfEdge = ({ state, pole }: PlacedEdge, { palette }: Look): string =>
  state !== 'new' ? palette.soft : pole === 'negative' ? palette.ink : palette.strong

/** The sign of a conductor of one pole, left of both its ends. */
function poleSigns({ pole, points }: PlacedEdge, { palette }: Look): Shape[] {
  if (pole === 'both') return []
  const sign = pole === 'positive' ? '+' : '−'
  const [first, last] = [firstOf(points), lastOf(points)]
  return [
    text(first[0] - 11, first[1] + 12, sign, palette.ink, true),
    text(last[0] - 11, last[1] - 3, sign, palette.ink, true),
  ]
}

/** Room that is not seen, so that a press between a symbol and its words is one on both. */
const hitArea = ({ x, y, width, height }: Room): Shape =>
  shape('rect', {
    x: round(x),
    y: round(y),
    width: round(width),
    height: round(height),
    fill: 'transparent',
  })

const fittings = ['fuse', 'switch', 'relay', 'stop', 'shunt', 'plug', 'chassis', 'joint']
function nodeShapes(node: PlacedNode, look: Look): Shape[] {
  const shapes =
    node.symbol === 'bar'
      ? barShapes(node, look)
      : fittings.includes(node.symbol)
        ? [hitArea(node), ...fittingShapes(node, look)]
        : boxShapes(node, look)
  return look.chosen === (node.path ?? node.id) ? [...shapes, frame(node, look)] : shapes
}

const frame = ({ x, y, width, height }: PlacedNode, { palette }: Look): Shape =>
  shape('rect', {
    x: round(x - 5),
    y: round(y - 5),
    width: round(width + 10),
    height: round(height + 10),
    rx: 4,
    fill: 'none',
    stroke: palette.chosen,
    'stroke-width': 3,
    'stroke-opacity': 0.5,
  })

/** The words of a node from a line on. */
function words(node: PlacedNode, x: number, look: Look): { readonly shapes: Shape[]; readonly top: number } {
  const { palette } = look
  const { title, lines } = linesOf(node)
  const top = node.y + (node.height - (title.length + lines.length) * lineHeight) / 2 + 11
  const last = title.length - 1
  return {
    top,
    shapes: [
      ...title.map((one, i) =>
        text(x, top + i * lineHeight, i === last ? withPencil(one, node, look) : one, palette.ink, true),
      ),
      ...lines.map((one, i) => text(x, top + (title.length + i) * lineHeight, one, palette.soft)),
    ],
  }
}

function boxShapes(node: PlacedNode, look: Look): Shape[] {
  const { palette, verdicts } = look
  const { x, y, width, height } = node
  const goes = node.state === 'goes'
  return [
    shape('rect', {
      x: round(x),
      y: round(y),
      width: round(width),
      height: round(height),
      rx: 3,
      fill: palette.paper,
      stroke: strokeOf(node, look),
      'stroke-width': weightOf(node),
      'stroke-dasharray': goes ? '5 4' : null,
    }),
    ...unitMark(node, x + boxMark / 2, y + height / 2, look),
    ...words(node, x + boxMark, look).shapes,
    ...(goes
      ? [
          path(
            `M${at(x, y)}L${at(x + width, y + height)}M${at(x, y + height)}L${at(x + width, y)}`,
            palette.soft,
            1,
          ),
        ]
      : []),
    ...marked(verdicts.get(node.path ?? ''), x + width - 2, y + 2, look),
  ]
}

function fittingShapes(node: PlacedNode, look: Look): Shape[] {
  const x = node.x + fittingMark.width + 7
  const { shapes, top } = words(node, x, look)
  const first = firstOf(linesOf(node).title)
  const [cx, from] = [node.x + fittingMark.width / 2, (node.height - fittingMark.height) / 2]
  // The line continues to where the runs meet its words.
  const ends = `M${at(cx, node.y)}v${round(from)}M${at(cx, node.y + node.height)}v${round(-from)}`
  return [
    ...(from > 0
      ? [
          path(
            node.symbol === 'chassis' ? ends.slice(0, ends.indexOf('M', 1)) : ends,
            strokeOf(node, look),
            weightOf(node),
          ),
        ]
      : []),
    ...fittingSymbol(
      node,
      node.x + fittingMark.width / 2,
      node.y + (node.height - fittingMark.height) / 2,
      look,
    ),
    ...shapes,
    ...marked(
      look.verdicts.get(node.path ?? ''),
      x + withPencil(first, node, look).length * 7.4 + 8,
      top - 4,
      look,
    ),
  ]
}

function barShapes(node: PlacedNode, look: Look): Shape[] {
  const { palette, verdicts } = look
  const { x, y, width, height } = node
  const title = withPencil(barWords(node), node, look)
  return [
    shape('rect', {
      x: round(x),
      y: round(y),
      width: round(width),
      height: round(height),
      fill: palette.strong,
    }),
    text(x + width + 6, y + 9, title, palette.ink, true),
    ...marked(verdicts.get(node.path ?? ''), x + width + 14 + title.length * 7.2, y + 5, look),
  ]
}

const signs: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
}
const safe = (words: string | number): string =>
  String(words).replace(/[&<>"']/g, (sign) => fieldOf(signs, sign))

/** A drawing as the text of an SVG document. */
export function writeSvg({ tag, attributes, children }: Shape): string {
  const own = Object.entries(attributes).map(([name, value]) => ` ${name}="${safe(value)}"`)
  const inner = children.map((child) => (typeof child === 'string' ? safe(child) : writeSvg(child)))
  return `<${tag}${own.join('')}>${inner.join('')}</${tag}>`
}
