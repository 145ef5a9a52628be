import { dayOf } from '#core/papers/blocks'
import type { JobDocument } from '#core/job/document'
import { nextYearDay, plusDays, plusMonths, type Day } from './day'

export const reminderKinds = {
  retorque: 'Torque check',
  yearly: 'Yearly test',
  storage: 'Winter storage',
  'top-up': 'Top up',
  warranty: 'Warranty end',
  hand: 'Reminder',
} as const
export type ReminderKind = keyof typeof reminderKinds

/** A reminder that work makes by itself: once for each source. */
export interface DueReminder {
  readonly kind: ReminderKind
  /** The record or the entry that it was made for. */
  readonly source: string
  readonly due: Day
  readonly words: string
}

/** Joints settle in the first weeks. */
const retorqueMonths = 1
/** Laid up from about the middle of October, and topped up in the middle of the winter. */
const storage = { month: 10, day: 15 }
const topUp = { month: 1, day: 15 }
/** Days before the end of a warranty: time for a test and a claim. */
const warrantyDays = 30

/** Reminders after a job was signed. @param source number of its record */
export function remindersOfRecord({ job }: JobDocument, source: string, signed: Day): DueReminder[] {
  const name = job.name || job.number
  return [
    {
      kind: 'retorque',
      source,
      due: plusMonths(signed, retorqueMonths),
      words: `Check the torque of all lugs on ${name}.`,
    },
    {
      kind: 'yearly',
      source,
      due: plusMonths(signed, 12),
      words: `Yearly test of ${name}: resting voltages, capacity, joints, alternator case.`,
    },
    ...(job.usePattern === 'laidUp'
      ? [
          {
            kind: 'storage' as const,
            source,
            due: nextYearDay(signed, storage.month, storage.day),
            words: `Lay up ${name}: charge to the storage level and disconnect the battery.`,
          },
          {
            kind: 'top-up' as const,
            source,
            due: nextYearDay(signed, topUp.month, topUp.day),
            words: `Check the charge of the laid-up battery on ${name}. Top up if it is low.`,
          },
        ]
      : []),
  ]
}

/** The reminder before a warranty ends. @param source id of the entry that names the part */
export const reminderOfWarranty = (part: string, source: string, ends: Day): DueReminder => ({
  kind: 'warranty',
  source,
  due: plusDays(ends, -warrantyDays),
  words: `Test ${part} before its warranty ends on ${dayOf(ends)}.`,
})

/** Months until a reminder that is done comes again; null if it does not. */
const repeatMonths: Readonly<Record<ReminderKind, number | null>> = {
  retorque: null,
  yearly: 12,
  storage: 12,
  'top-up': 12,
  warranty: null,
  hand: null,
}

/** When a reminder comes again once it is done: a year after the day it was due, or after today if that is past. */
export function nextDue(kind: ReminderKind, due: Day, today: Day): Day | null {
  const months = repeatMonths[kind]
  if (months === null) return null
  const next = plusMonths(due, months)
  return next > today ? next : plusMonths(today, months)
}

export const dueGroups = { overdue: 'Overdue', month: 'This month', later: 'Later' } as const
export type DueGroup = keyof typeof dueGroups

/** Where a shop’s list has a reminder: overdue, due in this month, or later. */
export const dueGroupOf = (due: Day, today: Day): DueGroup =>
  due < today ? 'overdue' : due.slice(0, 7) === today.slice(0, 7) ? 'month' : 'later'
