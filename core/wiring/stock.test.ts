import { describe, expect, it } from 'vitest'
import { demoShelf, specifiedJob } from '../../scripts/lib/demo-shelf'
import { examples } from '../../scripts/lib/examples'
import { boughtFrom } from '#core/remedies/bought'
import type { JobDocument } from '#core/job/document'
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

  it('buys no cable for a fuse that sits on the stud of a bar or a battery', () => {
    const network = networkOf(job)
    const posts = new Map(network.posts.map((post) => [post.id, post]))
    const studs = network.runs.filter(({ isStud }) => isStud)
    for (const { number, from, to } of studs) {
      const ends = [posts.get(from)!, posts.get(to)!]
      expect(ends.map(({ kind }) => kind).includes('fuse'), number).toBe(true)
      expect(
        ends.filter(({ fitting }) => fitting?.family === 'terminal-block'),
        number,
      ).toHaveLength(1)
    }
    const bought = partsOfWiring(network).filter(({ what }) => what.startsWith('Lug'))
    const laid = network.runs.filter(
      ({ state, areaMm2, isStud }) => state === 'new' && areaMm2 !== null && !isStud,
    )
    expect(bought.reduce((sum, { quantity }) => sum + quantity, 0)).toBe(
      laid.reduce((sum, { count }) => sum + 2 * count, 0),
    )
  })
})

it('a fuse on its stud has a cable once a length is set', () => {
  const [, job] = demos[0]!
  const stud = networkOf(job).runs.find(({ isStud }) => isStud)!
  const set = {
    ...job,
    runs: { ...job.runs, [stud.id]: { lengthM: { value: 0.3, how: 'measured' } } },
  } as JobDocument
  expect(networkOf(set).runs.find(({ id }) => id === stud.id)).toMatchObject({ isStud: false, lengthM: 0.3 })
})
