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
import type { Write } from '#core/units/format'
import type { Origin, View } from './scene'

export type Speed = 'idle' | 'cruise'

/**
 * What a warm alternator has left for charging at a speed, A: hot output, held to a fitted limit, less the
 * vehicle's own draw.
 */
export function availableA(alternator: View<'alternators'>, speed: Speed, rules: ShopRules): number {
  const output = hotOutputA(alternator.ratedA, shaftRpm(alternator, speed), rules.hotOutputShare / 100)
  return Math.max(0, Math.min(output, alternator.limitA ?? output) - alternator.vehicleDrawA)
}

/** Air around an alternator of this craft, °C: an open engine space afloat, else under a bonnet. */
export const airAroundC = (craft: JobDocument['job']['craft']): number =>
  craft === 'vessel' ? openSpaceC : underBonnetC

/**
 * Fits that were made, by readings, then by what else they depend on: the rating and the air around the
 * machine.
 */
const fits = new WeakMap<readonly CaseReading[], Map<string, AlternatorHeat | null>>()
/** Heat of an alternator as its readings say; null where there are none that say anything. */
export function measuredHeat(alternator: View<'alternators'>): AlternatorHeat | null {
  const { temperatureReadings: readings, ratedA } = alternator
  if (!readings) return null
  const airC = airAroundC(alternator.$scene.craft)
  const key = `${ratedA} ${airC}`
  const ofReadings = fits.get(readings) ?? new Map<string, AlternatorHeat | null>()
  fits.set(readings, ofReadings)
  if (!ofReadings.has(key)) ofReadings.set(key, fitHeat(readings, ratedA, airC)?.heat ?? null)
  return ofReadings.get(key)!
}

/** No machine is turned faster, rpm. */
const mostShaftRpm = 15_000
/** Its shaft speed, rpm; one whose engine speed at cruise nobody knows turns fast enough for all it has. */
export function shaftRpm(alternator: View<'alternators'>, speed: Speed): number {
  const engineRpm = speed === 'idle' ? alternator.idleRpm : alternator.cruiseRpm
  return engineRpm === null ? mostShaftRpm : Math.min(engineRpm * alternator.pulleyRatio, mostShaftRpm)
}

/**
 * What it gives all day at a speed without passing the limit of its case, A: by its readings, else the shop's
 * share of its rating.
 */
export function allDayOutputA(alternator: View<'alternators'>, speed: Speed, rules: ShopRules): number {
  const heat = measuredHeat(alternator)
  if (heat)
    return Math.min(
      loadAtCaseA(
        caseLimitC,
        alternator.ratedA,
        shaftRpm(alternator, speed),
        airAroundC(alternator.$scene.craft),
        heat,
      ),
      hotOutputA(alternator.ratedA, shaftRpm(alternator, speed), rules.hotOutputShare / 100),
    )
  return (
    (alternator.ratedA * (speed === 'idle' ? rules.alternatorIdleShare : rules.alternatorCruiseShare)) / 100
  )
}

/** How that limit is known, and how it reads in a formula. */
export function allDayWords(
  alternator: View<'alternators'>,
  speed: Speed,
  rules: ShopRules,
  q: Write,
): { readonly origin: Origin; readonly formula: string } {
  if (measuredHeat(alternator)) {
    return {
      origin: { kind: 'measured', text: `readings of its case, limit ${caseLimitC} °C at ${speed}` },
      formula: `${q(allDayOutputA(alternator, speed, rules), 'A')} by its readings`,
    }
  }
  const share = speed === 'idle' ? rules.alternatorIdleShare : rules.alternatorCruiseShare
  return {
    origin: { kind: 'rule', text: `shop rule: ${share} % of rated at ${speed}, less the vehicle’s own draw` },
    formula: `${q(alternator.ratedA, 'A')} × ${share} %`,
  }
}

/** What it may give to charging all day at a speed, A: {@link allDayOutputA} less the vehicle's own draw. */
export const allDayA = (alternator: View<'alternators'>, speed: Speed, rules: ShopRules): number =>
  Math.max(0, allDayOutputA(alternator, speed, rules) - alternator.vehicleDrawA)

/** The speed at which it has less to give all day. */
export const tighterSpeed = (alternator: View<'alternators'>, rules: ShopRules): Speed =>
  allDayA(alternator, 'idle', rules) <= allDayA(alternator, 'cruise', rules) ? 'idle' : 'cruise'

/** What it may give to charging all day whatever its speed, A: the lesser of idle and cruise. */
export const allDayBudgetA = (alternator: View<'alternators'>, rules: ShopRules): number =>
  allDayA(alternator, tighterSpeed(alternator, rules), rules)
