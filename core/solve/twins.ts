import { dequal } from 'dequal/lite'
import { elementAt, firstOf } from '#core/collections/held'
import { knownOf, listParts, partAt, type JobDocument, type PartPath, type PartRef } from '#core/job/document'
import { fieldsOfKind } from '#core/system/facts'
import type { Axis, Option } from './option'

/**
 * Axes that are decided together: one, or those of parts that are alike. Whichever of two like chargers is replaced,
 * the job comes to the same, so each set of options counts once.
 */
export type Twins = readonly Axis[]

/** The axes of like parts together, each other one alone, in the order of the first of each. */
export function twinsAmong(job: JobDocument, axes: readonly Axis[]): Twins[] {
  const groups: Axis[][] = []
  for (const axis of axes) {
    const like = isOnItsOwn(axis, axes)
      ? groups.find((group) => areTwins(job, firstOf(group), axis) && isOnItsOwn(firstOf(group), axes))
      : undefined
    if (like) like.push(axis)
    else groups.push([axis])
  }
  return groups
}

/** Whether no other axis decides anything of the part that an axis is about. */
const isOnItsOwn = (axis: Axis, axes: readonly Axis[]): boolean =>
  axes.every(
    (other) =>
      other === axis ||
      (other.about !== axis.about &&
        other.options.every(({ steps }) => steps.every(({ ref }) => ref.on !== axis.about))),
  )

/** Whether two axes are about like parts and have the same options. */
function areTwins(job: JobDocument, one: Axis, other: Axis): boolean {
  const [a, b] = [partAt(job, one.about), partAt(job, other.about)]
  if (!a || !b || a.kind !== b.kind || isWiredByHand(job)) return false
  return (
    areAlike(a, b) &&
    dequal(servants(job, a.path), servants(job, b.path)) &&
    one.options.length === other.options.length &&
    one.options.every((option, i) =>
      dequal(shapeOf(option, one), shapeOf(elementAt(other.options, i), other)),
    )
  )
}

/** Runs and fittings that were set are those of one part, and not of the other. */
const isWiredByHand = ({ runs, fittings }: JobDocument): boolean =>
  Object.keys(runs).length + Object.keys(fittings).length > 0

/** Whether everything surveyed of two parts of a kind is the same; their names, numbers and notes do not matter. */
const areAlike = ({ kind, part }: PartRef, { part: other }: PartRef): boolean =>
  fieldsOfKind(kind).every(([name]) => dequal(knownOf(part, name), knownOf(other, name))) &&
  part.from === other.from &&
  part.of === other.of

/** Surveyed values of a part's cables and of other parts that refer to it, as text, in a fixed order. */
const servants = (job: JobDocument, path: PartPath): string[] =>
  listParts(job)
    .filter(({ part }) => part.of === path || part.from === path)
    .map(({ kind, part }) => JSON.stringify([kind, fieldsOfKind(kind).map(([name]) => knownOf(part, name))]))
    .sort()

/** The effect of an option on the part of its axis, without names. */
const shapeOf = ({ steps, battery }: Option, { about }: Axis): unknown => [
  battery,
  steps.map(({ ref, supply }) => [ref.on === about ? { ...ref, on: '' } : ref, supply]),
]

/** Sets of options that twins can take: (n + k − 1 over k) for k twins of n options. */
export const countOfSets = (twins: Twins): number =>
  twins.reduce((count, _, i) => (count * (firstOf(twins).options.length + i)) / (i + 1), 1)

/** Each set of options that twins can take, as the place of the option of each. */
export function setsOf(twins: Twins): number[][] {
  const count = firstOf(twins).options.length
  return twins.reduce<number[][]>(
    (sets) =>
      sets.flatMap((set) => {
        const from = set.at(-1) ?? 0
        return Array.from({ length: count - from }, (_, i) => [...set, from + i])
      }),
    [[]],
  )
}
