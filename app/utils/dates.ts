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
