import { describe, expect, it } from 'vitest'
import { metric } from '#core/units/display'
import { parseQuantity } from '#core/units/parse'
import { spellings, type Unit } from '#core/units/units'
import { signTurned, unitKeys, withUnit } from './unit-keys'

const imperial = { system: 'imperial', currency: '$' } as const

describe('unit keys', () => {
  it('every one is read behind a number', () => {
    for (const unit of Object.keys(spellings) as Unit[])
      for (const key of unitKeys(unit, metric))
        expect({ unit, key, ...parseQuantity(withUnit('2', key), unit, metric) }).toMatchObject({ ok: true })
  })
  it('leave out the unit the shop writes anyway', () => {
    expect(unitKeys('m', metric)).toEqual(['cm', 'ft', 'in'])
    expect(unitKeys('m', imperial)).toEqual(['m', 'cm', 'in'])
    expect(unitKeys('%', metric)).toEqual([])
  })
  it('take the place of a unit that stands there', () => {
    expect(withUnit('12', 'ft')).toBe('12 ft')
    expect(withUnit('12 m', 'ft')).toBe('12 ft')
    expect(withUnit('2', '/0')).toBe('2/0')
    expect(withUnit('2/0', 'AWG')).toBe('2 AWG')
    expect(withUnit('14,4 V', 'mV')).toBe('14,4 mV')
  })
  it('and the sign turns and turns back', () => {
    expect(signTurned('5')).toBe('−5')
    expect(signTurned('−5')).toBe('5')
    expect(signTurned('- 5')).toBe('5')
    expect(parseQuantity(signTurned('5'), '°C', metric)).toEqual({ ok: true, value: -5 })
  })
})
