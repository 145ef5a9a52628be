import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64'
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus'

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
