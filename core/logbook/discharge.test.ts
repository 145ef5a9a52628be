import { describe, expect, it } from 'vitest'
import {
  capacityOf,
  countDischarge,
  predictedDischarge,
  standInDischarge,
  usualFloorV,
  type DischargeTest,
} from './discharge'
import { crankOf, standInCrank, weakCrankV } from './crank'

const lithium: DischargeTest = {
  chemistry: 'lfp',
  ratedAh: 200,
  nominalV: 12,
  amps: 40,
  celsius: 25,
  floorV: usualFloorV('lfp', 12),
}
const lead: DischargeTest = {
  ...lithium,
  chemistry: 'lead',
  ratedAh: 220,
  amps: 11,
  floorV: usualFloorV('lead', 12),
}

describe('a capacity test', () => {
  it('predicts about five hours of lithium at a fifth of its capacity, and the 20 h rate of lead-acid', () => {
    const [l, p] = [predictedDischarge(lithium), predictedDischarge(lead)]
    expect(l.at(-1)!.t / 3600).toBeGreaterThan(4.7)
    expect(l.at(-1)!.t / 3600).toBeLessThanOrEqual(5)
    expect(p.at(-1)!.t / 3600).toBeGreaterThan(19)
    expect(p.at(-1)!.t / 3600).toBeLessThanOrEqual(20.2)
    expect(l.every(({ volts }, i) => i === 0 || volts <= l[i - 1]!.volts)).toBe(true)
  })

  it('counts the charge to the floor, whichever way the shunt is wired, and no further', () => {
    const readings = [0, 3600, 7200, 7201, 9000].map((t) => ({ t, amps: -10, volts: t < 7200 ? 12.8 : 11 }))
    const counted = countDischarge(readings, 11.2)
    expect(counted).toMatchObject({ isAtFloor: true, seconds: 7201 })
    expect(counted.ah).toBeCloseTo(20, 2)
    expect(
      countDischarge(
        readings.map((one) => ({ ...one, amps: 10 })),
        11.2,
      ).ah,
    ).toBeCloseTo(20, 2)
    // One low reading alone ends nothing.
    const dip = readings.map((one) => ({ ...one, volts: one.t === 3600 ? 5 : 12.8 }))
    expect(countDischarge(dip, 11.2).isAtFloor).toBe(false)
    expect(capacityOf(lithium, countDischarge([], 11.2))).toBeNull()
  })

  it('gives the label’s capacity back: warm lithium, cold lithium, and lead-acid at a heavy load', () => {
    for (const test of [lithium, { ...lithium, celsius: 0 }, { ...lead, amps: 44 }]) {
      const readings = predictedDischarge(test, 0.8).map(({ t, volts }) => ({ t, amps: -test.amps, volts }))
      const { ah, isLeast } = capacityOf(test, countDischarge(readings, -100))!
      expect(isLeast).toBe(true)
      // What is below the floor is not drawn: a few per cent.
      expect(ah / (0.8 * test.ratedAh)).toBeGreaterThan(0.9)
      expect(ah / (0.8 * test.ratedAh)).toBeLessThan(1.005)
    }
  })

  it('finds the hidden capacity of stand-ins within its tolerance', () => {
    for (let seed = 1; seed <= 40; seed++) {
      const readings = standInDischarge(lithium, seed)
      const { ah, tolerance, isLeast } = capacityOf(lithium, countDischarge(readings, lithium.floorV))!
      const whole = (readings.at(-1)!.t * lithium.amps) / 3600
      expect(isLeast).toBe(false)
      expect(Math.abs(ah - whole)).toBeLessThan(tolerance)
      expect(ah).toBeGreaterThan(0.55 * 200)
      expect(ah).toBeLessThan(1.05 * 200)
    }
  })
})

describe('a cranking test', () => {
  it('reads rest, dip and resistance of a start', () => {
    const at = (t: number, amps: number, volts: number) => ({ t, amps: -amps, volts })
    const readings = [
      ...[0, 0.2, 0.4].map((t) => at(t, 2, 12.6)),
      at(0.5, 600, 8.4),
      ...[0.7, 0.9, 1.1, 1.3].map((t) => at(t, 200, 11.2)),
    ]
    expect(crankOf(readings)).toEqual({
      restV: 12.6,
      lowestV: 8.4,
      amps: 200,
      volts: 11.2,
      milliohm: expect.closeTo(7, 9) as number,
    })
  })

  it('finds no start where the current stays small, or nothing was recorded before', () => {
    expect(crankOf([])).toBeNull()
    expect(crankOf([0, 1, 2].map((t) => ({ t, amps: -20, volts: 12.5 })))).toBeNull()
    expect(crankOf([0, 1, 2].map((t) => ({ t, amps: -200, volts: 11 })))).toBeNull()
  })

  it('gives a plausible resistance for every stand-in, at 12 and 24 V', () => {
    for (let seed = 1; seed <= 30; seed++)
      for (const nominalV of [12, 24]) {
        const { milliohm } = crankOf(standInCrank(nominalV, seed))!
        expect(milliohm / (nominalV / 12)).toBeGreaterThan(3.5)
        expect(milliohm / (nominalV / 12)).toBeLessThan(10.5)
      }
    expect(weakCrankV(24)).toBeCloseTo(19.2)
  })
})
