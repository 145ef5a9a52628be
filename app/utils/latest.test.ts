import { describe, expect, it } from 'vitest'
import { latest } from './latest'

const after = <T>(ms: number, value: T): Promise<T> =>
  new Promise((resolve) => setTimeout(() => resolve(value), ms))

describe('the newest of several questions', () => {
  it('is answered, and one that was overtaken is not, however late its answer comes', async () => {
    const newest = latest()
    const answers = await Promise.all([newest(after(20, 'first')), newest(after(1, 'second'))])
    expect(answers).toEqual([undefined, 'second'])
  })
  it('is each in turn where they do not overlap, and a failure is passed on', async () => {
    const newest = latest()
    expect(await newest(after(0, 1))).toBe(1)
    expect(await newest(after(0, 2))).toBe(2)
    await expect(newest(Promise.reject(new Error('no')))).rejects.toThrow('no')
  })
})
