import { entryOf } from '#core/collections/held'
import {
  caseLimitC,
  fitHeat,
  hotOutputA,
  loadAtCaseA,
  openSpaceC,
  underBonnetC,
  type AlternatorHeat,
  type CaseReading,
} from '#core/physics/alternator'
import type { JobDocument } from '#core/job/document'
import type { ShopRules } from '#core/rules/rules'
import { formatShare, joinText, type Write } from '#core/units/format'
import type { Origin, View } from './scene'

export type Speed = 'idle' | 'cruise'

/** Usual air around an alternator, °C, by the craft it is in. */
export const usualAirC = (craft: JobDocument['job']['craft']): number =>
  craft === 'vessel' ? openSpaceC : underBonnetC

/** Air around an alternator, °C: as measured, else {@link usualAirC}. */
export const airAroundC = ({ airC, $scene: { craft } }: View<'alternators'>): number =>
  airC ?? usualAirC(craft)

/**
 * Cached fits, by readings, then by their other inputs: the rated current and the air around the machine.
 */
const fits = new WeakMap<readonly CaseReading[], Map<string, AlternatorHeat | null>>()
/** Heat of an alternator as its readings say; null if there are none that say anything. */
export function measuredHeat(alternator: View<'alternators'>): AlternatorHeat | null {
  const { temperatureReadings: readings, ratedA, tauMin } = alternator
  if (!readings) return null
  const airC = airAroundC(alternator)
  const key = `${ratedA} ${airC} ${tauMin}`
  const ofReadings = fits.get(readings) ?? new Map<string, AlternatorHeat | null>()
  fits.set(readings, ofReadings)
  if (!ofReadings.has(key))
    ofReadings.set(key, fitHeat(readings, ratedA, airC, { oneReadingTauMin: tauMin })?.heat ?? null)
  return entryOf(ofReadings, key)
}

/**
 * Heat of an alternator: from its readings, else from the entered or assumed rise. Null for permanent magnets with
 * a shunting regulator, whose heat hardly depends on the output.
 */
export function heatOf(alternator: View<'alternators'>, rise = riseOf): AlternatorHeat | null {
  if (alternator.machine === 'magnet') return null
  return measuredHeat(alternator) ?? { riseK: rise(alternator), tauMin: alternator.tauMin }
}

/** The rise that is entered, or assumed, K; and the highest it may be. */
const riseOf = (alternator: View<'alternators'>): number => alternator.riseK
const mostRiseOf = (alternator: View<'alternators'>): number => alternator.$range('riseK')[1]

/** Whether its regulator takes the output back before the case gets too hot. */
export const foldsBack = ({ regulator, fieldWire }: View<'alternators'>): boolean =>
  regulator === 'external' && (fieldWire === 'sensor' || fieldWire === 'both')

/** Its shaft speed, rpm. */
export const shaftRpm = (alternator: View<'alternators'>, speed: Speed): number =>
  (speed === 'idle' ? alternator.idleRpm : alternator.cruiseRpm) * alternator.pulleyRatio

/** The limit of an alternator: the heat of its case, the shop's share of its rated current, or its output. */
interface Held {
  readonly amps: number
  readonly by: 'case' | 'share' | 'output'
}

/** Output of a warm alternator at a speed, A, within a fitted limit. */
function makes(alternator: View<'alternators'>, speed: Speed, rules: ShopRules): Held {
  const hotA = hotOutputA(alternator.ratedA, shaftRpm(alternator, speed), rules.hotOutputShare / 100)
  return { amps: Math.min(hotA, alternator.limitA ?? hotA), by: 'output' }
}

/**
 * Its continuous current at a speed, A: the load at which its case settles at the limit, or the shop's share of
 * its rating, where the shop uses one. Null if its heat does not depend on the current drawn.
 */
function bears(alternator: View<'alternators'>, speed: Speed, rules: ShopRules, rise = riseOf): Held | null {
  if (rules.alternatorAllDay === 'share') {
    const share = speed === 'idle' ? rules.alternatorIdleShare : rules.alternatorCruiseShare
    return { amps: (alternator.ratedA * share) / 100, by: 'share' }
  }
  const heat = heatOf(alternator, rise)
  if (!heat) return null
  const airC = airAroundC(alternator)
  const rpm = shaftRpm(alternator, speed)
  return { amps: loadAtCaseA(caseLimitC, alternator.ratedA, rpm, airC, heat), by: 'case' }
}

/** Its continuous output at a speed, A: the thermal limit, and never more than its output there. */
function allDayOutput(alternator: View<'alternators'>, speed: Speed, rules: ShopRules, rise = riseOf): Held {
  const output = makes(alternator, speed, rules)
  const borne = bears(alternator, speed, rules, rise)
  return borne && borne.amps < output.amps ? borne : output
}

