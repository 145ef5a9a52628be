import { usualM, type Builder } from './builder'
import type { Joint } from './house'

/** The bars of the house, by their positive posts. */
export const firstBar = 'bar-plus'
export const secondBar = 'bar-2-plus'

/**
 * Where the fuse of a branch stands: on the bar, or, where that was set by hand, on a second one beside it. The second
 * is there with the first fuse that stands on it.
 */
export function barOf(build: Builder, house: Joint, fuse: string): Joint {
  if (house.plus !== firstBar || build.entered<string>(`fittings/${fuse}`, 'standsOn') !== 'second')
    return house
  const second: Joint = { ...house, plus: secondBar, minus: 'bar-2-minus' }
  if (!build.has(secondBar)) strapped(build, house, second)
  return second
}

/** A second pair of bars, joined to the first by a strap in each pole. */
function strapped(build: Builder, first: Joint, second: Joint): void {
  const own = { nominalV: first.nominalV } as const
  build.fitting(second.plus, 'bar', {
    ...own,
    name: 'Second positive bar',
    opposite: second.minus,
    reason: 'It takes the branches that have no room on the first.',
  })
  build.fitting(second.minus, 'bar', {
    ...own,
    name: 'Second negative bar',
    pole: 'negative',
    opposite: second.plus,
    reason: 'It takes the returns of the branches of the second bar.',
  })
  const strap = { role: 'main', usualM: usualM.link } as const
  build.run('bar-strap', first.plus, second.plus, strap)
  build.run('bar-strap-return', second.minus, first.minus, { ...strap, returnOf: 'bar-strap' })
}
