import type { Font } from 'fontkit'
import { createRequire } from 'node:module'

/** A font in a paper, with the package's data that papers may share. */
interface Face {
  font: Font
  subset: ReturnType<Font['createSubset']>
  /** Words as they were set, by their letters. */
  layoutCache: Readonly<Record<string, object>>
}
type Shared = Pick<Face, 'font' | 'layoutCache'>

/** The document that a paper is drawn on: members that the package's types lack. */
interface Drawn {
  _font: Face
  initFonts: (...given: unknown[]) => void
  registerFont: (name: string, data: Buffer) => void
  font: (name: string, ...how: unknown[]) => Drawn
}

/** Words of a font that are kept: papers of one shop say the same few hundred over and over. */
const mostWords = 10_000

/**
 * Makes the fonts known to each paper by name, and to its drawings, and shares their parsed form: a font is parsed
 * once, and a word is measured once. Without it, both take a third of a paper's time.
 * @param files the fonts by their names
 */
export function shareFonts(files: ReadonlyMap<string, Buffer>): void {
  const { default: pdfDocument } = createRequire(import.meta.url)('pdfmake/js/PDFDocument.js') as {
    readonly default: { readonly prototype: Drawn }
  }
  const document = pdfDocument.prototype
  const { initFonts, font } = document
  const shared = new Map<string, Shared>()
  document.initFonts = function (...given) {
    initFonts.apply(this, given)
    for (const [name, file] of files) this.registerFont(name, file)
  }
  document.font = function (name, ...how) {
    font.call(this, name, ...how)
    if (files.has(name)) share(this._font, name, shared)
    return this
  }
}

/** Puts the shared data of a font in place of a paper's own; the first paper's become the shared ones. */
function share(face: Face, name: string, shared: Map<string, Shared>): void {
  const { font, layoutCache } = shared.get(name) ?? face
  if (face.layoutCache === layoutCache && shared.has(name)) return
  if (face.font !== font) Object.assign(face, { font, layoutCache, subset: font.createSubset() })
  if (Object.keys(layoutCache).length < mostWords) shared.set(name, { font, layoutCache })
  else shared.delete(name)
}
