import { mount } from '@vue/test-utils'
import { describe, expect, it } from 'vitest'
import { loadColumns } from '#core/formats/loads-csv'
import ColumnChoice from './ColumnChoice.vue'

const text = 'Consumer;Current;Remark\nFridge;4;galley\nNavigation light;1,5;mast\n'
const choice = (of = text) =>
  mount(ColumnChoice, { props: { text: of, columns: loadColumns, part: 'loads' as const } })

describe('the columns of somebody else’s table', () => {
  it('shows each with its first values', () => {
    const rows = choice().findAll('tbody tr')
    expect(rows.map((row) => row.get('th').text())).toEqual(['Consumer', 'Current', 'Remark'])
    expect(rows[0]!.text()).toContain('Fridge · Navigation light')
  })

  it('gives on only the columns that were matched', async () => {
    const one = choice()
    const [name, amps, remark] = one.findAll('select')
    await name!.setValue('name')
    await amps!.setValue('amps')
    await remark!.setValue(null)
    await one.get('button.act').trigger('click')
    const [ready] = one.emitted('ready')![0] as [string]
    expect(ready.split(/\r?\n/)[0]).toBe('name,amps (A)')
    expect(ready).toContain('Fridge')
    expect(ready).not.toContain('galley')
  })

  it('does not read two columns as one', async () => {
    const one = choice()
    const [name, amps] = one.findAll('select')
    await name!.setValue('name')
    await amps!.setValue('name')
    expect(one.get('[role=alert]').text()).toMatch(/^Two columns become Name/)
    expect(one.get('button.act').attributes('disabled')).toBeDefined()
  })

  it('needs a name', async () => {
    const one = choice()
    for (const select of one.findAll('select')) await select.setValue(null)
    expect(one.get('[role=alert]').text()).toContain('code or the name')
    expect(one.get('button.act').attributes('disabled')).toBeDefined()
  })

  it('imports nothing where that is wanted', async () => {
    const one = choice()
    await one.get('button.act-quiet').trigger('click')
    expect(one.emitted('cancel')).toHaveLength(1)
    expect(one.emitted('ready')).toBeUndefined()
  })
})
