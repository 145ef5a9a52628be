import { flushPromises } from '@vue/test-utils'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import type { RunOrder } from '../engine/engine'
import { useRunner } from './runner'

/** One engine that a run was given: what it was sent, and how the test lets it go on. */
interface Given {
  readonly order: RunOrder
  readonly tell: (share: number) => void
  readonly finish: (outcome: unknown) => void
  readonly breakOff: (cause: Error) => void
  readonly fail: (message: string) => void
  ended: boolean
}
let given: Given[] = []
vi.mock('../engine/client', () => ({
  plain: (data: unknown) => JSON.parse(JSON.stringify(data)) as unknown,
  asCallback: (listener: unknown) => listener,
  startEngine: (fail: (message: string) => void) => {
    let own: Given | undefined
    return {
      engine: {
        run: (order: RunOrder, tell: (share: number) => void) =>
          new Promise((finish, breakOff) => {
            own = { order, tell, finish, breakOff, fail, ended: false }
            given.push(own)
          }),
      },
      end: () => {
        if (own) own.ended = true
      },
    }
  },
}))

const order = (epw: string | null = null): RunOrder =>
  ({ run: 'driving-day', plants: [], inputs: {}, epw }) as unknown as RunOrder

describe('a run beside the page', () => {
  let scope: EffectScope
  const runner = () => scope.run(() => useRunner())!

  beforeEach(() => {
    given = []
    scope = effectScope()
  })
  afterEach(() => scope.stop())

  it('tells how far it has come, then gives its results and lets its engine go', async () => {
    const { start, share, results, notes } = runner()
    void start(order())
    expect(share.value).toBe(0)
    given[0]!.tell(0.4)
    expect(share.value).toBe(0.4)
    given[0]!.finish({ ok: true, results: ['one'], notes: ['a gap in the file'] })
    await flushPromises()
    expect([share.value, results.value, notes.value]).toEqual([null, ['one'], ['a gap in the file']])
    expect(given[0]!.ended).toBe(true)
  })

  it('sends a weather file as it is', () => {
    void runner().start(order('LOCATION,…'))
    expect(given[0]!.order.epw).toBe('LOCATION,…')
  })

  it('gives way to a newer one, whatever the older still says', async () => {
    const { start, share, results } = runner()
    void start(order())
    void start(order())
    expect(given.map(({ ended }) => ended)).toEqual([true, false])
    given[0]!.tell(0.9)
    given[0]!.finish({ ok: true, results: ['old'], notes: [] })
    await flushPromises()
    expect([share.value, results.value]).toEqual([0, []])
  })

  it.each([
    [
      'the error of its inputs',
      (run: Given) => run.finish({ ok: false, error: 'line 9: no wind' }),
      'line 9: no wind',
    ],
    ['that it broke off', (run: Given) => run.breakOff(new Error('no result')), 'The run stopped: no result'],
    ['that it cannot start', (run: Given) => run.fail('no memory'), 'Cannot start the run: no memory'],
  ])('says %s', async (_what, happens, words) => {
    const { start, problem, share } = runner()
    void start(order())
    happens(given[0]!)
    await flushPromises()
    expect([problem.value, share.value]).toEqual([words, null])
  })

  it('stops with its page', () => {
    void runner().start(order())
    scope.stop()
    expect(given[0]!.ended).toBe(true)
  })
})
