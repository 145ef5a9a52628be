import { present } from '#core/collections/held'
import { withSpecified } from '#core/job/as-specified'
import { findingsOf } from '#core/assessment/assess'
import { isBlocking } from '#core/assessment/finding'
import { wiredNetworkOf, type WiredNetwork } from '#core/assessment/wired'
import { changesBetween } from '#core/job/changes'
import { partAt, type JobDocument, type PartPath } from '#core/job/document'
import type { ListedPart, Specified } from '#core/job/specified'
import { hoursOfWiring, partsOfWiring, type Wanted } from '#core/wiring/lists'
import type { Network, Post } from '#core/wiring/network'
import { canTry, joinRemedies, sameRemedy, type RemedyRef } from '#core/remedies/catalogue'
import { boughtFrom } from '#core/remedies/bought'
import { resolveRules } from '#core/rules/rules'
import { factsOf, usualSystem } from '#core/system/system'
import { AnswerDraft } from './draft'
import type { AnswerStep } from './step'
import type { Plan } from './plan'

/** The wiring of a job with an answer, calculated once for its checks, its steps and its parts. */
export function wiringOfAnswer({ job, shop }: Plan, done: JobDocument): WiredNetwork {
  const changes = changesBetween(job, done)
  const specified: Specified = { name: '', at: '', by: '', battery: [], steps: [], accepted: [], changes }
  return wiredNetworkOf(withSpecified(job, specified), shop)
}

/** Whether something is done to a surveyed cable, its fuses or its plug. */
const isOnCable = ({ on }: RemedyRef): boolean => on.startsWith('conductors/')
/** Whether a unit is set to a lower current. */
const isCurrentSetting = ({ id }: RemedyRef): boolean => id === 'charger.limit-current'
/** Whether something is done to a fuse or switch of the wiring. */
const isOnFitting = ({ on }: RemedyRef): boolean => on.startsWith('fittings/')

/** Findings of the wiring are followed so often: a thicker cable asks for another fuse, which asks for a plug. */
const mostRounds = 3

/** A job with the steps of an answer. */
interface Stepped {
  readonly job: JobDocument
  readonly steps: readonly AnswerStep[]
}
interface WiredDraft {
  readonly draft: AnswerDraft
  readonly wiring: WiredNetwork
}

/**
 * The steps of an answer, with those that its wiring requires of existing cables: a thicker cable, a fuse that
 * protects it, a larger plug. Where that is not enough, a unit that can be set is set to what its cable allows. New
 * runs fit in any case.
 */
export function withWiringSteps(plan: Plan, answer: Stepped): WiredDraft {
  const before = wiringOfAnswer(plan, answer.job)
  const byWork = followed(plan, answer, before, 'work')
  if (isSound(byWork)) return byWork
  const bySetting = followed(plan, answer, before, 'setting')
  return isSound(bySetting) ? bySetting : byWork
}

const isSound = ({ wiring }: WiredDraft): boolean => !wiring.checks.some(isBlocking)

/**
 * The remedies of the wiring followed round by round.
 * @param before the wiring of the answer without them
 * @param prefers work on cables and fittings alone, or a lower current where that is a remedy too
 */
function followed(
  plan: Plan,
  { job, steps }: Stepped,
  before: WiredNetwork,
  prefers: 'work' | 'setting',
): WiredDraft {
  const draft = new AnswerDraft(job, plan.shelf)
  draft.steps.push(...steps)
  let wiring = before
  for (let round = 0; round < mostRounds; round++) {
    const facts = factsOf(draft.job, plan.shop)
    const found = [...wiring.checks, ...findingsOf(facts)].flatMap(({ id, verdict, remedies }) => {
      const isHeld = prefers === 'setting' && id.startsWith('wiring.')
      const setting = isHeld ? remedies.find(isCurrentSetting) : undefined
      const ref = setting ?? remedies.find((one) => isOnCable(one) || isOnFitting(one))
      return verdict === 'suits-once-changed' && ref && canTry(ref) ? [{ ref, id }] : []
    })
    const cables = cablesOfFittings(wiring.network)
    const asked = found.map(({ ref, id }) => ({ ref: onItsCable(ref, cables, draft.job), id }))
    if (asked.length === 0) break
    const system = usualSystem(facts)
    for (const ref of joinRemedies(asked.map((one) => one.ref))) {
      const requestedBy = asked.filter((one) => sameRemedy(one.ref, ref)).map(({ id }) => id)
      draft.take(ref, requestedBy, null, system)
    }
    wiring = wiringOfAnswer(plan, draft.job)
  }
  return { draft, wiring }
}

/** A fuse or plug of the wiring, and the surveyed cable that it is in. */
interface OnCable {
  readonly cable: PartPath
  readonly post: Post
}

/** The surveyed cable that each fuse and plug of a wiring is in, by the path of the fitting. */
function cablesOfFittings({ runs, posts }: Network): ReadonlyMap<PartPath, OnCable> {
  const fitted = posts.filter(({ fitting }) => fitting !== null)
  const own = runs.flatMap(({ from, to, cable }) =>
    cable ? fitted.filter(({ id }) => id === from || id === to).map((post) => ({ cable, post })) : [],
  )
  return new Map(own.map((one): [PartPath, OnCable] => [`fittings/${one.post.id}`, one]))
}

/** A fuse or plug of a surveyed cable is changed there, once, whether the survey or the wiring asks for it. */
function onItsCable(ref: RemedyRef, cables: ReadonlyMap<PartPath, OnCable>, job: JobDocument): RemedyRef {
  const { cable, post } = cables.get(ref.on) ?? {}
  if (!cable || !post || !partAt(job, cable)) return ref
  if (ref.id === 'fitting.fuse')
    return {
      id: post.fitting?.isAtFarEnd ? 'fuse.far-end' : 'fuse.size',
      on: cable,
      value: present(ref.value),
      ...(ref.values?.family ? { values: { fuseKind: ref.values.family } } : {}),
    }
  const isPlug = ref.id === 'fitting.larger' && post.kind === 'plug'
  return isPlug ? { id: 'plug.larger', on: cable, value: present(ref.value) } : ref
}

/** Steps without the parts that the wiring of their answer buys: a cable that is drawn, its fuses and its plug. */
export function withoutWiredParts(steps: readonly AnswerStep[], { runs }: Network): readonly AnswerStep[] {
  const drawn = new Set(runs.map(({ cable }) => cable))
  return steps.map((step) =>
    drawn.has(step.ref.on) || isOnFitting(step.ref) ? { ...step, parts: [] } : step,
  )
}

/** The cost of an answer's wiring. */
export interface WiringWork {
  /** New cables, fuses, switches and other parts, from the shelf if it has them. */
  readonly parts: readonly ListedPart[]
  /** The shelf kind of each part; null if the shelf has none. */
  readonly wanted: readonly (Wanted | null)[]
  readonly hours: number
}

export function wiringWorkOf({ job, shop, shelf }: Plan, network: Network): WiringWork {
  const needed = partsOfWiring(network)
  const parts = needed.map((part) => boughtFrom(shelf, part))
  const wanted = needed.map((part) => part.wanted)
  return { parts, wanted, hours: hoursOfWiring(network, resolveRules(shop.rules ?? {}, job.rules)) }
}
