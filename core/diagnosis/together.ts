import { elementAt } from '#core/collections/held'
import type { Cause, Hypothesis } from './hypotheses'
import type { Knowledge } from './posterior'

/** Two causes whose readings differ by less than this, in deviations over all tests, cannot be separated. */
const apartFrom = 1

/**
 * Groups of causes that no test can separate: for every size of one, the other has a size with the same readings in
 * every test. Causes that differ from all others are in no group.
 */
export function togetherOf({ tests, causes, hypotheses }: Knowledge): (readonly Cause[])[] {
  const parts = causes.map((_, i) => hypotheses.filter(({ cause }) => cause === i))
  const group = causes.map((_, i) => i)
  const rootOf = (i: number): number => (group[i] === i ? i : rootOf(elementAt(group, i)))
  causes.forEach((cause, a) => {
    // A cause without any effect on readings is not found by a test. It is named as such, and not as possibly
    // absent.
    if (cause.fault === null) return
    for (let b = a + 1; b < causes.length; b++)
      if (rootOf(a) !== rootOf(b) && isAlike(elementAt(parts, a), elementAt(parts, b), tests.length))
        group[rootOf(b)] = rootOf(a)
  })
  const groups = new Map<number, Cause[]>()
  causes.forEach((cause, i) => groups.set(rootOf(i), [...(groups.get(rootOf(i)) ?? []), cause]))
  return [...groups.values()].filter((members) => members.length > 1)
}

/** Whether each size of the one has a size of the other that reads the same, and the other way round. */
const isAlike = (one: readonly Hypothesis[], other: readonly Hypothesis[], tests: number): boolean =>
  isCovered(one, other, tests) && isCovered(other, one, tests)
const isCovered = (one: readonly Hypothesis[], other: readonly Hypothesis[], tests: number): boolean =>
  one.every((a) => other.some((b) => readsLike(a, b, tests)))

/** Whether no test, alone or together, can separate two hypotheses, given their spread. */
function readsLike(a: Hypothesis, b: Hypothesis, tests: number): boolean {
  let sum = 0
  for (let t = 0; t < tests; t++) {
    const own = a.noise[t]! + Math.max(0, a.covariance.variances[t]! - b.bySize[t]! ** 2)
    const difference = a.means[t]! - b.means[t]!
    // The remaining uncertainty of its size counts as its own, once.
    sum += Math.max(0, Math.abs(difference) - Math.abs(b.bySize[t]!)) ** 2 / own
    if (sum > apartFrom) return false
  }
  return true
}
