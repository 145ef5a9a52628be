import { join } from 'node:path'
import sharp from 'sharp'
import { createWorker, OEM, PSM, type Worker } from 'tesseract.js'
import type { Grey } from '#core/labels/grey'
import { readingSide } from '#core/labels/prepare'
import { printJobOf, wordsOfPasses, type PrintLayout, type RecognisedWord } from '#core/labels/print'
import type { LabelWord } from '#core/labels/word'

const language = join(process.cwd(), 'node_modules/@tesseract.js-data/eng/4.0.0_best_int')
const modes: Readonly<Record<PrintLayout, PSM>> = { scattered: PSM.SPARSE_TEXT, block: PSM.SINGLE_BLOCK }

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

  /** What each pass of a photo reads. */
  async passes(
    photo: Grey,
  ): Promise<{ readonly job: ReturnType<typeof printJobOf>; readonly read: RecognisedWord[][] }> {
    const job = printJobOf(photo)
    const read: RecognisedWord[][] = []
    for (const { file, layout } of job.passes) {
      await this.worker.setParameters({ tessedit_pageseg_mode: modes[layout], user_defined_dpi: '300' })
      const { data } = await this.worker.recognize(Buffer.from(file), {}, { blocks: true, text: false })
      read.push(
        (data.blocks ?? []).flatMap(({ paragraphs }) =>
          paragraphs.flatMap(({ lines }) => lines.flatMap(({ words }) => words)),
        ),
      )
    }
    return { job, read }
  }

  async words(photo: Grey): Promise<LabelWord[]> {
    const { job, read } = await this.passes(photo)
    return wordsOfPasses(job, read)
  }

  async end(): Promise<void> {
    await this.worker.terminate()
  }
}
