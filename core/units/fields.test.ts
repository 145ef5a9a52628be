import { describe, expect, it } from 'vitest'
import { partKinds, type PartKind } from '#core/job/fields'
import { metric } from './display'
import { formatQuantity } from './format'
import { parseQuantity } from './parse'

const quantities = Object.entries(partKinds as Record<string, PartKind>).flatMap(([kind, { fields }]) =>
  Object.entries(fields).flatMap(([name, field]) =>
    field.type === 'quantity' ? [[`${kind}/${name}`, field] as const] : [],
  ),
)

describe('a field shows every step of its arrows', () => {
  it.each(quantities)('%s', (_path, field) => {
    const shown = parseQuantity(formatQuantity(field.step, field.unit, metric), field.unit)
    expect(shown).toEqual({ ok: true, value: field.step })
    const later = parseQuantity(formatQuantity(field.limits[0] + field.step, field.unit, metric), field.unit)
    expect(later.ok && Math.abs(later.value - field.limits[0] - field.step)).toBeLessThanOrEqual(
      field.step / 2 + 1e-9,
    )
  })
})

describe('a default is a value that its own field takes', () => {
  it.each(quantities.filter(([, { otherwise }]) => typeof otherwise === 'number'))('%s', (_path, field) => {
    const [least, most] = field.limits
    expect(field.otherwise).toBeGreaterThanOrEqual(least)
    expect(field.otherwise).toBeLessThanOrEqual(most)
  })
})
