import { computed, onScopeDispose, ref, shallowRef } from 'vue'
import { firstOf } from '#core/collections/held'
import type { JobDocument } from '#core/job/document'
import type { ShelfPart } from '#core/shelf/kinds'
import type { Adjustment, Answer } from '#core/solve/answer'
import type { Answers } from '#core/solve/answers'
import type { Outcome } from '#core/solve/front'
import { Shares } from '#core/solve/shares'
import type { ShopSettings } from '#core/system/system'
import { plain, startEngine, type OwnEngine } from '../engine/client'

/** Engines that share a search: as many as there are cores to spare, one at least. */
const engineCount = Math.min(4, Math.max(1, navigator.hardwareConcurrency))

/**
 * Searches for answers: how far it has come, a stop that takes at once, the answers, and answers changed by
 * hand.
 */
export function useSolver() {
  let engines: OwnEngine[] = []
  const state = ref<'idle' | 'searching' | 'judging' | 'done' | 'stopped'>('idle')
  const count = ref(0)
  const looked = ref(0)
  /** Combinations with another battery that nobody asked for, since a sure answer keeps the one that was chosen. */
  const untried = ref(0)
  const answers = shallowRef<Answers | null>(null)
  const problem = ref('')

  function end(): void {
    for (const own of engines) own.end()
    engines = []
  }
  function stop(): void {
    end()
    if (state.value === 'searching' || state.value === 'judging') state.value = 'stopped'
  }
  function fail(words: string): void {
    problem.value = words
    stop()
  }

  async function start(job: JobDocument, shop: ShopSettings, shelf: readonly ShelfPart[]): Promise<void> {
    // Engines that have nothing to do know the core by now: the next search is a good deal faster on them.
    const idle = state.value === 'done' ? engines : []
    if (idle.length === 0) end()
    problem.value = ''
    looked.value = count.value = untried.value = 0
    answers.value = null
    state.value = 'searching'
    const mine = Array.from(
      { length: engineCount },
      (_, i) =>
        idle[i] ??
        startEngine((message) => {
          fail(`Cannot start the search: ${message}`)
        }),
    )
    engines = mine
    try {
      const judged = await searched(mine, job, shop, shelf)
      if (engines !== mine) return
      answers.value = judged
      state.value = 'done'
    } catch (cause) {
      if (engines === mine) fail((cause as Error).message)
    }
  }

  /** The answers of a job. Another battery is only tried where no sure answer keeps the one that was chosen. */
  async function searched(
    mine: readonly OwnEngine[],
    job: JobDocument,
    shop: ShopSettings,
    shelf: readonly ShelfPart[],
  ): Promise<Answers | null> {
    // One plans for all: until then the others would only work out the same.
    const plan = await firstOf(mine).engine.plan(...plain([job, shop, shelf] as const))
    const ready = mine.map(({ engine }, place) => (place === 0 ? Promise.resolve() : engine.share(plan)))
    const found: Outcome[] = []
    for (const combinations of [plan.keeping, plan.exchanging]) {
      if (engines !== mine) return null
      count.value = found.length + combinations.length
      untried.value = plan.count - count.value
      state.value = 'searching'
      await lookAt(combinations, mine, ready, found)
      if (engines !== mine) return null
      state.value = 'judging'
      const answered = await firstOf(mine).engine.answers(found)
      if (answered) return answered
    }
    return null
  }

  /**
   * Combinations shared among the engines; the results are added together.
   * @param ready the first work of each engine
   */
  async function lookAt(
    combinations: readonly number[],
    mine: readonly OwnEngine[],
    ready: readonly Promise<void>[],
    found: Outcome[],
  ): Promise<void> {
    const shares = new Shares(combinations, mine.length)
    await Promise.all(
      mine.map(async ({ engine }, place) => {
        await ready[place]
        for (let next = shares.next(place); next; next = shares.next(place)) {
          found.push(...(await engine.search(next)))
          if (engines === mine) looked.value = found.length
        }
      }),
    )
  }

  /** An answer with steps left out or set otherwise, checked again. Only after a search. */
  const adjusted = (answer: Answer, adjustments: readonly Adjustment[]): Promise<Answer> =>
    firstOf(engines).engine.adjust(plain(answer), [...adjustments])
  onScopeDispose(end)
  return {
    state,
    count,
    looked,
    untried,
    share: computed(() => (count.value === 0 ? 0 : looked.value / count.value)),
    answers,
    problem,
    start,
    stop,
    adjusted,
  }
}
