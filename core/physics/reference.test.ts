import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { ampacityA, cableSizesMm2, copperOhmPerM } from './conductors'
import { fastestS, fuseMostV, usualS } from './fuse-times'
import { fuseInterruptA, fuseRangeA, type FuseFamily } from './fuses'
import { openCircuitV } from './lfp'

// The tables of the core against the project's reference tables, line by line. A figure that is changed in one of
// the two fails here.

const rowsOf = (name: string): readonly Readonly<Record<string, string>>[] => {
  const text = readFileSync(new URL(`./reference/${name}.csv`, import.meta.url), 'utf8')
  const [head, ...lines] = text.trim().split('\n')
  const names = head!.split(',')
  return lines.map((line) => Object.fromEntries(line.split(',').map((cell, i) => [names[i]!, cell])))
}
const familyOf = (row: Readonly<Record<string, string>>): FuseFamily => row.family as FuseFamily

describe('the reference table', () => {
  // Rows by trade size give one insulation alone.
  const metric = rowsOf('conductors').filter(({ awg }) => awg === '')

  it('of conductors has the sizes of the core', () => {
    expect(cableSizesMm2).toEqual(metric.map(({ area_mm2: area }) => Number(area)))
  })
  it.each(metric)('gives $area_mm2 mm² its resistance and its ampacity', (row) => {
    const area = Number(row.area_mm2)
    expect(copperOhmPerM(area) * 1000).toBeCloseTo(Number(row.r20_mohm_per_m), 9)
    for (const celsius of [60, 70, 90, 105, 125, 200])
      expect({ celsius, carriesA: ampacityA(area, celsius) }).toEqual({
        celsius,
        carriesA: expect.closeTo(Number(row[`a_${celsius}c`]), 9) as number,
      })
  })
  it.each(rowsOf('fuses'))('gives $family its ratings, voltage, and $aic_a A at $aic_at_v V', (row) => {
    const family = familyOf(row)
    expect(fuseRangeA[family]).toEqual([Number(row.min_a), Number(row.max_a)])
    expect(fuseMostV[family]).toBe(Number(row.max_dc_v))
    expect(fuseInterruptA(family, Number(row.aic_at_v))).toBe(Number(row.aic_a))
  })
  it('gives a breaker half of that at 48 V, where the table says nothing', () => {
    expect(fuseInterruptA('thermal-breaker', 48)).toBe(1500)
  })
  it.each(rowsOf('lfp-ocv'))('gives a cell at $soc_percent % its $cell_v V at rest', (row) => {
    expect(openCircuitV(Number(row.soc_percent) / 100, 12) / 4).toBeCloseTo(Number(row.cell_v), 9)
  })
  it.each(rowsOf('fuse-times'))('opens $family at $percent_of_rating % after $min_s to $max_s s', (row) => {
    const [family, share] = [familyOf(row), Number(row.percent_of_rating) / 100]
    const [fastest, slowest] = [Number(row.min_s), Number(row.max_s)]
    // Below 1.1 times its rating a fuse counts as holding for good.
    expect(fastestS(family, share)).toBeCloseTo(share < 1.1 ? Infinity : fastest, 9)
    if (row.max_s !== '') expect(usualS(family, share)).toBeCloseTo(Math.sqrt(fastest * slowest), 9)
  })
})
