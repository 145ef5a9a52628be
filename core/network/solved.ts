import { boltedOhm, casesOf, circuitOf, startOf, wholeOf, type Case } from './cases'
import { resistance } from './law'
import type { Network, Post } from './network'
import { Ways } from './paths'
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
  readonly ways: Ways
  private readonly known = new Map<string, Solution>()
  private theShorts: ReadonlyMap<string, number> | undefined
  private theDesign: ReadonlyMap<string, Design> | undefined

  /** @param solver one that was made for a network in which the same is joined */
  constructor(
    readonly network: Network,
    private readonly solver = new Solver(wholeOf(network)),
  ) {
    this.cases = casesOf(network)
    this.ways = new Ways(network)
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

  /** Current of a bolted short at a positive post, with every source feeding it, A; 0 in the negative. */
  shortA(post: string): number {
    return (this.theShorts ??= this.shorts()).get(post) ?? 0
  }

  /**
   * All shorts from one circuit without any. Where all that feeds them is linear, by Thévenin: the voltage there over
   * what the rest shows; with a diode each is solved from where the circuit stands without it.
   */
  private shorts(): Map<string, number> {
    const shorted = this.network.posts.filter(({ pole }) => pole === 'positive')
    const [first] = shorted
    if (!first) return new Map()
    const at = this.cases.find(({ id }) => id === `short-${first.id}`)!
    const whole = circuitOf(this.network, at)
    const open = { ...whole, elements: whole.elements.filter(({ id }) => id !== 'short') }
    const standing = this.solver.solve(open, startOf(this.network, at))
    const between = ({ id, opposite }: Post, { volts }: Solution): number =>
      Math.abs(volts.get(id)! - volts.get(opposite)!)
    if (this.network.units.some(({ kind }) => kind === 'diode')) {
      const bolted = resistance(boltedOhm)
      return new Map(
        shorted.map((post) => {
          const short = { id: 'short', nodes: [post.id, post.opposite], law: bolted }
          const solution = this.solver.solve({ ...open, elements: [...open.elements, short] }, standing.volts)
          return [post.id, between(post, solution) / boltedOhm]
        }),
      )
    }
    const ohms = this.solver.resistancesOf(
      open,
      standing,
      shorted.map(({ id, opposite }) => [id, opposite]),
    )
    return new Map(
      shorted.map((post, i) => [post.id, between(post, standing) / (Math.abs(ohms[i]!) + boltedOhm)]),
    )
  }

  /** The largest short at a post or at those that its runs lead to, A: what a fuse there may have to interrupt. */
  shortNearA(post: string): number {
    const near = this.ways.runsAt(post).map(({ from, to }) => (from === post ? to : from))
    return Math.max(...[post, ...near].map((id) => this.shortA(id)))
  }
}
