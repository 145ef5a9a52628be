import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, nextTick, ref, type EffectScope } from 'vue'
import type { Streamed } from '#core/diagnosis/stream'
import { useLiveReading } from './live-reading'

interface Follower {
  readonly readings: (more: readonly Streamed[]) => void
  readonly state: (state: 'connected' | 'lost' | 'ended') => void
}
/** Who follows the instrument now, and from which reading on. */
let follower: Follower
let begunFrom = -1
let closed = 0
vi.mock('../utils/instruments', () => ({
  followTest: (_what: unknown, from: number, told: Follower) => {
    follower = told
    begunFrom = from
    return () => closed++
  },
}))

describe('readings of an instrument that is held at a test', () => {
  let scope: EffectScope
  const test = ref('volts-bar')
  const live = () => scope.run(() => useLiveReading('job-1', () => test.value))!

  beforeEach(() => {
    localStorage.clear()
    closed = 0
    test.value = 'volts-bar'
    scope = effectScope()
  })
  afterEach(() => scope.stop())

  it('come one after the other', () => {
    const { start, readings, last, state } = live()
    start(1)
    follower.state('connected')
    follower.readings([{ t: 0, value: 13.1 }])
    follower.readings([{ t: 1, value: 13.2 }])
    expect(readings.value.map(({ value }) => value)).toEqual([13.1, 13.2])
    expect(last.value).toEqual({ t: 1, value: 13.2 })
    expect(state.value).toBe('connected')
  })

  it('are there again after a reload, and go on from where they were', () => {
    live().start(1)
    follower.readings([
      { t: 0, value: 13.1 },
      { t: 1, value: 13.2 },
    ])
    scope.stop()
    scope = effectScope()
    const { readings, start } = live()
    expect(readings.value).toHaveLength(2)
    start(1)
    expect(begunFrom).toBe(2)
  })

  it('are those of their own test', async () => {
    const { readings, start } = live()
    start(1)
    follower.readings([{ t: 0, value: 13.1 }])
    test.value = 'amps-main'
    await nextTick()
    expect(readings.value).toEqual([])
    expect(closed).toBe(1)
    test.value = 'volts-bar'
    await nextTick()
    expect(readings.value).toHaveLength(1)
  })

  it('start empty if the stored ones are damaged', () => {
    localStorage.setItem('jovial-anchor.live.job-1.volts-bar', '[{"t":0,')
    expect(live().readings.value).toEqual([])
  })

  it('are gone for good once they are cleared', () => {
    const { start, clear, readings, state } = live()
    start(1)
    follower.state('connected')
    follower.readings([{ t: 0, value: 13.1 }])
    clear()
    expect([readings.value, state.value]).toEqual([[], 'idle'])
    expect(localStorage.getItem('jovial-anchor.live.job-1.volts-bar')).toBeNull()
    expect(closed).toBe(1)
  })

  it('end with their page', () => {
    live().start(1)
    scope.stop()
    expect(closed).toBe(1)
  })
})
