import { firstOf } from '#core/collections/held'
import type { Outlook, Posterior } from './posterior'
import type { ProofTest } from '#core/commissioning/tests/test'

/** A measurement with its expected information. */
export interface Worth {
  readonly test: ProofTest
  /** Expected information about the fault, bits. */
  readonly bits: number
  /** Minutes, with setup if the state changes. */
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

/** Causes whose predictions differ by less than this, in deviations, count as one. */
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
  return [...groups.values()].sort((a, b) => b.total - a.total)
}

/** Readings are evaluated at the predictions of the most likely groups, up to this share. */
const readingsLookedAt = 0.99
/** A group further away than this, in squared deviations, does not count for a reading. */
const farSquared = 80

/** A group with its individually tracked causes kept apart from the rest. */
interface Parted extends Pick<Group, 'mean' | 'total'> {
  readonly perSd: number
  /** Of the rest: its weight, and the bits of its causes. */
  readonly weight: number
  readonly bits: number
  readonly parts: readonly { readonly of: number; readonly weight: number }[]
}

function parted({ mean, sd, total, weights }: Group, placeOf: ReadonlyMap<number, number>): Parted {
  let [weight, bits] = [0, 0]
  const parts: { readonly of: number; readonly weight: number }[] = []
  for (const [cause, share] of weights) {
    const of = placeOf.get(cause)
    if (of !== undefined) parts.push({ of, weight: share })
    else {
      weight += share
      bits += bitsOf(share)
    }
  }
  return { mean, perSd: 1 / sd, total, weight, bits, parts }
}

/**
 * Expected information of a reading about the cause, bits: the entropy of the causes less the expected entropy
 * after the reading. Causes with the same prediction are one: the reading does not separate them.
 */
export function bitsOfReading(outlook: readonly Outlook[]): number {
  const groups = groupsOf(outlook)
  const wholes = new Map<number, number>()
  const found = new Map<number, number>()
  for (const { weights } of groups)
    for (const [cause, weight] of weights) {
      wholes.set(cause, (wholes.get(cause) ?? 0) + weight)
      found.set(cause, (found.get(cause) ?? 0) + 1)
    }
  let entropy = 0
  for (const weight of wholes.values()) entropy += bitsOf(weight)
  // A cause of one group keeps its share of the group whatever is read; one of several is followed by itself.
  const several = [...found].flatMap(([cause, count]) => (count > 1 ? [cause] : []))
  const placeOf = new Map(several.map((cause, i) => [cause, i]))
  const all = groups.map((group) => parted(group, placeOf))
  const followed = new Float64Array(several.length)
  /** The entropy left after a reading. */
  const leftAt = (y: number): number => {
    followed.fill(0)
    let [sum, bits, logs] = [0, 0, 0]
    for (const { mean, perSd, total, weight, bits: own, parts } of all) {
      const z = (y - mean) * perSd
      if (z * z > farSquared) continue
      const density = Math.exp(-0.5 * z * z) * perSd
      sum += density * total
      bits += density * own
      if (weight > 0 && density > 0) logs += weight * density * Math.log2(density)
      for (const part of parts) followed[part.of]! += part.weight * density
    }
    // The density of the reading itself is taken out at once: that of all that is in one group, then of the others.
    let alone = 0
    for (const weight of followed) alone += weight
    let rest = (bits - logs + (sum - alone) * Math.log2(sum)) / sum
    for (const weight of followed) rest += bitsOf(weight / sum)
    return rest
  }
  let [left, seen] = [0, 0]
  for (const { mean, sd, total } of groups) {
    for (const [x, share] of points) left += total * share * leftAt(mean + x * sd)
    seen += total
    if (seen >= readingsLookedAt) break
  }
  return Math.max(0, entropy - left / seen)
}

/** Entropy of causes by weight, bits. */
function entropyOf(outlook: readonly Outlook[]): number {
  const weights = new Map<number, number>()
  let total = 0
  for (const { cause, weight } of outlook) {
    weights.set(cause, (weights.get(cause) ?? 0) + weight)
    total += weight
  }
  let bits = 0
  for (const weight of weights.values()) bits += bitsOf(weight / total)
  return bits
}

/**
 * Upper bound of a reading's information, bits: that of a normal distribution with the same spread, which has the
 * most entropy.
 */
export function mostBits(outlook: readonly Outlook[]): number {
  let [total, sum, squares, logs] = [0, 0, 0, 0]
  for (const { weight, mean, variance } of outlook) {
    total += weight
    sum += weight * mean
    logs += weight * Math.log2(variance)
  }
  const middle = sum / total
  for (const { weight, mean, variance } of outlook) squares += weight * (variance + (mean - middle) ** 2)
  return 0.5 * (Math.log2(squares / total) - logs / total)
}

/**
 * Next measurements: the test with the most expected information per minute of work. Tests are tried in the order
 * of their upper bound, until no other can be better.
 * @returns null if every test was made
 */
export function bestOf(
  posterior: Posterior,
  tests: readonly ProofTest[],
  { taken, state }: { readonly taken: ReadonlySet<string>; readonly state: string | null },
): Worth | null {
  const open = tests
    .filter(({ id }) => !taken.has(id))
    .map((test) => ({ test, outlook: posterior.outlook(test) }))
  // No test tells more than there is to know: it is the same for all.
  const entropy = open.length > 0 ? entropyOf(firstOf(open).outlook) : 0
  const byMost = open
    .map(({ test, outlook }) => {
      const minutes = test.minutes + test.waits + (test.state.id === state ? 0 : test.state.minutes)
      return { test, outlook, minutes, most: Math.min(entropy, mostBits(outlook)) / minutes }
    })
    .sort((a, b) => b.most - a.most)
  let best: Worth | null = null
  for (const { test, outlook, minutes, most } of byMost) {
    if (best && most <= best.bits / best.minutes) break
    const bits = bitsOfReading(outlook)
    if (!best || bits / minutes > best.bits / best.minutes) best = { test, bits, minutes }
  }
  return best
}
