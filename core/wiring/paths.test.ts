import { describe, expect, it } from 'vitest'
import { goodJob, straightJob, withValues } from '#core/testing'
import type { JobDocument } from '#core/job/document'
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
