import { casesOf, circuitOf, startOf, wholeOf, type Case } from './cases'
import type { Network } from './network'
import { Solver, type Solution } from './solution'

/** The largest current of a run for hours, and the case it flows in; and the largest while an engine is started, A. */
export interface Design {
  readonly amps: number
  readonly at: Case | null
  readonly crankingA: number
}

/** A network solved in its cases, each when it is asked for. */
export class Solved {
  readonly cases: readonly Case[]
  private readonly solver: Solver
  private readonly known = new Map<string, Solution>()
  private theDesign: ReadonlyMap<string, Design> | undefined

  constructor(readonly network: Network) {
    this.cases = casesOf(network)
    this.solver = new Solver(wholeOf(network))
  }

  in(at: Case): Solution {
    let solution = this.known.get(at.id)
    if (!solution) {
      solution = this.solver.solve(circuitOf(this.network, at), startOf(this.network, at))
      this.known.set(at.id, solution)
    }
    return solution
  }

  /** What each run must be made for, over all cases but the shorts. */
  get design(): ReadonlyMap<string, Design> {
    if (this.theDesign) return this.theDesign
    const design = new Map<string, Design>()
    for (const { id, role } of this.network.runs) {
      let found: Design = { amps: 0, at: null, crankingA: 0 }
      for (const at of this.cases) {
        if (at.kind === 'short') continue
        const amps = Math.abs(this.in(at).amps.get(id) ?? 0)
        if (at.kind === 'cranking') found = { ...found, crankingA: Math.max(found.crankingA, amps) }
        else if (amps > found.amps + 1e-6) found = { ...found, amps, at }
      }
      const own =
        role === 'cranking' ? (this.cases.find(({ kind }) => kind === 'cranking') ?? null) : found.at
      design.set(id, { ...found, at: own })
    }
    return (this.theDesign = design)
  }

  /** Current of a bolted short at a positive post, with every source feeding it, A. */
  shortA(post: string): number {
    const at = this.cases.find(({ id }) => id === `short-${post}`)
    if (!at) return 0
    const { opposite } = this.network.posts.find(({ id }) => id === post)!
    const { volts } = this.in(at)
    const short = circuitOf(this.network, at).elements.find(({ id }) => id === 'short')!
    return Math.abs(short.law.amps([volts.get(post)!, volts.get(opposite)!])[0]!)
  }

  /** The largest short at a post or at those that its runs lead to, A: what a fuse there may have to interrupt. */
  shortNearA(post: string): number {
    const near = this.network.runs.flatMap(({ from, to }) =>
      from === post ? [to] : to === post ? [from] : [],
    )
    return Math.max(...[post, ...near].map((id) => this.shortA(id)))
  }
}
