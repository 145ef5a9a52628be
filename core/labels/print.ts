import { agreedWords } from './agree'
import { graymap, scaled, type Grey } from './grey'
import { prepare } from './prepare'
import type { Box, LabelWord } from './word'

/** How print is looked for: single words wherever they are, or one block of lines. */
type PrintLayout = 'scattered' | 'block'

/** A picture to recognise, as a file. */
interface PrintPass {
  readonly file: Uint8Array
  readonly layout: PrintLayout
  /** Its size, in shares of the prepared picture. */
  readonly scale: number
}

/** A photo ready for recognition: it is read twice, in two ways, so that slips show. */
export interface PrintJob {
  readonly passes: readonly [PrintPass, PrintPass]
  /** Size of the photo that boxes are in, px. */
  readonly width: number
  readonly height: number
  /** Rotation of the photo before it was read, radians, clockwise. */
  readonly angle: number
}

/** The second reading is of a smaller picture. */
const secondScale = 0.7

/** Makes a photo ready: see {@link prepare}. @param photo upright, at most `readingSide` px */
export function printJobOf(photo: Grey): PrintJob {
  const { picture, angle } = prepare(photo)
  return {
    passes: [
      { file: graymap(picture), layout: 'scattered', scale: 1 },
      { file: graymap(scaled(picture, secondScale)), layout: 'block', scale: secondScale },
    ],
    width: photo.width,
    height: photo.height,
    angle,
  }
}

/** A word as a recogniser gives it: confidence in %, box in the pixels of its picture. */
export interface RecognisedWord {
  readonly text: string
  readonly confidence: number
  readonly bbox: { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number }
}

/** Settings of the recogniser for a pass; modes by its numbers: 11 sparse text, 6 one block. */
const modes: Readonly<Record<PrintLayout, string>> = { scattered: '11', block: '6' }
const dotsPerInch = '300'

/** A recogniser that takes pictures as files of some kind. */
interface PrintRecogniser<F> {
  /** The mode is a word of the recogniser's own, which is not known here. */
  setParameters(settings: { tessedit_pageseg_mode: never; user_defined_dpi: string }): Promise<unknown>
  recognize(
    file: F,
    options: object,
    output: { blocks: true; text: false },
  ): Promise<{
    data: {
      blocks:
        | readonly {
            paragraphs: readonly { lines: readonly { words: readonly RecognisedWord[] }[] }[]
          }[]
        | null
    }
  }>
}

/**
 * The words that a recogniser reads in each pass.
 * @param asFile a picture as the recogniser takes it
 * @param passed called after each pass
 */
export async function readPasses<F>(
  { passes }: Pick<PrintJob, 'passes'>,
  recogniser: PrintRecogniser<F>,
  { asFile, passed = () => undefined }: { asFile: (bytes: Uint8Array) => F; passed?: () => void },
): Promise<RecognisedWord[][]> {
  const read: RecognisedWord[][] = []
  for (const { file, layout } of passes) {
    await recogniser.setParameters({
      tessedit_pageseg_mode: modes[layout] as never,
      user_defined_dpi: dotsPerInch,
    })
    const { data } = await recogniser.recognize(asFile(file), {}, { blocks: true, text: false })
    read.push(
      (data.blocks ?? []).flatMap(({ paragraphs }) =>
        paragraphs.flatMap(({ lines }) => lines.flatMap(({ words }) => words)),
      ),
    )
    passed()
  }
  return read
}

/** The words of a picture, joined from all passes of a recogniser. */
export function wordsOfPasses(
  { passes }: Pick<PrintJob, 'passes'>,
  read: readonly (readonly RecognisedWord[])[],
): LabelWord[] {
  const [first = [], second = []] = passes.map(({ scale }, i) =>
    (read[i] ?? []).map(({ text, confidence, bbox }): LabelWord => ({
      text,
      confidence: confidence / 100,
      box: {
        left: bbox.x0 / scale,
        top: bbox.y0 / scale,
        right: bbox.x1 / scale,
        bottom: bbox.y1 / scale,
      } satisfies Box,
    })),
  )
  return agreedWords(first, second)
}
