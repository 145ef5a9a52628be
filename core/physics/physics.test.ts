import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { hotOutputA, hotOutputAtRatedSpeedA } from './alternator'
import { ampacityA, copperOhmPerM, loopOhm } from './conductors'
import { openCircuitV, socAfterCharge, socAtOpenCircuitV, typicalPackOhm, type ConstantVoltageCharge } from './lfp'

const soc = fc.double({ min: 0, max: 1, noNaN: true })

describe('LFP open-circuit voltage', () => {
  it.each([[0, 10], [0.2, 12.94], [0.5, 13.16], [0.99, 13.5], [1, 13.8]])('at %d of charge a 12 V pack rests at %d V', (s, v) => {
    expect(openCircuitV(s, 12)).toBeCloseTo(v, 6)
    expect(openCircuitV(s, 24)).toBeCloseTo(2 * v, 6)
  })

  it('rises with state of charge, and its inverse gives the charge back', () => {
    fc.assert(fc.property(soc, soc, (a, b) => a >= b || openCircuitV(a, 12) <= openCircuitV(b, 12)))
    fc.assert(fc.property(soc, (s) => Math.abs(socAtOpenCircuitV(openCircuitV(s, 12), 12) - s) < 1e-6))
  })

  it('keeps to the ends of the curve outside it', () => {
    expect(socAtOpenCircuitV(9, 12)).toBe(0)
    expect(socAtOpenCircuitV(15, 12)).toBe(1)
    expect(openCircuitV(-1, 12)).toBe(10)
    expect(openCircuitV(2, 12)).toBeCloseTo(13.8)
  })
})

describe('charge reached at a held voltage', () => {
  const charge: ConstantVoltageCharge = { volts: 14.4, limitA: 30, holdH: 2, fromSoc: 0.2, ah: 200, nominalV: 12, ohm: typicalPackOhm(200, 12) }

  it('is full at 14.4 V', () => expect(socAfterCharge(charge)).toBe(1))

  it('does not pass the charge at which the pack rests at that voltage', () => {
    expect(socAfterCharge({ ...charge, volts: 13.3, holdH: 1000 })).toBeCloseTo(socAtOpenCircuitV(13.3, 12), 3)
  })

  it('agrees with small steps in time', () => {
    fc.assert(fc.property(fc.double({ min: 13, max: 14, noNaN: true }), fc.double({ min: 0.1, max: 8, noNaN: true }), fc.double({ min: 5, max: 80, noNaN: true }), (volts, holdH, limitA) => {
      const c = { ...charge, volts, holdH, limitA }
      let s = Math.max(c.fromSoc, socAtOpenCircuitV(volts - limitA * c.ohm, 12))
      const steps = 20000
      for (let i = 0; i < steps && s < 1; i++) s += (Math.max(0, volts - openCircuitV(s, 12)) / c.ohm / c.ah) * (holdH / steps)
      return Math.abs(Math.min(1, s) - socAfterCharge(c)) < 0.005
    }), { numRuns: 40 })
  })

  it('never falls with more hold time and stays within 0 to 1', () => {
    fc.assert(fc.property(fc.double({ min: 12, max: 15, noNaN: true }), fc.double({ min: 0, max: 9, noNaN: true }), soc, (volts, holdH, fromSoc) => {
      const short = socAfterCharge({ ...charge, volts, holdH, fromSoc })
      const long = socAfterCharge({ ...charge, volts, holdH: holdH + 1, fromSoc })
      return short >= 0 && long <= 1 && long >= short - 1e-12 && short >= fromSoc
    }))
  })
})

describe('alternator output', () => {
  it('is nothing below its cut-in speed and its hot share near rated speed', () => {
    expect(hotOutputA(100, 900, 0.85)).toBe(0)
    expect(hotOutputA(100, 1800, 0.85)).toBeCloseTo(85 * (1 - Math.exp(-800 / 1500)))
    expect(hotOutputAtRatedSpeedA(100, 0.85)).toBeGreaterThan(81)
    expect(hotOutputAtRatedSpeedA(100, 0.85)).toBeLessThan(85)
  })
})

describe('conductors', () => {
  it('give the table exactly at its sizes, and lie between at others', () => {
    expect(copperOhmPerM(16)).toBeCloseTo(0.00115, 9)
    expect(ampacityA(16, 105)).toBeCloseTo(130, 6)
    expect(ampacityA(16, 100)).toBeCloseTo(100, 6)
    expect(copperOhmPerM(13.3)).toBeGreaterThan(0.00115)
    expect(copperOhmPerM(13.3)).toBeLessThan(0.00183)
    expect(copperOhmPerM(185)).toBeLessThan(0.000124)
    expect(copperOhmPerM(0.5)).toBeGreaterThan(0.0245)
  })

  it('a run returns by cable with the same again, by chassis with its allowance', () => {
    expect(loopOhm({ lengthM: 5, areaMm2: 16, returnBy: 'cable' })).toBeCloseTo(0.0115)
    expect(loopOhm({ lengthM: 5, areaMm2: 16, returnBy: 'chassis' })).toBeCloseTo(0.00575 + 0.002)
  })
})
