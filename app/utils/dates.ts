import { beginsAt } from '#core/simulation/run-kinds'

const units: readonly (readonly [Intl.RelativeTimeFormatUnit, number])[] = [
  ['day', 86_400],
  ['hour', 3600],
  ['minute', 60],
]
const relative = new Intl.RelativeTimeFormat('en', { numeric: 'auto' })

/** How long ago a moment was, in words. */
export function ago(iso: string, now = Date.now()): string {
  const seconds = (new Date(iso).getTime() - now) / 1000
  const [unit, size] = units.find(([, length]) => Math.abs(seconds) >= length) ?? ['second', 1]
  return unit === 'second' ? 'just now' : relative.format(Math.round(seconds / size), unit)
}

const sinceMidnightS = (t: number): number => t + beginsAt * 3600

/** Time of day at so many seconds of a run, as `14:20`. */
export function hourOfRun(t: number): string {
  const minutes = Math.floor(sinceMidnightS(t) / 60) % 1440
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`
}

/** Day of a run at so many seconds of it; the first is day 1. */
export const dayOfRun = (t: number): string => `day ${Math.floor(sinceMidnightS(t) / 86_400) + 1}`

/** A moment of a run of so many hours: with its day where there is more than one. */
export const momentOfRun = (t: number, hours: number): string =>
  hours > 24 ? `${dayOfRun(t)}, ${hourOfRun(t)}` : hourOfRun(t)
