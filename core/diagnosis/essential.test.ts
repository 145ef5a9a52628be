import { long } from '#core/testing'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { demoJob } from '../../scripts/bench/demo-jobs'
import { specifiedJob } from '../../scripts/lib/demo-shelf'
import { provedOf } from './calibration'
import { chanceOf, normal } from '#core/commissioning/chance'
import { Covariance } from './covariance'
import { Diagnosis } from './diagnosis'
import { isReading, minutesOf, mostMinutes, mostReadings } from './essential'
import type { Hypothesis } from './hypotheses'
import { below, chanceAllWithin, chanceWithin, deviationsBelow, riskWithin } from './risk'
import { expectedRows } from './rows'
import { runsBetween } from '#core/commissioning/tests/sides'

const jobs = ['0417', '0430', '0433'].map(
  (number) => [number, new Diagnosis(specifiedJob(demoJob(number)))] as const,
)

describe.each(jobs)('the essential tests of job %s', (_number, diagnosis) => {
  const { tests, minutes, risk } = diagnosis.essential

  it('are few: no installer makes more', () => {
    expect(tests.filter(isReading).length).toBeLessThanOrEqual(mostReadings)
    expect(minutes).toBeLessThanOrEqual(mostMinutes)
    expect(minutes).toBe(minutesOf(tests))
  })
  it('are printed by the command line with their worth', () => {
    const rows = expectedRows(diagnosis)
    expect(rows.tests.filter(({ essential }) => essential).map(({ test }) => test)).toEqual(
      tests.map(({ id }) => id),
    )
    expect(rows.risk.hidden).toBeCloseTo(risk.hidden, 4)
    expect(risk.dangerous).toBeLessThan(0.015)
    expect(risk.hidden).toBeLessThan(0.06)
    expect(risk.dangerous).toBeLessThanOrEqual(risk.hidden)
  })
  it('include the tests that every job needs', () => {
    const of = (begin: string) =>
      diagnosis.expected.filter(({ test }) => test.id.startsWith(begin)).map(({ test }) => test)
    for (const begin of [
      'walk-round',
      'low-battery',
      'absorb-battery-',
      'case-',
      'cold-amps',
      'stop-amps-',
      'monitor-loads',
    ])
      for (const test of of(begin)) expect(tests).toContain(test)
    expect(tests.some(({ id }) => id === 'polarity')).toBe(true)
  })
  it('hold the drop over every run in which more than 50 A flow', () => {
    const { bench } = diagnosis.proof
    const steady = bench.states.filter(({ at, doing }) => at.kind !== 'cranking' && doing.kind === 'nothing')
    const heavy = bench.rig.network.runs.filter(({ id }) =>
      steady.some((state) => Math.abs(bench.solved(state).amps.get(id) ?? 0) > 50),
    )
    const held = new Set(tests.flatMap(({ covers }) => covers))
    for (const { id } of heavy) expect(held).toContain(id)
  })
  it('are asked for one after another while nothing looks wrong, and end there', () => {
    let posterior = diagnosis.given([])
    const asked: string[] = []
    for (
      let next = diagnosis.worthNext(posterior);
      next && asked.length < tests.length;
      next = diagnosis.worthNext(posterior)
    ) {
      asked.push(next.test.id)
      posterior = posterior.with({ test: next.test, value: diagnosis.expect(next.test).value })
    }
    expect(asked).toEqual(tests.map(({ id }) => id))
    expect(diagnosis.looksWrong(posterior)).toBe(false)
    expect(posterior.risk().hidden).toBeLessThan(0.08)
  })
})

