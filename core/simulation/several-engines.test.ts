import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import { goodJob, link, resultOf, withMeasured, withValues, type Values } from '#core/testing'
import { inputsOfJob } from './inputs'
import { plantOf } from './plant-of-job'
import { channelIds } from './record'
import { runNow } from './runs'
import { everySecond } from './pace'

const relay: Values = { kind: 'vsr', bothWay: 'no', closesV: 13.3, opensV: 12.8, ratedA: 140 }

/** The good job with a second engine: its alternator, its link and its starting battery. */
function withSecondEngine(base: JobDocument, alternator: Values, starting: Values): JobDocument {
  const job = withMeasured(base, 'alternators', {
    nominalV: '12',
    regulator: 'fixed',
    regulatorV: 14.3,
    vehicleDrawA: 10,
    driveHours: 3,
    ...alternator,
  })
  const wired = withMeasured(job, 'links', relay, { from: 'alternators/alternator-2' })
  return withMeasured(
    wired,
    'startingBatteries',
    { present: 'yes', chemistry: 'flooded', jumpSwitch: 'no', ...starting },
    { from: 'alternators/alternator-2' },
  )
}

const van = withValues(withSecondEngine(goodJob(), { ratedA: 180, riseK: 75 }, { ah: 70, standbyA: 0.4 }), {
  'use/daysAway': 14,
})

describe('a van with two alternators and two starting batteries', () => {
  it('is checked by each of them', () => {
    expect(resultOf(van, 'start.upkeep', 'startingBatteries/starting-1')).not.toEqual(
      resultOf(van, 'start.upkeep', 'startingBatteries/starting-2'),
    )
    const heatOf = (machine: number): string =>
      resultOf(van, 'alternator.heat', `links/link-${machine}`).summary
    expect(heatOf(1)).not.toBe(heatOf(2))
  })

  it('takes the chemistry of a starting battery for its own alternator alone', () => {
    const job = withValues(van, { 'startingBatteries/starting-2/present': 'no' })
    expect(resultOf(job, 'start.upkeep', 'startingBatteries/starting-1')).toEqual(
      resultOf(van, 'start.upkeep', 'startingBatteries/starting-1'),
    )
    expect(() => resultOf(job, 'start.upkeep', 'startingBatteries/starting-2')).toThrow()
  })

  it('draws every channel there is, next to house lead', () => {
    const kept = withValues(van, { 'use/mixed': 'hybrid' })
    const { series } = runNow('driving-day', plantOf(kept, {}, 'new'), inputsOfJob(kept, 'driving-day'))
    expect(Object.keys(series.values).sort()).toEqual([...channelIds].sort())
  })

  it('runs with a side for each, whose totals tell them apart', () => {
    const inputs = { ...inputsOfJob(van, 'driving-day'), soc: 0.2, mainsH: 0 }
    const { series, totals, events } = runNow('driving-day', plantOf(van, {}, 'new'), inputs)
    expect(totals.machines.map(({ side }) => side)).toEqual(['links/link-1', 'links/link-2'])
    const [limited, straight] = totals.machines
    expect(straight!.peakC).toBeGreaterThan(limited!.peakC! + 5)
    expect(totals.alternatorPeakC).toBe(Math.max(straight!.peakC!, limited!.peakC!))
    const relays = events.filter(({ kind }) => kind === 'relay')
    expect(relays.length).toBeGreaterThan(0)
    for (const { name } of relays) expect(name).toContain('alternator 2')
    const leastOf = (channel: 'startSoc' | 'startSoc2'): number => Math.min(...series.values[channel]!)
    expect(leastOf('startSoc2')).not.toBe(leastOf('startSoc'))
  })
})

describe('a twin-engined boat', () => {
  const one = link({ ...relay, signal: null, absorptionV: null })
  const two = withSecondEngine(one, { ratedA: 120 }, { ah: 90, standbyA: 0.05 })
  const drive = (job: JobDocument, exact = false) => {
    const inputs = { ...inputsOfJob(job, 'driving-day'), soc: 0.2, mainsH: 0, driveH: 1 }
    return runNow('driving-day', plantOf(job, {}, 'new'), inputs, null, exact ? everySecond : undefined)
  }

  it('has both machines work alike, and neither harder than one alone', () => {
    const alone = drive(one)
    const { totals } = drive(two)
    const [port, starboard] = totals.machines
    expect(port!.peakC!).toBeCloseTo(starboard!.peakC!, 1)
    expect(totals.engineAh).toBeGreaterThan(alone.totals.engineAh * 1.2)
    expect(totals.engineAh).toBeLessThan(alone.totals.engineAh * 2.01)
    expect(port!.peakC!).toBeLessThanOrEqual(alone.totals.machines[0]!.peakC! + 0.1)
  })

  it('is the same to 0.1 % in steps of a second', () => {
    const [steps, seconds] = [drive(two).totals, drive(two, true).totals]
    expect(Math.abs(steps.engineAh / seconds.engineAh - 1)).toBeLessThan(0.001)
    expect(Math.abs(steps.endSoc - seconds.endSoc)).toBeLessThan(0.001)
  })
})
