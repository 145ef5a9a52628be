import { create, type Font } from 'fontkit'
import { readFile } from 'node:fs/promises'
import { createRequire } from 'node:module'
import { dirname, join } from 'node:path'
import pLimit from 'p-limit'

/** The product's typeface, and the fallback for missing letters. */
export type Family = 'text' | 'display'
type Weight = 'normal' | 'bold'

/** A font file as a paper uses it: its name in the paper, and its bytes. */
interface Cut {
  readonly name: string
  readonly font: Font
  readonly files: Readonly<Record<Weight, Buffer>>
}

/** Text with the font that has its letters. */
interface InFont {
  readonly text: string
  readonly font: string
}

export interface Fonts {
  readonly cuts: readonly Cut[]
  readonly set: (text: string, family: Family) => InFont[]
  /** Width of a text, in heights of its letters. */
  readonly measure: (text: string, family: Family) => number
}

const resolve = createRequire(import.meta.url).resolve
const folderOf = (name: string): string => dirname(resolve(`${name}/package.json`))

/** Bold letters are wider than usual ones by at most this. */
const boldWidth = 1.08

const oneAtATime = pLimit(1)
/**
 * An unpacked font file. The unpacker reuses its buffer, so the result is copied before the next one begins. The
 * unpacker compiles itself when it is loaded, so only a process that prints loads it.
 */
export const unpack = (packed: Uint8Array): Promise<Buffer> =>
  oneAtATime(async () => {
    const { decompress } = await import('wawoff2')
    return Buffer.from(await decompress(packed))
  })

const woff2 = async (name: string, subset: string, weight: number): Promise<Buffer> =>
  unpack(
    await readFile(
      join(folderOf(`@fontsource/${name}`), 'files', `${name}-${subset}-${weight}-normal.woff2`),
    ),
  )
const dejaVu = (file: string): Promise<Buffer> =>
  readFile(join(folderOf('dejavu-fonts-ttf'), 'ttf', `${file}.ttf`))

async function cut(name: string, normal: Promise<Buffer>, bold: Promise<Buffer>): Promise<Cut> {
  const files = { normal: await normal, bold: await bold }
  return { name, files, font: create(files.normal) as Font }
}

const cutsOf = (family: Family, name: string, bold: number): Promise<Cut>[] =>
  ['latin', 'latin-ext'].map((subset) =>
    cut(`${family}-${subset}`, woff2(name, subset, 400), woff2(name, subset, bold)),
  )

/** The unpacked fonts, for callers that keep them. */
export async function fontsOfPapers(): Promise<Fonts> {
  const other = cut('other', dejaVu('DejaVuSans'), dejaVu('DejaVuSans-Bold'))
  const families: Readonly<Record<Family, Cut[]>> = {
    text: await Promise.all([...cutsOf('text', 'atkinson-hyperlegible-next', 700), other]),
    display: await Promise.all([...cutsOf('display', 'bricolage-grotesque', 600), other]),
  }
  return {
    cuts: [...new Set(Object.values(families).flat())],
    set: (text, family) => setIn(text, families[family]),
    measure: (text, family) => measureIn(text, families[family]),
  }
}

/** Width of a text in the usual weight, in heights of its letters. Bold letters are a little wider. */
const measureIn = (text: string, cuts: readonly Cut[]): number =>
  setIn(text, cuts).reduce((sum, run) => {
    const { font } = cuts.find(({ name }) => name === run.font)!
    return sum + font.layout(run.text).advanceWidth / font.unitsPerEm
  }, 0) * boldWidth

/** Pictures among letters: no font of the papers has them. */
const pictographs = /[\p{Extended_Pictographic}\u{1F3FB}-\u{1F3FF}\u200D\uFE0F]/gu
/** Words next to each other in a script that is read from right to left. */
const rightToLeft = /[\p{Script=Hebrew}\p{Script=Arabic}]+(?:\s+[\p{Script=Hebrew}\p{Script=Arabic}]+){1,7}/gu

/**
 * A text as it is set from left to right: without pictures, and with the words of a name in Hebrew or Arabic in the
 * order in which they stand on paper. Letters in a word are put in order by the font.
 */
export const inOrder = (text: string): string =>
  text
    .replace(pictographs, (one) => (/[\d#*©®™]/.test(one) ? one : ''))
    .replace(rightToLeft, (words) => words.split(/(\s+)/).reverse().join(''))

/** Cuts a text where the font changes. Spaces stay with the text before them. */
function setIn(text: string, cuts: readonly Cut[]): InFont[] {
  const runs: { text: string; font: string }[] = []
  for (const letter of inOrder(text)) {
    const last = runs.at(-1)
    const code = letter.codePointAt(0)!
    const fits = cuts.find(({ font }) => font.hasGlyphForCodePoint(code)) ?? cuts.at(-1)!
    if (last && (last.font === fits.name || letter === ' ')) last.text += letter
    else runs.push({ text: letter, font: fits.name })
  }
  return runs
}
