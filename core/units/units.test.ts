import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { formatQuantity, formatShare, inSentence, writerIn } from './format'
import { metric } from './display'
import { parseNumber, parseQuantity } from './parse'
import { spellings, type Unit } from './units'

const read = (text: string, unit: Unit): number | string => {
  const parsed = parseQuantity(text, unit)
  return parsed.ok ? parsed.value : parsed.error
}

describe('quantities as people write them', () => {
  it.each([
    ['14.4', 'V', 14.4],
    ['14,4 V', 'V', 14.4],
    ['14,4V', 'V', 14.4],
    ['700 mV', 'V', 0.7],
    ['10 AWG', 'mm²', 5.26],
    ['AWG 10', 'mm²', 5.26],
    ['2/0', 'mm²', 67.4],
    ['2/0 awg', 'mm²', 67.4],
    ['6mm2', 'mm²', 6],
    ['6 mm²', 'mm²', 6],
    ['2x16', 'mm²', 32],
    ['2 × 16 mm²', 'mm²', 32],
    ['50 ft', 'm', 15.24],
    ["50'", 'm', 15.24],
    ['-4 F', '°C', -20],
    ['−18 °C', '°C', -18],
    ['−18', '°C', -18],
    ['1.2kW', 'W', 1200],
    ['90 min', 'h', 1.5],
    ['1,200', 'rpm', 1200],
    ['1.200,5', 'W', 1200.5],
    ['1,200.5', 'W', 1200.5],
    ['0,125', 'mΩ', 0.125],
    ['2.4:1', '×', 2.4],
    ['1e3', 'W', 1000],
    ['18 months', 'years', 1.5],
  ] as const)('reads %s as %s', (text, unit, value) => {
    expect(read(text, unit)).toBeCloseTo(value, 9)
  })

  it.each([
    ['', 'V'],
    ['14.4.4', 'V'],
    ['1e999', 'V'],
    ['14 A', 'V'],
    ['NaN', 'V'],
    ['Infinity', 'V'],
    ['11 AWG', 'mm²'],
    ['5 V', ''],
    ['<b>14</b>', 'V'],
    ['0__proto__', 'V'],
    ['1 constructor', 'm'],
    ['9'.repeat(60), 'V'],
  ] as const)('refuses %j for %s with words', (text, unit) => {
    expect(read(text, unit)).toMatch(/\w+/)
    expect(parseQuantity(text, unit).ok).toBe(false)
  })

  it('never gives a number that is not finite', () => {
    const units = Object.keys(spellings) as Unit[]
    fc.assert(
      fc.property(fc.string(), fc.constantFrom(...units), (text, unit) => {
        const parsed = parseQuantity(text, unit)
        return !parsed.ok || Number.isFinite(parsed.value)
      }),
      { numRuns: 2000 },
    )
  })

  it('takes a lone comma as decimal unless it can only be thousands', () => {
    expect(parseNumber('14,400')).toBe(14400)
    expect(parseNumber('0,400')).toBe(0.4)
    expect(parseNumber('14,40')).toBe(14.4)
  })
})

describe('help instead of refusal', () => {
  it('takes a value that is said to be about right', () => {
    for (const text of ['ca. 80', 'about 80 A', '~80', 'approx. 80 A'])
      expect(parseQuantity(text, 'A')).toEqual({ ok: true, value: 80 })
    expect(parseQuantity('100 Wp', 'W')).toEqual({ ok: true, value: 100 })
  })
  it.each([
    ['80-90', 'A', 'is a range'],
    ['80 to 90 A', 'A', 'is a range'],
    ['2 × 100', 'Ah', 'the count in its own field'],
    ['1.2 kWh', 'Ah', '94 Ah at 12 V'],
  ] as const)('says what to enter instead of %s', (text, unit, words) => {
    const read = parseQuantity(text, unit)
    expect(read.ok ? '' : read.error).toContain(words)
  })
})

describe('quantities as they are shown', () => {
  it('keep the entered digits on request', () => {
    expect(formatQuantity(80.5, 'A', metric)).toBe('81 A')
    expect(formatQuantity(80.5, 'A', metric, true)).toBe('80.5 A')
    expect(formatQuantity(14, 'V', metric, true)).toBe('14.0 V')
    expect(formatQuantity(1234, 'A', metric, true)).toBe('1234 A')
  })

  it.each([
    [14.4, 'V', '14.4 V'],
    [14, 'V', '14.0 V'],
    [13.754, 'V', '13.75 V'],
    [4.26, 'A', '4.3 A'],
    [76.4, 'A', '76 A'],
    [-18, '°C', '−18 °C'],
    [-0.0001, 'A', '0 A'],
    [0.03, 'A', '0.03 A'],
    [0.095, 'A', '0.095 A'],
    [0.25, 'h', '0.25 h'],
    [0.35, 'm', '0.35 m'],
    [54.5, 'A', '55 A'],
    [1200, 'W', '1200 W'],
    [2, '', '2'],
    [NaN, 'V', '–'],
  ] as const)('%d %s is %s', (value, unit, shown) => {
    expect(formatQuantity(value, unit, metric)).toBe(shown)
  })

  it.each([
    ['Rated current', 'rated current'],
    ['DC-DC output', 'DC-DC output'],
    ['BMS cuts charging at', 'BMS cuts charging at'],
  ])('%s inside a sentence is %s', (label, inside) => expect(inSentence(label)).toBe(inside))

  it('writes shares in per cent', () => expect(formatShare(0.856)).toBe('86 %'))

  it('reads its own words back, to the digits shown', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -500, max: 500, noNaN: true }),
        fc.constantFrom<Unit>('V', 'A', 'Ah', '°C', 'h', 'm'),
        (value, unit) => {
          const shown = parseQuantity(formatQuantity(value, unit, metric), unit)
          return shown.ok && Math.abs(shown.value - value) <= 0.51
        },
      ),
    )
  })
})

describe('in an imperial shop', () => {
  const imperial = { system: 'imperial', currency: '$' } as const
  const q = writerIn(imperial)

  it('quantities are shown in feet, inches, pounds, °F and wire gauges', () => {
    expect([
      q(15.24, 'm'),
      q(254, 'mm'),
      q(10, 'kg'),
      q(-18, '°C'),
      q(10, 'Δ°C'),
      q(5.26, 'mm²'),
      q(16, 'mm²'),
      q(1200, 'money'),
    ]).toEqual(['50 ft', '10 in', '22 lb', '−0.4 °F', '18 °F', '10 AWG', '16 mm²', '1200 $'])
    expect(formatQuantity(15.24, 'm', metric)).toBe('15.2 m')
  })

  it('a number alone is read in the shop’s unit, one with its unit as written', () => {
    const read = ([text, unit]: readonly [string, Unit]) => parseQuantity(text, unit, imperial)
    expect(
      (
        [
          ['50', 'm'],
          ['15 m', 'm'],
          ['10', 'mm²'],
          ['16 mm2', 'mm²'],
          ['32', '°C'],
          ['12 $', 'money'],
        ] as const
      ).map(read),
    ).toEqual([15.24, 15, 5.26, 16, 0, 12].map((value) => ({ ok: true, value })))
  })

  it('a shown value reads back as the same value, to the printed digits', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('m', 'mm', 'kg', '°C' as const),
        fc.double({ min: 0.5, max: 900, noNaN: true }),
        (unit, value) => {
          const back = parseQuantity(q(value, unit as 'm'), unit as 'm', imperial)
          return back.ok && Math.abs(back.value - value) <= 0.13
        },
      ),
    )
  })

  it('counts one of a kind', () => expect(q(1, 'days')).toBe('1 day'))
})
