import { wrap } from 'comlink'
import { wordsOfPasses } from '#core/labels/print'
import type { LabelWord } from '#core/labels/word'
import type { PhotoReader } from './photo-look'
import { recognise } from './recogniser'

/** A photo of a label as it was read. */
export interface PhotoWords {
  readonly words: readonly LabelWord[]
  /** Texts of barcodes and QR codes. */
  readonly codes: readonly string[]
  /** Size of the upright photo of the boxes, px, and its rotation, radians clockwise. */
  readonly width: number
  readonly height: number
  readonly angle: number
}
type PhotoAnswer =
  | { readonly kind: 'read'; readonly photo: PhotoWords }
  | { readonly kind: 'refused'; readonly reason: string }

const notHere =
  'The reader is not on this device yet. Use it once with a connection; after that it works without.'

/**
 * Reads a photo of a label on this device: nothing of it is sent.
 * @param progress told how much is done, 0 to 1
 */
export async function readPhoto(file: Blob, progress: (share: number) => void): Promise<PhotoAnswer> {
  const worker = new Worker(new URL('./photo-look.worker.ts', import.meta.url), { type: 'module' })
  try {
    const look = await Promise.race([
      wrap<PhotoReader>(worker).look(file),
      new Promise<never>((_, reject) => {
        worker.onerror = () => {
          reject(new Error('The worker did not start'))
        }
      }),
    ])
    if (look.kind === 'refused') return look
    const { job, codes } = look
    const words = wordsOfPasses(job, await recognise(job, progress))
    return { kind: 'read', photo: { words, codes, width: job.width, height: job.height, angle: job.angle } }
  } catch {
    return { kind: 'refused', reason: notHere }
  } finally {
    worker.terminate()
  }
}