describe('remaining risk', () => {
  it('is meant: of systems drawn by their priors this many have a fault as was said', long, () => {
    const [, sidecar] = jobs[2]!
    const proved = Array.from({ length: 400 }, (_, seed) => provedOf(sidecar, chanceOf(seed + 1)))
    const said = proved.reduce((sum, one) => sum + one.said.hidden, 0) / proved.length
    const faulty = proved.filter(({ isFaulty }) => isFaulty).length / proved.length
    expect(Math.abs(said - faulty)).toBeLessThan(0.05)
    const passed = proved.filter(({ within }) => within)
    const missed = passed.filter(({ isFaulty }) => isFaulty).length / passed.length
    expect(missed).toBeLessThan(sidecar.essential.risk.hidden + 2 * Math.sqrt(0.03 / passed.length) + 0.01)
  })
  it('is that of the priors where nothing was read', () => {
    const [, sidecar] = jobs[2]!
    const { hypotheses } = sidecar.given([]).known
    expect(riskWithin(hypotheses, []).hidden).toBeCloseTo(0.32, 2)
    expect(sidecar.given([]).risk().hidden).toBeCloseTo(0.32, 2)
  })
})

describe('a normal distribution', () => {
  it.each([
    [0, 0.5],
    [1.959964, 0.975],
    [-1.281552, 0.1],
    [-4, 3.167124e-5],
  ])('lies below %d deviations by %d', (z, share) => {
    expect(below(z) / share).toBeCloseTo(1, 5)
    expect(deviationsBelow(share)).toBeCloseTo(z, 4)
  })
  it('gives its deviations back at any share', () => {
    fc.assert(
      fc.property(fc.double({ min: 1e-9, max: 1 - 1e-9, noNaN: true }), (share) => {
        expect(below(deviationsBelow(share)) / share).toBeCloseTo(1, 4)
      }),
    )
  })
})

describe('readings within their bands together', () => {
  /** Two or more readings that have a share of their variance in common. */
  const hypothesis = (
    count: number,
    common: number,
    means: readonly number[] = Array(count).fill(0),
  ): Hypothesis => ({
    cause: 0,
    prior: 1,
    size: 0,
    width: 0,
    means: Float64Array.from(means),
    bySize: new Float64Array(count),
    noise: new Float64Array(count).fill(1 - common),
    covariance: new Covariance(
      Array.from({ length: count }, () => ({ at: [0], by: [Math.sqrt(common)] })),
      new Float64Array(count),
      1,
    ),
    harm: null,
    stray: null,
  })
  const bands = (count: number, half = 2) =>
    Array.from({ length: count }, (_, at) => ({ at, middle: 0, half }))

  it('are as likely as each by itself where they have nothing in common', () => {
    const one = chanceWithin(hypothesis(1, 0), bands(1)[0]!)
    expect(one).toBeCloseTo(0.9545, 4)
    expect(chanceAllWithin(hypothesis(6, 0), bands(6))).toBeCloseTo(one ** 6, 3)
  })
  it('are likelier the more they have in common, as this many drawn systems show', () => {
    const [count, common] = [8, 0.7]
    const chance = chanceOf(3)
    let within = 0
    const drawn = 20_000
    for (let i = 0; i < drawn; i++) {
      const shared = Math.sqrt(common) * normal(chance)
      let all = true
      for (let t = 0; t < count; t++)
        if (Math.abs(shared + Math.sqrt(1 - common) * normal(chance)) > 1.5) all = false
      if (all) within++
    }
    expect(chanceAllWithin(hypothesis(count, common), bands(count, 1.5))).toBeCloseTo(within / drawn, 1)
    expect(within / drawn).toBeGreaterThan((below(1.5) - below(-1.5)) ** count + 0.1)
  })
  it('are as good as excluded where one is far off', () => {
    expect(chanceAllWithin(hypothesis(3, 0.2, [0, 9, 0]), bands(3))).toBeLessThan(1e-8)
  })
})

describe('a way between two posts', () => {
  it('holds every run on it, and none where there is no way', () => {
    const [, workboat] = jobs[0]!
    const { network } = workboat.proof.rig
    const load = network.units.find(({ kind }) => kind === 'load')!
    expect(runsBetween(network, 'bank-plus', load.plus)).toEqual(
      expect.arrayContaining(['main-lead', 'main-feed-1', 'main-feed-2']),
    )
    expect(runsBetween(network, 'bank-plus', 'nowhere')).toEqual([])
    expect(runsBetween(network, 'bank-plus', 'bank-plus')).toEqual([])
  })
})
