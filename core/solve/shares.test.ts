import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { mostAtOnce, Shares } from './shares'

describe('combinations shared out among searchers', () => {
  it('are each checked once, however fast each searcher is', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 800 }),
        fc.integer({ min: 1, max: 5 }),
        fc.infiniteStream(fc.nat()),
        (count, searchers, whoNext) => {
          const all = Array.from({ length: count }, (_, i) => 3 * i)
          const shares = new Shares(all, searchers)
          const looked: number[] = []
          const busy = new Set(Array.from({ length: searchers }, (_, i) => i))
          for (const at of whoNext) {
            if (busy.size === 0) break
            const searcher = [...busy][at % busy.size]!
            const next = shares.next(searcher)
            if (next) looked.push(...next)
            else busy.delete(searcher)
          }
          expect(looked.toSorted((a, b) => a - b)).toEqual(all)
        },
      ),
    )
  })

  it('go from one end to the other for each, and a fast one helps at the far end of a slow one', () => {
    const lot = (turn: number): number[] =>
      Array.from({ length: mostAtOnce }, (_, i) => turn * mostAtOnce + i)
    const shares = new Shares([0, 1, 2, 3, 4, 5].flatMap(lot), 2)
    expect(shares.next(1)).toEqual(lot(3))
    for (const turn of [0, 1, 2, 5]) expect(shares.next(0)).toEqual(lot(turn))
  })
})
