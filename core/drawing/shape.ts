/** A piece of a drawing: an SVG element with its children. A page makes elements of it, a file text. */
export interface Shape {
  readonly tag: 'svg' | 'g' | 'path' | 'rect' | 'circle' | 'text'
  readonly attributes: Readonly<Record<string, string | number>>
  readonly children: readonly (Shape | string)[]
}

/** Tenths are fine enough for a drawing. */
export const round = (value: number): number => Math.round(value * 10) / 10

type Attributes = Readonly<Record<string, string | number | null>>
/** An element; an attribute that is null is left out. */
export const shape = (
  tag: Shape['tag'],
  attributes: Attributes,
  ...children: readonly (Shape | string)[]
): Shape => ({
  tag,
  attributes: Object.fromEntries(
    Object.entries(attributes).filter((one): one is [string, string | number] => one[1] !== null),
  ),
  children,
})
/** A line of a colour and a width. */
export const path = (d: string, stroke: string, width: number, more: Attributes = {}): Shape =>
  shape('path', { d, fill: 'none', stroke, 'stroke-width': width, ...more })
/** Coordinates in the form of a path. */
export const at = (...numbers: readonly number[]): string => numbers.map(round).join(' ')
/** A line of words from a point on. */
export const text = (x: number, y: number, words: string, fill: string, bold = false): Shape =>
  shape('text', { x: round(x), y: round(y), fill, 'font-weight': bold ? 700 : null }, words)
