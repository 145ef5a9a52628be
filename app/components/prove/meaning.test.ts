import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { otherId, soundId } from '#core/diagnosis/cause-ids'
import type { ShownCause, ShownDiagnosis, ShownTest } from '#core/diagnosis/shown'
import CauseList from './CauseList.vue'
import ReadingBand from './ReadingBand.vue'
import WalkList from './WalkList.vue'

beforeEach(() => setActivePinia(createPinia()))

const cause = (id: string, probability: number, more: Partial<ShownCause> = {}): ShownCause => ({
  id,
  words: `Words of ${id}`,
  mend: `Mend ${id}.`,
  probability,
  size: null,
  unit: '',
  for: [],
  against: [],
  together: [],
  ...more,
})
const diagnosis = (causes: readonly ShownCause[], more: Partial<ShownDiagnosis> = {}): ShownDiagnosis => ({
  causes,
  explained: true,
  looksWrong: true,
  risk: { hidden: 0.05, dangerous: 0.01 },
  next: null,
  ...more,
})

describe('the causes of readings', () => {
  const list = (of: ShownDiagnosis, props: { whole?: boolean; canMend?: boolean } = {}) =>
    mount(CauseList, { props: { diagnosis: of, titleOf: (test: string) => `Title of ${test}`, ...props } })

  it('names the likeliest first, how likely it is and how large', () => {
    const one = list(
      diagnosis([cause('resistance@w1', 0.93, { size: 5.23, unit: 'mΩ' }), cause(soundId, 0.07)]),
    )
    expect(one.get('h3').text()).toBe('Most likely')
    const [first] = one.findAll('li')
    expect(first!.text()).toContain('Words of resistance@w1, about 5.2 mΩ')
    expect(first!.text()).toContain('93 %')
  })

  it('never calls a cause certain', () => {
    expect(list(diagnosis([cause('a', 0.9999)])).text()).toContain('> 99 %')
  })

  it('shows a repair only for causes that are more likely than not', () => {
    expect(list(diagnosis([cause('a', 0.6)])).text()).toContain('Mend a.')
    expect(list(diagnosis([cause('a', 0.4), cause('b', 0.35)])).text()).not.toContain('Mend')
  })

  it('has no repair for a sound system', () => {
    const one = list(diagnosis([cause(soundId, 0.95)]), { canMend: true })
    expect(one.get('h3').text()).toBe('No fault found so far')
    expect(one.text()).not.toContain('Repair')
    expect(one.find('[data-testid=mended]').exists()).toBe(false)
  })

  it('gives no percentages where no cause explains the readings', () => {
    const one = list(diagnosis([cause(otherId, 0.9), cause('a', 0.08)], { explained: false }))
    expect(one.get('h3').text()).toBe('No known fault explains this')
    expect(one.findAll('li').map((item) => item.attributes('data-cause'))).toEqual(['a'])
    expect(one.text()).not.toContain('%')
    expect(one.text()).not.toContain('Mend')
  })

  it('shows the evidence for and against a cause in the full list', () => {
    const speaks = (title: string) => ({ test: title, title }) as unknown as ShownCause['for'][number]
    const of = diagnosis([
      cause('a', 0.7, { for: [speaks('Voltage at the bar')], against: [speaks('Current at rest')] }),
    ])
    expect(list(of).text()).not.toContain('Evidence')
    const whole = list(of, { whole: true }).text()
    expect(whole).toContain('Evidence for it: Voltage at the bar.')
    expect(whole).toContain('Evidence against it: Current at rest.')
  })

  it('leads to the next measurement', async () => {
    const one = list(diagnosis([cause('a', 0.5)], { next: { test: 'volts-bar', bits: 1, minutes: 2 } }))
    expect(one.text()).toContain('Next, 2 min:')
    await one.get('[data-testid=measure-next]').trigger('click')
    expect(one.emitted('measure')).toEqual([['volts-bar']])
  })

  it('hands on the cause that was repaired', async () => {
    const top = cause('a', 0.8)
    const one = list(diagnosis([top]), { canMend: true })
    await one.get('[data-testid=mended]').trigger('click')
    expect(one.emitted('mended')).toEqual([[top]])
  })
})

describe('the band of a reading', () => {
  const test = { quantity: 'volts', unit: 'V', expected: 13.2, tolerance: 0.1 } as ShownTest
  const band = (value: number | null, of: Partial<ShownTest> = {}) =>
    mount(ReadingBand, { props: { test: { ...test, ...of }, value } })
  /** Where the mark of the reading stands, 0 to 100; null if there is none. */
  const markOf = (value: number | null): number | null => {
    const marks = band(value).findAll('rect[fill="var(--ink)"]')
    return marks.length === 0 ? null : Number(marks[0]!.attributes('x')) + 0.5
  }

  it('shows the expected reading with its tolerance', () => {
    expect(band(null).get('[data-testid=expected]').text()).toBe('expected 13.20 ± 0.10 V')
  })
  it('marks a reading where it lies, and none where there is none', () => {
    expect(markOf(null)).toBeNull()
    expect(markOf(13.2)).toBeCloseTo(50, 6)
    expect(markOf(13.3)!).toBeGreaterThan(50)
  })
  it('keeps a reading far outside on the scale', () => {
    expect(markOf(60)).toBe(99)
    expect(markOf(-60)).toBe(1)
  })
  it('draws no scale for a yes or no', () => {
    expect(band(1, { quantity: 'answer', unit: '', expected: 1, tolerance: 0 }).find('svg').exists()).toBe(
      false,
    )
  })
})

describe('the list of a walk-round', () => {
  const items: ShownTest['list'] = [
    { place: 'Engine space', words: 'F2 says 100 A', tests: ['fuse-f2'] },
    { place: 'Locker', words: 'W1 is tight at both ends', tests: ['lug-w1', 'torque-w1'] },
    { place: 'Engine space', words: 'The cover is on', tests: [] },
  ] as unknown as ShownTest['list']
  const walk = () => mount(WalkList, { props: { list: items, titleOf: (id: string) => `Title of ${id}` } })
  const differs = (words: string) => `button[aria-label="Differs: ${words}"]`

  it('goes from place to place', () => {
    expect(
      walk()
        .findAll('section')
        .map((part) => part.attributes('aria-label')),
    ).toEqual(['Engine space', 'Locker'])
    expect(walk().get('section').findAll('li')).toHaveLength(2)
  })
  it('leads from a differing item to its own test', async () => {
    const one = walk()
    await one.get(differs('F2 says 100 A')).trigger('click')
    expect(one.emitted('single')).toEqual([['fuse-f2']])
  })
  it('asks first which of several tests it is about', async () => {
    const one = walk()
    const button = one.get(differs('W1 is tight at both ends'))
    await button.trigger('click')
    expect(one.emitted('single')).toBeUndefined()
    expect(button.attributes('aria-expanded')).toBe('true')
    await one.findAll('button.act-quiet')[1]!.trigger('click')
    expect(one.emitted('single')).toEqual([['torque-w1']])
  })
  it('has no button for an item without a test', () => {
    expect(walk().find(differs('The cover is on')).exists()).toBe(false)
  })
})
