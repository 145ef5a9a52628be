import { describe, expect, it } from 'vitest'
import { checkJob } from '#core/formats/job-file'
import { goodJob } from '#core/testing'
import { asFitted } from './as-fitted'
import { applyChanges, changesBetween, conflictsBetween } from './changes'
import { copyOfJob } from './document'
import { mostReadings, standingReadings } from './proving'
import { provingOf, withFitted, withMended, withoutReading, withReading, withStep } from './proving-edits'

const by = 'Bench laptop'
const at = (minute: number): string => `2026-11-27T10:${String(minute).padStart(2, '0')}:00.000Z`
const read = (value: number, minute: number) => ({ value, when: at(minute), by, from: 'typed' }) as const

describe('fitting and proving', () => {
  it('is kept in the job and fits its schema', () => {
    let job = withStep(goodJob(), 'safe-mains', { state: 'done', when: at(1), by })
    job = withReading(job, 'rested-bank', read(13.3, 2))
    job = withFitted(job, 'runs/main-lead/areaMm2', { value: 35, how: 'measured' })
    job = withMended(job, { cause: 'resistance@main-lead', words: 'Poor joint in W1', when: at(3), by })
    expect(checkJob(job)).toEqual({ ok: true, job })
  })
  it.each([
    [{ steps: { x: { state: 'half', when: at(1), by } }, readings: {}, mended: [], fitted: [] }],
    [
      {
        steps: {},
        readings: { x: [{ value: 'NaN', when: at(1), by, from: 'typed' }] },
        mended: [],
        fitted: [],
      },
    ],
    [{ steps: {}, readings: { '<b>': [] }, mended: [], fitted: [] }],
    [{ steps: {} }],
  ])('is refused where it does not fit', (proving) => {
    expect(checkJob({ ...goodJob(), proving }).ok).toBe(false)
  })
  it('of two people at two ends of a boat does not meet', () => {
    const base = withStep(goodJob(), 'safe-photos', { state: 'done', when: at(0), by })
    const one = changesBetween(base, withStep(base, 'safe-mains', { state: 'done', when: at(1), by }))
    const other = changesBetween(base, withReading(base, 'rested-bank', read(13.3, 2)))
    expect(conflictsBetween(one, other)).toEqual([])
    const both = applyChanges(applyChanges(base, one), other)
    expect(Object.keys(provingOf(both).steps)).toEqual(['safe-photos', 'safe-mains'])
    expect(provingOf(both).readings['rested-bank']).toHaveLength(1)
  })
  it('keeps every reading of a test, and the last one counts', () => {
    let job = withReading(withReading(goodJob(), 'rested-bank', read(12, 1)), 'rested-bank', read(13, 2))
    expect(standingReadings(provingOf(job)).get('rested-bank')!.value).toBe(13)
    job = withoutReading(job, 'rested-bank')
    expect(standingReadings(provingOf(job)).get('rested-bank')!.value).toBe(12)
    expect(standingReadings(provingOf(withoutReading(job, 'rested-bank'))).size).toBe(0)
    for (let i = 0; i < mostReadings + 5; i++) job = withReading(job, 'rested-bank', read(i, 3))
    expect(provingOf(job).readings['rested-bank']).toHaveLength(mostReadings)
  })
  it('counts no reading from before something was repaired', () => {
    let job = withReading(goodJob(), 'rested-bank', read(12, 1))
    job = withMended(job, { cause: 'x', words: 'x', when: at(5), by })
    expect(standingReadings(provingOf(job)).size).toBe(0)
    job = withReading(job, 'rested-bank', read(13.3, 6))
    expect(standingReadings(provingOf(job)).get('rested-bank')!.value).toBe(13.3)
  })
  it('is left out of a copy', () => {
    expect(copyOfJob(withReading(goodJob(), 'rested-bank', read(1, 1)), '2').proving).toBeUndefined()
  })
  it('as fitted holds the differences, and the survey stays as it was', () => {
    const job = withFitted(goodJob(), 'runs/main-lead/areaMm2', { value: 35, how: 'measured' })
    expect(asFitted(job).runs['main-lead']).toMatchObject({ areaMm2: { value: 35 } })
    expect(job.runs).toEqual(goodJob().runs)
    expect(asFitted(withFitted(job, 'runs/main-lead/areaMm2', undefined)).runs).toEqual(goodJob().runs)
  })
})
