import { entryOf, present } from '#core/collections/held'
import type { Network, Post } from './network'

/** The connected groups of a network: the same for all sizes and cases. */
export interface Joined {
  /** For each post, one post that represents its connected group. */
  readonly islands: ReadonlyMap<string, string>
  /** The first post of each of them in the negative, then in the positive. */
  readonly firsts: readonly string[]
  /** For each post, the posts that runs and diodes lead to, and the voltage drop on the way, V. */
  readonly beyond: ReadonlyMap<string, readonly (readonly [next: string, dropV: number])[]>
}

export function joinedOf({ posts, runs, units }: Pick<Network, 'posts' | 'runs' | 'units'>): Joined {
  const beyond = new Map<string, [next: string, dropV: number][]>(posts.map(({ id }) => [id, []]))
  for (const { from, to } of runs) {
    entryOf(beyond, from).push([to, 0])
    entryOf(beyond, to).push([from, 0])
  }
  const islands = new Map<string, string>()
  for (const { id } of posts) {
    if (islands.has(id)) continue
    islands.set(id, id)
    for (const reached = [id]; reached.length > 0;)
      for (const [next] of entryOf(beyond, present(reached.pop()))) {
        if (islands.has(next)) continue
        islands.set(next, id)
        reached.push(next)
      }
  }
  for (const unit of units) if (unit.kind === 'diode') entryOf(beyond, unit.plus).push([unit.out, unit.dropV])
  const firsts = (['negative', 'positive'] as const).flatMap((pole) => firstsIn(pole, posts, islands))
  return { islands, firsts, beyond }
}

/** The first post in a pole of each island that has one there. */
function firstsIn(pole: Post['pole'], posts: Network['posts'], islands: Joined['islands']): string[] {
  const firsts = new Map<string, string>()
  for (const post of posts) {
    const island = entryOf(islands, post.id)
    if (post.pole === pole && !firsts.has(island)) firsts.set(island, post.id)
  }
  return [...firsts.values()]
}
