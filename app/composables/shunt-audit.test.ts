import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, type EffectScope } from 'vue'
import type { Reading } from '#core/loads/detect'
import type { ShuntInstrument } from '../utils/instruments'
import { useShuntAudit } from './shunt-audit'

type Told = Parameters<ShuntInstrument['open']>[1]

/** A shunt that the test switches loads at. */
class Shunt {
  told: Told | null = null
  begunFrom = -1
  closed = 0
  constructor(private readonly name = 'Shunt') {}
  get instrument(): ShuntInstrument {
    return {
      name: this.name,
      open: (from, told) => {
        this.begunFrom = from
        this.told = told
        told.state('connected')
        return () => void this.closed++
      },
    }
  }
}

/** Readings of a steady current, one a second. */
const steady = (fromS: number, seconds: number, amps: number): Reading[] =>
  Array.from({ length: seconds }, (_, i) => ({ t: fromS + i, amps: -amps, volts: 13 }))

describe('a measured audit', () => {
  let scope: EffectScope
  const audit = (job = 'job-1') => scope.run(() => useShuntAudit(job))!
  /** An audit as after a reload. */
  const again = () => {
    scope.stop()
    scope = effectScope()
    return audit()
  }

  beforeEach(() => {
    localStorage.clear()
    vi.useFakeTimers()
    scope = effectScope()
  })
  afterEach(() => {
    scope.stop()
    vi.unstubAllGlobals()
    vi.useRealTimers()
  })

  it('finds the load that was switched on', () => {
    const shunt = new Shunt()
    const { start, found, count } = audit()
    start(shunt.instrument)
    shunt.told!.readings([...steady(0, 20, 1), ...steady(20, 20, 5), ...steady(40, 20, 1)])
    expect(count.value).toBe(60)
    expect(found.value).toHaveLength(1)
  })

  it('is there again after a reload, with the names, and goes on from where it was', () => {
    const shunt = new Shunt()
    const first = audit()
    first.start(shunt.instrument)
    shunt.told!.readings(steady(0, 10, 2))
    first.name('load-1', { name: 'Fridge' })
    const second = again()
    expect(second.count.value).toBe(10)
    expect(second.names.value['load-1']).toMatchObject({ name: 'Fridge', take: true })
    second.start(shunt.instrument)
    expect(shunt.begunFrom).toBe(10)
  })

  it('begins afresh with another instrument', () => {
    const { start, count, source } = audit()
    const [one, other] = [new Shunt('One'), new Shunt('Other')]
    start(one.instrument)
    one.told!.readings(steady(0, 10, 2))
    start(other.instrument)
    expect([count.value, source.value, one.closed]).toEqual([0, 'Other', 1])
  })

  it('does not mix the recordings of two jobs', () => {
    const shunt = new Shunt()
    const own = audit('job-1')
    own.start(shunt.instrument)
    shunt.told!.readings(steady(0, 10, 2))
    own.stop()
    expect(audit('job-2').count.value).toBe(0)
  })

  it('says that the browser is full, and goes on', () => {
    const shunt = new Shunt()
    const { start, full, count } = audit()
    start(shunt.instrument)
    const refuse = (): never => {
      throw new Error('full')
    }
    vi.stubGlobal('localStorage', { setItem: refuse, getItem: () => null, removeItem: () => undefined })
    shunt.told!.readings(steady(0, 10, 2))
    vi.advanceTimersByTime(2000)
    expect([full.value, count.value]).toEqual([true, 10])
  })

  it('does without a recording that is damaged', () => {
    localStorage.setItem('jovial-anchor.audit.job-1', '{"readings":[[0,')
    expect(audit().count.value).toBe(0)
  })

  it('leaves nothing behind once it is cleared', () => {
    const shunt = new Shunt()
    const { start, clear, stop } = audit()
    start(shunt.instrument)
    shunt.told!.readings(steady(0, 10, 2))
    stop()
    clear()
    vi.advanceTimersByTime(5000)
    expect(again().count.value).toBe(0)
  })

  it('lets its instrument go with its page', () => {
    const shunt = new Shunt()
    audit().start(shunt.instrument)
    scope.stop()
    expect(shunt.closed).toBe(1)
  })
})
