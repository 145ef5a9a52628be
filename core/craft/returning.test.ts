import { describe, expect, it } from 'vitest'
import { withFitted } from '#core/job/proving-edits'
import { knownAt } from '#core/job/document'
import { chosen } from '../../scripts/lib/chosen-workboat'
import { identityOfJob, headOfCraft } from './craft'
import { returningJob } from './returning'

describe('a craft that comes back', () => {
  const fitted = withFitted(chosen, 'runs/main-lead/lengthM', { value: 0.4, how: 'measured' })
  const learnt = [{ of: 'main-lead', what: 'resistance' as const, before: 0.3, after: 0.42, within: 0.05 }]
  const next = returningJob(fitted, learnt, '0999')

  it('starts from the fitted parts, without the answer, the proof and the price', () => {
    expect(next.job).toMatchObject({ number: '0999', name: 'Marigold Tern', stage: 'enquiry' })
    expect([next.specified, next.proving, next.quotation]).toEqual([undefined, undefined, undefined])
    expect(Object.keys(next.runs).length).toBeGreaterThan(0)
  })

  it('says of each value which job it comes from, and how it was known there', () => {
    expect(knownAt(next, 'runs/main-lead/lengthM')).toEqual({
      value: 0.4,
      how: 'measured',
      from: 'job 0417, as fitted',
    })
    expect(knownAt(next, 'runs/main-lead/milliohm')).toMatchObject({
      value: 0.42,
      from: 'job 0417, learnt from readings',
    })
    expect(knownAt(next, 'alternators/alternator-1/ratedA')).toMatchObject({ from: 'job 0417, survey' })
    const changed = chosen.specified!.changes.find(
      ({ path }) => knownAt(next, path)?.value != null && !path.startsWith('runs/main-lead'),
    )!
    expect(knownAt(next, changed.path)).toMatchObject({ from: 'job 0417, as specified' })
  })

  it('keeps the first origin of a value that nobody touched since', () => {
    const third = returningJob(next, [], '1000')
    expect(knownAt(third, 'runs/main-lead/lengthM')).toMatchObject({ from: 'job 0417, as fitted' })
  })

  it('keeps the data that identify the craft', () => {
    const identity = identityOfJob(next.job)
    expect(identity).toMatchObject({ name: 'Marigold Tern', kind: 'vessel', customer: 'Tolhurst Oysters' })
    expect(headOfCraft(identity, '1')).toMatchObject({
      number: '1',
      stage: 'enquiry',
      customer: 'Tolhurst Oysters',
    })
    expect(headOfCraft({ ...identity, kind: null, registration: '', contact: '' }, '1')).not.toHaveProperty(
      'craft',
    )
  })
})
