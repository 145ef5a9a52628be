import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import type { JobDocument } from '#core/job/document'
import type { Stretch } from '#core/solve/shares'
import { useSolver } from './solver'

const combinations = 40

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
      return Promise.resolve({ count: combinations })
    },
    share: (): Promise<void> => {
      this.asked.push('share')
      return Promise.resolve()
    },
    search: ({ from, to }: Stretch): Promise<unknown> => {
      this.asked.push('search')
      const indices = Array.from({ length: to - from }, (_, i) => from + i)
      this.looked.push(...indices)
      const outcomes = indices.map((index) => ({ index }))
      return this.holds
        ? new Promise((resolve) => (this.held = () => resolve(outcomes)))
        : Promise.resolve(outcomes)
    },
    answers: (outcomes: readonly { readonly index: number }[]): Promise<unknown> => {
      this.asked.push('answers')
      return Promise.resolve({ answers: [], seen: outcomes.map(({ index }) => index) })
    },
  }
  end = (): void => {
    this.ended = true
  }
}

let engines: StandInEngine[] = []
let holds = false
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

  it('looks at each combination once, and hands them on in their order', async () => {
    const solver = solverIn()
    await solver.start(job, {}, [])
    const all = Array.from({ length: combinations }, (_, i) => i)
    expect(engines.flatMap(({ looked }) => looked).sort((a, b) => a - b)).toEqual(all)
    expect(solver.answers.value).toEqual({ answers: [], seen: all })
    expect(solver.state.value).toBe('done')
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
