import type { Case } from './cases'
import type { Circuit } from '#core/circuit/circuit'
import { Circuits, startOf, wholeOf } from './circuits'
import { joinedOf, type Joined } from './joined'
import type { Network } from './network'
import { Solver, type Solution, type Start } from '#core/circuit/solution'

/** The connections of a network's posts, ordered once for all its cases and for all its possible sizes. */
export class Joints {
  readonly solver: Solver
  private readonly joined: Joined
  /** Where each case came to last: another size leaves it near. */
  private readonly last = new Map<string, Start>()

  constructor(network: Network) {
    this.solver = new Solver(wholeOf(network))
    this.joined = joinedOf(network)
  }

  /** The circuits of a network in which the same is joined. */
  circuits(network: Network): Circuits {
    return new Circuits(network, this.joined)
  }
  /** A circuit of a case, solved. */
  solved(circuit: Circuit, network: Network, at: Case): Solution {
    const start = this.last.get(at.id) ?? startOf(network, at, this.joined)
    const solution = this.solver.solve(circuit, start)
    this.last.set(at.id, solution.volts)
    return solution
  }
}
