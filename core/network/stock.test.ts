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
    const kindOf = new Map(network.posts.map(({ id, kind }) => [id, kind]))
    const familyOf = new Map(network.posts.map(({ id, fitting }) => [id, fitting?.family]))
    for (const run of network.runs.filter(
      ({ state, lengthKnown }) => state === 'new' && lengthKnown === 'usual',
    ))
      expect(run.isStud, run.number).toBe(
        familyOf.get(run.to) === 'terminal-block' && ['bar', 'battery'].includes(kindOf.get(run.from)!),
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
