import { describe, expect, it } from 'vitest'
import { judgeJob } from '#core/verdict/job'
import { openQuestions, typicalBanks, withTypicalBank } from './beginning'
import { emptyJob, withField, withNewPart } from './document'

describe('the beginning of a job', () => {
  const empty = emptyJob('1')
  const withSource = withNewPart(empty, 'chargers', {}).job
  const withBank = withTypicalBank(withSource, typicalBanks[1])
  const withBattery = withField(withBank, 'candidate/ahEach', { value: 200, how: 'label' })

  it('asks for sources, the bank and the battery, each until it is answered', () => {
    expect(openQuestions(empty)).toEqual(['sources', 'bank', 'battery'])
    expect(openQuestions(withSource)).toEqual(['bank', 'battery'])
    expect(openQuestions(withBank)).toEqual(['battery'])
    expect(openQuestions(withBattery)).toEqual([])
  })

  it('counts a value that was cleared again as not answered', () => {
    expect(openQuestions(withField(withBattery, 'candidate/ahEach', { value: null }))).toEqual(['battery'])
  })

  it('says which value to enter first in place of a verdict', () => {
    const headlines = [empty, withSource, withBank].map((job) => judgeJob(job).found.headline)
    expect(headlines).toEqual([
      'Enter what charges the house bank',
      'Enter the house bank',
      'Choose the new battery',
    ])
    for (const job of [empty, withSource, withBank]) expect(judgeJob(job).found.verdict).toBe('measure-first')
  })

  it('says nothing of a battery that was not entered', () => {
    expect(judgeJob(withBank).assessment.checks.filter(({ on }) => on === 'candidate')).toEqual([])
    expect(judgeJob(withBattery).assessment.checks.some(({ on }) => on === 'candidate')).toBe(true)
  })
})
