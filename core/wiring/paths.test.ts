import { describe, expect, it } from 'vitest'
import { goodJob, straightJob, withValues } from '#core/testing'
import type { JobDocument } from '#core/job/document'
import type { PostKind } from './network'
import { numberedPosts } from './numbered'
import { networkOf } from './of-job'
import { Ways } from './paths'

/** The ways from a fuse to the sources that nothing else protects, by its runs. */
function bareWays(
  job: JobDocument,
  fuse: string,
): Record<string, readonly [string, readonly string[]] | null> {
  const ways = new Ways(networkOf(job))
  return Object.fromEntries(
    ways.runsAt(fuse).map((run) => {
      const way = ways.bareWay(fuse, run)
      return [run.id, way && [way.source.id, way.runs.map(({ id }) => id)]]
    }),
  )
}

describe('the way from a fuse to a source that nothing else protects', () => {
  it('leads to the battery on one side of the main fuse, and over the switch to the bar on the other', () =>
    expect(bareWays(goodJob(), 'main-fuse')).toEqual({
      'main-lead': ['bank-plus', ['main-lead']],
      'main-feed-1': ['bar-plus', ['main-feed-1', 'main-feed-2']],
    }))

  it('leads from a branch fuse to its bar, and to nothing where the unit stands', () =>
    expect(bareWays(goodJob(), 'charger-1-fuse')).toEqual({
      'charger-1-stub': ['bar-plus', ['charger-1-stub']],
      'charger-1-feed': null,
    }))

  it('ends before another fuse: a link between two batteries has one at each end', () => {
    const ways = Object.values(bareWays(straightJob({ kind: 'vsr' }), 'link-1-fuse'))
    expect(ways).toContainEqual(['bar-plus', expect.any(Array)])
    expect(ways).toContain(null)
  })

  it('leads on to both where the other fuse was left out', () => {
    const job = withValues(straightJob({ kind: 'vsr' }), { 'fittings/link-1-far-fuse/absent': 'yes' })
    const sources = Object.values(bareWays(job, 'link-1-fuse')).map((way) => way?.[0])
    expect(sources.toSorted()).toEqual(['bar-plus', 'starting-1-plus'])
  })
})

describe('the batteries that feed a fault without a fuse in between', () => {
  const bare = (job: JobDocument, id: string): readonly string[] => {
    const network = networkOf(job)
    const run = network.runs.find((one) => one.id === id)!
    return new Ways(network).bareBatteriesOf(run).map((post) => post.id)
  }

  it('are none behind its main fuse, and the bank before it', () => {
    expect(bare(goodJob(), 'main-feed-2')).toEqual([])
    expect(bare(goodJob(), 'main-lead')).toEqual(['bank-plus'])
  })
  it('are the bank where the main fuse was left out', () => {
    const job = withValues(goodJob(), { 'fittings/main-fuse/absent': 'yes' })
    expect(bare(job, 'main-feed-2')).toEqual(['bank-plus'])
  })
})

describe('the source beyond an end of a run', () => {
  const beyond = (id: string, end: 'from' | 'to') => {
    const network = networkOf(goodJob())
    const run = network.runs.find((one) => one.id === id)!
    const { source, fuse } = new Ways(network).sourceBeyond(run[end], run)
    return [source?.id ?? null, fuse]
  }

  it('has a fuse before it, or none', () => {
    expect(beyond('main-feed-1', 'from')).toEqual(['bank-plus', true])
    expect(beyond('main-feed-1', 'to')).toEqual(['bar-plus', false])
    expect(beyond('charger-1-feed', 'from')).toEqual(['bar-plus', true])
  })
  it('is none where a unit stands', () => {
    expect(beyond('charger-1-feed', 'to')).toEqual([null, false])
  })
})

describe('the numbered posts', () => {
  const network = networkOf(goodJob())

  it('are all that have a number, or those of some kinds', () => {
    const numbers = (kinds?: readonly PostKind[]) =>
      numberedPosts(network, kinds).map(({ fitting }) => fitting.number)
    expect(numbers()).toEqual(expect.arrayContaining(['F1', 'S1']))
    expect(numbers(['fuse']).every((number) => number.startsWith('F'))).toBe(true)
    expect(numbers(['fuse']).length + numbers(['switch', 'shunt', 'relay', 'stop', 'plug']).length).toBe(
      numbers().length,
    )
  })
})
