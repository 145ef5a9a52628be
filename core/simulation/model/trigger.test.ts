import { describe, expect, it } from 'vitest'
import { Trigger } from './trigger'

/** A trigger over a value that the test sets. */
function setUp(delayS = 0, cumulative = false) {
  const seen = { value: -1, fired: 0 }
  const trigger = new Trigger(
    () => seen.value,
    () => seen.fired++,
    () => delayS,
    cumulative,
  )
  /** Takes a step at whose end the value is such, and fires where it is due. */
  const step = (dt: number, value: number): boolean => {
    seen.value = value
    trigger.look()
    const due = trigger.take(dt)
    if (due) trigger.fire()
    return due
  }
  return { seen, trigger, step }
}

describe('a trigger', () => {
  it('acts a step after its condition began to hold, not at the jump itself', () => {
    const { trigger, step } = setUp()
    expect(step(10, -1)).toBe(false)
    expect(step(0, 2)).toBe(false)
    expect(trigger.dueIn(1)).toBe(1)
    expect(step(1, 2)).toBe(true)
  })
  it('waits for its delay, and begins again where the condition lapses', () => {
    const { trigger, step } = setUp(5)
    step(1, 1)
    expect(step(4, 1)).toBe(false)
    expect(trigger.dueIn(1)).toBeCloseTo(1, 9)
    step(1, -1)
    expect(trigger.dueIn(1)).toBe(Infinity)
    step(1, 1)
    expect(step(4, 1)).toBe(false)
    expect(step(1, 1)).toBe(true)
  })
  it('that adds up goes on counting after an interruption, as an absorption does', () => {
    const { step } = setUp(5, true)
    step(1, 1)
    step(4, 1)
    step(100, -1)
    step(1, 1)
    expect(step(1, 1)).toBe(true)
  })
  it('tells where along a straight line it turns, and closes in on a curved value from both sides', () => {
    const { seen, trigger } = setUp()
    const curve = (t: number): number => 1 - Math.exp(-t / 40) - 0.2
    seen.value = curve(0)
    trigger.look()
    trigger.take(1)
    let [low, high] = [0, 1000]
    seen.value = curve(high)
    expect(trigger.look()).toBe(true)
    trigger.begin()
    let tries = 0
    for (; high - low > 0.5 && tries < 40; tries++) {
      const middle = low + (high - low) * trigger.crossing + (tries % 2 ? 0.2 : -0.2)
      seen.value = curve(middle)
      const turns = trigger.look()
      trigger.bracket(turns)
      if (turns) high = middle
      else low = middle
    }
    const root = -40 * Math.log(0.8)
    expect(low).toBeLessThanOrEqual(root)
    expect(high).toBeGreaterThanOrEqual(root)
    expect(tries).toBeLessThan(15)
  })
})
