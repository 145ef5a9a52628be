import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'
import { deviationOf, shown } from './meters'
import { movedRig } from './parameters'
import type { Proof } from './predict'
import type { Rig } from './rig'
import type { ProofTest } from './tests/test'

/** Gives numbers from 0 to 1, evenly. */
export type Chance = () => number

const warmUp = 16
/** Chance by a seed: the same numbers each time. */
export function chanceOf(seed: number): Chance {
  const generator = xoroshiro128plus(seed)
  // Seeds that lie near each other begin alike: they part on the way.
  for (let i = 0; i < warmUp; i++) uniformFloat64(generator)
  return () => uniformFloat64(generator)
}

/** A number of the normal distribution (Box and Muller). */
export function normal(chance: Chance): number {
  const [a, b] = [Math.max(1e-12, chance()), chance()]
  return Math.sqrt(-2 * Math.log(a)) * Math.cos(2 * Math.PI * b)
}

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
