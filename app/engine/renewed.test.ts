import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { NoAnswer, renewed } from './renewed'

beforeEach(() => vi.useFakeTimers())
afterEach(() => vi.useRealTimers())

/** Workers that answer a number with its double, and hang at 0. */
function workers() {
  const ended: number[] = []
  const fails: ((message: string) => void)[] = []
  let begun = 0
  const client = renewed((failed) => {
    const mine = ++begun
    fails.push(failed)
    const double = (n: number): Promise<number> =>
      n === 0 ? new Promise(() => undefined) : Promise.resolve(2 * n)
    return { target: { double }, end: () => void ended.push(mine) }
  }, 30)
  return { client, ended, fails, begun: () => begun }
}

describe('an engine next to the page', () => {
  it('is begun when it is first asked, once', async () => {
    const { client, begun } = workers()
    expect(begun()).toBe(0)
    expect(await Promise.all([client.double(2), client.double(3)])).toEqual([4, 6])
    expect(begun()).toBe(1)
  })

  it('that gives no answer is ended, the caller gets an error, and the next question starts a new engine', async () => {
    const { client, ended } = workers()
    const hanging = expect(client.double(0)).rejects.toThrow(NoAnswer)
    await vi.advanceTimersByTimeAsync(20_000)
    const behind = expect(client.double(0)).rejects.toThrow('over 30 s')
    await vi.advanceTimersByTimeAsync(10_000)
    await Promise.all([hanging, behind])
    expect(ended).toEqual([1])
    expect(await client.double(4)).toBe(8)
    await vi.advanceTimersByTimeAsync(60_000)
    expect(ended).toEqual([1])
  })

  it('that fails is begun again, and an old failure does not end the new one', async () => {
    const { client, ended, fails, begun } = workers()
    const hanging = expect(client.double(0)).rejects.toThrow('out of memory')
    fails[0]!('out of memory')
    await hanging
    expect(await client.double(1)).toBe(2)
    fails[0]!('out of memory')
    expect(await client.double(1)).toBe(2)
    expect([ended, begun()]).toEqual([[1], 2])
  })
})
