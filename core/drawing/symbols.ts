import type { Verdict } from '#core/system/verdict'
import { fittingMark, type PlacedNode } from './layout'
import type { Look } from './look'
import { at, path, round, shape, type Shape } from './shape'

/** Stroke width of a node: new parts are strong. */
export const weightOf = ({ state }: PlacedNode): number => (state === 'new' ? 2.2 : 1.2)
/** Stroke colour of a node. */
export const strokeOf = ({ state }: PlacedNode, { palette }: Look): string =>
  state === 'new' ? palette.strong : palette.soft

/** A verdict’s mark: a shape for each, so that it is read without colour. */
export function verdictMark(x: number, y: number, verdict: Verdict, { palette }: Look): Shape {
  const fill = palette.verdicts[verdict]
  switch (verdict) {
    case 'suits':
      return shape('circle', { cx: round(x), cy: round(y), r: 5, fill })
    case 'suits-once-changed':
      return shape('path', { d: `M${at(x, y - 6.5)}l6.5 6.5l-6.5 6.5l-6.5 -6.5z`, fill })
    case 'measure-first':
      return path(`M${at(x - 5, y - 5)}h10v10h-10z`, fill, 2, { 'stroke-dasharray': '3 2' })
    case 'does-not-suit':
      return shape('path', { d: `M${at(x - 2.5, y - 6)}h5l3.5 3.5v5l-3.5 3.5h-5l-3.5 -3.5v-5z`, fill })
  }
}

/** Letters in the circle of a unit. */
const letters: Readonly<Record<string, string>> = {
  alternator: 'G',
  source: '~/=',
  dcdc: '=/=',
  inverter: '=/~',
  starter: 'M',
  link: 'K',
}

/** The symbol at the left of a unit's box: plates for a battery, letters in a circle for most others. */
export function unitMark(node: PlacedNode, cx: number, cy: number, look: Look): Shape[] {
  const stroke = strokeOf(node, look)
  switch (node.symbol) {
    case 'battery': {
      // Long plates and short ones.
      const plates = [-7, -2.5, 2, 6.5].map(
        (x, i) => `M${at(cx + x, cy - (i % 2 ? 5 : 9))}v${i % 2 ? 10 : 18}`,
      )
      return [path(plates.join(''), stroke, 1.6)]
    }
    case 'load':
      return [
        shape('circle', { cx: round(cx), cy: round(cy), r: 10, fill: 'none', stroke, 'stroke-width': 1.3 }),
        path(`M${at(cx - 7, cy - 7)}l14 14M${at(cx - 7, cy + 7)}l14 -14`, stroke, 1.3),
      ]
    case 'diode':
      return [path(`M${at(cx - 7, cy - 8)}l12 8l-12 8zM${at(cx + 6, cy - 8)}v16`, stroke, 1.5)]
    default: {
      const label = letters[node.symbol] ?? ''
      return [
        shape('circle', { cx: round(cx), cy: round(cy), r: 12, fill: 'none', stroke, 'stroke-width': 1.3 }),
        shape(
          'text',
          {
            x: round(cx),
            y: round(cy + 3.5),
            'text-anchor': 'middle',
            'font-size': label.length > 1 ? 9 : 12,
            fill: stroke,
          },
          label,
        ),
      ]
    }
  }
}

/** Symbols after IEC 60617: a fuse, a switch, a relay’s contact with its coil, a shunt, a plug, a chassis. */
export function fittingSymbol(node: PlacedNode, cx: number, top: number, look: Look): Shape[] {
  const { height } = fittingMark
  const [stroke, weight] = [strokeOf(node, look), weightOf(node)]
  const drawn = (d: string): Shape => path(d, stroke, weight)
  const box = (dx: number, dy: number, width: number, tall: number): Shape =>
    drawn(`M${at(cx + dx, top + dy)}h${width}v${tall}h${-width}z`)
  const ends = (length: number): string => `M${at(cx, top)}v${length}M${at(cx, top + height)}v${-length}`
  switch (node.symbol) {
    case 'fuse':
      return [drawn(`M${at(cx, top)}v${height}`), box(-5, 5, 10, height - 10)]
    case 'shunt':
      return [drawn(ends(6)), box(-6, 6, 12, height - 12)]
    case 'plug':
      return [
        drawn(`${ends(9)}M${at(cx - 6, top + 16)}a6 6 0 0 1 12 0M${at(cx - 3, top + 21)}a3 3 0 0 1 6 0`),
      ]
    case 'joint':
      return [
        drawn(`M${at(cx, top)}v${height}`),
        shape('circle', { cx: round(cx), cy: round(top + height / 2), r: 3, fill: stroke }),
      ]
    case 'chassis': {
      const rays = [-6, 0, 6].map((x) => `M${at(cx + x, top + 14)}l-4 8`).join('')
      return [drawn(`M${at(cx, top)}v14M${at(cx - 7, top + 14)}h14${rays}`)]
    }
    default:
      return [
        drawn(`${ends(8)}M${at(cx, top + height - 8)}l8 -13`),
        ...(node.symbol === 'switch' ? [] : [box(-7, 11, 6, 8)]),
      ]
  }
}
