import { join } from 'node:path'
import sharp from 'sharp'
import { createWorker, OEM, type Worker } from 'tesseract.js'
import type { Grey } from '#core/labels/grey'
import { readingSide } from '#core/labels/prepare'
import { printJobOf, readPasses, wordsOfPasses } from '#core/labels/print'
import type { LabelWord } from '#core/labels/word'

const language = join(process.cwd(), 'node_modules/@tesseract.js-data/eng/4.0.0_best_int')

/** A photo in grey, upright and no larger than is read. */
export async function greyPhoto(file: Buffer): Promise<Grey> {
  const { data, info } = await sharp(file)
    .rotate()
    .resize({ width: readingSide, height: readingSide, fit: 'inside', withoutEnlargement: true })
    .greyscale()
    .raw()
    .toBuffer({ resolveWithObject: true })
  return { width: info.width, height: info.height, data }
}

/** The recogniser that the page uses, without the page. */
export class PlateReader {
  private constructor(private readonly worker: Worker) {}

  static async start(): Promise<PlateReader> {
    return new PlateReader(
      await createWorker('eng', OEM.LSTM_ONLY, { langPath: language, cacheMethod: 'none' }),
    )
  }

  async words(photo: Grey): Promise<LabelWord[]> {
    const job = printJobOf(photo)
    return wordsOfPasses(job, await readPasses(job, this.worker, { asFile: (bytes) => Buffer.from(bytes) }))
  }

  async end(): Promise<void> {
    await this.worker.terminate()
  }
}
