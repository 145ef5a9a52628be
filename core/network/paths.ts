import type { Post, Run } from './network'

type Joining = Pick<Run, 'id' | 'from' | 'to' | 'role' | 'returnOf'>

/** What stands beyond an end of a run. */
export interface Beyond {
  /** The battery or the bar there; null where there is none. */
  readonly source: Post | null
  /** Whether a fuse stands before it. */
  readonly fuse: boolean
}

/** Posts and runs of a network by what they are looked up by. */
export class Ways<R extends Joining = Run> {
  private readonly posts: ReadonlyMap<string, Post>
  private readonly runs: ReadonlyMap<string, R>
  private readonly joined = new Map<string, R[]>()
  private readonly returns = new Map<string, R>()

  constructor({ posts, runs }: { readonly posts: readonly Post[]; readonly runs: readonly R[] }) {
    this.posts = new Map(posts.map((post) => [post.id, post]))
    this.runs = new Map(runs.map((run) => [run.id, run]))
    for (const run of runs) {
      for (const end of [run.from, run.to]) {
        const there = this.joined.get(end)
        if (there) there.push(run)
        else this.joined.set(end, [run])
      }
      if (run.returnOf !== null && run.role !== 'main') this.returns.set(run.returnOf, run)
    }
  }

  post(id: string): Post | null {
    return this.posts.get(id) ?? null
  }
  run(id: string): R | null {
    return this.runs.get(id) ?? null
  }
  /** The runs that a post is joined by. */
  runsAt(post: string): readonly R[] {
    return this.joined.get(post) ?? []
  }
  /** The run that brings the current of another back; null where it comes back by the chassis or with others. */
  returnOf(id: string): R | null {
    return this.returns.get(id) ?? null
  }

  /** The posts and runs of the way that leads on from a post, away from a run, as long as it does not branch. */
  private *onwards(from: string, by: string): Generator<{ readonly post: Post; readonly run: R | null }> {
    const seen = new Set([by])
    for (let at = from; ;) {
      const post = this.posts.get(at)
      if (!post) return
      const on = endsAt(post) ? [] : this.runsAt(at).filter(({ id }) => !seen.has(id))
      const run = on.length === 1 ? on[0]! : null
      yield { post, run }
      if (!run) return
      seen.add(run.id)
      at = run.from === at ? run.to : run.from
    }
  }

  private nearestFuse(from: string, by: string): Post | null {
    for (const { post } of this.onwards(from, by)) if (post.kind === 'fuse') return post
    return null
  }

  /**
   * The fuse that protects a run: the nearest one towards where it comes from, else the nearest towards where it goes.
   * A return is protected by what protects its partner.
   */
  fuseOf(run: Joining): Post | null {
    const partner = run.returnOf === null ? null : this.run(run.returnOf)
    if (partner) return this.fuseOf(partner)
    return (
      this.nearestFuse(run.from, run.id) ??
      this.nearestFuse(run.to, run.id) ??
      (run.role === 'main' ? this.fuseBefore(run) : null)
    )
  }
  /** The fuse of what feeds the bar from which a strap leads on to another. */
  private fuseBefore({ from, id }: Joining): Post | null {
    const feeding = this.runsAt(from).find((run) => run.role === 'main' && run.to === from && run.id !== id)
    return feeding ? this.fuseOf(feeding) : null
  }

  /** The runs of the way without branches that a run is part of, itself included. */
  wayOf(run: R): readonly R[] {
    const beyond = (end: string): R[] =>
      [...this.onwards(end, run.id)].flatMap(({ run: next }) => (next ? [next] : []))
    return [...beyond(run.from).reverse(), run, ...beyond(run.to)]
  }

  /** Batteries that feed a fault in a run without a fuse between, by whatever ways. */
  bareBatteriesOf(run: Joining): Post[] {
    const reached = new Set([run.from, run.to])
    const passed = new Set([run.id])
    // The set grows while it is gone through.
    for (const at of reached) {
      const post = this.posts.get(at)
      if (!post || post.kind === 'fuse' || post.kind === 'battery') continue
      for (const next of this.runsAt(at)) {
        if (passed.has(next.id)) continue
        passed.add(next.id)
        reached.add(next.from === at ? next.to : next.from)
      }
    }
    return [...reached].flatMap((id) => {
      const post = this.posts.get(id)
      return post?.kind === 'battery' && post.pole === 'positive' ? [post] : []
    })
  }

  /** What a way that leads on from an end of a run comes to. */
  sourceBeyond(end: string, by: Joining): Beyond {
    let fuse = false
    for (const { post } of this.onwards(end, by.id)) {
      if (post.kind === 'fuse') fuse = true
      if (post.kind === 'battery' || post.kind === 'bar') return { source: post, fuse }
    }
    return { source: null, fuse }
  }
}

/** Where a way without branches ends: at a battery, a bar, a chassis. */
const endsAt = ({ kind }: Post): boolean => kind === 'battery' || kind === 'bar' || kind === 'chassis'

/** The fuses of the branches, by their posts: those that stand on a bar. */
export function fusesOnBars({
  posts,
  runs,
}: {
  readonly posts: readonly Post[]
  readonly runs: readonly Joining[]
}): ReadonlySet<string> {
  const of = (isOne: (post: Post) => boolean) => new Set(posts.filter(isOne).map(({ id }) => id))
  const bars = of(({ kind, fitting, pole }) => kind === 'bar' && fitting !== null && pole === 'positive')
  const fuses = of(({ kind }) => kind === 'fuse')
  const beside = runs.flatMap(({ from, to }) => (bars.has(from) ? [to] : bars.has(to) ? [from] : []))
  return new Set(beside.filter((id) => fuses.has(id)))
}
