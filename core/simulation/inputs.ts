import { partsOf, type JobDocument } from '#core/job/document'
import type { AnyPart } from '#core/job/document'
import type { Known } from '#core/job/fields'
import { resolveRules, type RuleOverrides } from '#core/rules/rules'
import { home } from '#core/weather/places'
import { usualInputs, type RunId, type RunInputs } from './runs'

const numberOf = (part: AnyPart | undefined, name: string, usual: number): number => ((part?.[name] as Known<number> | undefined)?.value ?? usual)

/** Inputs of a run from the job and the shop's rules: charge at the start, hours of driving and of mains, temperatures of the place, tilt; usual ones where nothing is known. */
export function inputsOf(job: JobDocument, run: RunId, shopRules: RuleOverrides = {}): RunInputs {
  const { lowChargeFrom, clearness } = resolveRules(shopRules, job.rules)
  const engine = partsOf(job, 'alternators')[0]?.part
  const mains = partsOf(job, 'chargers').map((ref) => numberOf(ref.part, 'hours', 8))
  const coldC = numberOf(job.place as AnyPart, 'coldestC', 2)
  const hotC = numberOf(job.place as AnyPart, 'hottestC', 32)
  return usualInputs(run, {
    soc: lowChargeFrom / 100, days: 1, driveH: engine ? numberOf(engine, 'driveHours', 2) : 0, idleShare: numberOf(engine, 'idleShare', 20) / 100, driveFrom: 8,
    mainsH: Math.max(0, ...mains), mainsFrom: 18, coldC, warmC: run === 'driving-day' || run === 'standing-still' ? Math.max(coldC + 6, Math.min(hotC, 18)) : Math.max(coldC, Math.min(hotC, coldC + 12)),
    clearness: clearness / 100, ...home, dayOfYear: 105, tilt: numberOf(partsOf(job, 'solar')[0]?.part, 'tilt', 0), loads: true,
  })
}
