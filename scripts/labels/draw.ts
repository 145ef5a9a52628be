import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import wawoff2 from 'wawoff2'
import type { Chance } from '#core/commissioning/chance'
import type { Plate, PlateRow } from './plates'

const packages = join(process.cwd(), 'node_modules')
const dejavu = (name: string): string => join(packages, 'dejavu-fonts-ttf/ttf', `${name}.ttf`)
const packed = (name: string, weight: number): string =>
  join(packages, '@fontsource', name, 'files', `${name}-latin-${weight}-normal.woff2`)

/**
 * Fonts of plates. Pictures are drawn with those of a folder alone, so that they are the same on every machine.
 * To be called before anything draws.
 */
export async function loadFonts(folder: string): Promise<void> {
  mkdirSync(folder, { recursive: true })
  for (const name of [
    'DejaVuSans',
    'DejaVuSans-Bold',
    'DejaVuSansMono',
    'DejaVuSansCondensed',
    'DejaVuSerif',
  ])
    writeFileSync(join(folder, `${name}.ttf`), readFileSync(dejavu(name)))
  for (const name of ['roboto-condensed', 'ibm-plex-mono', 'barlow-semi-condensed', 'archivo-narrow'])
    for (const weight of [400, 700])
      writeFileSync(
        join(folder, `${name}-${weight}.ttf`),
        await wawoff2.decompress(readFileSync(packed(name, weight))),
      )
  const settings = join(folder, 'fonts.conf')
  writeFileSync(
    settings,
    `<?xml version="1.0"?><!DOCTYPE fontconfig SYSTEM "fonts.dtd"><fontconfig><dir>${folder}</dir><cachedir>${folder}/cache</cachedir></fontconfig>`,
  )
  process.env.FONTCONFIG_FILE = settings
}

const families = [
  'DejaVu Sans',
  'DejaVu Sans Condensed',
  'DejaVu Sans Mono',
  'DejaVu Serif',
  'Roboto Condensed',
  'IBM Plex Mono',
  'Barlow Semi Condensed',
  'Archivo Narrow',
]
/** Ground and print of plates: printed foil, anodised and engraved metal, dark plastic. */
const looks = [
  { ground: '#ffffff', print: '#111111' },
  { ground: '#f2f2ee', print: '#1a1a2a' },
  { ground: '#d9dcde', print: '#141414' },
  { ground: '#f3e7a2', print: '#1b1400' },
  { ground: '#1d1f22', print: '#f0f0f0' },
  { ground: '#24406b', print: '#ffffff' },
  { ground: '#b9bdc0', print: '#4a4d50', engraved: true },
  { ground: '#8f9498', print: '#e9ebec', engraved: true },
] as const

const escaped = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;')

/** A plate as an SVG drawing. */
export function drawPlate(plate: Plate, chance: Chance): string {
  const pick = <T>(of: readonly T[]): T => of[Math.floor(chance() * of.length)]!
  const look = pick(looks)
  const family = pick(families)
  const size = 34 + Math.round(chance() * 12)
  const step = size * (1.45 + chance() * 0.35)
  const layout = pick(['colon', 'table', 'table', 'lines', 'columns'] as const)
  const between = pick([': ', ' : ', '  ', ' '])
  const wide = /Mono/.test(family)
    ? 0.61
    : /Condensed|Narrow/.test(family)
      ? 0.5
      : /Serif|DejaVu Sans$/.test(family)
        ? 0.62
        : 0.55
  const widthOf = (text: string): number => text.length * size * wide
  const texts: string[] = []
  const put = (x: number, y: number, text: string, extra = ''): void => {
    const at = (dx: number, dy: number, fill: string) =>
      `<text x="${x + dx}" y="${y + dy}" fill="${fill}" ${extra}>${escaped(text)}</text>`
    if ('engraved' in look) texts.push(at(1.5, 1.5, '#ffffff80'))
    texts.push(at(0, 0, look.print))
  }
  const margin = 60
  let y = margin + size * 1.5
  put(margin, y, plate.maker, `font-size="${size * 1.6}" font-weight="700"`)
  y += step * 1.3
  put(margin, y, plate.title, `font-size="${size * 1.1}"`)
  y += step * 1.1
  const caps = chance() < 0.15
  const named = (row: PlateRow): string => (caps ? row.name.toUpperCase() : row.name)
  const first = Math.max(0, ...plate.rows.map((row) => widthOf(row.name))) + size * 1.5
  const second = Math.max(0, ...plate.rows.map((row) => widthOf(row.value)))
  let width = Math.max(widthOf(plate.maker) * 1.7, widthOf(plate.title) * 1.15)
  const line = (row: PlateRow, x: number): void => {
    if (row.name === '') put(x, y, row.value)
    else if (layout === 'table' || layout === 'columns') {
      put(x, y, named(row) + (between.includes(':') ? ':' : ''))
      put(x + first, y, row.value)
    } else put(x, y, `${named(row)}${layout === 'colon' ? between.replace('  ', ': ') : between}${row.value}`)
    width = Math.max(
      width,
      x -
        margin +
        (layout === 'table' || layout === 'columns'
          ? first + widthOf(row.value)
          : widthOf(row.name + row.value) + size * 2),
    )
  }
  if (layout === 'columns' && plate.rows.length > 5) {
    const half = Math.ceil(plate.rows.length / 2)
    const right = margin + first + second + size * 2
    for (let i = 0; i < half; i++) {
      line(plate.rows[i]!, margin)
      const other = plate.rows[half + i]
      if (other) line(other, right)
      y += step
    }
  } else
    for (const row of plate.rows) {
      line(row, margin)
      if (layout === 'table' && size % 2 === 0)
        texts.push(
          `<line x1="${margin}" x2="${margin + first + second}" y1="${y + step * 0.33}" y2="${y + step * 0.33}" stroke="${look.print}" stroke-width="2"/>`,
        )
      y += step
    }
  const [fullWidth, height] = [Math.round(width + margin * 2), Math.round(y + margin * 0.6)]
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${fullWidth}" height="${height}"><rect width="100%" height="100%" fill="${look.ground}"/><rect x="14" y="14" width="${fullWidth - 28}" height="${height - 28}" rx="16" fill="none" stroke="${look.print}" stroke-width="3"/><g font-family="${family}" font-size="${size}" font-weight="${pick([400, 400, 700])}">${texts.join('')}</g></svg>`
}
