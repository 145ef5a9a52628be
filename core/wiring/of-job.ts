import { asSpecified } from '#core/job/as-specified'
import type { JobDocument } from '#core/job/document'
import { cableSizesMm2 } from '#core/physics/conductors'
import type { FuseFamily } from '#core/physics/fuses'
import type { ShopRules } from '#core/rules/rules'
import { factsOf, usualSystem, type ShopSettings, type System } from '#core/system/system'
import type { Network } from './network'
import type { WiringDraft } from './propose/builder'
import { propose } from './propose/propose'
import { sized } from './size'
import type { SizeRules } from './size-rules'

/** Cable sizes that a shop carries, mm², by its rule; every standard size if the rule names none. */
const carriedSizesMm2: Readonly<Record<string, readonly number[]>> = {
  ten: [2.5, 6, 10, 16, 25, 35, 50, 70, 95, 120],
  six: [2.5, 6, 16, 35, 70, 120],
}
/** Fuse families that a shop carries, by its rule. */
const carriedFamilies: Readonly<Record<string, readonly FuseFamily[]>> = {
  three: ['blade', 'terminal-block', 'class-t'],
}

/** The shop's limits for voltage drops, and its rules for grading fuses. */
export const sizeRulesOf = (rules: ShopRules): SizeRules => ({
  charging: rules.dropCharging / 100,
  dcdc: rules.dropDcdc / 100,
  other: rules.dropOther / 100,
  cranking: rules.dropCranking / 100,
  grading: rules.grading,
  sizesMm2: carriedSizesMm2[rules.cableStock] ?? cableSizesMm2,
  mostSizes: rules.mostCableSizes,
  families: carriedFamilies[rules.fuseStock] ?? null,
})

/** The wiring of a system, proposed and sized. @param found the job with its survey and its answer */
export const networkIn = (system: System, found: JobDocument): Network =>
  sized(propose(system, found), sizeRulesOf(system.rules)).network

/** The wiring of a job as specified, or as surveyed without a specification; unknowns get typical values. */
export const networkOf = (job: JobDocument, shop: ShopSettings = {}): Network =>
  networkIn(usualSystem(factsOf(asSpecified(job), shop)), job)

/** The same before sizing: its posts and runs with their names. */
export const draftOf = (job: JobDocument, shop: ShopSettings = {}): WiringDraft =>
  propose(usualSystem(factsOf(asSpecified(job), shop)), job)
