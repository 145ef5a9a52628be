import { firstOf, lastOf } from '#core/collections/held'
import type { FuseFamily } from './fuses'
import { along } from './curve'

/**
 * Time to open of each family, s, by current as a share of its rating: fastest and slowest (null: none stated).
 * Straight lines between points on log scales. From the project's reference table of fuse times: typical figures of
 * the families; a maker's curve may replace them.
 */
type Point = readonly [share: number, fastestS: number, slowestS: number | null]
const times: Readonly<Record<FuseFamily, readonly Point[]>> = {
  blade: [
    [1.1, 360_000, null],
    [1.35, 0.75, 600],
    [1.6, 0.25, 50],
    [2, 0.15, 5],
    [3.5, 0.04, 0.5],
    [6, 0.02, 0.1],
  ],
  'maxi-blade': [
    [1.1, 360_000, null],
    [1.35, 60, 1_800],
    [2, 2, 60],
    [3.5, 0.2, 7],
    [6, 0.04, 1],
  ],
  'bolt-down-midi': [
    [1, 14_400, null],
    [1.35, 60, 1_800],
    [2, 2, 30],
    [3.5, 0.2, 5],
    [6, 0.04, 1],
  ],
  'bolt-down-mega': [
    [1, 14_400, null],
    [1.35, 120, 1_800],
    [2, 1, 15],
    [3.5, 0.3, 5],
    [6, 0.1, 1],
  ],
  anl: [
    [1, 14_400, null],
    [1.5, 10, 600],
    [2, 2, 60],
    [3, 0.4, 8],
    [6, 0.05, 0.6],
  ],
  'terminal-block': [
    [1.1, 14_400, null],
    [1.35, 120, 1_800],
    [2, 1, 15],
    [3.5, 0.15, 5],
    [6, 0.04, 1],
  ],
  'class-t': [
    [1.1, 14_400, null],
    [1.35, 60, 3_600],
    [2, 2, 480],
    [3, 0.5, 20],
    [5, 0.02, 0.5],
    [10, 0.004, 0.05],
  ],
  'thermal-breaker': [
    [1, 14_400, null],
    [1.35, 30, 1_800],
    [2, 10, 60],
    [4, 1.5, 8],
    [6, 0.6, 4],
  ],
}

/** Below this share of its rating no family ever opens. */
const neverBelow = 1.1

const onLogs = (points: readonly (readonly [share: number, seconds: number])[], share: number): number =>
  Math.exp(
    along(
      points.map(([at, seconds]) => [Math.log(at), Math.log(seconds)] as const),
      Math.log(share),
    ),
  )

/**
 * The shortest time in which a fuse may open, s; Infinity where it holds for good.
 * @param share current as a share of its rating
 */
export const fastestS = (family: FuseFamily, share: number): number =>
  share < neverBelow
    ? Infinity
    : onLogs(
        times[family].map(([at, fastest]) => [at, fastest]),
        share,
      )

/**
 * The usual time to open, s: the middle of fastest and slowest on a log scale, and beyond the last figure by the
 * energy it takes to melt (I²t constant). Infinity where no longest time is stated.
 */
export function usualS(family: FuseFamily, share: number): number {
  const stated = times[family].flatMap(([at, fastest, slowest]) =>
    slowest === null ? [] : [[at, Math.sqrt(fastest * slowest)] as const],
  )
  const [last] = lastOf(stated)
  if (share < firstOf(stated)[0]) return Infinity
  return onLogs(stated, share) * (share > last ? (last / share) ** 2 : 1)
}

/**
 * Whether a fuse nearer the load goes before one nearer the source, in a fault behind both. Within one family the
 * ratio of their ratings decides. Otherwise their usual melting curves do: from twice to ten times the rating of the
 * lower fuse, the upper one takes longer.
 * @param ratio at which two of a family are graded
 */
export function isGraded(
  upper: { readonly family: FuseFamily; readonly ratedA: number },
  lower: { readonly family: FuseFamily; readonly ratedA: number },
  ratio: number,
): boolean {
  if (upper.family === lower.family) return upper.ratedA >= ratio * lower.ratedA
  return [2, 3, 4, 6, 10].every(
    (share) => usualS(lower.family, share) < usualS(upper.family, (share * lower.ratedA) / upper.ratedA),
  )
}

/** The highest DC voltage of each family, V. */
export const fuseMostV: Readonly<Record<FuseFamily, number>> = {
  blade: 32,
  'maxi-blade': 32,
  'bolt-down-midi': 32,
  'bolt-down-mega': 32,
  anl: 32,
  'terminal-block': 58,
  'class-t': 125,
  'thermal-breaker': 48,
}
