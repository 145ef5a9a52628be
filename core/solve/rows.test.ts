import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { JobDocument } from '#core/job/document'
import { demoShelf } from '../../scripts/lib/demo-shelf'
import { searchAnswers } from './answers'
import { planOf } from './plan'
import { answerRows } from './rows'

const job = JSON.parse(
  readFileSync(new URL('../../demo/jobs/0424-library-bus.json', import.meta.url), 'utf8'),
) as JobDocument
const shelf = demoShelf()
const { answers } = searchAnswers(planOf(job, {}, shelf))
const rows = answerRows(answers, shelf)

describe('answers as rows', () => {
  it('hold the cost, the work and the conditions of an answer', () => {
    expect(rows.map(({ name, verdict }) => [name, verdict])).toEqual(
      answers.map(({ name, verdict }) => [name, verdict]),
    )
    const open = rows.find(({ verdict }) => verdict === 'measure-first')!
    expect(open.conditions.map(({ path }) => path)).toContain('chargers/charger-1/absorptionV')
  })

  it('hold the wiring too, with sizes, families and ratings', () => {
    for (const { parts } of rows) {
      const cables = parts.filter(({ kind }) => kind === 'conductors')
      expect(cables.length).toBeGreaterThan(0)
      expect(cables.every(({ areaMm2 }) => areaMm2! > 0)).toBe(true)
      const fuses = parts.filter(({ kind }) => kind === 'fuses')
      expect(fuses.every(({ fuseFamily, ratedA }) => fuseFamily !== undefined && ratedA! > 0)).toBe(true)
    }
  })

  it('cost the total of their priced parts and hours', () => {
    for (const { cost, hours, parts, unpriced } of rows) {
      const priced = parts.reduce((sum, { price, quantity }) => sum + (price ?? 0) * quantity, 0)
      expect(parts.filter(({ price }) => price === null)).toHaveLength(unpriced)
      // 60 an hour is the shop's default.
      expect(cost).toBeCloseTo(priced + 60 * hours, 0)
    }
  })

  it('name parts that an empty shelf lacks all the same', () => {
    const bare = answerRows(searchAnswers(planOf(job, {}, [])).answers, [])
    expect(bare[0]!.parts.some(({ kind, areaMm2 }) => kind === 'conductors' && areaMm2! > 0)).toBe(true)
    // The battery comes first, and has a price of its own.
    const bought = bare[0]!.parts.slice(1)
    expect(bought.every(({ price }) => price === null)).toBe(true)
  })
})
