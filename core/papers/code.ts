import { encode } from 'uqr'
import { shape, type Shape } from '#core/drawing/shape'

/** Cells of white around a code, as scanners need them. */
const quiet = 2

/** A text as a code that a phone scans. @throws RangeError for a text that no code can hold */
export function codeShape(text: string): Shape {
  const { data } = encode(text, { ecc: 'M', border: quiet })
  const size = data.length
  const d = data
    .flatMap((row, y) => row.flatMap((isDark, x) => (isDark ? [`M${x} ${y}h1v1h-1z`] : [])))
    .join('')
  return shape(
    'svg',
    { xmlns: 'http://www.w3.org/2000/svg', viewBox: `0 0 ${size} ${size}`, width: size, height: size },
    shape('path', { d, fill: '#000' }),
  )
}
