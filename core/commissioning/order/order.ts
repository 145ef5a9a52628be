import { asSpecified } from '#core/job/as-specified'
import type { JobDocument } from '#core/job/document'
import { networkIn } from '#core/wiring/of-job'
import { factsOf, usualSystem, type ShopSettings } from '#core/system/system'
import { fitSteps } from './fit'
import { outSteps } from './out'
import { chargeSteps, joinSteps } from './charge'
import { laterSteps, powerSteps, settingSteps, sourceSteps } from './power'
import { safeSteps } from './safe'
import type { WorkStep } from './step'
import type { Work } from './work'

/**
 * The order of work of a job, from the differences between found and specified: make safe, take out, fit, charge,
 * join, first power, settings, sources on, re-tighten. The tests follow.
 */
export function orderOf(job: JobDocument, shop: ShopSettings = {}): WorkStep[] {
  const after = usualSystem(factsOf(asSpecified(job), shop))
  const work: Work = {
    found: job,
    before: usualSystem(factsOf(job, shop)),
    after,
    network: networkIn(after, job),
  }
  return [
    ...safeSteps(work),
    ...outSteps(work),
    ...fitSteps(work),
    ...chargeSteps(work),
    ...joinSteps(work),
    ...powerSteps(work),
    ...settingSteps(work),
    ...sourceSteps(work),
    ...laterSteps(work),
  ]
}
