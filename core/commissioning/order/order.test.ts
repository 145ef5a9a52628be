import { readFileSync, readdirSync } from 'node:fs'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { emptyJob, type JobDocument } from '#core/job/document'
import { answeredWith, anyJobFrom, goodJob, withMeasured, withValues } from '#core/testing'
import { orderOf } from './order'
import { phases, type WorkStep } from './step'

const folder = new URL('../../../demo/jobs/', import.meta.url)
const demoJobs = readdirSync(folder).map(
  (name) => [name, JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as JobDocument] as const,
)
const idsOf = (steps: readonly WorkStep[]): string[] => steps.map(({ id }) => id)
const before = (steps: readonly WorkStep[], one: string, other: string): boolean => {
  const ids = idsOf(steps)
  return ids.indexOf(one) >= 0 && ids.indexOf(one) < ids.indexOf(other)
}

describe.each(demoJobs)('the order of work of %s', (_, job) => {
  const steps = orderOf(job)

  it('walks the phases in their order, each step once', () => {
    const order = Object.keys(phases)
    const places = steps.map(({ phase }) => order.indexOf(phase))
    expect(places).toEqual(places.toSorted((a, b) => a - b))
    expect(new Set(idsOf(steps)).size).toBe(steps.length)
  })
  it('gives a reason for each step, in words that end', () => {
    for (const { words, why, caution } of steps) {
      expect(words).toMatch(/[.]$/)
      expect(why).toMatch(/[.]$/)
      expect(caution ?? '.').toMatch(/[.]$/)
      expect(`${words} ${why}`).not.toMatch(/undefined|null|NaN|links\/|chargers\//)
    }
  })
  it('says each caution once', () => {
    const cautions = steps.flatMap(({ caution }) => caution ?? [])
    expect(new Set(cautions).size).toBe(cautions.length)
  })
  it('puts fuses in last: the main fuse before its branches, after everything is fitted', () => {
    expect(before(steps, 'fit-battery', 'power-main')).toBe(true)
    expect(before(steps, 'power-polarity', 'power-main')).toBe(true)
    expect(before(steps, 'power-main', 'power-branches')).toBe(true)
  })
})

describe('the order of work', () => {
  const vehicle: JobDocument = {
    ...withValues(goodJob(), { 'startingBatteries/starting-1/present': 'yes' }),
    job: { ...goodJob().job, craft: 'vehicle' },
  }

  it('of a vehicle takes the chassis negative off first and puts it on last', () => {
    const steps = orderOf(vehicle)
    expect(steps.find(({ id }) => id === 'safe-negative')!.words).toContain('first')
    expect(steps.find(({ id }) => id === 'power-starting')!.words).toContain('last of all')
  })
  it('names the mounted parts, and no others', () => {
    const mounted = (job: JobDocument) => orderOf(job).find(({ id }) => id === 'fit-fittings')!.words
    expect(mounted(vehicle)).toMatch(/^Mount bars, the switch and fuse holders/)
    const unwatched = withValues(vehicle, { 'use/monitor': 'voltage' })
    expect(mounted(answeredWith(unwatched, vehicle))).toMatch(
      /^Mount bars, the switch, the shunt and fuse holders/,
    )
    const small: JobDocument = { ...vehicle, job: { ...vehicle.job, craft: 'motorcycle' } }
    expect(mounted(withValues(small, { 'use/monitor': 'none' }))).toMatch(/^Mount fuse holders as drawn/)
  })
  it('runs the thin lines, each kind once', () => {
    const told = withValues(goodJob(), {
      'use/monitor': 'shunt',
      'links/link-1/kind': 'dcdc',
      'links/link-1/signal': 'wire',
    })
    const steps = orderOf(told)
    expect(steps.find(({ id }) => id === 'fit-sense')!.words).toContain('shunt')
    // The DC-DC was found with its wire.
    expect(idsOf(steps)).not.toContain('fit-run-signals')
  })
  it('takes the panels off the controller before the battery, and puts them on after it', () => {
    const sun = withMeasured(goodJob(), 'solar', { panelW: 100, through: 'own', ratedA: 20 })
    const steps = orderOf(sun)
    expect(before(steps, 'safe-panels', 'safe-panels-off')).toBe(true)
    expect(before(steps, 'safe-panels-off', 'safe-house')).toBe(true)
    expect(before(steps, 'power-main', 'power-panels')).toBe(true)
  })
  it('charges batteries alone and compares them before they are joined, with the current that would flow', () => {
    const two = withValues(goodJob(), { 'candidate/parallel': 2 })
    const steps = orderOf(two)
    const compare = steps.find(({ id }) => id === 'charge-compare')!
    expect(compare.words).toContain('0.05 V')
    // A quarter of a volt through two packs of the candidate, by hand.
    expect(compare.why).toMatch(/about \d+(\.\d)? A/)
    expect(before(steps, 'charge-compare', 'join-leads')).toBe(true)
    expect(orderOf(goodJob()).some(({ id }) => id === 'charge-compare')).toBe(false)
  })
  it('never levels lead with lithium by voltage: lead is charged full and joined last, with its current watched', () => {
    const stays = (mixed: string) =>
      orderOf(withValues(goodJob(), { 'use/mixed': mixed, 'houseBank/ahEach': 100, 'houseBank/parallel': 1 }))
    const hybrid = stays('hybrid')
    expect(idsOf(hybrid)).not.toContain('charge-compare')
    expect(before(hybrid, 'charge-lead', 'join-leads')).toBe(true)
    // Its current flows only once the main fuse and switch are closed; the monitor is zeroed before it.
    expect(before(hybrid, 'power-main', 'join-lead')).toBe(true)
    expect(before(hybrid, 'join-lead', 'power-branches')).toBe(true)
    const withShunt = orderOf(
      withValues(goodJob(), { 'use/mixed': 'hybrid', 'use/monitor': 'shunt', 'houseBank/ahEach': 100 }),
    )
    expect(before(withShunt, 'power-zero', 'join-lead')).toBe(true)
    expect(hybrid.find(({ id }) => id === 'join-lead')!.why).toMatch(/After 10 minutes it must be under 5 A/)
    const kept = stays('dcdc')
    expect(idsOf(kept)).not.toContain('join-lead')
    expect(kept.find(({ id }) => id === 'out-lead-feeds')!.why).toContain('reserve')
    expect(kept.find(({ id }) => id === 'set-lead-dcdc')!.words).toContain('lead, 14.1 V')
  })
  it('sets an alarm, gives a stop signal a lamp or buzzer, and neither where nothing warns', () => {
    const warnedBy = (warning: string): string | undefined =>
      orderOf(withValues(goodJob(), { 'candidate/warning': warning, 'use/warns': 'no' })).find(
        ({ id }) => id === 'set-warning',
      )?.words
    expect(warnedBy('alarm')).toContain('Set the alarm')
    expect(warnedBy('stop')).toContain('lamp or buzzer')
    expect(warnedBy('none')).toBeUndefined()
  })
  it('sets each source before it is switched on: the charger before its plug, the DC-DC before its fuses', () => {
    const steps = orderOf(withMeasured(goodJob(), 'solar', { panelW: 100, through: 'own', ratedA: 20 }))
    expect(before(steps, 'set-charger-1', 'power-mains')).toBe(true)
    expect(before(steps, 'set-link-1', 'source-fuses')).toBe(true)
    expect(before(steps, 'set-array-1', 'power-panels')).toBe(true)
    expect(before(steps, 'source-fuses', 'source-engine')).toBe(true)
  })
  it('zeroes the monitor before any branch fuse is in', () => {
    const steps = orderOf(goodJob())
    expect(before(steps, 'power-main', 'power-zero')).toBe(true)
    expect(before(steps, 'power-zero', 'power-branches')).toBe(true)
  })
  it('pre-charges an inverter before its fuse, by a resistor for its voltage', () => {
    const words = (job: JobDocument) =>
      orderOf(job).find(({ id }) => id === 'power-precharge-inverter-1')!.words
    expect(words(withMeasured(goodJob(), 'inverters', { continuousW: 1000 }))).toContain('47 Ω')
  })
  it('unplugs a tow plug first and plugs it in again at the end', () => {
    const trailer = demoJobs.find(([name]) => name.startsWith('0430'))![1]
    const steps = orderOf(trailer)
    expect(before(steps, 'safe-tow-plug', 'safe-house')).toBe(true)
    expect(before(steps, 'set-link-1', 'source-tow-plug')).toBe(true)
    expect(idsOf(orderOf(goodJob()))).not.toContain('safe-tow-plug')
  })
  it('takes out the parts that the answer omits, and tightens again after the first hour', () => {
    const watched = withMeasured(goodJob(), 'devices', { kind: 'gauge' })
    const steps = orderOf(answeredWith(watched, goodJob()))
    expect(idsOf(steps)).toContain('out-device-1')
    expect(idsOf(orderOf(watched))).not.toContain('out-device-1')
    expect(steps.at(-1)!.id).toBe('later-torque')
  })
  it('speaks of no main switch, and puts on no positive lead, if there is none and none came off', () => {
    const sidecar = demoJobs.find(([name]) => name.startsWith('0433'))![1]
    const words = orderOf(sidecar).map((one) => `${one.words} ${one.why}`)
    expect(words.filter((one) => /with the main switch|switch the main/.test(one))).toEqual([])
    for (const step of orderOf(goodJob()))
      if (step.id === 'power-starting') expect(step.words).not.toContain('positive')
  })
  it('says once never to open a switch between alternator and battery while the engine runs', () => {
    const cautions = orderOf(goodJob()).flatMap(({ caution }) => caution ?? [])
    expect(cautions.filter((one) => one.startsWith('Never open the main switch'))).toHaveLength(1)
  })
  it('tells a vehicle’s computer only if there is one', () => {
    const watched = withValues(vehicle, { 'startingBatteries/starting-1/monitored': 'yes' })
    expect(idsOf(orderOf(watched))).toContain('power-computer')
    expect(idsOf(orderOf(vehicle))).not.toContain('power-computer')
  })
  it('switches inverters off before anything else is touched', () => {
    const job = withMeasured(goodJob(), 'inverters', { continuousW: 1000 })
    expect(before(orderOf(job), 'safe-inverters', 'safe-house')).toBe(true)
  })
  it('is there for an empty job and for any other', () => {
    expect(orderOf(emptyJob('1')).length).toBeGreaterThan(3)
    fc.assert(
      fc.property(anyJobFrom(demoJobs.map(([, job]) => job)), (job) => {
        expect(orderOf(job).length).toBeGreaterThan(3)
      }),
      { numRuns: 60 },
    )
  })
})
