import { describe, expect, it } from 'vitest'
import { wiredJob } from '#core/assessment/wired'
import type { JobDocument } from '#core/job/document'
import { goodJob, withValues, long } from '#core/testing'
import { searchAnswers } from './answers'
import { networkOf } from '#core/wiring/of-job'
import type { RuleOverrides } from '#core/rules/rules'
import { planOf, type Plan } from './plan'
import { specifiedBy } from './specify'
import { wiringOfAnswer, wiringWorkOf, type WiringWork } from './wiring'
import { demoJob } from '../../scripts/bench/demo-jobs'
import { demoShelf, specifiedJob } from '../../scripts/lib/demo-shelf'

const shelf = demoShelf()
const trailer = demoJob('0430')

/** Parts and hours of the wiring of a job as found. */
const workOf = (plan: Plan): WiringWork => wiringWorkOf(plan, wiringOfAnswer(plan, plan.job).network)

describe('the wiring of an answer', () => {
  it('is taken from the shelf where it has it, by size and with its price a metre', () => {
    const { parts } = workOf(planOf(goodJob(), {}, shelf))
    const cable = parts.find(({ kind }) => kind === 'conductors')!
    expect(cable.unit).toBe('m')
    const own = shelf.find(({ code }) => code === cable.code)!
    expect(cable.price).toBe(own.values.pricePerM)
    const lugs = parts.filter(({ kind }) => kind === 'lugs')
    expect(lugs.length).toBeGreaterThan(2)
    expect(parts.every(({ price }) => price !== null && price !== undefined)).toBe(true)
  })
  it('is named and has no price where the shelf lacks it', () => {
    const { parts } = workOf(planOf(goodJob(), {}, []))
    expect(parts.length).toBeGreaterThan(5)
    expect(parts.every(({ price, kind }) => price === null && kind === null)).toBe(true)
  })
  it('grows with the length of a run that is set', () => {
    const metres = (lengthM: number): number =>
      workOf(planOf(withValues(goodJob(), { 'runs/main-feed-1/lengthM': lengthM }), {}, shelf))
        .parts.filter(({ kind }) => kind === 'conductors')
        .reduce((sum, { quantity }) => sum + quantity, 0)
    expect(metres(6)).toBeGreaterThan(metres(1) + 4)
  })
  it('takes the shop’s minutes for each new run and each device', () => {
    const hours = (rules: RuleOverrides): number => workOf(planOf(goodJob(), { rules }, shelf)).hours
    const { runs, posts } = networkOf(goodJob(), {})
    expect(hours({ runMinutes: 0, deviceMinutes: 0 })).toBe(0)
    const laid = runs.filter(({ state, areaMm2 }) => state === 'new' && areaMm2 !== null)
    expect(hours({ runMinutes: 60, deviceMinutes: 0 })).toBe(laid.reduce((sum, { count }) => sum + count, 0))
    const mounted = posts.filter(({ state, fitting }) => state === 'new' && fitting?.ratedA != null)
    expect(hours({ runMinutes: 0, deviceMinutes: 60 })).toBe(mounted.length)
  })
  it('is in the price of each answer, and in the steps of the one that is chosen', long, () => {
    const [answer] = searchAnswers(planOf(trailer, {}, shelf)).answers
    const wiring = answer!.wiring.parts.reduce((sum, { price, quantity }) => sum + (price ?? 0) * quantity, 0)
    const others = [...answer!.bank, ...answer!.steps.flatMap(({ parts }) => parts)].reduce(
      (sum, { price, quantity }) => sum + (price ?? 0) * quantity,
      0,
    )
    expect(wiring).toBeGreaterThan(0)
    expect(answer!.figures.partsCost).toBeCloseTo(wiring + others, 2)
    const { steps } = specifiedBy(answer!, 'Ida', '2026-11-27T10:00:00.000Z')
    expect(steps.at(-1)).toMatchObject({
      label: 'Wire it as drawn',
      parts: answer!.wiring.parts,
      hours: answer!.wiring.hours,
    })
  })
})

describe('the wiring of a job as its first answer has it', () => {
  const answered = new Map<string, JobDocument>()
  const specified = (number: string): JobDocument => {
    const job = answered.get(number) ?? specifiedJob(demoJob(number))
    answered.set(number, job)
    return job
  }

  it('takes surveyed parts for gone, under their name and kind', long, () => {
    const { gone } = networkOf(specified('0417'))
    expect(gone.map(({ name, was, instead }) => ({ name, was, instead }))).toEqual([
      { name: 'Old house bank', was: 'battery', instead: 'bank' },
      { name: 'Diode isolator', was: 'diode', instead: 'link-1' },
    ])
    // The same where the changes of the answer are made in the job already, as its checks see it.
    expect(wiredJob(specified('0417'), {}).network.gone).toEqual(gone)
  })

  it('of an answer asks for nothing more: old cables that it keeps are replaced if necessary', long, () => {
    for (const number of ['0417', '0421', '0424', '0427', '0430', '0433']) {
      const { checks } = wiredJob(specified(number), {})
      expect({
        number,
        left: checks.filter(({ verdict }) => verdict !== 'suits').map(({ key }) => key),
      }).toEqual({ number, left: [] })
    }
  })

  it('replaces the cable of a DC-DC that cannot be set, and buys it once: with the wiring', long, () => {
    const job = specifiedJob(withValues(trailer, { 'links/link-1/currentLimit': 'fixed' }))
    const feed = networkOf(job).runs.find(({ id }) => id === 'link-1-in-feed')!
    expect(feed).toMatchObject({ state: 'new', areaKnown: 'found' })
    expect(feed.areaMm2).toBeGreaterThan(10)
    const parts = job.specified!.steps.map(({ label, parts: own }) => ({
      label,
      cable: own.some(({ name }) => name.includes(`${feed.areaMm2} mm²`)),
    }))
    expect(parts.filter(({ cable }) => cable).map(({ label }) => label)).toEqual(['Wire it as drawn'])
  })

  it(
    'keeps a DC-DC and its cable, set to what the cable and its plug allow, where no cable would do',
    long,
    () => {
      const job = specified('0430')
      const { steps } = job.specified!
      const set = steps.find(({ settles }) => settles.includes('wiring.drop'))!
      expect(set.label).toMatch(/^Set its current limit to 1[0-9] A$/)
      expect(set.parts).toEqual([])
      const feed = networkOf(job).runs.find(({ id }) => id === 'link-1-in-feed')!
      expect(feed).toMatchObject({ state: 'found', areaMm2: 10 })
    },
  )
})
