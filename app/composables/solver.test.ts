import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import type { JobDocument } from '#core/job/document'
import { useSolver } from './solver'

/** Those that keep the battery, every second one, and the others. */
const combinations = 40
const all = Array.from({ length: combinations }, (_, i) => i)
const keeping = all.filter((index) => index % 2 === 0)

/** Stands in for an engine of its own: it writes down what it is asked for. */
class StandInEngine {
  readonly asked: string[] = []
  readonly looked: number[] = []
  ended = false
  /** What is left of a stretch while the test holds it back. */
  held: (() => void) | null = null
  constructor(
    readonly fail: (message: string) => void,
    private readonly holds: boolean,
  ) {}
  readonly engine = {
    plan: (): Promise<unknown> => {
      this.asked.push('plan')
      const exchanging = all.filter((index) => !keeping.includes(index))
      return Promise.resolve({ count: combinations, keeping, exchanging })
    },
    share: (): Promise<void> => {
      this.asked.push('share')
      return Promise.resolve()
    },
    search: (indexes: readonly number[]): Promise<unknown> => {
      this.asked.push('search')
      this.looked.push(...indexes)
      const outcomes = indexes.map((index) => ({ index }))
      return this.holds
        ? new Promise((resolve) => (this.held = () => resolve(outcomes)))
        : Promise.resolve(outcomes)
    },
    answers: (outcomes: readonly { readonly index: number }[]): Promise<unknown> => {
      this.asked.push('answers')
      if (!keepsForSure && outcomes.length < combinations) return Promise.resolve(null)
      return Promise.resolve({ answers: [], seen: outcomes.map(({ index }) => index) })
    },
  }
  end = (): void => {
    this.ended = true
  }
}

let engines: StandInEngine[] = []
let holds = false
let keepsForSure = false
vi.mock('../engine/client', () => ({
  plain: (data: unknown) => data,
  startEngine: (failed: (message: string) => void) => {
    const made = new StandInEngine(failed, holds)
    engines.push(made)
    return made
  },
}))

describe('a search for answers', () => {
  let scope: EffectScope
  const job = {} as JobDocument
  /** A solver in a scope that the test ends, as a page does. */
  const solverIn = (): ReturnType<typeof useSolver> => scope.run(() => useSolver())!

  beforeEach(() => {
    engines = []
    holds = false
    keepsForSure = false
    scope = effectScope()
  })
  afterEach(() => scope.stop())

  it('plans once, and every engine takes part', async () => {
    const solver = solverIn()
    await solver.start(job, {}, [])
    const [first, ...others] = engines
    expect(first!.asked.filter((what) => what === 'plan')).toHaveLength(1)
    for (const other of others) {
      expect(other.asked).not.toContain('plan')
      expect(other.asked[0]).toBe('share')
    }
    expect(solver.count.value).toBe(combinations)
  })

  const inOrder = (indexes: readonly number[]): number[] => indexes.toSorted((a, b) => a - b)
  const seenBy = (solver: ReturnType<typeof useSolver>): number[] =>
    inOrder((solver.answers.value as unknown as { readonly seen: number[] }).seen)

  it('looks at each combination once, those that keep the battery first', async () => {
    const solver = solverIn()
    await solver.start(job, {}, [])
    const looked = engines.flatMap((engine) => engine.looked)
    expect(inOrder(looked)).toEqual(all)
    for (const engine of engines) {
      const places = engine.looked.map((index) => keeping.includes(index))
      expect(places.lastIndexOf(true)).toBeLessThan(places.indexOf(false))
    }
    expect(seenBy(solver)).toEqual(all)
    expect(solver.state.value).toBe('done')
    expect(solver.share.value).toBe(1)
    expect(solver.untried.value).toBe(0)
  })

  it('tries no other battery where a sure answer keeps the one that was chosen', async () => {
    keepsForSure = true
    const solver = solverIn()
    await solver.start(job, {}, [])
    expect(inOrder(engines.flatMap(({ looked }) => looked))).toEqual(keeping)
    expect(seenBy(solver)).toEqual(keeping)
    expect(solver.count.value).toBe(keeping.length)
    expect(solver.untried.value).toBe(combinations - keeping.length)
    expect(solver.share.value).toBe(1)
  })

  it('searches again with the engines that know the core by now', async () => {
    const solver = solverIn()
    await solver.start(job, {}, [])
    const before = [...engines]
    await solver.start(job, {}, [])
    expect(engines).toEqual(before)
    expect(before.some(({ ended }) => ended)).toBe(false)
  })

  it('stops at once, and takes nothing that still comes', async () => {
    holds = true
    const solver = solverIn()
    const searching = solver.start(job, {}, [])
    await flushPromises()
    expect(solver.state.value).toBe('searching')
    solver.stop()
    expect(solver.state.value).toBe('stopped')
    expect(engines.every(({ ended }) => ended)).toBe(true)
    for (const { held } of engines) held?.()
    await flushPromises()
    expect(solver.looked.value).toBe(0)
    expect(solver.answers.value).toBeNull()
    // The engines that were ended answer no more: the search that waits for them is given up with its page.
    void searching
  })

  it('says why it cannot start', async () => {
    holds = true
    const solver = solverIn()
    void solver.start(job, {}, [])
    await flushPromises()
    engines[0]!.fail('no memory')
    expect(solver.problem.value).toBe('Cannot start the search: no memory')
    expect(solver.state.value).toBe('stopped')
  })

  it('ends its engines with its page', async () => {
    const solver = solverIn()
    await solver.start(job, {}, [])
    expect(solver.state.value).toBe('done')
    scope.stop()
    expect(engines.every(({ ended }) => ended)).toBe(true)
  })
})