/**
 * Current of a warm alternator for charging at a speed, A: hot output within a fitted limit, less the vehicle's own
 * draw.
 */
export const availableA = (alternator: View<'alternators'>, speed: Speed, rules: ShopRules): number =>
  Math.max(0, makes(alternator, speed, rules).amps - alternator.vehicleDrawA)

/** Its all-day current for charging at a speed, A: the all-day output less the vehicle's own draw. */
export const allDayA = (alternator: View<'alternators'>, speed: Speed, rules: ShopRules): number =>
  Math.max(0, allDayOutput(alternator, speed, rules).amps - alternator.vehicleDrawA)

/** How that limit is known, and how it reads in a formula. */
export const allDayWords = (
  alternator: View<'alternators'>,
  speed: Speed,
  rules: ShopRules,
  q: Write,
): HeldWords => wordsOf(allDayOutput(alternator, speed, rules), speed, alternator, rules, q)

interface HeldWords {
  readonly origin: Origin
  readonly formula: string
}

function wordsOf(
  { amps, by }: Held,
  speed: Speed,
  alternator: View<'alternators'>,
  rules: ShopRules,
  q: Write,
): HeldWords {
  switch (by) {
    case 'output':
      return {
        origin: { kind: 'computed', text: `its warm output at ${speed}` },
        formula: `${q(amps, 'A')}, all it makes at ${speed},`,
      }
    case 'share': {
      const share = speed === 'idle' ? rules.alternatorIdleShare : rules.alternatorCruiseShare
      const text = `shop rule: ${share} % of rated at ${speed}, less the vehicle’s own draw`
      return { origin: { kind: 'rule', text }, formula: `${q(alternator.ratedA, 'A')} × ${share} %` }
    }
    case 'case': {
      const measured = measuredHeat(alternator) !== null
      const settles = `${q(amps, 'A')}, which heats its case to ${q(caseLimitC, '°C')} at ${speed}`
      return {
        origin: {
          kind: measured ? 'measured' : 'computed',
          text: measured
            ? `readings of its case, limit ${caseLimitC} °C at ${speed}`
            : `case limit ${caseLimitC} °C at ${speed}, by its rise`,
        },
        formula: joinText(
          settles,
          measured ? ' by its readings,' : ` with a rise of ${q(alternator.riseK, 'Δ°C')},`,
        ),
      }
    }
  }
}

/** Current that a charger may draw from an alternator over a drive. */
interface Budget extends HeldWords {
  readonly amps: number
}

/**
 * Current of an alternator for charging over a drive, A: at each speed within its all-day limit, and on average
 * within its output, less the vehicle's own draw. The starting battery covers small deficits at idle.
 */
export function allDayBudget(alternator: View<'alternators'>, rules: ShopRules, q: Write): Budget {
  const { held, speed } = heldOverDrive(alternator, rules, riseOf)
  const amps = Math.max(0, held.amps - alternator.vehicleDrawA)
  if (speed !== 'drive') return { ...wordsOf(held, speed, alternator, rules, q), amps }
  const at = (part: Speed): string => q(makes(alternator, part, rules).amps, 'A')
  return {
    amps,
    origin: { kind: 'computed', text: 'its warm output over a drive' },
    formula: joinText(
      `${at('idle')} at idle for ${formatShare(alternator.idleShare / 100)} `,
      `of the drive and ${at('cruise')} at cruise: `,
      q(held.amps, 'A'),
    ),
  }
}

/** {@link allDayBudget} for each plausible rise of its case, A: for parts that are bought before the measurement. */
export const sureBudgetA = (alternator: View<'alternators'>, rules: ShopRules): number =>
  Math.max(0, heldOverDrive(alternator, rules, mostRiseOf).held.amps - alternator.vehicleDrawA)

function heldOverDrive(
  alternator: View<'alternators'>,
  rules: ShopRules,
  rise: typeof riseOf,
): { readonly held: Held; readonly speed: Speed | 'drive' } {
  const idleShare = alternator.idleShare / 100
  const driven = (['idle', 'cruise'] as const).filter((speed) => speed === 'cruise' || idleShare > 0)
  const meanA =
    makes(alternator, 'idle', rules).amps * idleShare +
    makes(alternator, 'cruise', rules).amps * (1 - idleShare)
  const [tightest] = driven
    .map((speed) => ({ held: allDayOutput(alternator, speed, rules, rise), speed }))
    .filter(({ held }) => held.by !== 'output')
    .sort((a, b) => a.held.amps - b.held.amps)
  return tightest && tightest.held.amps < meanA
    ? tightest
    : { held: { amps: meanA, by: 'output' }, speed: 'drive' }
}
