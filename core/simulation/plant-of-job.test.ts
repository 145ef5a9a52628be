import { runIds } from './run-kinds'
import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { emptyJob, withNewPart, type JobDocument } from '#core/job/document'
import { leadLeakA } from '#core/physics/lead'
import { assessed, withValues, under } from '#core/testing'
import { plantOf } from './plant-of-job'
import { inputsOfJob } from './inputs'
import type { LinkPlant } from './plant'
import { runNow } from './runs'
import { variantsOf } from '#core/compare/variants'

const folder = new URL('../../demo/jobs/', import.meta.url)
const jobs = Object.fromEntries(
  readdirSync(folder).map((name) => [
    name.slice(0, 4),
    JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument,
  ]),
)
const job = (number: string): JobDocument => jobs[number]!
const sum = (hours: readonly number[]): number => hours.reduce((a, b) => a + b, 0)

describe('the system built from a job', () => {
  it('is the new battery in place of the lead-acid, or the lead-acid as found', () => {
    const [now, before] = [plantOf(job('0417'), {}, 'new'), plantOf(job('0417'), {}, 'old')]
    expect([now.lfp === null, now.houseLead === null]).toEqual([false, true])
    expect([before.lfp === null, before.houseLead === null]).toEqual([true, false])
    expect(now.chargers).toEqual(plantOf(job('0417'), {}, 'new').chargers)
  })

  it('keeps the lead next to the lithium in a hybrid bank, and has stops only where they are fitted', () => {
    const tug = plantOf(job('0427'), {}, 'new')
    expect(tug.houseLead).not.toBeNull()
    expect(tug.lfp!.stops).toBeNull()
    const stopped = plantOf(
      withValues(job('0427'), { 'use/chargeStop': 'yes' }),
      { rules: { chargeStopV: 14.1, dischargeStopV: 12.1 } },
      'new',
    )
    expect(stopped.lfp!.stops!.chargeV / stopped.lfp!.stops!.dischargeV).toBeCloseTo(14.1 / 12.1, 6)
  })

  it('a weaker lead battery loses more inside', () => {
    expect(leadLeakA(100, 0.5)).toBeGreaterThan(leadLeakA(100, 1) * 3)
    for (const { houseLead } of Object.values(jobs).map((each) => plantOf(each, {}, 'old')))
      expect(houseLead!.ownA).toBeCloseTo(leadLeakA(houseLead!.c10, houseLead!.health), 9)
  })

  it.each<[string, Readonly<Record<string, unknown>>, Partial<LinkPlant>]>([
    ['a solenoid', { kind: 'solenoid' }, { kind: 'solenoid' }],
    ['a switch', { kind: 'switch' }, { kind: 'closed' }],
    ['a diode isolator', { kind: 'diode', dropV: 0.4 }, { kind: 'diode', dropV: 0.4 }],
    [
      'a voltage-sensing relay',
      { kind: 'vsr', closesV: 13.6, opensV: 13.1, delayS: 20, bothWay: 'yes' },
      { kind: 'vsr', closesV: 13.6, opensV: 13.1, delayS: 20, bothWay: true },
    ],
    [
      'a duty-cycling relay',
      { kind: 'duty', opensAboveA: 70, offTimeS: 90 },
      { kind: 'duty', opensAboveA: 70, offS: 90 },
    ],
    [
      'a DC-DC',
      { kind: 'dcdc', inputV: '12', ratedA: 25, signal: 'wire', backFeed: 'yes' },
      { kind: 'dcdc', lowestV: 11.5, wire: true, backFeed: true },
    ],
    ['nothing', { kind: 'none' }, { kind: 'none' }],
  ])('links by %s as it is entered', (_what, values, link) => {
    const path = `links/${Object.keys(job('0417').links)[0]!}`
    expect(
      plantOf(withValues(job('0417'), under(path, values)), {}, 'new').sides[0]?.link ?? { kind: 'none' },
    ).toMatchObject(link)
  })

  it('an external regulator floats and folds back; one that only holds the field does not fold', () => {
    const path = `alternators/${Object.keys(job('0417').alternators)[0]!}`
    const machine = (values: Readonly<Record<string, unknown>>) =>
      plantOf(withValues(job('0417'), under(path, values)), {}, 'new').sides[0]!.alternator!
    expect(machine({ regulator: 'fixed' })).toMatchObject({ floatV: null, foldsBack: false })
    expect(machine({ regulator: 'external', fieldWire: 'field' })).toMatchObject({
      floatV: 13.5,
      foldsBack: false,
    })
  })

  it('spreads the loads over the day and neither loses nor invents any', () => {
    const plant = plantOf(withValues(job('0417'), { 'use/dailyAh': 120 }), {}, 'new')
    expect(plant.dcA).toHaveLength(24)
    const { totals } = runNow(
      'standing-still',
      { ...plant, solar: [], sources: [], loadsOffV: null, lfp: { ...plant.lfp!, ah: 2000 } },
      { ...inputsOfJob(job('0417'), 'standing-still'), soc: 0.9, days: 1 },
    )
    expect(totals.loadAh).toBeGreaterThan(sum(plant.dcA) * 0.99)
    expect(totals.unservedAh).toBe(0)
  })

  it('lists its assumptions by name, and no measured values', () => {
    const { job: bare } = withNewPart(emptyJob('1'), 'alternators')
    expect(plantOf(bare, {}, 'new').assumed.join('\n')).toMatch(/is unknown, so a typical value is used/)
    expect(plantOf(withNewPart(bare, 'alternators').job, {}, 'new').sides).toHaveLength(2)
    expect(plantOf(job('0417'), {}, 'new').assumed.filter((words) => /undefined|\//.test(words))).toEqual([])
  })

  it('takes the measured curve of heat where there are readings', () => {
    const path = `alternators/${Object.keys(job('0417').alternators)[0]!}`
    const read = withValues(job('0417'), {
      [`${path}/temperatureReadings`]: [
        { amps: 60, rpm: 5000, minutes: 10, celsius: 80 },
        { amps: 60, rpm: 5000, minutes: 30, celsius: 105 },
      ],
    })
    expect(plantOf(read, {}, 'new').sides[0]!.alternator!.heat).not.toEqual(
      plantOf(job('0417'), {}, 'new').sides[0]!.alternator!.heat,
    )
    expect(plantOf(read, {}, 'new').assumed.join()).not.toMatch(/engineering defaults/)
  })
})

describe('the inputs of a run', () => {
  it('are taken from the job, and are usable for every run of every job', () => {
    for (const each of [...Object.values(jobs), emptyJob('1')]) {
      for (const id of runIds) {
        const { soc, days, driveH, mainsH, coldC, warmC } = inputsOfJob(each, id)
        expect({
          id,
          soc: soc >= 0 && soc <= 1,
          days: days > 0 && days <= 366,
          driveH: driveH >= 0 && driveH <= 24,
          mainsH: mainsH >= 0 && mainsH <= 24,
          air: coldC <= warmC,
        }).toEqual({ id, soc: true, days: true, driveH: true, mainsH: true, air: true })
      }
    }
    expect(inputsOfJob(withValues(job('0417'), { 'place/coldestC': -14 }), 'cold-week').coldC).toBe(-14)
    expect(inputsOfJob(emptyJob('1'), 'driving-day').driveH).toBe(0)
  })
})

describe('systems to run side by side', () => {
  const of = (number: string) => variantsOf(job(number), {}, assessed(job(number)).changes)

  it.each(Object.keys(jobs))(
    'of job %s differ from each other, and each has a title of its own',
    (number) => {
      const variants = of(number)
      expect(variants.map((v) => v.id).slice(0, 2)).toEqual(['new', 'old'])
      expect(new Set(variants.map((v) => v.title)).size).toBe(variants.length)
      expect(new Set(variants.map((v) => JSON.stringify({ ...v.plant, assumed: [] }))).size).toBe(
        variants.length,
      )
    },
  )

  it('offer the hybrid where the lithium stands alone, and the other way about', () => {
    expect(of('0417').find((v) => v.id === 'hybrid')!.plant).toMatchObject({
      houseLead: expect.anything(),
      lfp: { stops: expect.anything() },
    })
    expect(of('0427').find((v) => v.id === 'separate')!.plant.houseLead).toBeNull()
  })

  it('offer a DC-DC and a duty-cycling relay to an alternator that is held by neither', () => {
    const variants = of('0417')
    expect(variants.find((v) => v.id === 'dcdc')!.plant.sides[0]!.link.kind).toBe('dcdc')
    expect(variants.find((v) => v.id === 'duty')!.plant.sides[0]!.link).toMatchObject({
      kind: 'duty',
      offS: 60,
    })
    expect(variantsOf(emptyJob('1'), {}, assessed(emptyJob('1')).changes).map((v) => v.id)).not.toContain(
      'dcdc',
    )
  })
})
