import { imageSize } from 'image-size'
import { prepareZXingModule, readBarcodes } from 'zxing-wasm/reader'
import barcodeReader from 'zxing-wasm/reader/zxing_reader.wasm?url'
import { greyOf } from '#core/labels/grey'
import { readingSide } from '#core/labels/prepare'
import { printJobOf, type PrintJob } from '#core/labels/print'

/** Pixels of the largest photo that is read, as from a phone. The server stores no larger one either. */
const mostPixels = 64_000_000
const readableTypes: readonly string[] = ['jpg', 'png', 'webp']

/** A photo made ready for recognition, with the codes on it; or why it cannot be read, in words. */
type PhotoLook =
  | { readonly kind: 'ready'; readonly job: PrintJob; readonly codes: readonly string[] }
  | { readonly kind: 'refused'; readonly reason: string }

const refuse = (reason: string): PhotoLook => ({ kind: 'refused', reason })

/** The type of a file by its first bytes, whatever its name says. */
function sizeOf(bytes: Uint8Array): { readonly type: string; readonly pixels: number } | null {
  try {
    const { type = '', width, height } = imageSize(bytes)
    return { type, pixels: width * height }
  } catch {
    return null
  }
}

const endOfJpeg = [0xff, 0xd9] as const
/** Whether a JPEG has its end: a photo that was cut off on its way has none. */
function hasEnd(bytes: Uint8Array): boolean {
  for (let i = bytes.length - 2; i > 1; i--)
    if (bytes[i] === endOfJpeg[0]) {
      if (bytes[i + 1] === endOfJpeg[1]) return true
      // A scan goes on until a mark that is no stuffed byte and no restart.
      if (bytes[i + 1] === 0xda) return false
    }
  return false
}

/** Looks at a photo: as pixels for recognition, and for barcodes. Runs in a worker. */
export class PhotoReader {
  async look(file: Blob): Promise<PhotoLook> {
    const bytes = new Uint8Array(await file.arrayBuffer())
    const size = sizeOf(bytes)
    if (!size || !readableTypes.includes(size.type))
      return refuse('This is no photo. Choose a JPEG, PNG or WebP picture.')
    if (size.pixels > mostPixels)
      return refuse(
        `This photo has ${Math.round(size.pixels / 1e6)} million pixels. ${mostPixels / 1e6} million is the most: take it with a lower setting.`,
      )
    if (size.type === 'jpg' && !hasEnd(bytes))
      return refuse('This photo is cut off: its end is missing. Take it again.')
    // The type comes from its bytes, so a picture is decoded correctly.
    const whole = await createImageBitmap(file, { imageOrientation: 'from-image' }).catch(() => null)
    if (!whole) return refuse('This photo cannot be read. Take it again.')
    const scale = Math.min(1, readingSide / Math.max(whole.width, whole.height))
    const [width, height] = [
      Math.max(1, Math.round(whole.width * scale)),
      Math.max(1, Math.round(whole.height * scale)),
    ]
    const canvas = new OffscreenCanvas(width, height)
    const context = canvas.getContext('2d', { willReadFrequently: true })
    if (!context) return refuse('This browser cannot read photos.')
    context.imageSmoothingQuality = 'high'
    context.drawImage(whole, 0, 0, width, height)
    whole.close()
    const image = context.getImageData(0, 0, width, height)
    return {
      kind: 'ready',
      job: printJobOf(greyOf(width, height, image.data)),
      codes: await codesOn(image),
    }
  }
}

/** Texts of barcodes and QR codes on a picture; none where their reader cannot be loaded. */
async function codesOn(image: ImageData): Promise<string[]> {
  try {
    prepareZXingModule({ overrides: { locateFile: () => barcodeReader } })
    const found = await readBarcodes(image, { tryHarder: true, maxNumberOfSymbols: 4 })
    return found.filter(({ isValid }) => isValid).map(({ text }) => text)
  } catch {
    return []
  }
}
