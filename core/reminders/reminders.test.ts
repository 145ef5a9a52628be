import { describe, expect, it } from 'vitest'
import { emptyJob } from '#core/job/document'
import { nextYearDay, plusDays, plusMonths } from './day'
import { dueGroupOf, nextDue, reminderOfWarranty, remindersOfRecord } from './reminders'

describe('reminders', () => {
  it('counts days and months as a calendar does', () => {
    expect(plusMonths('2027-01-31', 1)).toBe('2027-02-28')
    expect(plusMonths('2028-01-31', 1)).toBe('2028-02-29')
    expect(plusMonths('2026-11-29', 12)).toBe('2027-11-29')
    expect(plusDays('2027-03-01', -1)).toBe('2027-02-28')
    expect([nextYearDay('2026-10-14', 10, 15), nextYearDay('2026-10-15', 10, 15)]).toEqual([
      '2026-10-15',
      '2027-10-15',
    ])
  })

  it('asks for a torque check after a month and a test after a year; for storage only where a craft is laid up', () => {
    const job = emptyJob('0417', 'Marigold Tern')
    expect(remindersOfRecord(job, '0417-9', '2026-11-29').map(({ kind, due }) => [kind, due])).toEqual([
      ['retorque', '2026-12-29'],
      ['yearly', '2027-11-29'],
    ])
    const laidUp = { ...job, job: { ...job.job, usePattern: 'laidUp' as const } }
    expect(remindersOfRecord(laidUp, '0417-9', '2026-11-29').map(({ kind, due }) => [kind, due])).toEqual([
      ['retorque', '2026-12-29'],
      ['yearly', '2027-11-29'],
      ['storage', '2027-10-15'],
      ['top-up', '2027-01-15'],
    ])
  })

  it('warns a month before a warranty ends', () => {
    expect(reminderOfWarranty('House battery', 'entry', '2031-05-31').due).toBe('2031-05-01')
  })

  it('brings yearly work again, and never into the past', () => {
    expect(nextDue('yearly', '2026-11-01', '2026-11-29')).toBe('2027-11-01')
    expect(nextDue('yearly', '2024-06-01', '2026-11-29')).toBe('2027-11-29')
    expect([
      nextDue('retorque', '2026-11-01', '2026-11-29'),
      nextDue('hand', '2026-11-01', '2026-11-29'),
    ]).toEqual([null, null])
  })

  it('sorts due reminders', () => {
    expect(
      ['2026-11-28', '2026-11-29', '2026-11-30', '2026-12-01'].map((due) => dueGroupOf(due, '2026-11-29')),
    ).toEqual(['overdue', 'month', 'month', 'later'])
  })
})
