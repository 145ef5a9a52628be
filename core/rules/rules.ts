import { present } from '#core/collections/held'
import type { SchoolRule } from './rule'
import { alternator } from './topics/alternator'
import { capacity } from './topics/capacity'
import { charging } from './topics/charging'
import { cold } from './topics/cold'
import { fitting } from './topics/fitting'
import { keeping } from './topics/keeping'
import { proving } from './topics/proving'
import { schools } from './topics/schools'
import { voltages } from './topics/voltages'
import { wiring } from './topics/wiring'

/**
 * Every threshold and school the assessment uses, with its default. Voltages are for a 12 V battery and are
 * scaled to the battery's own nominal voltage. No check has a number of its own.
 */
export const ruleCatalogue = {
  ...schools,
  ...voltages,
  ...charging,
  ...alternator,
  ...cold,
  ...capacity,
  ...fitting,
  ...wiring,
  ...proving,
  ...keeping,
}

export type RuleId = keyof typeof ruleCatalogue
type RuleValue<K extends RuleId> = (typeof ruleCatalogue)[K] extends SchoolRule<infer O> ? O : number

/** The rules by topic, in the order a shop would settle them. */
export const ruleTopics: readonly { readonly title: string; readonly ids: readonly RuleId[] }[] = [
  ['Where workshops differ', schools],
  ['Battery voltages, for 12 V', voltages],
  ['Charging', charging],
  ['Alternator and links', alternator],
  ['Cold and lay-up', cold],
  ['Capacity and current', capacity],
  ['Fitting', fitting],
  ['Wiring', wiring],
  ['Proving', proving],
  ['Logbook', keeping],
].map(([title, rules]) => ({ title: title as string, ids: Object.keys(present(rules)) as RuleId[] }))

/** The rules in force, one value each. Per cents are as written (50, not 0.5). */
export type ShopRules = { readonly [K in RuleId]: RuleValue<K> }

/** Rules a shop or a job has changed; the rest keep their defaults. */
export type RuleOverrides = { readonly [K in RuleId]?: RuleValue<K> }

export const ruleIds = Object.keys(ruleCatalogue) as RuleId[]

const defaults = Object.fromEntries(
  ruleIds.map((id) => [id, ruleCatalogue[id].default]),
) as unknown as ShopRules

/** Defaults, overlaid by the shop's changes, overlaid by the job's own. */
export const resolveRules = (...overrides: readonly RuleOverrides[]): ShopRules =>
  Object.assign({}, defaults, ...overrides)
