import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import type { RuleOverrides } from '#core/rules/rules'
import { parallelFor } from '#core/system/energy'
import type { AlternatorLane } from '#core/system/lanes'
import { startingV } from '#core/system/starting'
import { factsOf, usualSystem, type System } from '#core/system/system'
import { alternator, charger, goodJob, link, straightJob, withMeasured, withValues } from '#core/testing'
import { holdBack, limitCurrent, oneHeldBack, smallerDcdc, voltageRemedies } from './arrangements'
import { warmerPlace } from './warmer-place'

const systemOf = (job: JobDocument, rules: RuleOverrides = {}): System => usualSystem(factsOf(job, { rules }))
const alternatorOf = (system: System): AlternatorLane =>
  system.lanes.find((lane): lane is AlternatorLane => lane.kind === 'alternator')!
const chargerOf = (system: System) => system.many.chargers[0]!

describe('a unit that may give no more than a current', () => {
  const ways = (job: JobDocument, mostA: number) => {
    const system = systemOf(job)
    return limitCurrent(chargerOf(system), system.bank, mostA).map(({ id, value }) => [id, value])
  }
  it('is held to it where it can be set, or replaced by the largest that is made under it', () =>
    expect(ways(charger({ currentLimit: 'adjustable' }), 17.6)).toEqual([
      ['charger.limit-current', 17],
      ['charger.replace', 15],
    ]))
  it('is replaced where it cannot be set: by one for a motorcycle, too', () =>
    expect(ways(goodJob(), 2.4)).toEqual([['charger.replace', 2]]))
  it('asks for another battery where none is made so small', () =>
    expect(ways(goodJob(), 0.6)).toEqual([['battery.other', undefined]]))
  it('has no smaller DC-DC than is made', () => {
    const system = systemOf(link({}))
    const { link: unit } = alternatorOf(system)
    expect(limitCurrent(unit, system.bank, 3)).toEqual([{ id: 'battery.other', on: 'candidate' }])
  })
})

describe('voltages that are wrong', () => {
  const ways = (profile: string) => {
    const system = systemOf(charger({ profile }))
    const unit = chargerOf(system)
    const set = { id: 'charger.set-absorption', on: unit.$path, value: 14.4 } as const
    return voltageRemedies(unit, system.bank, set).map(({ id }) => id)
  }
  it.each([
    ['adjustable', ['charger.set-absorption', 'charger.replace']],
    ['selectable', ['charger.use-lithium-profile', 'charger.replace']],
    ['fixed', ['charger.replace']],
    ['automatic', ['charger.replace']],
  ])('of a unit whose profile is %s', (profile, ids) => expect(ways(profile)).toEqual(ids))
})

describe('an alternator that is held back', () => {
  const ways = (job: JobDocument, rules: RuleOverrides = {}, mostA?: number): string[] => {
    const system = systemOf(job, rules)
    return holdBack(alternatorOf(system), system, mostA).map(({ id }) => id)
  }
  const solenoid = straightJob({ kind: 'solenoid' })
  const lone = withValues(solenoid, { 'startingBatteries/starting-1/present': 'no' })

  it('is so by the way of the shop first, then by the others', () => {
    expect(ways(solenoid)[0]).toBe('dcdc.add')
    expect(ways(solenoid, { alternatorSchool: 'duty' })[0]).toBe('link.duty')
    expect(ways(solenoid)).toEqual(['dcdc.add', 'link.duty', 'alternator.limit-current'])
  })
  it('by a deliberate cable only where the voltage still comes into the window', () => {
    const wide = alternator(withValues(solenoid, { 'candidate/chargeLowV': 14 }), { regulatorV: 14.4 })
    expect(ways(wide)).toContain('link.cable')
    expect(ways(solenoid)).not.toContain('link.cable')
  })
  it('by no relay that would leave it alone each time it opens', () => {
    expect(ways(lone, { alternatorSchool: 'duty' })).not.toContain('link.duty')
    expect(ways(lone, { alternatorSchool: 'duty' })[0]).toBe('dcdc.add')
  })
  it('by no DC-DC that gives more than the battery may take', () =>
    expect(ways(solenoid, {}, 3)).not.toContain('dcdc.add'))
  it('by a DC-DC alone where a computer controls it, and by none where that is too large', () => {
    const computer = alternator(solenoid, { regulator: 'computer', lowestV: 12.4, highestV: 15 })
    expect(ways(computer)).toEqual(['dcdc.add'])
    expect(ways(computer, {}, 3)).toEqual(['battery.other'])
  })
  it('has nothing for a DC-DC, however small, where it has nothing to give', () => {
    const idle = systemOf(alternator(link({}), { ratedA: 30, vehicleDrawA: 25 }))
    expect(smallerDcdc(alternatorOf(idle), idle)).toBeNull()
    const some = systemOf(alternator(link({}), { ratedA: 60 }))
    expect(smallerDcdc(alternatorOf(some), some)).toMatchObject({ id: 'charger.replace' })
  })
})

describe('one of several sources that is held back', () => {
  it('limits the largest first, by the excess of the total', () => {
    const job = withValues(link({ currentLimit: 'adjustable', ratedA: 40 }), {
      'chargers/charger-1/currentLimit': 'adjustable',
    })
    const system = systemOf(job)
    const giving = system.lanes.map((lane) => ({ lane, amps: lane.kind === 'charger' ? 30 : 40 }))
    expect(oneHeldBack(giving, 60, system).map(({ on, value }) => [on, value])).toEqual([
      ['links/link-1', 30],
      ['chargers/charger-1', 20],
    ])
  })
})

describe('batteries side by side', () => {
  it('are as many as the need requires, with the lead-acid that stays', () => {
    const alone = systemOf(goodJob())
    expect(parallelFor(161, alone, 25)).toBe(2)
    expect(parallelFor(160, alone, 25)).toBe(1)
    const beside = systemOf(withValues(goodJob(), { 'use/mixed': 'hybrid' }))
    expect(parallelFor(200, beside, 25)).toBe(1)
    expect(parallelFor(161, alone, -20)).toBe(2)
  })
})

describe('a starting battery', () => {
  it('is of the voltage on its label, else of its alternator’s, else of the bank’s', () => {
    const volts = (job: JobDocument): number => {
      const system = systemOf(job)
      return startingV(system.many.startingBatteries[0]!, system)
    }
    const boat = withValues(goodJob(), { 'houseBank/nominalV': '24', 'candidate/nominalV': '24' })
    expect(volts(boat)).toBe(12)
    expect(volts(withValues(boat, { 'startingBatteries/starting-1/nominalV': '24' }))).toBe(24)
    expect(volts(withValues(boat, { 'alternators/alternator-1/nominalV': null }))).toBe(24)
    expect(volts(withMeasured(boat, 'alternators', { nominalV: '24' }))).toBe(12)
  })
})

describe('a warmer place', () => {
  const placed = (job: JobDocument, craft: JobDocument['job']['craft']): JobDocument => ({
    ...job,
    job: { ...job.job, craft },
  })
  const cold = withValues(goodJob(), { 'place/coldestC': -12 })

  it('is offered up to 20 K above the one that is there', () => {
    expect(warmerPlace(5, systemOf(cold))).toHaveLength(1)
    expect(warmerPlace(10, systemOf(cold))).toEqual([])
  })
  it('is not offered on an open trailer or a motorcycle', () => {
    for (const craft of ['trailer', 'motorcycle'] as const)
      expect(warmerPlace(0, systemOf(placed(cold, craft)))).toEqual([])
  })
})
