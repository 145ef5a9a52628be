import { inSentence } from '#core/units/format'
import type { Step } from './step'
import { hasChassisNegative, startersOf, type Work } from './work'

/** What is made safe before a spanner is lifted. */
export function safeSteps(work: Work): Step[] {
  const { before, after, found } = work
  const steps: Step[] = []
  const step = (id: string, words: string, why: string, caution?: string): unknown =>
    steps.push({ id: `safe-${id}`, phase: 'safe', words, why, ...(caution ? { caution } : {}) })
  step(
    'photos',
    'Photograph the wiring as it is, every terminal in sight.',
    'In an hour nobody remembers where the thin red one was.',
  )
  const inverters = [...before.many.inverters, ...after.many.inverters]
  if (inverters.length > 0)
    step(
      'inverters',
      'Switch the inverter off, at its own switch and at its remote.',
      'It gives mains voltage as long as it has a battery, and its capacitors hold a charge for minutes.',
    )
  const mains = before.many.chargers.length > 0 || after.many.chargers.length > 0 || inverters.length > 0
  if (mains)
    step(
      'mains',
      'Unplug the mains, and keep the plug in sight.',
      'A charger feeds the very cable that is in your hand.',
      'Work on the mains side is for licensed hands and the local code.',
    )
  const suns = before.many.solar.length + after.many.solar.length
  if (suns > 0) {
    step(
      'panels',
      'Cover the panels or open their breaker.',
      'Panels cannot be switched off, and an arc of direct current does not go out by itself.',
    )
    if (before.many.solar.length > 0)
      step(
        'panels-off',
        'Take the panels off their controller, before any battery.',
        'A controller without its battery may pass the panels’ voltage on to everything.',
      )
  }
  if (after.many.sources.length > 0)
    step(
      'sources',
      `Stop ${names(after.many.sources)}, and keep it from starting by itself.`,
      'It feeds the bank whenever it runs.',
    )
  if (after.many.alternators.length > 0)
    step(
      'engine',
      'Engine off, key out, and wait until its computers sleep.',
      'An alternator that loses its battery while it turns destroys its diodes and whatever hangs on them.',
    )
  const watched = startersOf(work).filter(({ monitored }) => monitored === 'yes')
  if (watched.length > 0)
    step(
      'computer',
      'Ask the vehicle’s maker what its computer must be told when the battery is off or another is fitted.',
      'It counts what goes in and out at the battery’s negative, and charges by that.',
    )
  if (startersOf(work).length > 0)
    step(
      'negative',
      hasChassisNegative(work)
        ? 'Take the negative off the starting battery first, tie it aside with a cap on.'
        : 'Take the negative off the starting battery, and tie it aside with a cap on.',
      hasChassisNegative(work)
        ? 'The chassis is negative: a spanner from plus to metal is a short until that lead is off.'
        : 'With its negative off no spanner closes a circuit on the engine’s side.',
      'A short on a battery welds tools and burns hands: no rings, no watch, eyes covered.',
    )
  if (Object.keys(found.houseBank).length > 0)
    step(
      'house',
      'Everything off, then the negative of the house bank off, then its positive; a cap on every open end.',
      'Negative comes off first and goes on last: until then a slip with the spanner is a short.',
    )
  return steps
}

/** Names as they go on in a sentence. */
const names = (parts: readonly { readonly $name: string }[]): string =>
  parts.map(({ $name }) => inSentence($name)).join(' and ')
