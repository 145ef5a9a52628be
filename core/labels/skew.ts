import { shrunk, valueAt, type Grey } from './grey'

/** Width to which a picture is shrunk to find its angle, px. */
const searchWidth = 700
const degree = Math.PI / 180
/** Widest angle that is looked for, degrees. */
const widest = 12
const [coarse, fine] = [1, 0.1]
/** Darker than this is print, of 255. */
const ink = 70

/** Places of dark pixels. */
interface Ink {
  readonly across: Int32Array
  readonly down: Int32Array
}

function inkOf({ width, height, data }: Grey): Ink {
  const dark: number[] = []
  for (let i = 0; i < width * height; i++) if (valueAt(data, i) < ink) dark.push(i)
  return {
    across: Int32Array.from(dark, (i) => i % width),
    down: Int32Array.from(dark, (i) => Math.floor(i / width)),
  }
}

/** How much the ink of rows differs once they are turned: most where lines of print lie level. */
function rowsDiffer({ across, down }: Ink, angle: number, rows: Int32Array, reach: number): number {
  rows.fill(0)
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  for (let i = 0; i < across.length; i++) {
    const row = Math.round(valueAt(across, i) * sin + valueAt(down, i) * cos) + reach
    rows[row] = valueAt(rows, row) + 1
  }
  let sum = 0
  for (let row = 1; row < rows.length; row++) sum += (valueAt(rows, row) - valueAt(rows, row - 1)) ** 2
  return sum
}

/**
 * The angle by which to turn a picture so that its lines of print lie level.
 * @param picture dark print with even light
 * @returns radians, clockwise
 */
export function levelAngle(picture: Grey): number {
  const small = shrunk(picture, Math.max(1, Math.round(picture.width / searchWidth)))
  const dark = inkOf(small)
  const reach = small.width
  const rows = new Int32Array(small.height + 2 * reach + 2)
  const best = (around: number, span: number, step: number): number => {
    let [angle, most] = [0, -1]
    for (let i = -Math.round(span / step); i <= Math.round(span / step); i++) {
      const tried = around + i * step
      const differ = rowsDiffer(dark, tried * degree, rows, reach)
      if (differ > most) [angle, most] = [tried, differ]
    }
    return angle
  }
  return best(best(0, widest, coarse), coarse, fine) * degree
}
