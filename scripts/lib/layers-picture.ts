import { layerRoles } from '../../.dependency-cruiser.mjs'

const row = 26
const width = 640
const nameX = 16
const roleX = 140

/** The folders around the core, above it in the picture: each uses only lower ones. */
const around = [
  ['app', 'pages, components, stores; the core in a worker'],
  ['server', 'routes, repositories, worker threads, PDF'],
] as const

const escape = (text: string): string => text.replace(/&/g, '&amp;').replace(/</g, '&lt;')

/** A picture of the folders as SVG: each uses only lower ones. */
export function layersPicture(): string {
  const layers = Object.entries(layerRoles).reverse()
  const rows = [
    ...around.map(([name, role]) => ({ name, role, fill: '#e7eef0' })),
    ...layers.map(([name, role]) => ({ name: `core/${name}`, role, fill: '#faf7ef' })),
  ]
  const boxes = rows.flatMap(({ name, role, fill }, i) => {
    const y = 8 + i * row
    return [
      `<rect x="8" y="${y}" width="${width - 16}" height="${row - 4}" rx="3" fill="${fill}" stroke="#24505e"/>`,
      `<text x="${nameX}" y="${y + 15}" font-weight="700">${name}</text>`,
      `<text x="${roleX}" y="${y + 15}">${escape(role)}</text>`,
    ]
  })
  const height = 16 + rows.length * row
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" font-family="sans-serif" font-size="12" fill="#1c2b33">`,
    ...boxes,
    '</svg>',
    '',
  ].join('\n')
}
