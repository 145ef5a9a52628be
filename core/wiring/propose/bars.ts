import { usualM, type Builder } from './builder'
import type { Joint } from './house'

/** The bars of the house, by their positive posts. */
const firstBar = 'bar-plus'
const secondBar = 'bar-2-plus'
/** The positive post of the bank: always live, even with the main switch off. */
export const bankPost = 'bank-plus'
/** The contactor between the bars that the battery’s signal opens. */
export const loadStop = 'load-stop'

/** The second pair of bars of a house. */
const beside = (house: Joint): Joint => ({ ...house, plus: secondBar, minus: 'bar-2-minus' })

/**
 * Whether loads have separate bars behind a contactor: the battery’s signal drops them before its own electronics
 * must open, and sources stay joined to the battery. If lead-acid is joined to it, one contactor separates the two
 * instead.
 */
const isParted = (build: Builder, { plus }: Joint): boolean =>
  plus === firstBar &&
  build.system.one.candidate.warning === 'stop' &&
  build.system.one.use.mixed !== 'hybrid'

/**
 * The bar of a branch fuse: the first bar, the battery side of the main switch if set by hand,
 * or a second bar if set by hand or for loads only. @param draws whether the branch feeds a load or an inverter
 */
export function barOf(build: Builder, house: Joint, fuse: string, draws = false): Joint {
  if (house.plus !== firstBar) return house
  const standsOn = build.entered(`fittings/${fuse}`)<string>('standsOn')
  if (standsOn === 'battery') return { ...house, plus: bankPost }
  const onSecond = isParted(build, house) ? draws : standsOn === 'second'
  return onSecond ? beside(house) : house
}

/** The load bars behind their contactor, before their branches. */
export function loadBarsOf(build: Builder, first: Joint): void {
  if (!isParted(build, first)) return
  const { nominalV } = first
  build.fitting(loadStop, 'stop', {
    nominalV,
    name: 'Discharge stop of the loads',
    opposite: beside(first).minus,
    reason: 'The battery’s signal drops the loads before its BMS cuts out. The sources stay connected.',
  })
  build.run('load-feed', first.plus, loadStop, strap)
  barsBeside(build, first, loadStop, 'Load bar', 'The discharge stop switches off these loads.')
}

/**
 * The second pair of bars, if a branch was set to it by hand, joined to the first by a strap in each pole:
 * last, so that no run is called otherwise for it.
 */
export function secondBarsOf(build: Builder, first: Joint): void {
  const isUsed = [...build.runs.values()].some(({ from, to }) => from === secondBar || to === secondBar)
  if (build.posts.has(secondBar) || !isUsed) return
  barsBeside(build, first, first.plus, 'Second bar', 'It takes the branches that have no room on the first.')
}

const strap = { role: 'main', usualM: usualM.link } as const

/** @param from the post that the positive bar is joined to */
function barsBeside(build: Builder, first: Joint, from: string, name: string, reason: string): void {
  const { plus, minus, nominalV } = beside(first)
  build.fitting(plus, 'bar', { nominalV, name: `${name}, positive`, opposite: minus, reason })
  build.fitting(minus, 'bar', {
    nominalV,
    name: `${name}, negative`,
    pole: 'negative',
    opposite: plus,
    reason: `It takes the returns of the branches of the ${name.toLowerCase()}.`,
  })
  build.run('bar-strap', from, plus, strap)
  build.run('bar-strap-return', minus, first.minus, { ...strap, returnOf: 'bar-strap' })
}
