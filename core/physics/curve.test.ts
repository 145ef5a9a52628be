import { describe, expect, it } from 'vitest'
import { along, type Curve } from './curve'

const curve: Curve = [
  [-10, 0.75],
  [0, 0.88],
  [25, 1],
]

describe('along a curve', () => {
  it.each([
    [-40, 0.75],
    [-10, 0.75],
    [-5, 0.815],
    [0, 0.88],
    [12.5, 0.94],
    [25, 1],
    [60, 1],
  ])('%d is %d: straight between its points, level outside', (x, y) => {
    expect(along(curve, x)).toBeCloseTo(y, 12)
  })
})
