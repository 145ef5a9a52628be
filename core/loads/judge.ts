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

/** Switching events by themselves, and those that follow so soon that they may be reported as one. */
function groupsOf(truth: readonly TrueStep[]): (readonly TrueStep[])[] {
  const groups: (readonly TrueStep[])[] = truth.map((step) => [step])
  truth.forEach((first, i) => {
    for (let end = i + 1; end < truth.length && elementAt(truth, end).t - first.t < togetherS; end++)
      groups.push(truth.slice(i, end + 1))
  })
  return groups
}

const sumOf = (group: readonly TrueStep[]): number => group.reduce((sum, { deltaA }) => sum + deltaA, 0)

/** Whether a reported step is a group of events: near in time, of its sign, and of about its size. */
function isSame({ t, deltaA }: CurrentStep, group: readonly TrueStep[]): boolean {
  const trueA = sumOf(group)
  return (
    Math.abs(firstOf(group).t - t) <= nearS &&
    Math.sign(trueA) === Math.sign(deltaA) &&
    Math.abs(trueA - deltaA) <= Math.max(0.3, 0.15 * Math.abs(trueA))
  )
}

/**
 * Compares reported steps with the true ones. A step is found if one is reported within 3 s, with the same sign,
 * and within 0.3 A or 15 % of its size. Switching events less than 1 s apart may be reported as one step of their
 * sum.
 * @param leastA smaller true steps do not count, and reporting them is not wrong
 */
export function judgeSteps(
  reported: readonly CurrentStep[],
  truth: readonly TrueStep[],
  leastA = 0.5,
): Judged {
  const groups = groupsOf(truth)
  const taken = new Set<TrueStep>()
  let wrong = 0
  for (const step of reported) {
    const match = groups.find((group) => !group.some((one) => taken.has(one)) && isSame(step, group))
    if (match) match.forEach((one) => taken.add(one))
    else wrong++
  }
  // An event that reverses within a second changes no current that could be found.
  const cancelled = new Set(
    groups.filter((group) => group.length > 1 && Math.abs(sumOf(group)) < leastA).flat(),
  )
  const there = truth.filter((step) => Math.abs(step.deltaA) >= leastA && !cancelled.has(step))
  return {
    there: there.length,
    found: there.filter((step) => taken.has(step)).length,
    reported: reported.length,
    wrong,
  }
}
