import { entryOf, firstOf } from '#core/collections/held'
import type { Fitting, Post, Run } from './network'

type Joining = Pick<Run, 'id' | 'from' | 'to' | 'role' | 'returnOf'>

/** The source beyond an end of a run. */
export interface Beyond {
  /** The battery or the bar there; null if there is none. */
  readonly source: Post | null
  /** Whether a fuse comes before it. */
  readonly fuse: boolean
}

/** Lookup of the posts and runs of a network. */
export class Ways<R extends Joining = Run> {
  private readonly posts: ReadonlyMap<string, Post>
  private readonly runs: ReadonlyMap<string, R>
  private readonly joined = new Map<string, R[]>()
  private readonly returns = new Map<string, R>()
  private theFusesOnBars: ReadonlySet<string> | undefined

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
  /** A post that the wiring has. @throws RangeError where there is none */
  postAt(id: string): Post {
    return entryOf(this.posts, id)
  }
  /** A run that the wiring has. @throws RangeError where there is none */
  runAt(id: string): R {
    return entryOf(this.runs, id)
  }
  /** The fuse, switch or plug at a post. @throws RangeError where there is none */
  fittingAt(id: string): Fitting {
    const { fitting, name } = this.postAt(id)
    if (!fitting) throw new RangeError(`No fuse, switch or plug at ${name}`)
    return fitting
  }
  /** The runs that a post is joined by. */
  runsAt(post: string): readonly R[] {
    return this.joined.get(post) ?? []
  }
  /**
   * The runs whose current a fitting carries. At the fuse of one battery in a row the leads of the others join too:
   * their current does not pass it.
   */
  runsThrough(id: string): readonly R[] {
    const runs = this.runsAt(id)
    if (!this.isOfOneBattery(id)) return runs
    return runs.filter(({ from, to }) => [from, to].some((end) => this.postAt(end).kind === 'battery'))
  }
  private isOfOneBattery(id: string): boolean {
    return this.posts.get(id)?.fitting?.isOfOneBattery === true
  }
  /** The run that brings the current of another back; null if it comes back by the chassis or with others. */
  returnOf(id: string): R | null {
    return this.returns.get(id) ?? null
  }

  /** The fuses of the branches, by post: those connected to a bar. */
  get fusesOnBars(): ReadonlySet<string> {
    return (this.theFusesOnBars ??= new Set(this.besideBars().filter((id) => this.post(id)?.kind === 'fuse')))
  }
  private besideBars(): string[] {
    const isBar = (id: string): boolean => {
      const post = this.post(id)
      return post?.kind === 'bar' && post.fitting !== null && post.pole === 'positive'
    }
    return [...this.runs.values()].flatMap(({ from, to }) => (isBar(from) ? [to] : isBar(to) ? [from] : []))
  }

  /** The posts and runs of the way that leads on from a post, away from a run, as long as it does not branch. */
  private onwards(
    from: string,
    by: string,
  ): { readonly posts: readonly Post[]; readonly runs: readonly R[] } {
    const posts: Post[] = []
    const runs: R[] = []
    const seen = new Set([by])
    for (let at: string | null = from; at !== null;) {
      const post = this.posts.get(at)
      if (!post) break
      posts.push(post)
      const on: readonly R[] = endsAt(post) ? [] : this.runsAt(at).filter(({ id }) => !seen.has(id))
      const run = on.length === 1 ? firstOf(on) : null
      if (run) {
        runs.push(run)
        seen.add(run.id)
      }
      at = run && (run.from === at ? run.to : run.from)
    }
    return { posts, runs }
  }

  private nearestFuse(from: string, by: string): Post | null {
    return this.onwards(from, by).posts.find(({ kind }) => kind === 'fuse') ?? null
  }

  /**
   * The fuse that protects a run: the nearest one towards its start, otherwise the nearest towards its end. The
   * fuse of its partner protects a return.
   */
  fuseOf(run: Joining): Post | null {
    const partner = run.returnOf === null ? null : this.run(run.returnOf)
    if (partner) return this.fuseOf(partner)
    return (
      this.fuseBehindRow(run) ??
      this.nearestFuse(run.from, run.id) ??
      this.nearestFuse(run.to, run.id) ??
      (run.role === 'main' ? this.fuseBefore(run) : null)
    )
  }
  /** The fuse to which the batteries of a row lead together; null for a run that is no link of a row. */
  private fuseBehindRow({ from, to, role }: Joining): Post | null {
    if (role !== 'main' || !this.isOfOneBattery(from)) return null
    const isLink = this.runsAt(from).length > 2 || this.isOfOneBattery(to)
    return isLink ? this.fuseAhead(to) : null
  }
  /** The first fuse of more than one battery along the main leads. */
  private fuseAhead(from: string): Post | null {
    const post = this.posts.get(from)
    if (post?.kind === 'fuse' && !this.isOfOneBattery(from)) return post
    const next = this.runsAt(from).find((run) => run.role === 'main' && run.from === from)
    return next ? this.fuseAhead(next.to) : null
  }
  /** The main fuse of the bar from which a strap leads to another one. */
  private fuseBefore({ from, id }: Joining): Post | null {
    const feeding = this.runsAt(from).find((run) => run.role === 'main' && run.to === from && run.id !== id)
    return feeding ? this.fuseOf(feeding) : null
  }

  /** The runs of the way without branches that a run is part of, itself included. */
  wayOf(run: R): readonly R[] {
    const beyond = (end: string): readonly R[] => this.onwards(end, run.id).runs
    return [...beyond(run.from).toReversed(), run, ...beyond(run.to)]
  }

  /** Batteries that feed a fault in a run without a fuse in between, by any path. */
  bareBatteriesOf(run: Joining): Post[] {
    const reached = new Set([run.from, run.to])
    const passed = new Set([run.id])
    // The set grows while it is walked.
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

  /**
   * Posts that are joined to a post by runs, the post itself included.
   * @param passes whether the search continues beyond a post
   */
  joinedTo(start: string, passes: (post: Post) => boolean): readonly Post[] {
    const reached = new Set([start])
    // The set grows while it is walked.
    for (const at of reached) {
      const post = this.posts.get(at)
      if (!post || (at !== start && !passes(post))) continue
      for (const { from, to } of this.runsAt(at)) reached.add(from === at ? to : from)
    }
    return [...reached].flatMap((id) => this.posts.get(id) ?? [])
  }

  /**
   * The runs from a post to the battery or the bar that one of its runs leads to; null if that leads to none, or
   * another fuse stands before it.
   */
  bareWay(post: string, by: R): { readonly source: Post; readonly runs: readonly R[] } | null {
    const end = by.from === post ? by.to : by.from
    const { source, fuse } = this.sourceBeyond(end, by)
    if (!source || fuse) return null
    const { posts, runs } = this.onwards(end, by.id)
    return { source, runs: [by, ...runs.slice(0, posts.indexOf(source))] }
  }

  /** The result of following a path from an end of a run. */
  sourceBeyond(end: string, by: Joining): Beyond {
    const { posts } = this.onwards(end, by.id)
    const at = posts.findIndex(({ kind }) => kind === 'battery' || kind === 'bar')
    const before = at < 0 ? posts : posts.slice(0, at)
    return { source: posts[at] ?? null, fuse: before.some(({ kind }) => kind === 'fuse') }
  }
}

/** Where a way without branches ends: at a battery, a bar, a chassis. */
const endsAt = ({ kind }: Post): boolean => kind === 'battery' || kind === 'bar' || kind === 'chassis'
