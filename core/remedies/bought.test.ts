import { describe, expect, it } from 'vitest'
import { costOf } from '#core/job/specified'
import type { WiringPart } from '#core/wiring/lists'
import type { ShelfKindId, ShelfPart, ShelfValues } from '#core/shelf/kinds'
import { boughtFrom } from './bought'

const onShelf = (kind: ShelfKindId, code: string, values: ShelfValues): ShelfPart => ({
  kind,
  code,
  version: 1,
  name: `The ${code}`,
  maker: 'Heron & Daughters',
  values,
})
const shelf = [
  onShelf('conductors', 'C25', { areaMm2: 25, material: 'copper', insulationC: '90', pricePerM: 6 }),
  onShelf('conductors', 'C25-HOT', { areaMm2: 25, material: 'copper', insulationC: '105', pricePerM: 8 }),
  onShelf('conductors', 'C25-CHEAP', { areaMm2: 25, material: 'copper', insulationC: '70', pricePerM: 4 }),
  onShelf('conductors', 'A25', { areaMm2: 25, material: 'aluminium', insulationC: '90', pricePerM: 2 }),
  onShelf('switches', 'S300', { continuousA: 300, remote: 'no', price: 40 }),
  onShelf('switches', 'S500', { continuousA: 500, remote: 'no', price: 70 }),
  onShelf('switches', 'S300-R', { continuousA: 300, remote: 'yes', price: 30 }),
  onShelf('switches', 'S250', { continuousA: 250, remote: 'no' }),
]
const wanted = (part: Partial<WiringPart>): WiringPart => ({
  what: 'A thing',
  quantity: 1,
  unit: '',
  wanted: null,
  kg: null,
  ...part,
})
const cable = (insulationC: number): WiringPart =>
  wanted({
    what: 'Cable 25 mm²',
    quantity: 3.5,
    unit: 'm',
    wanted: {
      kind: 'conductors',
      exactly: { areaMm2: 25, material: 'copper' },
      least: { insulationC },
    },
  })
const theSwitch = (continuousA: number): WiringPart =>
  wanted({
    what: 'Battery switch',
    wanted: { kind: 'switches', exactly: { remote: 'no' }, least: { continuousA } },
  })

describe('a part of the wiring is bought', () => {
  it('as the cheapest that does, by the metre where it is cable', () => {
    expect(boughtFrom(shelf, cable(90))).toMatchObject({ code: 'C25', quantity: 3.5, unit: 'm', price: 6 })
    expect(boughtFrom(shelf, theSwitch(280))).toMatchObject({ code: 'S300', price: 40 })
  })
  it('as one that does more where nothing else does, and never as one that does less', () => {
    expect(boughtFrom(shelf, cable(100)).code).toBe('C25-HOT')
    expect(boughtFrom(shelf, theSwitch(301)).code).toBe('S500')
  })
  it('as one whose price is to be asked only where no other does', () => {
    expect(boughtFrom(shelf, theSwitch(200)).code).toBe('S300')
    const [, , , , , , , unpriced] = shelf
    expect(boughtFrom([unpriced!], theSwitch(200))).toMatchObject({ code: 'S250', price: null })
  })
  it('by its own name where the shelf has none, or no kind for it', () => {
    const none = { kind: null, code: '', price: null }
    expect(boughtFrom(shelf, theSwitch(600))).toMatchObject({ ...none, name: 'Battery switch' })
    expect(boughtFrom(shelf, wanted({ what: 'Bus bar, 500 A' }))).toMatchObject({
      ...none,
      name: 'Bus bar, 500 A',
    })
    expect(boughtFrom([], cable(70))).toMatchObject(none)
  })
})

describe('the cost of parts', () => {
  it('is the total of those that have a price', () => {
    const parts = [boughtFrom(shelf, cable(90)), boughtFrom(shelf, theSwitch(280)), boughtFrom([], cable(70))]
    expect(costOf(parts)).toBeCloseTo(3.5 * 6 + 40, 9)
    expect(costOf([])).toBe(0)
  })
})
