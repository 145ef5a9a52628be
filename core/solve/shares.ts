import { elementAt } from '#core/collections/held'

/** Combinations that a searcher takes at once: few, so that all end at nearly the same time. */
export const mostAtOnce = 12

/**
 * Combinations shared out among searchers. Neighbours are similar, and their common part is checked once: each
 * searcher goes through a part of its own, and helps at the end of the longest that is left once it is done.
 */
export class Shares {
  private readonly left: { from: number; to: number }[]

  /**
   * @param combinations their numbers in the plan, in order
   * @param searchers at least one
   */
  constructor(
    private readonly combinations: readonly number[],
    searchers: number,
  ) {
    const border = (turn: number): number => Math.floor((combinations.length * turn) / searchers)
    this.left = Array.from({ length: searchers }, (_, turn) => ({
      from: border(turn),
      to: border(turn + 1),
    }))
  }

  /** The next combinations of a searcher; null if none are left. @param searcher its place, from 0 */
  next(searcher: number): readonly number[] | null {
    const own = elementAt(this.left, searcher)
    if (own.from < own.to) {
      const from = own.from
      own.from = Math.min(own.to, from + mostAtOnce)
      return this.combinations.slice(from, own.from)
    }
    const longest = this.left.reduce((a, b) => (b.to - b.from > a.to - a.from ? b : a))
    if (longest.from === longest.to) return null
    const to = longest.to
    longest.to = Math.max(longest.from, to - mostAtOnce)
    return this.combinations.slice(longest.to, to)
  }
}
