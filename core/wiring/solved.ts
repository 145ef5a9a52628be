import { elementAt } from '#core/collections/held'
import { casesOf, type Case } from './cases'
import type { Circuits } from './circuits'
import { Joints } from './joints'
import type { Network } from './network'
import { Ways } from './paths'
import { shortsOf } from './shorts'
import type { Solution } from '#core/circuit/solution'

/**
 * The largest current of a run for hours, and the case it flows in; and the largest while an engine is started, A.
 */
export interface Design {
  readonly amps: number
  readonly at: Case | null
  readonly crankingA: number
}

/** A case counts for a run if its current is larger by this much, A. */
const sameA = 1e-6

/** A network solved in its cases, each when it is asked for. */
export class Solved {
  readonly cases: readonly Case[]
  readonly ways: Ways
  private readonly circuits: Circuits
  private readonly known = new Map<string, Solution>()
  private theShorts: ReadonlyMap<string, number> | undefined
  private theDesign: ReadonlyMap<string, Design> | undefined

  /** @param joints of a network with the same connections, if available */
  constructor(
    readonly network: Network,
    private readonly joints = new Joints(network),
  ) {
    this.cases = casesOf(network)
    this.ways = new Ways(network)
    this.circuits = joints.circuits(network)
  }

  /**
   * The same network with other ratings: solved as far as this one, where those leave its fittings’ resistances as
   * they are.
   * @param network with the same runs, of the same sizes
   */
  as(network: Network): Solved {
    const other = new Solved(network, this.joints)
    if (network.runs.some(({ fittingOhm }, i) => fittingOhm !== elementAt(this.network.runs, i).fittingOhm))
      return other
    for (const [id, solution] of this.known) other.known.set(id, solution)
    other.theShorts = this.theShorts
    other.theDesign = this.theDesign
    return other
  }

  in(at: Case): Solution {
    let solution = this.known.get(at.id)
    if (!solution) {
      solution = this.joints.solved(this.circuits.in(at), this.network, at)
      this.known.set(at.id, solution)
    }
    return solution
  }

  /** The design current of each run, over all cases except the shorts. */
  get design(): ReadonlyMap<string, Design> {
    if (this.theDesign) return this.theDesign
    const inCases = this.cases
      .filter(({ kind }) => kind !== 'short')
      .map((at) => ({ at, amps: this.in(at).amps }))
    const cranking = inCases.find(({ at }) => at.kind === 'cranking')?.at ?? null
    const design = new Map<string, Design>()
    for (const { id, role } of this.network.runs) {
      let [most, crankingA]: [number, number] = [0, 0]
      let found: Case | null = null
      for (const { at, amps } of inCases) {
        const flowsA = Math.abs(amps.get(id) ?? 0)
        if (at.kind === 'cranking') crankingA = Math.max(crankingA, flowsA)
        else if (flowsA > most + sameA) {
          most = flowsA
          found = at
        }
      }
      design.set(id, { amps: most, at: role === 'cranking' ? cranking : found, crankingA })
    }
    return (this.theDesign = design)
  }

  /** Current of a bolted short at a positive post, with every source feeding it, A; 0 in the negative. */
  shortA(post: string): number {
    return (this.theShorts ??= shortsOf(this.network, this.circuits, this.joints)).get(post) ?? 0
  }

  /** The largest short circuit at a post or its neighbours, A: a fuse there must interrupt it. */
  shortNearA(post: string): number {
    const near = this.ways.runsAt(post).map(({ from, to }) => (from === post ? to : from))
    return Math.max(...[post, ...near].map((id) => this.shortA(id)))
  }
}
