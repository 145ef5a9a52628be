import sharp from 'sharp'
import { normal, type Chance } from '#core/commissioning/chance'

/** Longest side of a photo, px. */
const photoSide = 2000

interface Raw {
  readonly width: number
  readonly height: number
  readonly data: Buffer
}

/** The plate as it lies before a camera: turned, in perspective, on a ground of its own. */
function laid(plate: Raw, chance: Chance): Raw {
  const spread = (most: number): number => (chance() * 2 - 1) * most
  const angle = (spread(8) * Math.PI) / 180
  const [lean, tip] = [spread(0.00009), spread(0.00009)]
  const room = 1.22
  const [width, height] = [
    Math.round(plate.width * room),
    Math.round(plate.height * room + plate.width * 0.12),
  ]
  const scale = Math.min(1, photoSide / Math.max(width, height))
  const [wide, high] = [Math.round(width * scale), Math.round(height * scale)]
  const data = Buffer.alloc(wide * high * 3)
  const [sin, cos] = [Math.sin(angle), Math.cos(angle)]
  const ground = [60 + chance() * 120, 60 + chance() * 120, 60 + chance() * 120]
  const { width: from, height: deep, data: pixels } = plate
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x++) {
      const dx = x / scale - width / 2
      const dy = y / scale - height / 2
      const depth = 1 + lean * dx + tip * dy
      const u = (dx * cos + dy * sin) / depth + from / 2
      const v = (dy * cos - dx * sin) / depth + deep / 2
      const left = Math.floor(u)
      const top = Math.floor(v)
      const to = (y * wide + x) * 3
      if (left < 0 || top < 0 || left + 1 >= from || top + 1 >= deep) {
        data[to] = ground[0]!
        data[to + 1] = ground[1]!
        data[to + 2] = ground[2]!
        continue
      }
      const right = u - left
      const down = v - top
      const at = (top * from + left) * 3
      for (let c = at; c < at + 3; c++) {
        const above = pixels[c]! * (1 - right) + pixels[c + 3]! * right
        const below = pixels[c + from * 3]! * (1 - right) + pixels[c + from * 3 + 3]! * right
        data[to + c - at] = above * (1 - down) + below * down
      }
    }
  return { width: wide, height: high, data }
}

/** Grain is taken from this many numbers of the normal distribution, from another place in each row. */
const grains = 1 << 16

/** Uneven light, glare and noise, in place. */
function lit({ width, height, data }: Raw, chance: Chance): void {
  const [fallX, fallY] = [(chance() * 2 - 1) * 0.45, (chance() * 2 - 1) * 0.35]
  const hasGlare = chance() < 0.35
  const [glareX, glareY, glareSize] = [chance() * width, chance() * height, width * (0.08 + chance() * 0.1)]
  const glareMost = 60 + chance() * 90
  const grain = chance() * 9
  const level = 0.75 + chance() * 0.25
  const noises = Float32Array.from({ length: grains }, () => normal(chance) * grain)
  for (let y = 0; y < height; y++) {
    const row = Math.floor(chance() * grains)
    for (let x = 0; x < width; x++) {
      const light = level * (1 + fallX * (x / width - 0.5) + fallY * (y / height - 0.5))
      const away = ((x - glareX) ** 2 + (y - glareY) ** 2) / glareSize ** 2
      const glare = hasGlare && away < 6 ? glareMost * Math.exp(-away) : 0
      const noise = noises[(row + x) & (grains - 1)]!
      for (let c = 0; c < 3; c++) {
        const at = (y * width + x) * 3 + c
        data[at] = Math.max(0, Math.min(255, data[at]! * light + glare + noise))
      }
    }
  }
}

/**
 * A photo of a drawn plate: turned up to 8°, in perspective, blurred, unevenly lit, with noise and glare, as JPEG.
 */
export async function photographed(svg: string, chance: Chance): Promise<Buffer> {
  const drawn = await sharp(Buffer.from(svg))
    .flatten()
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  const plate = { width: drawn.info.width, height: drawn.info.height, data: drawn.data }
  const photo = laid(plate, chance)
  lit(photo, chance)
  const picture = sharp(photo.data, { raw: { width: photo.width, height: photo.height, channels: 3 } })
  const blur = chance() * 1.5
  const blurred = blur > 0.35 ? picture.blur(blur) : picture
  return blurred.jpeg({ quality: 45 + Math.round(chance() * 45) }).toBuffer()
}
