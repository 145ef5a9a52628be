/** A picture in grey: one byte a pixel, row by row from the top left, 0 black to 255 white. */
export interface Grey {
  readonly width: number
  readonly height: number
  readonly data: Uint8Array | Uint8ClampedArray
}

/** A number of an array; 0 beyond its ends. */
export const valueAt = (values: ArrayLike<number>, i: number): number => values[i] ?? 0

/** Shares of red, green and blue in brightness, in 256ths. Source: ITU-R BT.601. */
const [red, green, blue] = [77, 150, 29]

/** Grey of a picture in red, green, blue and opacity, four bytes a pixel. */
export function greyOf(width: number, height: number, rgba: Uint8ClampedArray): Grey {
  const data = new Uint8Array(width * height)
  for (let i = 0, at = 0; i < data.length; i++, at += 4)
    data[i] = (valueAt(rgba, at) * red + valueAt(rgba, at + 1) * green + valueAt(rgba, at + 2) * blue) >> 8
  return { width, height, data }
}

/** Each pixel is the mean of a square of `times` × `times` pixels. */
export function shrunk({ width, height, data }: Grey, times: number): Grey {
  if (times <= 1) return { width, height, data }
  const [wide, high] = [Math.floor(width / times), Math.floor(height / times)]
  const small = new Uint8Array(wide * high)
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x++) {
      let sum = 0
      for (let dy = 0; dy < times; dy++) {
        const row = (y * times + dy) * width + x * times
        for (let dx = 0; dx < times; dx++) sum += valueAt(data, row + dx)
      }
      small[y * wide + x] = sum / (times * times)
    }
  return { width: wide, height: high, data: small }
}

/** Brightness between four pixels. @param x of which the pixel to the right is in the picture too; so of `y` */
function sampled({ width, data }: Grey, x: number, y: number): number {
  const [left, top] = [Math.floor(x), Math.floor(y)]
  const [right, down] = [x - left, y - top]
  const at = top * width + left
  const above = valueAt(data, at) * (1 - right) + valueAt(data, at + 1) * right
  const below = valueAt(data, at + width) * (1 - right) + valueAt(data, at + width + 1) * right
  return above * (1 - down) + below * down
}

/** A picture at another size, smoothly. @param times of its width and height, 0 to 1 */
export function scaled(picture: Grey, times: number): Grey {
  const { width, height } = picture
  const [wide, high] = [Math.max(1, Math.round(width * times)), Math.max(1, Math.round(height * times))]
  const small = new Uint8Array(wide * high)
  for (let y = 0; y < high; y++) {
    const fromY = Math.min(height - 1.001, Math.max(0, (y + 0.5) / times - 0.5))
    for (let x = 0; x < wide; x++) {
      const fromX = Math.min(width - 1.001, Math.max(0, (x + 0.5) / times - 0.5))
      small[y * wide + x] = sampled(picture, fromX, fromY)
    }
  }
  return { width: wide, height: high, data: small }
}

/** A picture in grey as a file that needs no packing: portable graymap, binary. */
export function graymap({ width, height, data }: Grey): Uint8Array {
  const head = Uint8Array.from(`P5\n${width} ${height}\n255\n`, (letter) => letter.charCodeAt(0))
  const file = new Uint8Array(head.length + data.length)
  file.set(head)
  file.set(data, head.length)
  return file
}

export interface Point {
  readonly x: number
  readonly y: number
}

/**
 * Where a point of a turned picture was before it was turned.
 * @param angle radians, clockwise, as given to {@link turned}
 */
export function beforeTurn(
  { x, y }: Point,
  { width, height }: Pick<Grey, 'width' | 'height'>,
  angle: number,
): Point {
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  const [dx, dy] = [x - width / 2, y - height / 2]
  return { x: dx * cos + dy * sin + width / 2, y: dy * cos - dx * sin + height / 2 }
}

const white = 255

/**
 * A picture turned about its middle, in the same frame; corners that come in are white.
 * @param angle radians, clockwise
 */
export function turned(picture: Grey, angle: number): Grey {
  if (angle === 0) return picture
  const { width, height } = picture
  const out = new Uint8Array(width * height)
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  for (let y = 0; y < height; y++) {
    const dy = y - height / 2
    for (let x = 0; x < width; x++) {
      const dx = x - width / 2
      const [fromX, fromY] = [dx * cos + dy * sin + width / 2, dy * cos - dx * sin + height / 2]
      const [left, top] = [Math.floor(fromX), Math.floor(fromY)]
      if (left < 0 || top < 0 || left + 1 >= width || top + 1 >= height) {
        out[y * width + x] = white
        continue
      }
      out[y * width + x] = sampled(picture, fromX, fromY)
    }
  }
  return { width, height, data: out }
}
