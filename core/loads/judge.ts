import { elementAt, firstOf } from '#core/collections/held'
import type { CurrentStep } from './detect'
import type { TrueStep } from './stand-in'

export interface Judged {
  /** True steps of the least size or more, and how many of them were found. */
  readonly there: number
  readonly found: number
  /** Steps reported, and how many of them were none. */
  readonly reported: number
  readonly wrong: number
}

const nearS = 3
/** Switching events closer than this are one change of the current: no meter tells them apart. */
const togetherS = 1

/**
 * Holds reported steps against what really happened. A step is found when one is reported within 3 s, of the
 * same sign, and within 0.3 A or 15 % of its size; switching events less than 1 s apart may be reported as one of
 * their sum.
 * @param leastA true steps under this do not count as there; reporting them is not wrong either
 */
export function judgeSteps(
  reported: readonly CurrentStep[],
  truth: readonly TrueStep[],
  leastA = 0.5,
): Judged {
  const groups: TrueStep[][] = truth.map((step) => [step])
  for (let i = 0; i < truth.length; i++) {
    for (
      let n = 2;
      i + n <= truth.length && elementAt(truth, i + n - 1).t - elementAt(truth, i).t < togetherS;
      n++
    )
      groups.push([...truth.slice(i, i + n)])
  }
  const taken = new Set<TrueStep>()
  let wrong = 0
  for (const step of reported) {
    const match = groups.find((group) => {
      const delta = group.reduce((sum, one) => sum + one.deltaA, 0)
      return (
        !group.some((one) => taken.has(one)) &&
        Math.abs(firstOf(group).t - step.t) <= nearS &&
        Math.sign(delta) === Math.sign(step.deltaA) &&
        Math.abs(delta - step.deltaA) <= Math.max(0.3, 0.15 * Math.abs(delta))
      )
    })
    if (match) match.forEach((one) => taken.add(one))
    else wrong++
  }
  // What takes itself back within a second changes no current that could be found.
  const cancelled = new Set(
    groups
      .filter(
        (group) => group.length > 1 && Math.abs(group.reduce((sum, one) => sum + one.deltaA, 0)) < leastA,
      )
      .flat(),
  )
  const there = truth.filter((step) => Math.abs(step.deltaA) >= leastA && !cancelled.has(step))
  return {
    there: there.length,
    found: there.filter((step) => taken.has(step)).length,
    reported: reported.length,
    wrong,
  }
}
