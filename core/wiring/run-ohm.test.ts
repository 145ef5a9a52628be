import { describe, expect, it } from 'vitest'
import { metric } from '#core/units/display'
import { formatQuantity } from '#core/units/format'
import { goodJob, withValues, type Values } from '#core/testing'
import { runAmpacityA } from './size'
import { networkOf } from './of-job'
import { conductorsOhm, largestShare, ohmAtSize, sizedOhm } from './run-ohm'
import { sizeWords } from './words'

const runOf = (values: Values) => {
  const set = Object.fromEntries(
    Object.entries(values).map(([name, value]) => [`runs/main-lead/${name}`, value]),
  )
  return networkOf(withValues(goodJob(), set)).runs.find(({ id }) => id === 'main-lead')!
}

describe('cables side by side', () => {
  const alike = { lengthM: 2, areaMm2: 50, count: 2 }

  it('of one length share the current and halve the resistance', () => {
    const [one, two] = [runOf({ ...alike, count: 1 }), runOf(alike)]
    expect(conductorsOhm(two, 20) / conductorsOhm(one, 20)).toBeCloseTo(0.5, 9)
    expect(largestShare(two)).toBe(0.5)
    expect(runAmpacityA(two, 50, 2)).toBeCloseTo(2 * runAmpacityA(one, 50, 1), 9)
  })

  it('of unlike lengths load the shorter one more: by hand, 2 m next to 1 m carry one and a half times one', () => {
    const [one, unlike] = [runOf({ ...alike, count: 1 }), runOf({ ...alike, shortestM: 1 })]
    // 1/2 + 1/1 of the conductance of a metre, against 1/2.
    expect(conductorsOhm(unlike, 20) / conductorsOhm(one, 20)).toBeCloseTo(1 / 3, 9)
    expect(largestShare(unlike)).toBeCloseTo(2 / 3, 9)
    expect(runAmpacityA(unlike, 50, 2)).toBeCloseTo(1.5 * runAmpacityA(one, 50, 1), 9)
  })

  it('count as alike where the shortest is no shorter, or there is one alone', () => {
    expect(largestShare(runOf({ ...alike, shortestM: 3 }))).toBe(0.5)
    expect(largestShare(runOf({ ...alike, count: 1, shortestM: 1 }))).toBe(1)
  })
})

describe('a measured resistance', () => {
  const run = runOf({ lengthM: 2, areaMm2: 50, count: 2, milliohm: 3 })

  it('counts for the fitted size and number of cables', () => expect(ohmAtSize(run, run, 20)).toBe(0.003))

  it.each([
    ['size', { areaMm2: 70, count: 2 }],
    ['number of cables', { areaMm2: 50, count: 1 }],
  ])('does not count for another %s', (_of, size) =>
    expect(ohmAtSize(run, size, 20)).toBe(sizedOhm(run, 20, size)),
  )
})

describe('the size of a run in words', () => {
  const words = (values: Values): string =>
    sizeWords(runOf(values), (value, unit) => formatQuantity(value, unit, metric))

  it('names the number of cables if there are several', () => {
    expect(words({ areaMm2: 70 })).toBe('70 mm²')
    expect(words({ areaMm2: 70, count: 2 })).toBe('2 × 70 mm²')
  })
})
