import { joinText, type Write } from '#core/units/format'
import type { Answer } from './answer'

const stepWords = ({ steps, bank, battery }: Answer): string[] => [
  ...steps.map(({ label, on }) => (on ? `${label} (${on})` : label)),
  ...(battery ? bank.map(({ name, quantity }) => (quantity > 1 ? `${quantity} × ${name}` : name)) : []),
]

/** Differences between two answers in sentences; empty if there are none. */
export function differencesOf(one: Answer, other: Answer, q: Write): string[] {
  const [own, theirs] = [stepWords(one), stepWords(other)]
  const [only, missing] = [
    own.filter((words) => !theirs.includes(words)),
    theirs.filter((words) => !own.includes(words)),
  ]
  const [a, b] = [one.figures, other.figures]
  const cost = a.cost - b.cost
  const hours = a.hoursToFull === null || b.hoursToFull === null ? null : a.hoursToFull - b.hoursToFull
  const heat =
    a.alternatorPeakC === null || b.alternatorPeakC === null
      ? null
      : Math.round(a.alternatorPeakC) - Math.round(b.alternatorPeakC)
  const power = a.givesUpW - b.givesUpW
  return [
    ...(only.length > 0 ? [`Only this answer has: ${only.join('; ')}.`] : []),
    ...(missing.length > 0 ? [`It leaves out: ${missing.join('; ')}.`] : []),
    ...(Math.abs(cost) >= 1 ? [`It costs ${q(Math.abs(cost), 'money')} ${cost > 0 ? 'more' : 'less'}.`] : []),
    ...(hours !== null && Math.abs(hours) >= 0.1
      ? [`The battery is full ${q(Math.abs(hours), 'h')} ${hours > 0 ? 'later' : 'sooner'}.`]
      : []),
    ...(heat !== null && heat !== 0
      ? [joinText('The alternator runs ', q(Math.abs(heat), 'Δ°C'), heat > 0 ? ' hotter.' : ' cooler.')]
      : []),
    ...(power !== 0
      ? [
          power > 0
            ? `It gives up ${q(power, 'W')} of inverter power.`
            : `It keeps ${q(-power, 'W')} of inverter power that the other answer gives up.`,
        ]
      : []),
  ]
}
