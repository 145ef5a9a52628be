import type { Worker as Recogniser } from 'tesseract.js'
import type { PrintJob, PrintLayout, RecognisedWord } from '#core/labels/print'

/** Where the server gives the letters that the recogniser knows. `nuxt.config.ts` names it too. */
const letters = '/recognition'
const dotsPerInch = '300'

/** A recogniser of print in a worker of its own, from files that this application serves. */
async function start(progress: (share: number) => void): Promise<Recogniser> {
  const [{ createWorker, OEM }, { default: workerPath }, { default: corePath }] = await Promise.all([
    import('tesseract.js'),
    import('tesseract.js/dist/worker.min.js?url'),
    import('tesseract.js-core/tesseract-core-simd-lstm.wasm.js?url'),
  ])
  return createWorker('eng', OEM.LSTM_ONLY, {
    workerPath,
    corePath,
    langPath: letters,
    workerBlobURL: false,
    cacheMethod: 'none',
    logger: ({ status, progress: share }) => {
      if (status === 'recognizing text') progress(share)
    },
  })
}

let current: Promise<Recogniser> | null = null
let told: (share: number) => void = () => undefined

/** Words of each pass of a photo. @param progress told how much is done, 0 to 1 */
export async function recognise(
  job: PrintJob,
  progress: (share: number) => void,
): Promise<RecognisedWord[][]> {
  let done = 0
  told = (share) => {
    progress((done + share) / job.passes.length)
  }
  current ??= start((share) => {
    told(share)
  })
  const recogniser = await current.catch((cause: unknown) => {
    current = null
    throw cause
  })
  const { PSM } = await import('tesseract.js')
  const modes: Readonly<Record<PrintLayout, string>> = { scattered: PSM.SPARSE_TEXT, block: PSM.SINGLE_BLOCK }
  const read: RecognisedWord[][] = []
  for (const { file, layout } of job.passes) {
    await recogniser.setParameters({
      tessedit_pageseg_mode: modes[layout] as never,
      user_defined_dpi: dotsPerInch,
    })
    const { data } = await recogniser.recognize(
      new Blob([file as BlobPart]),
      {},
      { blocks: true, text: false },
    )
    read.push(
      (data.blocks ?? []).flatMap(({ paragraphs }) =>
        paragraphs.flatMap(({ lines }) => lines.flatMap(({ words }) => words)),
      ),
    )
    done++
  }
  return read
}

/** Ends the recogniser, and what it is doing. The next photo starts another. */
export function endRecogniser(): void {
  void current?.then((recogniser) => recogniser.terminate()).catch(() => undefined)
  current = null
}
