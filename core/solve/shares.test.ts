import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { mostAtOnce, Shares } from './shares'

describe('combinations shared out among searchers', () => {
  it('are each looked at once, whoever is how fast', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 800 }),
        fc.integer({ min: 1, max: 5 }),
        fc.infiniteStream(fc.nat()),
        (count, searchers, whoNext) => {
          const shares = new Shares(count, searchers)
          const looked: number[] = []
          const busy = new Set(Array.from({ length: searchers }, (_, i) => i))
          for (const at of whoNext) {
            if (busy.size === 0) break
            const searcher = [...busy][at % busy.size]!
            const stretch = shares.next(searcher)
            if (!stretch) busy.delete(searcher)
            else for (let i = stretch.from; i < stretch.to; i++) looked.push(i)
          }
          expect(looked.toSorted((a, b) => a - b)).toEqual(Array.from({ length: count }, (_, i) => i))
        },
      ),
    )
  })

  it('go from one end to the other for each, and a fast one helps at the far end of a slow one', () => {
    const shares = new Shares(6 * mostAtOnce, 2)
    expect(shares.next(1)).toEqual({ from: 3 * mostAtOnce, to: 4 * mostAtOnce })
    expect(shares.next(0)).toEqual({ from: 0, to: mostAtOnce })
    expect(shares.next(0)).toEqual({ from: mostAtOnce, to: 2 * mostAtOnce })
    expect(shares.next(0)).toEqual({ from: 2 * mostAtOnce, to: 3 * mostAtOnce })
    expect(shares.next(0)).toEqual({ from: 5 * mostAtOnce, to: 6 * mostAtOnce })
  })
})
