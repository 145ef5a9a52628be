import { evenly } from '#core/testing'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { hotOutputA, hotOutputAtRatedSpeedA, warmLossV } from './alternator'
import { ampacityA, ampacityThereA, copperOhmPerM, loopOhm } from './conductors'
import { deratedShare } from './dcdc'
import { fuseInterruptA } from './fuses'
import { c20OverC10, copettiCapacity, leadCapacityAh } from './lead'
import {
  openCircuitV,
  socAfterCharge,
  socAtOpenCircuitV,
  temperatureFactor,
  typicalPackOhm,
  type ConstantVoltageCharge,
} from './lfp'
import { placeInside } from './packing'
import { currentShares, worstShare } from './sharing'

const soc = evenly(0, 1)

describe('LFP open-circuit voltage', () => {
  it.each([
    [0, 10],
    [0.2, 12.94],
    [0.5, 13.16],
    [0.99, 13.5],
    [1, 13.8],
  ])('at %d of charge a 12 V pack rests at %d V', (s, v) => {
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
  const charge: ConstantVoltageCharge = {
    volts: 14.4,
    limitA: 30,
    holdH: 2,
    fromSoc: 0.2,
    ah: 200,
    nominalV: 12,
    ohm: typicalPackOhm(200, 12),
  }

  it('is full at 14.4 V', () => expect(socAfterCharge(charge)).toBe(1))

  it('does not pass the charge at which the pack rests at that voltage', () => {
    expect(socAfterCharge({ ...charge, volts: 13.3, holdH: 1000 })).toBeCloseTo(
      socAtOpenCircuitV(13.3, 12),
      3,
    )
  })

  it('agrees with small steps in time', () => {
    fc.assert(
      fc.property(evenly(13, 14), evenly(0.1, 8), evenly(5, 80), (volts, holdH, limitA) => {
        const c = { ...charge, volts, holdH, limitA }
        let s = Math.max(c.fromSoc, socAtOpenCircuitV(volts - limitA * c.ohm, 12))
        const steps = 20000
        for (let i = 0; i < steps && s < 1; i++)
          s += (Math.max(0, volts - openCircuitV(s, 12)) / c.ohm / c.ah) * (holdH / steps)
        return Math.abs(Math.min(1, s) - socAfterCharge(c)) < 0.005
      }),
      { numRuns: 40 },
    )
  })

  it('never falls with more hold time and stays within 0 to 1', () => {
    fc.assert(
      fc.property(evenly(12, 15), evenly(0, 9), soc, (volts, holdH, fromSoc) => {
        const short = socAfterCharge({ ...charge, volts, holdH, fromSoc })
        const long = socAfterCharge({ ...charge, volts, holdH: holdH + 1, fromSoc })
        return short >= 0 && long <= 1 && long >= short - 1e-12 && short >= fromSoc
      }),
    )
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

describe('capacity', () => {
  it('of LFP follows the temperature table, with straight lines between', () => {
    expect([-30, -20, -15, 0, 5, 25, 40].map(temperatureFactor)).toEqual([0.6, 0.6, 0.675, 0.88, 0.915, 1, 1])
  })
  it('of lead follows Copetti: 1.67 ÷ 1.67 at the 10 h current, more when slower, half a per cent a degree', () => {
    expect(copettiCapacity(1, 25)).toBeCloseTo(1, 9)
    expect(copettiCapacity(0, 25)).toBeCloseTo(1.67, 9)
    expect(copettiCapacity(1, 5)).toBeCloseTo(0.9, 9)
    expect(copettiCapacity(c20OverC10 / 2, 25)).toBeCloseTo(c20OverC10, 3)
    expect(leadCapacityAh(100, 5, 25)).toBeCloseTo(100, 1)
    expect(leadCapacityAh(100, 20, 25)).toBeLessThan(75)
  })
})

describe('parallel sharing', () => {
  const count = fc.integer({ min: 1, max: 12 })
  const ohm = evenly(0.001, 0.05)
  it('of two in a row with both leads at one end is the divider of their resistances', () => {
    const [near, far] = currentShares(2, 0.01, 0.001, 'ladder')
    expect(near! / far!).toBeCloseTo(0.012 / 0.01, 9)
  })
  it('of two on the diagonal is even, as on a bus bar', () => {
    expect(currentShares(2, 0.01, 0.001, 'diagonal')).toEqual([0.5, 0.5])
    expect(currentShares(5, 0.01, 0.001, 'busbar')).toEqual([0.2, 0.2, 0.2, 0.2, 0.2])
  })
  it('sums to one, falls along a ladder, and is mirrored on a diagonal', () => {
    fc.assert(
      fc.property(count, ohm, ohm, (n, r, link) => {
        const [ladder, diagonal] = [
          currentShares(n, r, link, 'ladder'),
          currentShares(n, r, link, 'diagonal'),
        ]
        const sum = (shares: number[]) => shares.reduce((a, b) => a + b, 0)
        return (
          Math.abs(sum(ladder) - 1) < 1e-9 &&
          Math.abs(sum(diagonal) - 1) < 1e-9 &&
          ladder.every((s, i) => i === 0 || s <= ladder[i - 1]! + 1e-12) &&
          diagonal.every((s, i) => Math.abs(s - diagonal[n - 1 - i]!) < 1e-9) &&
          worstShare(n, r, link, 'diagonal') >= worstShare(n, r, link, 'ladder') - 1e-9
        )
      }),
    )
  })
})

describe('placing batteries', () => {
  it('turns them where that alone fits, and mixes rows and turned ones', () => {
    expect(placeInside({ widthMm: 300, depthMm: 600 }, { widthMm: 520, depthMm: 240 }, 1, 10)).toEqual([
      { xMm: 10, yMm: 10, widthMm: 240, depthMm: 520, turned: true },
    ])
    const mixed = placeInside({ widthMm: 560, depthMm: 350 }, { widthMm: 330, depthMm: 150 }, 3, 10)
    expect(mixed?.filter((p) => p.turned)).toHaveLength(1)
    expect(placeInside({ widthMm: 500, depthMm: 240 }, { widthMm: 520, depthMm: 240 }, 1, 0)).toBeNull()
  })
  it('never lets two overlap or touch a wall', () => {
    const mm = fc.integer({ min: 100, max: 900 })
    fc.assert(
      fc.property(mm, mm, mm, mm, fc.integer({ min: 1, max: 6 }), (w, d, bw, bd, n) => {
        const placed = placeInside({ widthMm: w, depthMm: d }, { widthMm: bw, depthMm: bd }, n, 10) ?? []
        return placed.every(
          (p, i) =>
            p.xMm >= 10 &&
            p.yMm >= 10 &&
            p.xMm + p.widthMm <= w - 10 &&
            p.yMm + p.depthMm <= d - 10 &&
            placed.every(
              (o, k) =>
                k === i ||
                p.xMm + p.widthMm + 10 <= o.xMm ||
                o.xMm + o.widthMm + 10 <= p.xMm ||
                p.yMm + p.depthMm + 10 <= o.yMm ||
                o.yMm + o.depthMm + 10 <= p.yMm,
            ),
        )
      }),
    )
  })
})

describe('fuses and conductors where they lie', () => {
  it('interrupt their family’s current up to a voltage, and nothing above it', () => {
    expect([
      fuseInterruptA('terminal-block', 13.8),
      fuseInterruptA('terminal-block', 27.6),
      fuseInterruptA('blade', 48),
      fuseInterruptA('class-t', 55),
    ]).toEqual([10_000, 5000, 0, 20_000])
  })
  it('carry less in an engine space, in a bundle and of aluminium', () => {
    const open = { insulationC: 105, engineSpace: false, airC: 30, bundled: 1 }
    expect(ampacityThereA(16, open)).toBeCloseTo(130, 6)
    expect(ampacityThereA(16, { ...open, engineSpace: true })).toBeCloseTo(130 * 0.85, 6)
    expect(ampacityThereA(16, { ...open, airC: 60 })).toBeCloseTo(130 * Math.sqrt(45 / 75), 6)
    expect(ampacityThereA(16, { ...open, airC: 20 })).toBeCloseTo(130, 6)
    expect(ampacityThereA(16, { ...open, airC: 110 })).toBe(0)
    // An engine space is warm air already: what leaves less counts, not both.
    expect(ampacityThereA(16, { ...open, engineSpace: true, airC: 40 })).toBeCloseTo(130 * 0.85, 6)
    expect(ampacityThereA(16, { ...open, engineSpace: true, airC: 70 })).toBeCloseTo(
      130 * Math.sqrt(35 / 75),
      6,
    )
    expect(ampacityThereA(16, { ...open, bundled: 5 })).toBeCloseTo(78, 6)
    expect(ampacityThereA(16, { ...open, material: 'aluminium' })).toBeCloseTo(130 * 0.78, 6)
    expect(loopOhm({ lengthM: 5, areaMm2: 16, returnBy: 'cable', material: 'aluminium' })).toBeCloseTo(
      0.0115 * 1.64,
      6,
    )
  })
})

describe('engineering defaults for warm places', () => {
  it('lower a compensated regulator by 5 mV per degree above 25 °C, twice that at 24 V', () => {
    expect([20, 25, 65].map((celsius) => warmLossV(celsius, 1))).toEqual([0, 0, 0.2])
    expect(warmLossV(65, 2)).toBeCloseTo(0.4, 9)
  })
  it('derate a DC-DC on a straight line from 40 °C to 60 % at 60 °C', () => {
    expect([25, 40, 60, 70].map(deratedShare)).toEqual([1, 1, 0.6, 0.6])
    expect(deratedShare(50)).toBeCloseTo(0.8, 9)
  })
})
