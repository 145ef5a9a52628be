import { describe, expect, it } from 'vitest'
import { goodJob, withValues } from '#core/testing'
import { factsOf } from '#core/system/system'
import { check, number } from './check'
import type { AnyCheck } from './checks/index'
import { judgeCheck } from './result'

// CONTRIBUTING says that a check is one entry. This is one, made as it says; its id alone is not in the catalogue.
const frost = check({
  id: 'place.frost',
  title: 'Frost in the locker',
  about: 'battery',
  why: 'Frost stops the charge.',
  judge(_subject, { one, bank, q }) {
    const { coldestC } = one.place
    const isCold = coldestC < bank.coldLimitC
    return {
      verdict: isCold ? 'suits-once-changed' : 'suits',
      compared: [number('coldest', coldestC, '°C'), number('at least', bank.coldLimitC, '°C')],
      limit: bank.each.$origin('coldLimitC'),
      formula: () => `${q(coldestC, '°C')} against ${q(bank.coldLimitC, '°C')}`,
      summary: () => `The locker falls to ${q(coldestC, '°C')}.`,
      remedies: isCold ? [{ id: 'cold.heater', on: 'candidate' }] : [],
    }
  },
})
const foundIn = (coldestC: number | null) =>
  judgeCheck(frost as unknown as AnyCheck, 0, factsOf(withValues(goodJob(), { 'place/coldestC': coldestC })))
    .result!

describe('one entry is all that a check needs', () => {
  it('to be judged on each side of its limit, with its words, remedy and evidence', () => {
    expect(foundIn(4)).toMatchObject({ verdict: 'suits', remedies: [] })
    const cold = foundIn(-8)
    expect(cold).toMatchObject({
      verdict: 'suits-once-changed',
      title: 'Frost in the locker',
      topic: 'frost in the locker',
      on: 'candidate',
      summary: 'The locker falls to −8 °C.',
      remedies: [{ id: 'cold.heater', on: 'candidate' }],
    })
    expect(cold.inputs.map(({ path }) => path)).toContain('place/coldestC')
    expect(cold.compared).toMatchObject([{ value: -8 }, { value: 0 }])
  })
  it('to ask for a value that nobody knows, and to say where it suits', () => {
    const open = foundIn(null)
    expect(open).toMatchObject({ verdict: 'measure-first', remedies: [] })
    expect(open.summary).toBe('Measure the coldest there.')
    const [deciding] = open.deciding
    expect(deciding!.path).toBe('place/coldestC')
    expect(new Set(deciding!.bands.map(({ verdict }) => verdict))).toEqual(
      new Set(['suits', 'suits-once-changed']),
    )
  })
})
