import type { PartPath } from '#core/job/document'
import { laneCurrentA } from './currents'
import { hoursOf, type Lane } from './lanes'
import type { System } from './system'

/** A source with its current at the bank, A. */
export interface Giving {
  readonly lane: Lane
  readonly amps: number
}

const ways = {
  ashore: { words: 'Mains and sun', kinds: ['charger', 'solar'] },
  underWay: { words: 'The sources under way', kinds: ['alternator', 'source', 'solar'] },
} as const
export type Way = keyof typeof ways

/** A way in which sources charge at the same time: ashore, or under way. */
export interface Together {
  readonly way: Way
  readonly name: string
  /** Path of the first source that tells it from the other way. */
  readonly path: PartPath
}

export const sumOf = (giving: readonly Giving[]): number => giving.reduce((sum, { amps }) => sum + amps, 0)

/** The ways that exist in a system. This depends on its parts, not on their values. */
export const waysTogether = ({ lanes }: System): readonly Together[] =>
  (Object.keys(ways) as Way[]).flatMap((way) => {
    const { words, kinds } = ways[way]
    const first = lanes.find(({ kind }) => kind !== 'solar' && (kinds as readonly string[]).includes(kind))
    return first ? [{ way, name: words, path: first.id }] : []
  })

/**
 * The sources that charge at the same time in a way. Where a generator runs the chargers, or mains and engine
 * together fill more than the day, all of them do, and are counted ashore.
 */
export function givingTogether(way: Way, system: System): readonly Giving[] {
  const isAtOnce = canAllRun(system)
  if (isAtOnce && way !== 'ashore') return []
  return system.lanes
    .filter(({ kind }) => isAtOnce || (ways[way].kinds as readonly string[]).includes(kind))
    .map((lane) => ({ lane, amps: laneCurrentA(lane, system) }))
    .filter(({ amps }) => amps > 0)
}

function canAllRun({ lanes, many, rules }: System): boolean {
  const longest = (wanted: Lane['kind']): number =>
    Math.max(0, ...lanes.filter(({ kind }) => kind === wanted).map((lane) => hoursOf(lane, rules)))
  const [plugged, driven] = [longest('charger'), longest('alternator')]
  return (plugged > 0 && many.generators.length > 0) || plugged + driven > 24
}
