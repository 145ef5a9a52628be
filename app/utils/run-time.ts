import { beginsAt, type RunId } from '#core/simulation/run-kinds'
import type { RunResult } from '#core/simulation/runs'

/** How long a run is, and whether its days have a date. */
export interface RunSpan {
  readonly run: RunId
  readonly hours: number
}

export const spanOfRun = ({ run, totals }: RunResult): RunSpan => ({ run, hours: totals.hours })

const dayS = 86_400
const sinceMidnightS = (t: number): number => t + beginsAt * 3600

/** A year of weather begins on 1 January. Any year without 29 February does. */
const isDated = ({ run }: RunSpan): boolean => run === 'typical-year'
const firstDay = Date.UTC(2025, 0, 1)
const dateAt = (t: number): Date => new Date(firstDay + sinceMidnightS(t) * 1000)
const date = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'long', timeZone: 'UTC' })
const month = new Intl.DateTimeFormat('en-GB', { month: 'short', timeZone: 'UTC' })

/** Time of day at this many seconds of a run, as `14:20`. */
function hourOfRun(t: number): string {
  const minutes = Math.floor(sinceMidnightS(t) / 60) % 1440
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
}

/** Day of a run at this many seconds of it: a date in a year of weather, else `day 1` and so on. */
export const dayOfRun = (t: number, span: RunSpan): string =>
  isDated(span) ? date.format(dateAt(t)) : `day ${Math.floor(sinceMidnightS(t) / dayS) + 1}`

/** A moment of a run, with its day where there is more than one. */
export const momentOfRun = (t: number, span: RunSpan): string =>
  span.hours > 24 ? `${dayOfRun(t, span)}, ${hourOfRun(t)}` : hourOfRun(t)

/** Marks under a timeline: their places and those of their words, s since the start. */
interface TimeMarks {
  readonly at: readonly number[]
  readonly wordsAt: readonly number[]
  readonly words: (t: number) => string
}

const stepsH = [1, 2, 3, 6, 12, 24, 48, 96, 168, 336, 720, 1440]

/** Months in a year of weather; else round hours or days, at most eight of them. */
export function timeMarks(span: RunSpan): TimeMarks {
  const endS = span.hours * 3600
  if (isDated(span)) {
    const starts = Array.from(
      { length: 13 },
      (_, i) => (Date.UTC(2025, i, 1) - firstDay) / 1000 - beginsAt * 3600,
    )
    const at = starts.map((t) => Math.max(0, t)).filter((t) => t <= endS)
    return {
      at,
      wordsAt: at.slice(1).map((t, i) => (t + at[i]!) / 2),
      words: (t) => month.format(dateAt(t)),
    }
  }
  const stepS = 3600 * stepsH.find((hours) => span.hours / hours <= 8)!
  const at = Array.from({ length: Math.floor(endS / stepS) + 1 }, (_, i) => i * stepS)
  return { at, wordsAt: at, words: (t) => (span.hours > 72 ? dayOfRun(t, span) : hourOfRun(t)) }
}
