import type { Worker as Recogniser } from 'tesseract.js'
import { readPasses, type PrintJob, type RecognisedWord } from '#core/labels/print'

/** Where the server gives the letters that the recogniser knows. `nuxt.config.ts` names it too. */
const letters = '/recognition'

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
  return readPasses(job, recogniser, {
    asFile: (bytes) => new Blob([bytes as BlobPart]),
    passed: () => done++,
  })
}

/** Ends the recogniser and its work. The next photo starts another. */
export function endRecogniser(): void {
  void current?.then((recogniser) => recogniser.terminate()).catch(() => undefined)
  current = null
}
