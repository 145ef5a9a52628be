import { asSpecified } from '#core/job/as-specified'
import type { JobDocument } from '#core/job/document'
import type { ShopRules } from '#core/rules/rules'
import { factsOf, usualSystem, type ShopSettings, type System } from '#core/system/system'
import type { Network } from './network'
import type { Draft } from './propose/builder'
import { propose } from './propose/propose'
import { sized, type SizeRules } from './size'

/** What the shop lets be lost on the way, and how it grades fuses. */
export const sizeRulesOf = (rules: ShopRules): SizeRules => ({
  charging: rules.dropCharging / 100,
  dcdc: rules.dropDcdc / 100,
  other: rules.dropOther / 100,
  cranking: rules.dropCranking / 100,
  grading: rules.grading,
})

/** The wiring of a system, proposed and sized. @param found the job with its survey and its answer */
export const networkIn = (system: System, found: JobDocument): Network =>
  sized(propose(system, found), sizeRulesOf(system.rules)).network

/** The wiring of a job as it is specified, or as it is entered where nothing is; unknowns are taken as usual. */
export const networkOf = (job: JobDocument, shop: ShopSettings = {}): Network =>
  networkIn(usualSystem(factsOf(asSpecified(job), shop)), job)

/** The same before it is sized: what there is and what it is called. */
export const draftOf = (job: JobDocument, shop: ShopSettings = {}): Draft =>
  propose(usualSystem(factsOf(asSpecified(job), shop)), job)
