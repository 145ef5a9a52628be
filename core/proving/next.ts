import type { Outlook, Posterior } from './posterior'
import type { ProofTest } from './tests/test'

/** A measurement with what it would tell. */
export interface Worth {
  readonly test: ProofTest
  /** Bits it is expected to tell of what is wrong. */
  readonly bits: number
  /** Minutes it takes, with setting up where the state is another. */
  readonly minutes: number
}

/** Where a normal distribution is looked at for its mean, and with which weights: Gauss and Hermite, five points. */
const points = [
  [0, 0.5333333333],
  [-1.3556261799, 0.2220759221],
  [1.3556261799, 0.2220759221],
  [-2.8569700139, 0.0112574113],
  [2.8569700139, 0.0112574113],
] as const

const bitsOf = (probability: number): number => (probability > 0 ? -probability * Math.log2(probability) : 0)

/** Causes whose predictions of a reading differ by less, in deviations, are told apart by it as little as one. */
const alike = 0.05

/** Sizes of causes that predict one and the same reading. */
interface Group {
  readonly mean: number
  readonly sd: number
  /** Weight of each cause in it. */
  readonly weights: Map<number, number>
  total: number
}

function groupsOf(outlook: readonly Outlook[]): Group[] {
  const total = outlook.reduce((sum, { weight }) => sum + weight, 0)
  const groups = new Map<string, Group>()
  for (const { cause, weight, mean, variance } of outlook) {
    const sd = Math.sqrt(variance)
    const breadth = Math.round(Math.log(sd) / alike)
    const step = alike * Math.exp(breadth * alike)
    const key = `${breadth} ${Math.round(mean / step)}`
    const group = groups.get(key) ?? { mean, sd, weights: new Map<number, number>(), total: 0 }
    groups.set(key, group)
    group.weights.set(cause, (group.weights.get(cause) ?? 0) + weight / total)
    group.total += weight / total
  }
  return [...groups.values()]
}

/**
 * How much a reading is expected to tell of which cause it is, bits: the entropy of the causes less what is left of
 * it, over what the reading may be. Causes that predict the same are taken together: between them it says nothing.
 */
export function bitsOfReading(outlook: readonly Outlook[]): number {
  const groups = groupsOf(outlook)
  const wholes = new Map<number, number>()
  for (const { weights } of groups)
    for (const [cause, weight] of weights) wholes.set(cause, (wholes.get(cause) ?? 0) + weight)
  let entropy = 0
  for (const weight of wholes.values()) entropy += bitsOf(weight)
  // A cause of one group keeps its share of the group whatever is read; one of several is followed by itself.
  const several = [...wholes.keys()].filter(
    (cause) => groups.filter(({ weights }) => weights.has(cause)).length > 1,
  )
  const own = new Set(several)
  const inOne = groups.map(({ weights }) => {
    let [weight, bits] = [0, 0]
    for (const [cause, share] of weights)
      if (!own.has(cause)) {
        weight += share
        bits += bitsOf(share)
      }
    return { weight, bits }
  })
  const parts = several.map((cause) =>
    groups.flatMap(({ weights }, i) => (weights.has(cause) ? [{ i, weight: weights.get(cause)! }] : [])),
  )
  const density = new Float64Array(groups.length)
  let left = 0
  for (const { mean, sd, total } of groups)
    for (const [x, share] of points) {
      const y = mean + x * sd
      let sum = 0
      groups.forEach((group, i) => {
        const z = (y - group.mean) / group.sd
        density[i] = z * z > 80 ? 0 : Math.exp(-0.5 * z * z) / group.sd
        sum += density[i]! * group.total
      })
      let rest = 0
      inOne.forEach(({ weight, bits }, i) => {
        const times = density[i]! / sum
        if (times > 0) rest += times * bits - weight * times * Math.log2(times)
      })
      for (const of of parts)
        rest += bitsOf(of.reduce((all, { i, weight }) => all + weight * density[i]!, 0) / sum)
      left += total * share * rest
    }
  return Math.max(0, entropy - left)
}

/**
 * What to measure next: the tests by the bits they are expected to tell for each minute of work, the best first.
 * @param isOpen which tests may still be made
 * @param state the state that is set up now; null where none is
 */
export function worthOf(
  posterior: Posterior,
  tests: readonly ProofTest[],
  { taken, state }: { readonly taken: ReadonlySet<string>; readonly state: string | null },
): Worth[] {
  return tests
    .filter(({ id }) => !taken.has(id))
    .map((test) => ({
      test,
      bits: bitsOfReading(posterior.outlook(test)),
      minutes: test.minutes + (test.state.id === state ? 0 : test.state.minutes),
    }))
    .sort((a, b) => b.bits / b.minutes - a.bits / a.minutes)
}
