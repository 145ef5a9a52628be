import type { Network, Post, Run } from './network'

/** What the paths of a network are asked of. */
type Ways = Pick<Network, 'posts'> & {
  readonly runs: readonly Pick<Run, 'id' | 'from' | 'to' | 'role' | 'returnOf'>[]
}

/**
 * The fuse that protects a run: the nearest one towards where it comes from, else, for a run whose own end is a fuse,
 * that one. A return is protected by what protects its partner.
 */
export function fuseOf(
  run: Pick<Run, 'id' | 'from' | 'to' | 'role' | 'returnOf'>,
  network: Ways,
): Post | null {
  if (run.returnOf !== null) {
    const pair = network.runs.find(({ id }) => id === run.returnOf)
    return pair ? fuseOf(pair, network) : null
  }
  return nearest(run.from, run.id, network) ?? nearest(run.to, run.id, network)
}

/** The nearest fuse on a way without branches that begins at a post. */
function nearest(from: string, by: string, { posts, runs }: Ways): Post | null {
  const seen = new Set([by])
  for (let at = from; ;) {
    const post = posts.find(({ id }) => id === at)
    if (!post) return null
    if (post.kind === 'fuse') return post
    const on = runs.filter(({ id, from: a, to: b }) => !seen.has(id) && (a === at || b === at))
    if (on.length !== 1 || post.kind === 'battery') return null
    seen.add(on[0]!.id)
    at = on[0]!.from === at ? on[0]!.to : on[0]!.from
  }
}
