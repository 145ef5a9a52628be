import ical, { ICalCalendarMethod } from 'ical-generator'
import type { ReminderRow } from '../repositories/reminders'

/** Reminders as a calendar: each a whole day, under an id that stays. @param shop its name */
export function calendarOf(shop: string, reminders: readonly ReminderRow[]): string {
  const calendar = ical({
    name: `${shop}: reminders`,
    method: ICalCalendarMethod.PUBLISH,
    prodId: { company: 'Jovial Anchor', product: 'Reminders', language: 'EN' },
  })
  for (const { id, due, words, craftName, customer } of reminders)
    calendar.createEvent({
      id,
      start: new Date(`${due}T00:00:00Z`),
      allDay: true,
      timezone: 'UTC',
      summary: craftName ? `${craftName}: ${words}` : words,
      description: customer ? `Customer: ${customer}` : '',
      stamp: new Date(`${due}T00:00:00Z`),
    })
  return calendar.toString()
}
