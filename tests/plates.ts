import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { renderSVG } from 'uqr'
import { chanceOf } from '#core/commissioning/chance'
import { drawPlate, loadFonts } from '../scripts/labels/draw'
import type { Plate } from '../scripts/labels/plates'

/** A file as a page takes it. */
export interface PhotoFile {
  readonly name: string
  readonly mimeType: string
  readonly buffer: Buffer
}
export const photoFile = (buffer: Buffer, name = 'plate.jpg', mimeType = 'image/jpeg'): PhotoFile => ({
  name,
  mimeType,
  buffer,
})

let fonts: Promise<void> | undefined

/** Loaded after the fonts are in place. */
async function sharpWithFonts() {
  await (fonts ??= loadFonts(mkdtempSync(join(tmpdir(), 'plate-fonts-'))))
  const [{ default: sharp }, { photographed }] = await Promise.all([
    import('sharp'),
    import('../scripts/labels/spoil'),
  ])
  return { sharp, photographed }
}

/** A photo of a plate with these rows, spoiled by chance as in the bench. */
export async function platePhoto(title: string, rows: readonly string[], seed: number): Promise<Buffer> {
  const { photographed } = await sharpWithFonts()
  const plate: Plate = {
    kind: 'chargers',
    part: 'chargers',
    language: 'en',
    maker: 'Ternstrom Chargers',
    title,
    rows: rows.map((row) => {
      const [name = '', value] = row.split(': ')
      return value === undefined ? { name: '', value: name } : { name, value }
    }),
    truth: {},
  }
  const chance = chanceOf(seed)
  return photographed(drawPlate(plate, chance), chance)
}

/** A photo of a QR code. */
export async function codePhoto(text: string): Promise<Buffer> {
  const { sharp } = await sharpWithFonts()
  const code = await sharp(Buffer.from(renderSVG(text, { pixelSize: 12 })))
    .flatten()
    .toBuffer()
  return sharp(code)
    .extend({ top: 150, bottom: 150, left: 200, right: 200, background: '#8a8f92' })
    .jpeg()
    .toBuffer()
}

/** A picture of one colour. */
export async function blankPhoto(width: number, height: number): Promise<Buffer> {
  const { sharp } = await sharpWithFonts()
  return sharp({ create: { width, height, channels: 3, background: '#707c84' } })
    .jpeg()
    .toBuffer()
}
