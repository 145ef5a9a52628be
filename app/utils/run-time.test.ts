import { describe, expect, it } from 'vitest'
import { dayOfRun, momentOfRun, timeMarks } from './run-time'

const day = { run: 'driving-day', hours: 24 } as const
const week = { run: 'cold-week', hours: 168 } as const
const year = { run: 'typical-year', hours: 8760 } as const

describe('the time of a run', () => {
  it('is the clock in a day, the day and the clock in a week, the date in a year', () => {
    expect(momentOfRun(3600, day)).toBe('07:00')
    expect(momentOfRun(19 * 3600, week)).toBe('day 2, 01:00')
    expect(dayOfRun(0, year)).toBe('1 January')
    expect(momentOfRun(364.5 * 86_400, year)).toBe('31 December, 18:00')
  })

  it('has marks at round hours, at most eight steps of them', () => {
    const { at, words } = timeMarks(day)
    expect(at).toHaveLength(9)
    expect(words(at[1]!)).toBe('09:00')
    expect(timeMarks(week).words(86_400)).toBe('day 2')
  })

  it('has a mark at the start of each month of a year, its name in the middle', () => {
    const { at, wordsAt, words } = timeMarks(year)
    expect(wordsAt.map(words)).toEqual([
      'Jan',
      'Feb',
      'Mar',
      'Apr',
      'May',
      'Jun',
      'Jul',
      'Aug',
      'Sept',
      'Oct',
      'Nov',
      'Dec',
    ])
    expect(at.every((t) => t >= 0 && t <= 8760 * 3600)).toBe(true)
  })
})
