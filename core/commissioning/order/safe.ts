import { listInSentence, inSentence } from '#core/units/format'
import { Steps, type WorkStep } from './step'
import { hasChassisNegative, plugsOf, startersOf, type Work } from './work'

/** Steps that make the system safe, before a spanner is lifted. */
export function safeSteps(work: Work): WorkStep[] {
  const steps = new Steps('safe')
  steps.add(
    'safe-photos',
    'Photograph every terminal before you touch anything.',
    'The photographs show where each lead was.',
  )
  stopMains(steps, work)
  stopSources(steps, work)
  takeBatteriesOff(steps, work)
  return steps.all
}

/** Sources of mains voltage and of outside power. */
function stopMains(steps: Steps, work: Work): void {
  const { before, after } = work
  const inverters = [...before.many.inverters, ...after.many.inverters]
  if (inverters.length > 0)
    steps.add(
      'safe-inverters',
      'Switch the inverter off at its own switch and at its remote.',
      'It makes mains voltage from the battery, and its capacitors stay charged for minutes.',
    )
  const mains = before.many.chargers.length > 0 || after.many.chargers.length > 0 || inverters.length > 0
  if (mains)
    steps.add(
      'safe-mains',
      'Unplug the mains and keep the plug in sight.',
      'A mains charger makes its output leads live.',
      { caution: 'Leave work on the mains side to a licensed person. Follow the local code.' },
    )
  if (plugsOf(work).length > 0)
    steps.add(
      'safe-tow-plug',
      'Unplug the tow plug and tie it up.',
      'The tow vehicle can feed the trailer through it, even with the engine off.',
      { numbers: plugsOf(work) },
    )
}

/** Sources that charge without being switched on: the sun, generators, the engine. */
function stopSources(steps: Steps, { before, after }: Work): void {
  const suns = before.many.solar.length + after.many.solar.length
  if (suns > 0) {
    steps.add(
      'safe-panels',
      'Cover the panels or open their breaker.',
      'Panels give voltage in any light, and a DC arc does not go out by itself.',
    )
    if (before.many.solar.length > 0)
      steps.add(
        'safe-panels-off',
        'Disconnect the panels from their controller before any battery.',
        'A controller without a battery can pass the panel voltage to everything.',
      )
  }
  if (after.many.sources.length > 0)
    steps.add(
      'safe-sources',
      `Stop ${names(after.many.sources)} and lock it so that it cannot start.`,
      'It charges the bank whenever it turns.',
    )
  if (after.many.alternators.length > 0)
    steps.add(
      'safe-engine',
      'Stop the engine, take the key out and wait until its computers sleep.',
      'An alternator that loses its battery while it turns destroys its diodes.',
    )
}

/** Every battery is taken off its leads: those of engines, then the house bank. */
function takeBatteriesOff(steps: Steps, work: Work): void {
  const watched = startersOf(work).filter(({ monitored }) => monitored === 'yes')
  if (watched.length > 0)
    steps.add(
      'safe-computer',
      'Ask the vehicle maker what to tell its computer about a new or disconnected battery.',
      'The computer counts the current at the battery negative and charges by that count.',
    )
  if (startersOf(work).length > 0)
    steps.add(
      'safe-negative',
      hasChassisNegative(work)
        ? 'Take the negative lead off the starting battery first. Cap it and tie it aside.'
        : 'Take the negative lead off the starting battery. Cap it and tie it aside.',
      hasChassisNegative(work)
        ? 'The chassis is negative. With that lead off, a spanner from plus to metal is no short.'
        : 'With the negative off, a slip with a spanner closes no circuit on the engine side.',
      {
        caution:
          'A short across a battery welds tools and burns hands. No rings, no watch, eye protection on.',
      },
    )
  if (Object.keys(work.found.houseBank).length > 0)
    steps.add(
      'safe-house',
      'Switch all loads off. Take the house bank negative off, then its positive. Cap both ends.',
      'Negative comes off first and goes on last. Until it is off, a slip with a spanner is a short.',
    )
}

/** Names as they go on in a sentence. */
const names = (parts: readonly { readonly $name: string }[]): string =>
  listInSentence(parts.map(({ $name }) => inSentence($name)))
