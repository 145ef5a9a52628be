import { usualInputs, type RunId, type RunInputs } from './run-kinds'
import type { JobDocument } from '#core/job/document'
import { factsOf, usualSystem, type ShopSettings, type System } from '#core/system/system'
import { home } from '#core/weather/places'

/** The entered number, or a typical one: initial values of a run never count as unknowns. */
const entered = (
  part: { $entered(field: string): unknown } | undefined,
  name: string,
  usual: number,
): number => {
  const value = part?.$entered(name)
  return typeof value === 'number' ? value : usual
}

/**
 * Inputs of a run from the job and the shop's rules: charge at the start, hours of driving and of mains,
 * temperatures of the place, tilt; usual ones if nothing is known.
 */
export function inputsOf({ many, one, rules }: System, run: RunId): RunInputs {
  const engine = many.alternators[0]
  const coldC = entered(one.place, 'coldestC', 2)
  const hotC = entered(one.place, 'hottestC', 32)
  const outdoors = run === 'driving-day' || run === 'standing-still'
  return usualInputs(run, {
    soc: rules.lowChargeFrom / 100,
    days: 1,
    driveH: engine ? Number(engine.$usual('driveHours')) : 0,
    idleShare: entered(engine, 'idleShare', 20) / 100,
    driveFrom: 8,
    mainsH: Math.max(0, ...many.chargers.map((charger) => entered(charger, 'hours', 8))),
    mainsFrom: 18,
    generatorH: Math.min(
      24,
      many.generators.reduce((sum, generator) => sum + entered(generator, 'hours', 0), 0),
    ),
    coldC,
    warmC: outdoors ? Math.max(coldC + 6, Math.min(hotC, 18)) : Math.max(coldC, Math.min(hotC, coldC + 12)),
    clearness: rules.clearness / 100,
    ...home,
    dayOfYear: 105,
    tilt: entered(many.solar[0], 'tilt', 0),
    loads: true,
  })
}

/** {@link inputsOf} a job by the settings of a shop. */
export const inputsOfJob = (job: JobDocument, run: RunId, shop: ShopSettings = {}): RunInputs =>
  inputsOf(usualSystem(factsOf(job, shop)), run)
