import type { Network, Post, Run } from './network'

type Joining = Pick<Run, 'id' | 'from' | 'to' | 'role' | 'returnOf'>
/** What the paths of a network are asked of. */
interface Ways<R extends Joining = Joining> extends Pick<Network, 'posts'> {
  readonly runs: readonly R[]
}

/** Where a way without branches ends: at a battery, a bar, a chassis, or where several runs meet. */
const endsAt = ({ kind }: Post): boolean => kind === 'battery' || kind === 'bar' || kind === 'chassis'

/** The posts and runs of the way that leads on from a post, away from a run, as long as it does not branch. */
function* onwards<R extends Joining>(
  from: string,
  by: string,
  { posts, runs }: Ways<R>,
): Generator<{ readonly post: Post; readonly run: R | null }> {
  const seen = new Set([by])
  for (let at = from; ;) {
    const post = posts.find(({ id }) => id === at)
    if (!post) return
    const on = endsAt(post)
      ? []
      : runs.filter(({ id, from: a, to: b }) => !seen.has(id) && (a === at || b === at))
    const run = on.length === 1 ? on[0]! : null
    yield { post, run }
    if (!run) return
    seen.add(run.id)
    at = run.from === at ? run.to : run.from
  }
}

function nearestFuse(from: string, by: string, ways: Ways): Post | null {
  for (const { post } of onwards(from, by, ways)) if (post.kind === 'fuse') return post
  return null
}

/**
 * The fuse that protects a run: the nearest one towards where it comes from, else the nearest towards where it goes. A
 * return is protected by what protects its partner.
 */
export function fuseOf(run: Joining, network: Ways): Post | null {
  if (run.returnOf !== null) {
    const pair = network.runs.find(({ id }) => id === run.returnOf)
    return pair ? fuseOf(pair, network) : null
  }
  return nearestFuse(run.from, run.id, network) ?? nearestFuse(run.to, run.id, network)
}

/** The runs of the way without branches that a run is part of, itself included. */
export function wayOf<R extends Joining>(run: R, network: Ways<R>): readonly R[] {
  const beyond = (end: string): R[] =>
    [...onwards(end, run.id, network)].flatMap(({ run: next }) => (next ? [next] : []))
  return [...beyond(run.from).reverse(), run, ...beyond(run.to)]
}

/** Whether a way that leads on from an end of a run comes to a battery or a bar, and whether a fuse stands before it. */
export function sourceBeyond(
  end: string,
  by: Joining,
  network: Ways,
): { readonly source: boolean; readonly fuse: boolean } {
  let fuse = false
  for (const { post } of onwards(end, by.id, network)) {
    if (post.kind === 'fuse') fuse = true
    if (post.kind === 'battery' || post.kind === 'bar') return { source: true, fuse }
  }
  return { source: false, fuse }
}
