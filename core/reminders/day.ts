/** A day as text: `2026-11-29`. */
export type Day = string

/** The day of a moment, in UTC. */
export const dayOfMoment = (moment: Date): Day => moment.toISOString().slice(0, 10)

const dateOf = (day: Day): Date => new Date(`${day}T00:00:00Z`)

export const plusDays = (day: Day, days: number): Day => {
  const date = dateOf(day)
  date.setUTCDate(date.getUTCDate() + days)
  return dayOfMoment(date)
}

/**
 * The same day some months later; the last of the month if that has fewer days: 31 January + 1 is 28 or 29 February.
 */
export function plusMonths(day: Day, months: number): Day {
  const date = dateOf(day)
  const dayOfMonth = date.getUTCDate()
  date.setUTCDate(1)
  date.setUTCMonth(date.getUTCMonth() + months)
  const last = new Date(Date.UTC(date.getUTCFullYear(), date.getUTCMonth() + 1, 0)).getUTCDate()
  date.setUTCDate(Math.min(dayOfMonth, last))
  return dayOfMoment(date)
}

/** The next such day of the year after a day. @param month 1 to 12 */
export function nextYearDay(after: Day, month: number, dayOfMonth: number): Day {
  const year = Number(after.slice(0, 4))
  const written = (of: number): Day =>
    `${of}-${String(month).padStart(2, '0')}-${String(dayOfMonth).padStart(2, '0')}`
  return written(year) > after ? written(year) : written(year + 1)
}
