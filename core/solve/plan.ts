import { elementAt, firstOf } from '#core/collections/held'
import { completeJob } from '#core/job/complete'
import { assess, type Finding } from '#core/assessment/assess'
import type { JobDocument } from '#core/job/document'
import type { ShelfPart } from '#core/shelf/kinds'
import { factsOf, usualSystem, type ShopSettings } from '#core/system/system'
import { alternatorAxes } from './axes/alternators'
import { batteryAxes } from './axes/battery'
import { chargerAxes } from './axes/chargers'
import { coldAxes } from './axes/cold'
import { mixedAxes } from './axes/mixed'
import { isBlocking } from '#core/assessment/finding'
import { keyOf } from '#core/assessment/result'
import { possibleFindings } from './open'
import type { Axis, Ground, Option } from './option'
import { countOfSets, setsOf, twinsAmong, type Twins } from './twins'

/** Everything that a search needs; the same for every worker. */
export interface Plan {
  readonly job: JobDocument
  readonly shop: ShopSettings
  readonly shelf: readonly ShelfPart[]
  readonly axes: readonly Axis[]
  readonly choices: readonly Choice[]
  /** How many combinations there are. */
  readonly count: number
  /** Numbers of the combinations that keep the battery that was chosen, and of those that take another. */
  readonly keeping: readonly number[]
  readonly exchanging: readonly number[]
  /** Blocking findings of the job as found, including possible ones. */
  readonly before: readonly Finding[]
}

/** Axes that are decided together, with each set of options that they can take. */
interface Choice {
  readonly axes: Twins
  /** The place of the option of each axis. */
  readonly sets: readonly (readonly number[])[]
}

/** Most combinations looked at. */
export const mostCombinations = 720

/** The kinds of decisions, one function each. */
const decisions: readonly ((ground: Ground) => Axis[])[] = [
  alternatorAxes,
  chargerAxes,
  batteryAxes,
  coldAxes,
  mixedAxes,
]

/**
 * The decisions of a job, from its findings unchanged, with those of its runs: how each alternator reaches the
 * bank, what happens to each charger and controller, which battery and how many, how it is kept warm, and how
 * lead-acid and lithium work together. Pure: the same job, settings and shelf give the same plan.
 */
export function planOf(surveyed: JobDocument, shop: ShopSettings, shelf: readonly ShelfPart[]): Plan {
  const job = completeJob(surveyed)
  const facts = factsOf(job, shop)
  const { checks } = assess(job, shop)
  const before: Finding[] = checks.filter(isBlocking)
  const known = new Set(before.map(({ id, on }) => keyOf(id, on)))
  const possible = possibleFindings(job, shop, checks).filter(({ id, on }) => !known.has(keyOf(id, on)))
  const ground: Ground = {
    job,
    system: usualSystem(facts),
    findings: [...before, ...possible],
    certain: new Set(before),
    shelf,
  }
  const axes = decisions.flatMap((decide) => decide(ground)).filter(({ options }) => options.length > 0)
  const twins = trimmed(twinsAmong(job, axes))
  const choices = twins.map((those) => ({ axes: those, sets: setsOf(those) }))
  const count = productOf(twins)
  const all = Array.from({ length: count }, (_, index) => index)
  const keeps = (index: number): boolean => optionsAt({ choices }, index).every(({ battery }) => !battery)
  return {
    job,
    shop,
    shelf,
    axes: twins.flat(),
    choices,
    count,
    keeping: all.filter(keeps),
    exchanging: all.filter((index) => !keeps(index)),
    before: ground.findings,
  }
}

const productOf = (twins: readonly Twins[]): number =>
  twins.reduce((product, those) => product * countOfSets(those), 1)

/** Takes options off the end of the longest axes until the product is small enough. */
function trimmed(twins: readonly Twins[]): readonly Twins[] {
  if (productOf(twins) <= mostCombinations) return twins
  const lengthOf = (those: Twins): number => firstOf(those).options.length
  const longest = twins.reduce((most, those) => (lengthOf(those) > lengthOf(most) ? those : most))
  const shorter = longest.map((axis) => ({ ...axis, options: axis.options.slice(0, -1) }))
  return trimmed(twins.map((those) => (those === longest ? shorter : those)))
}

/** The options of a combination: its number written in the mixed base of the choices. */
export function optionsAt({ choices }: Pick<Plan, 'choices'>, index: number): Option[] {
  let rest = index
  return choices.flatMap(({ axes, sets }) => {
    const set = elementAt(sets, rest % sets.length)
    rest = Math.floor(rest / sets.length)
    return axes.map(({ options }, i) => elementAt(options, elementAt(set, i)))
  })
}
