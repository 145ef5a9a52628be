import { readFileSync, readdirSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readShelfCsv } from '#core/formats/shelf-csv'
import type { JobDocument } from '#core/job/document'
import { goodJob, withValues } from '#core/testing'
import { shelfKindIds, type ShelfPart } from '#core/shelf/kinds'
import { solve } from './answer'
import { networkOf } from '#core/network/of-job'
import type { RuleOverrides } from '#core/rules/rules'
import { planOf } from './plan'
import { specifiedBy } from './specify'
import { wiringWorkOf } from './wiring'

const shelf: ShelfPart[] = shelfKindIds.flatMap((kind) =>
  readShelfCsv(
    readFileSync(new URL(`../../demo/shelf/${kind}.csv`, import.meta.url), 'utf8'),
    kind,
  ).parts.map(({ code, name, maker, values }) => ({ kind, version: 1, code, name, maker, values })),
)
const folder = new URL('../../demo/jobs/', import.meta.url)
const trailer = JSON.parse(
  readFileSync(
    new URL(
      readdirSync(folder).find((name) => name.startsWith('0430'))!,
      folder,
    ),
    'utf8',
  ),
) as JobDocument

describe('the wiring of an answer', () => {
  it('is taken from the shelf where it has it, by size and with its price a metre', () => {
    const { parts } = wiringWorkOf(planOf(goodJob(), {}, shelf), [])
    const cable = parts.find(({ kind }) => kind === 'conductors')!
    expect(cable.unit).toBe('m')
    const own = shelf.find(({ code }) => code === cable.code)!
    expect(cable.price).toBe(own.values.pricePerM)
    expect(parts.find(({ name }) => name.startsWith('Lug'))).toMatchObject({ kind: null, price: null })
  })
  it('is named and has no price where the shelf lacks it', () => {
    const { parts } = wiringWorkOf(planOf(goodJob(), {}, []), [])
    expect(parts.length).toBeGreaterThan(5)
    expect(parts.every(({ price, kind }) => price === null && kind === null)).toBe(true)
  })
  it('grows with the length of a run that is set', () => {
    const metres = (lengthM: number): number =>
      wiringWorkOf(planOf(withValues(goodJob(), { 'runs/main-feed-1/lengthM': lengthM }), {}, shelf), [])
        .parts.filter(({ kind }) => kind === 'conductors')
        .reduce((sum, { quantity }) => sum + quantity, 0)
    expect(metres(6)).toBeGreaterThan(metres(1) + 4)
  })
  it('takes the shop’s minutes for each new run and each device', () => {
    const hours = (rules: RuleOverrides): number =>
      wiringWorkOf(planOf(goodJob(), { rules }, shelf), []).hours
    const { runs, posts } = networkOf(goodJob(), {})
    expect(hours({ runMinutes: 0, deviceMinutes: 0 })).toBe(0)
    const laid = runs.filter(({ state, areaMm2 }) => state === 'new' && areaMm2 !== null)
    expect(hours({ runMinutes: 60, deviceMinutes: 0 })).toBe(laid.reduce((sum, { count }) => sum + count, 0))
    const mounted = posts.filter(({ state, fitting }) => state === 'new' && fitting?.ratedA != null)
    expect(hours({ runMinutes: 0, deviceMinutes: 60 })).toBe(mounted.length)
  })
  it('is in the price of each answer, and in the steps of the one that is chosen', () => {
    const [answer] = solve(planOf(trailer, {}, shelf)).answers
    const wiring = answer!.wiring.parts.reduce((sum, { price, quantity }) => sum + (price ?? 0) * quantity, 0)
    const others = [...answer!.bank, ...answer!.steps.flatMap(({ parts }) => parts)].reduce(
      (sum, { price, quantity }) => sum + (price ?? 0) * quantity,
      0,
    )
    expect(wiring).toBeGreaterThan(0)
    expect(answer!.figures.partsCost).toBeCloseTo(wiring + others, 2)
    const { steps } = specifiedBy(answer!, 'Ida', '2026-11-27T10:00:00.000Z')
    expect(steps.at(-1)).toMatchObject({
      label: 'Wire it as drawn',
      parts: answer!.wiring.parts,
      hours: answer!.wiring.hours,
    })
  })
})
