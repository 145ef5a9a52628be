import { describe, expect, it } from 'vitest'
import { chanceOf, normal } from '#core/commissioning/chance'
import { median, trendOf, type TimedValue } from './trend'

const yearMs = 365.25 * 86_400_000
const start = Date.UTC(2020, 3, 1)
const at = (years: number): number => start + years * yearMs

/** Readings of a bank that fades steadily, with the scatter of a capacity test and one wrong reading in twenty. */
function fadingBank(seed: number): { readings: TimedValue[]; crosses: number; slope: number } {
  const chance = chanceOf(seed)
  const count = 6 + Math.floor(chance() * 15)
  const slope = -(1 + 4 * chance())
  const readings = Array.from({ length: count }, (_, i) => {
    const years = i * 0.5 + 0.3 * chance()
    const wrong = chance() < 0.05 ? -15 * chance() : 0
    return { at: at(years), value: 100 + slope * years + 1.5 * normal(chance) + wrong }
  })
  return { readings, crosses: at(-20 / slope), slope }
}

describe('trend of a logbook', () => {
  it('finds a straight line exactly, with its readings in any order', () => {
    const readings = [3, 0, 4, 1, 2].map((years) => ({ at: at(years), value: 100 - 2 * years }))
    const trend = trendOf(readings)
    if (trend.kind !== 'line') throw new Error(trend.kind)
    expect(trend.slope).toBeCloseTo(-2, 6)
    expect(trend.valueAt(at(5))).toBeCloseTo(90, 6)
    expect(trend.crossing(80)!.at).toBeCloseTo(at(10), -6)
    expect(trend.isMoving).toBe(true)
  })

  it('says that three readings are too few, and that a month is too short', () => {
    const three = [0, 1, 2].map((years) => ({ at: at(years), value: 100 }))
    expect(trendOf(three)).toEqual({ kind: 'too-few', have: 3, need: 5 })
    expect(trendOf([])).toEqual({ kind: 'too-few', have: 0, need: 5 })
    const month = [0, 1, 2, 3, 4].map((week) => ({ at: at(week / 52), value: 100 - week }))
    expect(trendOf(month).kind).toBe('too-short')
  })

  it('is moved little by one gross error', () => {
    const readings = [0, 1, 2, 3, 4, 5, 6].map((years) => ({
      at: at(years),
      value: years === 3 ? 20 : 100 - 2 * years,
    }))
    const trend = trendOf(readings)
    expect(trend.kind === 'line' && trend.slope).toBeCloseTo(-2, 1)
  })

  it('sees no change in readings that only scatter, and bounds no year', () => {
    const chance = chanceOf(5)
    const readings = [0, 1, 2, 3, 4, 5].map((years) => ({ at: at(years), value: 100 + normal(chance) }))
    const trend = trendOf(readings)
    if (trend.kind !== 'line') throw new Error(trend.kind)
    expect(trend.isMoving).toBe(false)
    expect(trend.crossing(80)!.latest).toBeNull()
  })

  it('keeps readings of one moment apart, and stands still where all are alike', () => {
    const twice = [0, 0, 1, 1, 2, 2].map((years) => ({ at: at(years), value: 50 }))
    const trend = trendOf(twice)
    expect(trend.kind === 'line' && [trend.slope, trend.crossing(40)]).toEqual([0, null])
  })

  it('covers the true year and the true slope of 500 fading banks in 85 to 95 of 100', () => {
    const covered = { year: 0, slope: 0 }
    for (let seed = 1; seed <= 500; seed++) {
      const { readings, crosses, slope } = fadingBank(seed)
      const trend = trendOf(readings)
      if (trend.kind !== 'line') throw new Error(trend.kind)
      const { earliest, latest } = trend.crossing(80)!
      if (crosses >= earliest && (latest === null || crosses <= latest)) covered.year++
      if (slope >= trend.interval.low && slope <= trend.interval.high) covered.slope++
    }
    for (const count of Object.values(covered)) {
      expect(count / 500).toBeGreaterThanOrEqual(0.85)
      expect(count / 500).toBeLessThanOrEqual(0.95)
    }
  })

  it('has the middle of an odd and of an even number of values', () => {
    expect([median([3, 1, 2]), median([4, 1, 2, 3])]).toEqual([2, 2.5])
  })
})
