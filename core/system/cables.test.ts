import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import { goodJob, link, straightJob, withMeasured, withValues, type Values } from '#core/testing'
import { cableAmpacityA, feedsFarEnd, flowsA, fuseFrom, fuseUpTo, sizeForOhm, sizeToCarry } from './cables'
import { factsOf, usualSystem, type System } from './system'

const withCable = (values: Values, of: string, job: JobDocument = goodJob()): System =>
  usualSystem(factsOf(withMeasured(job, 'conductors', { lengthM: 3, areaMm2: 16, ...values }, { of }), {}))
const cableOf = (system: System) => system.many.conductors[0]!
const carried = (values: Values): number => cableAmpacityA(cableOf(withCable(values, 'chargers/charger-1')))

describe('a cable carries', () => {
  it('the table’s value for its size and insulation, in free air at 30 °C', () => {
    expect(carried({ insulationC: '70' })).toBe(90)
    expect(carried({ insulationC: '105' })).toBe(130)
    expect(carried({ insulationC: '105', areaMm2: 50 })).toBe(270)
  })
  it('less in an engine space, in a bundle, of aluminium, and in warm air', () => {
    expect(carried({ insulationC: '105', engineSpace: 'yes' })).toBeCloseTo(130 * 0.85, 9)
    expect(carried({ insulationC: '105', bundled: 3 })).toBeCloseTo(130 * 0.7, 9)
    expect(carried({ insulationC: '105', material: 'aluminium' })).toBeCloseTo(130 * 0.78, 9)
    expect(carried({ insulationC: '105', airC: 50 })).toBeCloseTo(130 * Math.sqrt(55 / 75), 9)
  })
  it('less from an alternator, which stands in the engine space, unless someone followed it', () => {
    const [from, to] = [{ fromPost: 'alternator' }, { toPost: 'alternator' }]
    for (const end of [from, to])
      expect(carried({ insulationC: '105', engineSpace: null, ...end })).toBeCloseTo(130 * 0.85, 9)
    expect(carried({ insulationC: '105', ...from, engineSpace: 'no' })).toBe(130)
  })
})

describe('the smallest size', () => {
  const cable = (values: Values) => cableOf(withCable(values, 'chargers/charger-1'))
  it('that carries a current where a cable lies', () => {
    expect(sizeToCarry(cable({ insulationC: '70' }), 90)).toBe(16)
    expect(sizeToCarry(cable({ insulationC: '70' }), 91)).toBe(25)
    expect(sizeToCarry(cable({ insulationC: '70', bundled: 3 }), 90)).toBe(35)
    expect(sizeToCarry(cable({ insulationC: '70' }), 5000)).toBeNull()
  })
  it('that gives way by no more, there and back', () => {
    // 2 × 3 m of 16 mm² at 1.15 mΩ/m are 6.9 mΩ at 20 °C.
    expect(sizeForOhm(cable({}), 0.0069, 20)).toBe(16)
    expect(sizeForOhm(cable({}), 0.0068, 20)).toBe(25)
    // Warm copper gives way by more: 0.393 % a kelvin.
    expect(sizeForOhm(cable({}), 0.0069, 50)).toBe(25)
    expect(sizeForOhm(cable({}), 1e-9, 20)).toBeNull()
  })
  it('of a fuse up to and from a current', () => {
    expect([fuseUpTo(99), fuseFrom(99)]).toEqual([80, 100])
    expect([fuseUpTo(100), fuseFrom(100)]).toEqual([100, 100])
    expect([fuseUpTo(0.1), fuseFrom(1e6)]).toEqual([null, null])
  })
})

describe('in a cable flows', () => {
  const flows = (values: Values, of: string, job?: JobDocument): number | null => {
    const system = withCable(values, of, job)
    return flowsA(cableOf(system), system)
  }
  it('the output of its charger', () => {
    expect(flows({}, 'chargers/charger-1')).toBe(30)
  })
  it('on a DC-DC’s engine side its input, on the other its output, and the larger if nobody says which', () => {
    const output = flows({ fromPost: 'link', toPost: 'house' }, 'links/link-1')!
    const input = flows({ fromPost: 'starting', toPost: 'link' }, 'links/link-1')!
    expect(output).toBe(30)
    // 30 A at up to 14.4 V from a starting battery of some 13 V, less what is lost.
    expect(input).toBeGreaterThan(30)
    expect(input).toBeLessThan(45)
    expect(flows({}, 'links/link-1')).toBe(input)
  })
  it('nothing that tells, where it serves a part that is not there', () => {
    expect(flows({}, 'solar/array-9')).toBeNull()
  })
})

describe('a fault in a cable is fed from its far end', () => {
  const fed = (values: Values, of: string, job?: JobDocument): string | null => {
    const system = withCable(values, of, job)
    return feedsFarEnd(cableOf(system), system)
  }
  it('by a starting battery behind a relay, and on the engine’s side of a DC-DC', () => {
    expect(fed({}, 'links/link-1', straightJob({ kind: 'vsr' }))).toBe('the starting battery')
    expect(fed({ fromPost: 'starting' }, 'links/link-1', link({}))).toBe('the starting battery')
  })
  it('by nothing that a cable carries anyway: a DC-DC’s output, a charger', () => {
    expect(fed({ fromPost: 'link', toPost: 'house' }, 'links/link-1', link({}))).toBeNull()
    expect(fed({}, 'chargers/charger-1')).toBeNull()
    expect(fed({ areaMm2: 1.5 }, 'chargers/charger-1')).toBe('the charger')
  })
  it('by an alternator straight on the bank if the cable does not carry its output', () => {
    const direct = withValues(straightJob({ kind: 'direct' }), {
      'startingBatteries/starting-1/present': 'no',
    })
    expect(fed({ areaMm2: 10 }, 'links/link-1', direct)).toBe('the alternator')
    expect(fed({ areaMm2: 120 }, 'links/link-1', direct)).toBeNull()
  })
})
