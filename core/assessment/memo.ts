import { elementAt } from '#core/collections/held'
import type { JobDocument, PartPath } from '#core/job/document'
import { resolveRules, type RuleOverrides, type ShopRules } from '#core/rules/rules'
import type { Facts } from '#core/system/facts'
import type { Slot } from '#core/system/reads'
import { areInStates, changedBetween, StateNumbers, type SlotStates } from '#core/system/states'
import { factsOf, type ShopSettings } from '#core/system/system'
import { notedQuestionsOf, type Question } from './assess'
import type { AnyCheck, CheckId } from './checks/index'
import { findingOf, keyOf, type Finding } from './result'

/** The result of some work, with the slots that it read and their states. */
interface Remembered<T> {
  readonly result: T
  readonly slots: readonly Slot[]
  readonly states: readonly number[]
}

/** The results of work whose reads were the same slots, by a hash of their states. */
interface OfReads<T> {
  readonly slots: readonly Slot[]
  readonly byHash: Map<number, Remembered<T>[]>
}

function hashOf(slots: readonly Slot[], states: SlotStates): number {
  let hash = 0
  for (const slot of slots) hash = (Math.imul(hash, 31) + (states[slot] ?? 0)) | 0
  return hash
}

/** The results of one piece of work in all jobs so far. */
class Memory<T> {
  /** Those that found something last come first. */
  private readonly ofReads: OfReads<T>[] = []
  private readonly bySlots = new Map<string, OfReads<T>>()
  /** Neighbours are similar: most differ in nothing that this work reads. */
  private last: Remembered<T> | undefined

  /** Its result in a job with the same states; undefined if there was none. */
  find(states: SlotStates): Remembered<T> | undefined {
    if (this.last && areInStates(this.last.slots, this.last.states, states)) return this.last
    for (let place = 0; place < this.ofReads.length; place++) {
      const { slots, byHash } = elementAt(this.ofReads, place)
      const found = byHash
        .get(hashOf(slots, states))
        ?.find((remembered) => areInStates(slots, remembered.states, states))
      if (!found) continue
      if (place > 0) this.ofReads.unshift(...this.ofReads.splice(place, 1))
      return (this.last = found)
    }
    return undefined
  }

  add(result: T, read: readonly Slot[], states: SlotStates): Remembered<T> {
    const slots = Int32Array.from(read).sort()
    const key = slots.join()
    let like = this.bySlots.get(key)
    if (!like) {
      like = { slots: [...slots], byHash: new Map() }
      this.bySlots.set(key, like)
      this.ofReads.push(like)
    }
    const hash = hashOf(like.slots, states)
    this.last = { result, slots: like.slots, states: like.slots.map((slot) => states[slot] ?? 0) }
    like.byHash.set(hash, [...(like.byHash.get(hash) ?? []), this.last])
    return this.last
  }
}

/** A check about one subject, with its findings in all jobs so far. */
interface Asked extends Question {
  readonly memory: Memory<Finding | null>
}

/** The same questions of many jobs, with their findings in the last of them. */
class Round {
  private readonly findings: (Finding | null)[] = []
  private states: SlotStates | null = null
  private readonly readersOf = new Map<Slot, Set<number>>()
  private readonly noted: (readonly Slot[])[] = []
  private readonly placeOf: ReadonlyMap<string, number>
  constructor(private readonly asked: readonly Asked[]) {
    this.placeOf = new Map(asked.map(({ check, on }, place) => [keyOf(check.id, on), place]))
  }

  /** The question of a check about a part; null if nothing of the kind is asked. */
  questionOf(id: CheckId, on: PartPath): Asked | null {
    const place = this.placeOf.get(keyOf(id, on))
    return place === undefined ? null : elementAt(this.asked, place)
  }

  /** The findings in a job. Only questions that ever read something that has changed are asked again. */
  in(states: SlotStates, ask: (asked: Asked) => Remembered<Finding | null>): readonly Finding[] {
    const places = this.states ? this.readersOfAny(changedBetween(this.states, states)) : this.asked.keys()
    for (const place of places) this.take(place, ask(elementAt(this.asked, place)))
    this.states = states
    return this.findings.filter((finding) => finding !== null)
  }

