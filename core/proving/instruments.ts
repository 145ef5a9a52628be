import { normal, type Chance } from './chance'
import { deviationOf, shown } from './meters'
import { movedRig } from './parameters'
import type { Proof } from './predict'
import type { Rig } from './rig'
import type { ProofTest } from './tests/test'

/** A rig as it may turn out: everything that nobody knows exactly is somewhere within its uncertainty. */
export const asItIs = ({ parameters }: Proof, rig: Rig, chance: Chance): Rig =>
  parameters.reduce((moved, parameter) => movedRig(moved, parameter, normal(chance)), rig)

/** Instruments on a rig: each reading is what is there, with the noise of its instrument. */
export class StandIn {
  private readonly truth: ReadonlyMap<string, number>

  constructor(
    proof: Proof,
    readonly rig: Rig,
    private readonly chance: Chance,
  ) {
    this.truth = proof.readings(rig, proof.tests)
  }

  /** What is really there. */
  truthOf({ id }: ProofTest): number {
    return this.truth.get(id)!
  }

  read(test: ProofTest): number {
    const { instrument } = test
    const is = this.truthOf(test)
    return shown(instrument, is + normal(this.chance) * deviationOf(instrument, is))
  }
}
