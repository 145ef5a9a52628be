import { present } from '#core/collections/held'
import { changesBetween } from '#core/job/changes'
import type { JobDocument } from '#core/job/document'
import { partKinds, type PartKind, type PartKindId } from '#core/job/fields'
import { ruleIds } from '#core/rules/rules'
import { fieldsOfKind, type Facts } from '#core/system/facts'
import { Changes, type Slot, type Slots } from '#core/system/reads'
import { factsOf, type ShopSettings } from '#core/system/system'
import { dequal } from 'dequal/lite'
import { assessmentOf, questionsOf, type Assessment, type Question } from './assess'
import { judgeCheck, judging, keyOf, type CheckResult, type Noted } from './result'

/** Slots that differ between two states of a job and of the rules in force. */
function changedSlots(before: Facts, after: Facts): ReadonlySet<Slot> {
  const { slots } = after
  const changed = new Set<Slot>()
  for (const id of ruleIds) if (before.rules[id] !== after.rules[id]) changed.add(slots.rule(id))
  for (const { path } of changesBetween(before.job, after.job)) {
    const [section, ...rest] = path.split('/') as [string, ...string[]]
    if (section === 'job') changed.add(slots.head)
    else if (Object.hasOwn(partKinds, section)) addPartSlots(section as PartKindId, rest, after, changed)
  }
  return changed
}

/**
 * A field that changed has its own slot; a part that came, went or is called otherwise is a change of its
 * kind.
 */
function addPartSlots(kind: PartKindId, rest: readonly string[], { slots }: Facts, changed: Set<Slot>): void {
  const { many } = partKinds[kind] as PartKind
  const [partPath, name] = many ? [`${kind}/${rest[0]}`, rest[1]] : [kind, rest[0]]
  const fields = fieldsOfKind(kind)
  const index = name === undefined ? -1 : fields.findIndex(([field]) => field === name)
  if (index < 0) changed.add(slots.kind(kind))
  const first = slots.knownPart(partPath)
  if (first === undefined) return
  if (index >= 0) changed.add(first + index)
  else if (name === undefined) fields.forEach((_, i) => changed.add(first + i))
}

/** Results cached with the values they read, and checked again only if one of those changes. */
class Keeper<T> {
  private kept = new Map<string, Noted<T>>()

  /** Forgets the results that read a changed value. */
  forget(changed: ReadonlySet<Slot>, slots: Slots): void {
    const changes = new Changes(changed, slots)
    for (const [key, { reads }] of this.kept) if (reads.touchedBy(changes)) this.kept.delete(key)
  }
  clear(): void {
    this.kept.clear()
  }

  has = ({ check, on }: Question): boolean => this.kept.has(keyOf(check.id, on))
  keep({ check, on }: Question, noted: Noted<T>): void {
    this.kept.set(keyOf(check.id, on), noted)
  }
  /** The result of a check on a subject, from the cache if possible. */
  of(question: Question, judge: (question: Question) => Noted<T>): T | null {
    const known = this.kept.get(keyOf(question.check.id, question.on))
    if (known) return known.result
    const noted = judge(question)
    this.keep(question, noted)
    return noted.result
  }
}

/**
 * The assessment of a job that changes: after an edit only those checks are checked again that read something
 * the edit changed. The same assessment as one checked from nothing.
 */
export class KeptAssessment {
  private facts: Facts | null = null
  private shop: ShopSettings = {}
  private readonly results = new Keeper<CheckResult>()
  /** The last results of checks that need a run, until they are calculated again. */
  private readonly before = new Map<string, CheckResult>()

  /**
   * Takes the job unchanged and runs the checks without a run; `complete` says whether these are all.
   */
  take(
    job: JobDocument,
    shop: ShopSettings = {},
  ): { readonly assessment: Assessment; readonly complete: boolean } {
    const facts = factsOf(job, shop, this.facts?.slots)
    if (this.facts && dequal(this.shop.units, shop.units))
      this.results.forget(changedSlots(this.facts, facts), facts.slots)
    else this.results.clear()
    this.facts = facts
    this.shop = shop
    const questions = questionsOf(facts)
    const checks = questions.flatMap((question) => {
      if (question.check.takesTime && !this.results.has(question))
        return this.before.get(keyOf(question.check.id, question.on)) ?? []
      return this.resultOf(question) ?? []
    })
    return { assessment: assessmentOf(facts, checks), complete: questions.every(this.results.has) }
  }

  /**
   * Calculates the checks that need a run. Yields after each scene, so that the caller can switch to something newer
   * in between. Finished results are kept.
   */
  *lookAhead(): Generator<void, Assessment, void> {
    const facts = present(this.facts)
    const questions = questionsOf(facts)
    for (const question of questions) {
      if (this.results.has(question)) continue
      this.results.keep(question, yield* judging(question.check, question.place, facts))
      yield
    }
    const checks = questions.flatMap((question) => this.resultOf(question) ?? [])
    this.before.clear()
    for (const result of checks) this.before.set(result.key, result)
    return assessmentOf(facts, checks)
  }

  private resultOf(question: Question): CheckResult | null {
    return this.results.of(question, ({ check, place }) => judgeCheck(check, place, present(this.facts)))
  }
}
