import { entryOf, present } from '#core/collections/held'
import { normal, type Chance } from '#core/commissioning/chance'
import { rigWith, type Cause } from './hypotheses'
import { deviationOf, shown } from '#core/commissioning/meters'
import { movedRig } from '#core/commissioning/parameters'
import type { Proof } from '#core/commissioning/predict'
import type { Rig } from '#core/commissioning/rig'
import type { ProofTest } from '#core/commissioning/tests/test'

/** A rig as it may turn out: everything that nobody knows exactly is somewhere within its uncertainty. */
export const drawnRig = ({ parameters }: Proof, rig: Rig, chance: Chance): Rig =>
  parameters.reduce((moved, parameter) => movedRig(moved, parameter, normal(chance)), rig)

/** A rig with a random fault; some faults are visible on the walk-round. */
export const withDrawnFault = (
  proof: Proof,
  cause: Cause,
  { size, chance }: { readonly size: number; readonly chance: Chance },
): Rig => {
  const rig = rigWith(proof, cause, size)
  const onRound = cause.fault?.onRound
  return onRound && chance() < onRound.share ? onRound.mark(rig, present(cause.at)) : rig
}

/** Instruments on a rig: each reading is the true value with the noise of its instrument. */
export class StandIn {
  private readonly truth: ReadonlyMap<string, number>

  constructor(
    proof: Proof,
    readonly rig: Rig,
    private readonly chance: Chance,
  ) {
    this.truth = proof.readings(rig, proof.tests)
  }

  /** The true value. */
  truthOf({ id }: ProofTest): number {
    return entryOf(this.truth, id)
  }

  read(test: ProofTest): number {
    const { instrument } = test
    const is = this.truthOf(test)
    return shown(instrument, is + normal(this.chance) * deviationOf(instrument, is))
  }
}
