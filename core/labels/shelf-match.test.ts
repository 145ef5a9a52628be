import { describe, expect, it } from 'vitest'
import type { ShelfPart } from '#core/shelf/kinds'
import { readLabel, type LabelReading } from './read-label'
import { shelfMatch } from './shelf-match'

const part = (code: string, name: string, ahEach: number, maker = 'Brindle Cells'): ShelfPart => ({
  kind: 'batteries',
  code,
  version: 1,
  name,
  maker,
  values: { ahEach, nominalV: '12' },
})
const parts = [part('BRI-100H', 'Brindle 100 H', 100), part('BRI-200H', 'Brindle 200 H', 200)]
const box = { left: 0, top: 0, right: 9, bottom: 9 }
const empty = readLabel([], 'candidate')
const match = (reading: Partial<LabelReading>, codes: readonly string[] = [], print = '', of = parts) =>
  shelfMatch({ ...empty, ...reading }, { codes, parts: of, print })?.code
const value = (field: string, of: number | string) => ({
  field,
  value: of,
  printed: '',
  box,
  isSure: true,
  doubt: '',
})
const named = (text: string) => ({ model: { text, box, isSure: true } })

describe('the part of the shelf that a label is of', () => {
  it('is the one whose code is on it, as a barcode or as its model, however it is spaced', () => {
    expect(match({}, ['https://example.test', 'bri-200h'])).toBe('BRI-200H')
    expect(match(named('BRI 100H'))).toBe('BRI-100H')
  })

  it('is the one whose name has its model, if it is the only one', () => {
    expect(match(named('200H'))).toBe('BRI-200H')
    expect(match(named('BRINDLE'))).toBeUndefined()
  })

  it('is the one of its maker with its values, and none where a value differs', () => {
    const values = [value('ahEach', 200), value('nominalV', '12')]
    expect(match({ values }, [], 'BRINDLE CELLS LiFePO4')).toBe('BRI-200H')
    expect(match({ values }, [], 'Pipit Marine LiFePO4')).toBeUndefined()
    expect(
      match({ values: [...values, value('weightKg', 3)] }, [], 'Brindle Cells', [
        { ...parts[1]!, values: { ...parts[1]!.values, weightKg: 23 } },
      ]),
    ).toBeUndefined()
  })

  it('is none where several fit', () => {
    const twice = [parts[1]!, part('BRI-200X', 'Brindle 200 X', 200)]
    expect(
      match({ values: [value('ahEach', 200), value('nominalV', '12')] }, [], 'Brindle Cells', twice),
    ).toBeUndefined()
  })
})
