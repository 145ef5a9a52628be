import { describe, expect, it } from 'vitest'
import { elementAt, entryOf, fieldOf, firstOf, lastOf, present, withId } from './held'

describe('lookups', () => {
  it('return the entry', () => {
    expect([
      elementAt([4, 0], 1),
      firstOf([0, 4]),
      lastOf([4, 0]),
      elementAt(Float64Array.of(4, 0), 1),
    ]).toEqual([0, 0, 0, 0])
    expect(elementAt([null], 0)).toBeNull()
    expect(entryOf(new Map([['bar', 0]]), 'bar')).toBe(0)
    expect(fieldOf({ bar: '' }, 'bar')).toBe('')
    expect(withId([{ id: 'bar', volts: 12 }], 'bar').volts).toBe(12)
    expect([present(0), present('')]).toEqual([0, ''])
  })

  it('fail with the missing name, instead of returning nothing', () => {
    expect(() => elementAt([4], 1)).toThrow('No element 1 in a list of 1')
    expect(() => elementAt([4], -1)).toThrow('No element -1')
    expect(() => firstOf([])).toThrow(RangeError)
    expect(() => lastOf([])).toThrow(RangeError)
    expect(() => entryOf(new Map<string, number>(), 'bar')).toThrow('No entry bar')
    expect(() => fieldOf<string, number>({}, 'bar')).toThrow('No field bar')
    expect(() => withId([], 'bar')).toThrow('No bar in a list of 0')
    expect(() => present(null)).toThrow('Nothing is there')
    expect(() => present<string>(undefined)).toThrow(RangeError)
  })
})
