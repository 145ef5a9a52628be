import { describe, expect, it } from 'vitest'
import { goodJob, withValues, type Values } from '#core/testing'
import { runAmpacityA } from './size'
import { networkOf } from './of-job'
import { conductorsOhm, largestShare } from './run-ohm'

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
