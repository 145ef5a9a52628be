import { describe, expect, it } from 'vitest'
import { demoShelf, specifiedJob } from '../../scripts/lib/demo-shelf'
import { examples } from '../../scripts/lib/examples'
import { boughtFrom } from '#core/remedies/bought'
import { partsOfWiring } from './lists'
import { networkOf } from './of-job'
import type { Network } from './network'

/** Sizes of all new cable, thin lines with it, and families of all new fuses. */
function boughtIn(network: Network): { readonly sizes: Set<unknown>; readonly families: Set<unknown> } {
  const wanted = partsOfWiring(network).flatMap((part) => part.wanted ?? [])
  const of = (kind: string, field: string): Set<unknown> =>
    new Set(wanted.filter((one) => one.kind === kind).map(({ exactly }) => exactly[field]))
  return { sizes: of('conductors', 'areaMm2'), families: of('fuses', 'fuseKind') }
}
const shelf = demoShelf()
const demos = examples()
  .filter(({ title }) => title.startsWith('job '))
  .map(({ title, job }) => [title, specifiedJob(job)] as const)

describe.each(demos)('the wiring of %s', (_name, job) => {
  it('takes at most five sizes of cable and three families of fuses', () => {
    const { sizes, families } = boughtIn(networkOf(job))
    expect(sizes.size).toBeLessThanOrEqual(5)
    expect(families.size).toBeLessThanOrEqual(3)
  })

  it('has a price for everything', () => {
    const parts = partsOfWiring(networkOf(job)).map((part) => boughtFrom(shelf, part))
    expect(parts.filter(({ price }) => price == null).map(({ name }) => name)).toEqual([])
  })

  it('takes the sizes and families that the shop carries, and no more sizes than it wants', () => {
    const { sizes } = boughtIn(networkOf(job, { rules: { cableStock: 'six', mostCableSizes: 3 } }))
    const carried = [1, 2.5, 6, 16, 35, 70, 120]
    expect([...sizes].every((size) => carried.includes(Number(size)))).toBe(true)
    expect(sizes.size).toBeLessThanOrEqual(3)
  })
})