  private take(place: number, { result, slots }: Remembered<Finding | null>): void {
    this.findings[place] = result
    if (this.noted[place] === slots) return
    this.noted[place] = slots
    for (const slot of slots) {
      const readers = this.readersOf.get(slot)
      if (readers) readers.add(place)
      else this.readersOf.set(slot, new Set([place]))
    }
  }

  private readersOfAny(slots: readonly Slot[]): ReadonlySet<number> {
    const readers = new Set<number>()
    for (const slot of slots) for (const place of this.readersOf.get(slot) ?? []) readers.add(place)
    return readers
  }
}

/** Findings remembered at most; then all are forgotten. */
const mostRemembered = 200_000

/** The findings of one job, calculated on demand. */
interface JobFindings {
  readonly facts: Facts
  /** The verdicts of every check that needs no run. */
  all: () => readonly Finding[]
  /** The finding of one check about a part; null if the check does not apply. */
  one: (id: CheckId, on: PartPath) => Finding | null
}

/**
 * Findings of many similar jobs. A check is done again only if something that it read has a state it never had
 * together with the rest.
 */
export class FindingMemo {
  private readonly numbers = new StateNumbers()
  private rounds = new Memory<Round>()
  private readonly roundsByQuestions = new Map<string, Round>()
  private readonly memories = new Map<AnyCheck, Map<PartPath, Asked['memory']>>()
  private remembered = 0
  private last: {
    readonly own: RuleOverrides
    readonly shop: RuleOverrides | undefined
    readonly inForce: ShopRules
  } | null = null

  /** The findings of a job; each check runs when its finding is first read. */
  of(job: JobDocument, shop: ShopSettings): JobFindings {
    if (this.remembered > mostRemembered) this.forget()
    const facts = factsOf(job, shop, this.numbers.slots, this.rulesOf(job, shop))
    const states = this.numbers.of(facts)
    const round = this.roundOf(facts, states)
    const ask = (asked: Asked): Remembered<Finding | null> => this.findingOf(asked, facts, states)
    return {
      facts,
      all: () => round.in(states, ask),
      one: (id, on) => {
        const asked = round.questionOf(id, on)
        return asked && ask(asked).result
      },
    }
  }

  /** The rules in force: worked out once for jobs of one search, which share theirs. */
  private rulesOf({ rules }: JobDocument, shop: ShopSettings): ShopRules {
    const { last } = this
    if (last && last.own === rules && last.shop === shop.rules) return last.inForce
    this.last = { own: rules, shop: shop.rules, inForce: resolveRules(shop.rules ?? {}, rules) }
    return this.last.inForce
  }

  private roundOf(facts: Facts, states: SlotStates): Round {
    const known = this.rounds.find(states)
    if (known) return known.result
    const { questions, reads } = notedQuestionsOf(facts)
    const asked = questions.filter(({ check }) => !check.takesTime)
    return this.rounds.add(this.roundAsking(asked), reads.slots, states).result
  }

  /** Jobs whose values differ mostly have the same questions. */
  private roundAsking(questions: readonly Question[]): Round {
    const key = questions.map(({ check, on, place }) => `${keyOf(check.id, on)} ${place}`).join()
    let round = this.roundsByQuestions.get(key)
    if (!round) {
      round = new Round(questions.map((question) => ({ ...question, memory: this.memoryOf(question) })))
      this.roundsByQuestions.set(key, round)
    }
    return round
  }

  private findingOf(
    { check, place, memory }: Asked,
    facts: Facts,
    states: SlotStates,
  ): Remembered<Finding | null> {
    const known = memory.find(states)
    if (known) return known
    const { result, reads } = findingOf(check, place, facts)
    this.remembered++
    return memory.add(result, reads.slots, states)
  }

  private memoryOf({ check, on }: Question): Asked['memory'] {
    let ofCheck = this.memories.get(check)
    if (!ofCheck) this.memories.set(check, (ofCheck = new Map()))
    let memory = ofCheck.get(on)
    if (!memory) ofCheck.set(on, (memory = new Memory()))
    return memory
  }

  private forget(): void {
    this.rounds = new Memory()
    this.roundsByQuestions.clear()
    this.memories.clear()
    this.remembered = 0
  }
}
