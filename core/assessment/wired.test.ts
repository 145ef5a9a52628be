import { describe, expect, it } from 'vitest'
import { goodJob, longWayJob, withValues } from '#core/testing'
import { withSpecified } from '#core/job/as-specified'
import { assess } from './assess'
import { isWired, wiringVerdictOf } from './wired'

describe('the verdict of the wiring', () => {
  it('stands beside that of the job: a cable that loses too much does not hide behind a job that suits', () => {
    expect(assess(longWayJob()).verdict).toBe('suits')
    const { verdict, checks } = wiringVerdictOf(longWayJob())
    expect(verdict).toBe('suits-once-changed')
    expect(checks.find(({ key }) => key === 'wiring.drop@runs/charger-1-feed')!.verdict).toBe(
      'suits-once-changed',
    )
  })

  it('is of checks of the wiring alone', () => {
    const { checks } = wiringVerdictOf(goodJob())
    expect(checks.length).toBeGreaterThan(10)
    expect(checks.every(({ id }) => id.startsWith('wiring.'))).toBe(true)
  })

  it('counts once an answer is chosen or something of the wiring is set by hand', () => {
    expect(isWired(goodJob())).toBe(false)
    expect(isWired(withValues(goodJob(), { 'runs/charger-1-feed/lengthM': 3 }))).toBe(true)
    const answer = { answer: 'x', name: 'x', changes: [], parts: [] }
    expect(isWired(withSpecified(goodJob(), answer as never))).toBe(true)
  })
})
