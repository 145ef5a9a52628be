import { usualM, type Builder } from './builder'
import type { Joint } from './house'

/** The bars of the house, by their positive posts. */
export const firstBar = 'bar-plus'
export const secondBar = 'bar-2-plus'

/** The second pair of bars of a house, wherever it is joined. */
const beside = (house: Joint): Joint => ({ ...house, plus: secondBar, minus: 'bar-2-minus' })

/** Where the fuse of a branch stands: on the bar, or, where that was set by hand, on a second one beside it. */
export const barOf = (build: Builder, house: Joint, fuse: string): Joint =>
  house.plus === firstBar && build.entered<string>(`fittings/${fuse}`, 'standsOn') === 'second'
    ? beside(house)
    : house

/**
 * The second pair of bars, where something stands on it, joined to the first by a strap in each pole: last, so that no
 * run is called otherwise for it.
 */
export function secondBarsOf(build: Builder, first: Joint): void {
  if (build.runs.every(({ from, to }) => from !== secondBar && to !== secondBar)) return
  const second = beside(first)
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
