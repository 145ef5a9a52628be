import pLimit from 'p-limit'
import sharp, { type Sharp } from 'sharp'

/** A picture as it is kept: its pixels and nothing besides. */
export interface Picture {
  readonly mime: string
  readonly width: number
  readonly height: number
  readonly data: Buffer
}

/** Pixels of the largest accepted picture, as from a phone. */
export const mostPixels = 64_000_000
/** Pictures that are read at once: each takes the memory of its pixels. */
const atOnce = pLimit(2)
const quality = 85

sharp.concurrency(1)
sharp.cache(false)

const written: Readonly<Record<string, { readonly mime: string; readonly as: (picture: Sharp) => Sharp }>> = {
  jpeg: { mime: 'image/jpeg', as: (picture) => picture.jpeg({ quality, mozjpeg: false }) },
  png: { mime: 'image/png', as: (picture) => picture.png() },
  webp: { mime: 'image/webp', as: (picture) => picture.webp({ quality }) },
}

/**
 * Reads a picture to its last pixel and writes it again, upright, without metadata of camera and place, or any
 * other content of the file. Null if it is no JPEG, PNG or WebP, is not complete, or differs from its declared
 * type; `too large` if it has too many pixels.
 * @param sentAs the content type it came with
 */
export const pictureOf = (data: Uint8Array, sentAs: string): Promise<Picture | 'too large' | null> =>
  atOnce(async () => {
    try {
      const options = { limitInputPixels: mostPixels, failOn: 'warning', pages: 1 } as const
      const { format, width, height } = await sharp(data, { ...options, limitInputPixels: false }).metadata()
      if (width * height > mostPixels) return 'too large'
      const way = Object.hasOwn(written, format) ? written[format]! : null
      if (!way || way.mime !== sentAs) return null
      const { data: encoded, info } = await way
        .as(sharp(data, options).rotate())
        .toBuffer({ resolveWithObject: true })
      return { mime: way.mime, width: info.width, height: info.height, data: encoded }
    } catch {
      return null
    }
  })
