import { describe, expect, it } from 'vitest'
import { resolveRules } from '#core/rules/rules'
import { lessonsOf, type PredictedReading } from './learnt'

const reading = (change: Partial<PredictedReading> = {}): PredictedReading => ({
  quantity: 'jointResistance',
  craft: 'a',
  kind: 'vessel',
  value: 1.1,
  expected: 1,
  ageYears: 0,
  ...change,
})
const many = (count: number, change: (i: number) => Partial<PredictedReading>): PredictedReading[] =>
  Array.from({ length: count }, (_, i) => reading({ craft: `craft ${i % 4}`, ...change(i) }))

describe('the shop’s learnt values', () => {
  it('gives bias and spread with their counts, by kind', () => {
    const [lesson] = lessonsOf(
      [
        ...many(6, (i) => ({ value: 1.08 + 0.01 * (i % 3) })),
        ...many(4, () => ({ kind: 'vehicle', value: 1.2 })),
      ],
      resolveRules({}),
    )
    expect(lesson!.all).toMatchObject({ readings: 10, crafts: 4 })
    expect(lesson!.rows.map(({ group, readings }) => [group, readings])).toEqual([
      ['Vessel', 6],
      ['Road vehicle', 4],
    ])
    expect(lesson!.rows[1]!.bias).toBeCloseTo(20, 6)
  })

  it('offers the cable temperature that fits, from enough readings only', () => {
    const offer = (count: number) =>
      lessonsOf(
        many(count, (i) => ({ value: 1.118 + 0.002 * (i % 3) })),
        resolveRules({}),
      )[0]!.offer
    // 12 % more resistance: 12 / 0.393 = 30.5 K above 20 °C.
    expect(offer(15)).toMatchObject({ rule: 'cableC', now: 20, fits: 51 })
    expect(offer(11)).toBeNull()
    expect(
      lessonsOf(
        many(20, (i) => ({ value: i % 2 ? 1.3 : 0.7 })),
        resolveRules({}),
      )[0]!.offer,
    ).toBeNull()
  })

  it('compares capacity by age and case temperature by difference, and offers nothing for them', () => {
    const lessons = lessonsOf(
      [
        reading({ quantity: 'capacity', value: 90, expected: 100, ageYears: 3 }),
        reading({ quantity: 'capacity', value: 99, expected: 100, ageYears: 0.5 }),
        reading({ quantity: 'caseTemperature', value: 95, expected: 88 }),
        reading({ quantity: 'hoursToFull', value: 5, expected: 0 }),
      ],
      resolveRules({}),
    )
    expect(lessons.map(({ topic, offer }) => [topic, offer])).toEqual([
      ['caseTemperature', null],
      ['capacity', null],
    ])
    expect(lessons[1]!.rows.map(({ group, bias }) => [group, Math.round(bias)])).toEqual([
      ['up to 2 years', -1],
      ['2 to 5 years', -10],
    ])
    expect(lessons[0]!.all.bias).toBe(7)
  })
})
