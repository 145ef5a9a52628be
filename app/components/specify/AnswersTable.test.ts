import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Answer } from '#core/solve/answer'
import type { Figures } from '#core/solve/evaluate'
import AnswersTable from './AnswersTable.vue'

const figures: Figures = {
  cost: 1200,
  partsCost: 900,
  hours: 4,
  unpriced: 0,
  hoursToFull: 6.5,
  moreAhADay: null,
  endsAt: 1,
  alternatorPeakC: 96.4,
  givesUpW: 0,
  daysAway: 3,
  changes: 2,
  unseen: 0,
  unservedAh: 0,
}
/** An answer with the values that the table shows. */
const answer = (id: string, own: Partial<Figures> = {}, more: Partial<Answer> = {}): Answer =>
  ({
    id,
    name: `Answer ${id}`,
    verdict: 'suits-once-changed',
    headline: 'Suits after 2 changes',
    conditions: [],
    figures: { ...figures, ...own },
    ...more,
  }) as Answer

describe('all answers in one table', () => {
  beforeEach(() => setActivePinia(createPinia()))
  const table = (
    answers: readonly Answer[],
    more: { current?: string; pinned?: string[]; chosen?: string } = {},
  ) =>
    mount(AnswersTable, {
      props: {
        answers,
        current: more.current ?? null,
        pinned: more.pinned ?? [],
        isChosen: ({ id }: Answer) => id === more.chosen,
      },
    })
  const cells = (one: ReturnType<typeof table>, row = 0): string[] =>
    one
      .findAll('tbody tr')
      [row]!.findAll('td')
      .map((cell) => cell.text())

  it('gives each figure with its unit', () => {
    const [, cost, hours, peak, days, changes] = cells(table([answer('a')]))
    expect([cost, hours, peak, days, changes]).toEqual(['1200 €', '6.5 h', '96 °C', '3 days', '2'])
  })

  it('uses words where there is no number', () => {
    const [, , hours, peak, days] = cells(
      table([answer('a', { hoursToFull: null, alternatorPeakC: null, daysAway: Infinity })]),
    )
    expect([hours, peak, days]).toEqual(['not in 3 days', 'not used', 'no end'])
  })

  it('shows lost power only for an answer that gives some up', () => {
    expect(table([answer('a')]).text()).not.toContain('Gives up')
    const one = table([answer('a'), answer('b', { givesUpW: 800 })])
    expect(cells(one, 0).at(-1)).toBe('nothing')
    expect(cells(one, 1).at(-1)).toBe('800 W of inverter')
  })

  it('is chosen from by name', async () => {
    const one = table([answer('a'), answer('b')], { current: 'a' })
    const [first, second] = one.findAll('tbody button')
    expect(first!.attributes('aria-pressed')).toBe('true')
    await second!.trigger('click')
    expect(one.emitted('select')).toEqual([['b']])
  })

  it('marks the specified answer before the pinned one', () => {
    const one = table([answer('a'), answer('b')], { pinned: ['a', 'b'], chosen: 'a' })
    const [first, second] = one.findAll('tbody th')
    expect(first!.text()).toContain('specified')
    expect(first!.text()).not.toContain('pinned')
    expect(second!.text()).toContain('pinned')
  })
})
