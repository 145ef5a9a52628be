import { mount, type VueWrapper } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { partKinds, type Field } from '#core/job/fields'
import { useShop } from '../../stores/shop'
import NumberEntry from './NumberEntry.vue'
import ValueEntry from './ValueEntry.vue'

beforeEach(() => setActivePinia(createPinia()))

/** The last value that an entry gave; undefined where it gave none. */
const given = (entry: VueWrapper): unknown => entry.emitted('update:modelValue')?.at(-1)?.[0]

describe('a number as people type it', () => {
  const entry = (props: Partial<InstanceType<typeof NumberEntry>['$props']> = {}) =>
    mount(NumberEntry, { props: { label: 'Share', modelValue: undefined, most: 100, ...props } })

  it.each([
    ['12,5', 12.5],
    ['12.5', 12.5],
    [' 7 ', 7],
    ['0', 0],
  ])('takes %s as %d', async (typed, value) => {
    const one = entry()
    await one.get('input').setValue(typed)
    expect(given(one)).toBe(value)
    expect(one.find('[role=alert]').exists()).toBe(false)
  })

  it.each([
    ['abc', {}, 'Enter a number.'],
    ['101', {}, 'Enter 0 to 100.'],
    ['-1', {}, 'Enter 0 to 100.'],
    ['4', { least: 5, most: 10 }, 'Enter 5 to 10.'],
    ['2.5', { whole: true }, 'Enter a whole number.'],
  ])('refuses %s when the field is left', async (typed, props, words) => {
    const one = entry(props)
    await one.get('input').setValue(typed)
    await one.get('input').trigger('change')
    expect(one.get('[role=alert]').text()).toBe(words)
    expect(one.get('input').attributes('aria-invalid')).toBe('true')
    expect(given(one)).toBeUndefined()
  })

  it('leaves unfinished text in place', async () => {
    const one = entry({ modelValue: 12 })
    await one.get('input').setValue('12,')
    await one.setProps({ modelValue: 12 })
    expect(one.get('input').element.value).toBe('12,')
  })

  it('goes back to the usual when it is emptied', async () => {
    const one = entry({ modelValue: 12, usual: 80 })
    expect(one.get('input').attributes('placeholder')).toBe('80')
    await one.get('input').setValue('')
    expect(one.emitted('update:modelValue')!.at(-1)).toEqual([undefined])
  })

  it('shows a value that changes elsewhere, as when a change is undone', async () => {
    const one = entry({ modelValue: 12 })
    await one.setProps({ modelValue: 15 })
    expect(one.get('input').element.value).toBe('15')
  })
})

describe('a value of a field', () => {
  const { absorptionV: absorption, profile } = partKinds.chargers.fields
  const entry = (modelValue: number | string | null, field: Field = absorption) =>
    mount(ValueEntry, { props: { field, label: 'Absorption', modelValue } })

  it('takes a quantity with or without its unit', async () => {
    const one = entry(null)
    await one.get('input').setValue('14.2')
    expect(given(one)).toBe(14.2)
    await one.get('input').setValue('14,4 V')
    expect(given(one)).toBe(14.4)
  })

  it('shows the error next to the field, and passes nothing on', async () => {
    const one = entry(null)
    await one.get('input').setValue('900')
    expect(one.get('p').text()).toBe('Must be 0.0 to 80.0 V')
    expect(one.get('input').attributes('aria-describedby')).toBe(one.get('p').attributes('id'))
    expect(given(one)).toBeUndefined()
    expect(one.emitted('bad')!.at(-1)![0]).not.toBe('')
  })

  it('makes a value unknown when it is emptied', async () => {
    const one = entry(14.2)
    await one.get('input').setValue('')
    expect(given(one)).toBeNull()
  })

  it('writes it as the shop does once the field is left', async () => {
    const one = entry(14.2)
    await one.get('input').setValue('14,40')
    await one.setProps({ modelValue: 14.4 })
    await one.get('input').trigger('blur')
    expect(one.get('input').element.value).toBe('14.4 V')
  })

  it('goes up and down by its step, within its limits', async () => {
    const one = entry(14.2)
    await one.get('input').trigger('keydown', { key: 'ArrowUp' })
    expect(given(one)).toBeCloseTo(14.2 + absorption.step, 6)
    const top = entry(absorption.limits[1])
    await top.get('input').trigger('keydown', { key: 'ArrowUp' })
    expect(given(top)).toBe(absorption.limits[1])
  })

  it('no longer calls a value wrong after a step has replaced it', async () => {
    const one = entry(14.2)
    await one.get('input').setValue('nonsense')
    expect(one.find('p').exists()).toBe(true)
    await one.get('input').trigger('keydown', { key: 'ArrowUp' })
    expect(one.find('p').exists()).toBe(false)
    expect(one.emitted('bad')!.at(-1)).toEqual([''])
  })

  it('offers the options of a choice, and that it is not stated', async () => {
    const one = entry('fixed', profile)
    const options = one.findAll('option').map((option) => option.element.value)
    expect(options[0]).toBe('')
    expect(options).toContain('adjustable')
    await one.get('select').setValue('adjustable')
    expect(given(one)).toBe('adjustable')
    await one.get('select').setValue('')
    expect(given(one)).toBeNull()
  })

  it('reads and writes in the units of the shop', async () => {
    const shop = useShop()
    shop.take({ ...shop.shop, units: { system: 'imperial', currency: '€' } })
    const one = entry(3.048, partKinds.conductors.fields.lengthM)
    expect(one.get('input').element.value).toBe('10 ft')
    await one.get('input').setValue('20')
    expect(given(one)).toBeCloseTo(6.096, 3)
  })
})
