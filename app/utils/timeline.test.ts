import { describe, expect, it } from 'vitest'
import { above, daily, pairs, stretchesOf, valueAt } from './timeline'

const day = 86_400

describe('a line of the timeline', () => {
  it('holds time and value of each point to two decimals, and a gap if there is none', () => {
    expect([...pairs([0, 30], [12.3456, NaN])]).toEqual([0, 12.35, 30, NaN])
    expect([...pairs([], [])]).toEqual([])
  })

  it('of weeks holds the least or the most of each day, in the middle of the day', () => {
    const t = [day / 2, day, 1.5 * day, 2 * day]
    expect([...daily(t, [60, 90, 55, 80], Math.min, 2 * day)]).toEqual([0.5 * day, 60, 1.5 * day, 55])
    expect([...daily(t, [60, 90, 55, 80], Math.max, 2 * day)]).toEqual([0.5 * day, 90, 1.5 * day, 80])
  })

  it('lies above another by the difference at each time', () => {
    expect([...above(pairs([0, 1], [5, 8]), pairs([0, 1], [2, -1]))]).toEqual([0, 3, 1, 9])
  })

  it('leaves out values that are no number, and keeps a part of a day within the run', () => {
    expect([...daily([day, 1.2 * day], [NaN, 7], Math.min, 1.2 * day)]).toEqual([1.2 * day, 7])
    expect([...daily([day], [NaN], Math.max, day)]).toEqual([])
  })

  it('is read at the nearest of its points, whatever their spacing', () => {
    const line = pairs([0, 10, 40, 100], [1, 2, 3, 4])
    expect([-5, 4, 6, 24, 26, 71, 1e6].map((t) => valueAt(line, t))).toEqual([1, 1, 2, 2, 3, 4, 4])
    expect(valueAt(pairs([5], [8]), 70)).toBe(8)
    expect(valueAt(pairs([], []), 1)).toBeNaN()
  })
})

describe('stretches of time', () => {
  it('come in order, and those that overlap or touch are one', () => {
    expect(
      stretchesOf([
        [50, 60],
        [0, 10],
        [10, 20],
        [15, 18],
        [55, 70],
      ]),
    ).toEqual([
      [0, 20],
      [50, 70],
    ])
    expect(stretchesOf([])).toEqual([])
  })
})
