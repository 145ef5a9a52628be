import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { evenly } from '#core/testing'
import { batteryAccuracy, busAccuracy, fallingRoot, keptShare } from './roots'

/** A function that counts how often it is calculated. */
function counted(f: (x: number) => number): {
  readonly f: (x: number) => number
  readonly count: () => number
} {
  let count = 0
  return {
    f: (x) => {
      count++
      return f(x)
    },
    count: () => count,
  }
}

describe('the root of a falling function', () => {
  it('of a straight line is found in a step or two, from wherever it begins, and its slope with it', () => {
    for (const guess of [0, 5, 12.4, 13, 20]) {
      const line = counted((v) => 80 * (13.2 - v))
      const root = fallingRoot(line.f, guess, 0, 20, -80)
      expect(root.at).toBeCloseTo(13.2, 6)
      expect(Math.abs(root.left)).toBeLessThanOrEqual(busAccuracy.value)
      expect(line.count()).toBeLessThanOrEqual(3)
    }
    expect(fallingRoot((v) => 80 * (13.2 - v), 12, 0, 20, -5).slope).toBeCloseTo(-80, 3)
  })

  it('behind a kink, steep on one side and nearly flat on the other, takes no long search', () => {
    // A charger that holds its voltage next to a battery that takes little: 3 A/V to the right, 170 A/V to the left.
    const kinked = counted((v) => (v > 14.288 ? -3 * (v - 14.288) - 0.7 : 170 * (14.288 - v) - 0.7))
    const root = fallingRoot(kinked.f, 14.35, 0, 20, -175)
    expect(root.at).toBeCloseTo(14.288 - 0.7 / 170, 4)
    expect(kinked.count()).toBeLessThan(25)
  })

  it('where the function jumps over zero is the place of the jump', () => {
    const root = fallingRoot((v) => (v < 12.5 ? 40 : -25), 13, 0, 20, -30)
    expect(root.at).toBeCloseTo(12.5, 6)
  })

  it('that lies outside is sought no further than the ends', () => {
    expect(fallingRoot(() => 5, 10, 0, 20, -1).at).toBeGreaterThan(19.99)
    expect(fallingRoot(() => -5, 10, 0, 20, -1).at).toBeLessThan(0.01)
  })

  it('is met for any piecewise falling function, within the required accuracy, by a bounded number of values', () => {
    const piece = fc.record({ width: evenly(0.01, 3), slope: evenly(0.01, 400) })
    fc.assert(
      fc.property(
        fc.array(piece, { minLength: 1, maxLength: 6 }),
        evenly(1, 19),
        evenly(0, 20),
        evenly(-500, -0.01),
        (pieces, at, guess, slope) => {
          // Falls by pieces to both sides of the root.
          const fall = (distance: number): number => {
            let [left, sum] = [distance, 0]
            for (const [i, { width, slope: steep }] of pieces.entries()) {
              const part = i === pieces.length - 1 ? left : Math.min(left, width)
              sum += part * steep
              left -= part
            }
            return sum
          }
          const falling = counted((x) => (x < at ? fall(at - x) : -fall(x - at)))
          const root = fallingRoot(falling.f, guess, 0, 20, slope)
          expect(Math.abs(root.left) <= busAccuracy.value || Math.abs(root.at - at) < 1e-6).toBe(true)
          expect(falling.count()).toBeLessThanOrEqual(60)
        },
      ),
      { seed: 3, numRuns: 500 },
    )
  })

  it('is as near as its accuracy says: a battery’s voltage to a microvolt', () => {
    const root = fallingRoot((amps) => 13.1 - (12.7 + 0.02 * amps), 1, 0, 300, -0.02, batteryAccuracy)
    expect(Math.abs(root.left)).toBeLessThanOrEqual(1e-6)
    expect(root.at).toBeCloseTo(20, 3)
  })
})

describe('the weight of the fixed end', () => {
  it('is less, the more the other has gone, and half where that tells nothing', () => {
    expect(keptShare(1, 4)).toBe(0.75)
    expect(keptShare(3, 4)).toBe(0.25)
    expect(keptShare(5, 4)).toBe(0.5)
    expect(keptShare(-1, 4)).toBe(0.5)
    expect(keptShare(1, 0)).toBe(0.5)
    expect(keptShare(0, 0)).toBe(0.5)
  })
})
