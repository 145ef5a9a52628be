import { chooseCandidate, withCandidate } from '#core/job/candidates'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { type JobDocument, copyOfJob, emptyJob, withField } from '#core/job/document'
import { checkJob } from '#core/formats/job-file'
import { typicals, type TypicalId } from '#core/job/typicals'
import { plantOf } from '#core/simulation/plant-of-job'
import { inputsOfJob } from '#core/simulation/inputs'
import { runNow } from '#core/simulation/runs'
import { assessed, goodJob, long, resultOf, withMeasured, withValues } from '#core/testing'
import { compareCandidates } from './candidates'

const trailer = JSON.parse(
  readFileSync(new URL('../../demo/jobs/0430-theatre-trailer.json', import.meta.url), 'utf8'),
) as JobDocument

describe('candidates side by side', () => {
  it('on the theatre trailer: which would do, and which not', () => {
    const columns = compareCandidates(trailer)
    expect(columns.map((c) => [c.name, c.verdict])).toEqual([
      ['Wagtail 100', 'does-not-suit'],
      ['2 × Wagtail 100', 'does-not-suit'],
      ['2 × Brindle 200 H', 'suits-once-changed'],
      ['Sandpiper 460', 'suits'],
    ])
    expect(columns[0]!.against[0]!.key).toBe('battery.discharge@candidate')
    expect(columns.map((c) => Math.round(c.minutesFullLoad!))).toEqual([11, 31, 69, 78])
    expect(columns.map((c) => c.placed.length)).toEqual([1, 2, 2, 1])
  })

  it('agree with the assessment of the job with that battery in question', () => {
    for (const column of compareCandidates(trailer)) {
      const alone = assessed(withCandidate(trailer, column.path))
      expect([column.verdict, column.headline]).toEqual([alone.verdict, alone.headline])
    }
  })

  it('give the figures worked by hand', () => {
    const [column] = compareCandidates(
      withValues(goodJob(), {
        'candidate/price': 1000,
        'candidate/cycles': 3000,
        'candidate/cycleDepth': 80,
      }),
    )
    expect(column).toMatchObject({ usableAh: 160, fits: true, weightKg: 24, price: 1000 })
    // 3000 cycles × 0.8 × 200 Ah × 12.8 V = 6144 kWh
    expect(column!.pricePerKwh).toBeCloseTo(1000 / 6144, 6)
    expect(column!.hoursToFull[0]).toMatchObject({ name: 'The mains charger' })
    // The same figure as charger.time, from the same run: 160 Ah at 30 A less the 5 A the loads take.
    expect(column!.hoursToFull[0]!.hours).toBe(
      resultOf(goodJob(), 'charger.time', 'chargers/charger-1').compared[0].value,
    )
    expect(column!.hoursToFull[0]!.hours).toBeCloseTo(160 / 25, 0)
    expect(column!.days).toBeCloseTo(153.07 / 30, 1)
  })

  it('fill on an alternator or another source as the run says that has this source alone', () => {
    const job = withMeasured(goodJob(), 'sources', {
      largestA: 12,
      averageShare: 100,
      regulatorV: 14.4,
      hours: 6,
    })
    const [column] = compareCandidates(job)
    const hoursOf = (name: string) => column!.hoursToFull.find((source) => source.name === name)!.hours
    // 160 Ah at 30 A less the 5 A of the loads, and at 12 A less 5 A all day long, whatever hours it has in
    // ordinary use.
    expect(hoursOf('The alternator')).toBeCloseTo(160 / 25, 1)
    expect(hoursOf('The other source')).toBeCloseTo(160 / 7, 1)
    const night = { ...inputsOfJob(job, 'mains-night'), days: 3, driveH: 24, idleShare: 0, mainsH: 0 }
    expect(hoursOf('The alternator')).toBe(
      runNow('mains-night', { ...plantOf(job, {}, 'new'), sources: [] }, night).totals.fullAfterH,
    )
    expect(
      compareCandidates(withMeasured(goodJob(), 'solar', { panelW: 200 }))[0]!.hoursToFull.at(-1)!.hours,
    ).toBe('sets')
    const weak = compareCandidates(
      withMeasured(goodJob(), 'sources', { largestA: 4, averageShare: 100, regulatorV: 14.4, hours: 24 }),
    )[0]!
    expect(weak.hoursToFull.at(-1)!.hours).toBe(Infinity)
    expect(
      compareCandidates(withValues(job, { 'sources/source-1/regulatorV': null }))[0]!.hoursToFull.at(-1)!
        .hours,
    ).toBeNull()
  })

  it('leave a figure open while something it needs is unknown', () => {
    const [column] = compareCandidates(
      withValues(goodJob(), {
        'candidate/ahEach': null,
        'candidate/weightKg': null,
        'place/widthMm': null,
        'use/dailyAh': null,
      }),
    )
    expect(column).toMatchObject({
      usableAh: null,
      weightKg: null,
      fits: null,
      days: null,
      price: null,
      pricePerKwh: null,
      arrangement: 'size unknown',
    })
  })

  it('are four at the most, and choosing one swaps it with the one in question', () => {
    const many = Array.from({ length: 6 }).reduce<JobDocument>(
      (job) => withMeasured(job, 'alternatives', { ahEach: 100 }),
      goodJob(),
    )
    expect(compareCandidates(many)).toHaveLength(4)
    const chosen = chooseCandidate(trailer, 'alternatives/battery-3')
    expect(chosen.candidate).toBe(trailer.alternatives['battery-3'])
    expect(chosen.alternatives['battery-3']).toBe(trailer.candidate)
    expect(chooseCandidate(trailer, 'alternatives/battery-9')).toBe(trailer)
  })

  it('have no hours where values contradict each other so that no run has a result', long, () => {
    const bus = JSON.parse(
      readFileSync(new URL('../../demo/jobs/0424-library-bus.json', import.meta.url), 'utf8'),
    ) as JobDocument
    const [column] = compareCandidates(withField(bus, 'candidate/nominalV', { value: '48', how: 'measured' }))
    expect(column!.hoursToFull.map(({ hours }) => hours)).toEqual([null, null])
    expect(column!.verdict).not.toBe('suits')
  })
})

describe('typical vehicles and vessels', () => {
  it.each(Object.keys(typicals) as TypicalId[])(
    '%s is a valid job, all assumed, that asks for measurements',
    (id) => {
      const job = typicals[id].job('0500')
      expect(checkJob(JSON.parse(JSON.stringify(job)))).toMatchObject({ ok: true })
      expect(JSON.stringify(job)).not.toMatch(/"how":"(measured|maker|label|customer)"/)
      expect(assessed(job).lanes.length).toBeGreaterThan(0)
    },
  )
})

describe('a copy of a job', () => {
  it('keeps the survey, under a number of its own and as an enquiry', () => {
    const copy = copyOfJob(trailer, '0501')
    expect(copy.job).toMatchObject({
      number: '0501',
      name: 'Copy of The Wandering Thimble',
      stage: 'enquiry',
    })
    expect(copy.job).not.toHaveProperty('dueDate')
    expect({ ...copy, job: null }).toEqual({ ...trailer, job: null })
    expect(copyOfJob(emptyJob('7'), '8').job.name).toBe('Copy of 7')
  })
})
