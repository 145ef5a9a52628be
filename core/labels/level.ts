import { valueAt, type Grey } from './grey'

/** Sums of all pixels above and left of each, and of their squares. */
interface Sums {
  readonly plain: Float64Array
  readonly squares: Float64Array
}

function sumsOf({ width, height, data }: Grey): Sums {
  const wide = width + 1
  const [plain, squares] = [new Float64Array(wide * (height + 1)), new Float64Array(wide * (height + 1))]
  for (let y = 0; y < height; y++) {
    let [row, rowSquares] = [0, 0]
    for (let x = 0; x < width; x++) {
      const value = valueAt(data, y * width + x)
      row += value
      rowSquares += value * value
      const at = (y + 1) * wide + x + 1
      plain[at] = valueAt(plain, at - wide) + row
      squares[at] = valueAt(squares, at - wide) + rowSquares
    }
  }
  return { plain, squares }
}

/** Contrast, in standard deviations, that becomes the whole way from grey to black. */
const fullContrast = 2.2
/** Least standard deviation that is taken for print and not for noise, of 255. */
const leastContrast = 20
const middle = 128

/**
 * Evens out the light of a picture: each pixel against the mean and the contrast around it. Shadow, glare and a
 * dark plate give the same print.
 * @param reach half the side of the square around a pixel, px
 */
export function levelled(picture: Grey, reach: number): Grey {
  const { width, height, data } = picture
  const { plain, squares } = sumsOf(picture)
  const wide = width + 1
  const out = new Uint8Array(width * height)
  for (let y = 0; y < height; y++) {
    const [top, bottom] = [Math.max(0, y - reach), Math.min(height, y + reach + 1)]
    for (let x = 0; x < width; x++) {
      const [left, right] = [Math.max(0, x - reach), Math.min(width, x + reach + 1)]
      const count = (right - left) * (bottom - top)
      const [a, b, c, d] = [
        top * wide + left,
        top * wide + right,
        bottom * wide + left,
        bottom * wide + right,
      ]
      const mean = (valueAt(plain, d) - valueAt(plain, b) - valueAt(plain, c) + valueAt(plain, a)) / count
      const variance =
        (valueAt(squares, d) - valueAt(squares, b) - valueAt(squares, c) + valueAt(squares, a)) / count -
        mean * mean
      const contrast = Math.max(leastContrast, Math.sqrt(Math.max(0, variance)))
      const level = middle + ((valueAt(data, y * width + x) - mean) / (contrast * fullContrast)) * middle
      out[y * width + x] = Math.max(0, Math.min(255, level))
    }
  }
  return { width, height, data: out }
}

/**
 * Whether print is lighter than its ground: print covers less than half, so its side of the mean has fewer pixels
 * that lie further away.
 * @param picture with even light, see {@link levelled}
 */
export function isLightOnDark({ data }: Grey): boolean {
  let skew = 0
  for (const value of data) skew += (value - middle) ** 3
  return skew > 0
}

/** A picture with each of its 256 levels replaced by another. */
function relevelled({ width, height, data }: Grey, to: (level: number) => number): Grey {
  const table = Uint8ClampedArray.from({ length: 256 }, (_, level) => to(level))
  const out = new Uint8Array(data.length)
  for (let i = 0; i < data.length; i++) out[i] = valueAt(table, valueAt(data, i))
  return { width, height, data: out }
}

export const inverted = (picture: Grey): Grey => relevelled(picture, (level) => 255 - level)

/** Levels of print and of its ground in even light: pixels beyond them are black and white. */
const [black, blank] = [35, 118]

/**
 * Print on a blank ground: pixels close to the ground around them are blank. @param picture dark print in even
 * light
 */
export const onBlank = (picture: Grey): Grey =>
  relevelled(picture, (level) => ((level - black) / (blank - black)) * 255)

/** A picture with each pixel mixed with its neighbours, 1 : 2 : 1 each way: grain goes, print stays. */
export function smoothed({ width, height, data }: Grey): Grey {
  const across = new Uint8Array(data.length)
  const out = new Uint8Array(data.length)
  for (let i = 1; i < data.length - 1; i++)
    across[i] = (valueAt(data, i - 1) + 2 * valueAt(data, i) + valueAt(data, i + 1)) >> 2
  for (let i = width; i < data.length - width; i++)
    out[i] = (valueAt(across, i - width) + 2 * valueAt(across, i) + valueAt(across, i + width)) >> 2
  out.copyWithin(0, width, 2 * width)
  out.copyWithin(data.length - width, data.length - 2 * width, data.length - width)
  return { width, height, data: out }
}
