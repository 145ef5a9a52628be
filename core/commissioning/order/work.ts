import type { JobDocument } from '#core/job/document'
import type { BatteryUnit, Network } from '#core/wiring/network'
import type { System } from '#core/system/system'

/** Inputs of an order of work. */
export interface Work {
  /** The job with its survey and its answer. */
  readonly found: JobDocument
  /** As it was found, and as it will be. */
  readonly before: System
  readonly after: System
  readonly network: Network
}

/**
 * Whether the starting side’s negative is the chassis: every vehicle but a trailer, and an engine afloat on its
 * block.
 */
export const hasChassisNegative = ({ after }: Work): boolean =>
  after.craft === 'vehicle' || after.craft === 'motorcycle'

/** Starting batteries that are there. */
export const startersOf = ({ after }: Work) =>
  after.many.startingBatteries.filter(({ present }) => present === 'yes')

/**
 * The old lead-acid bank if it stays: on the bar with the lithium, or as a reserve behind a DC-DC; null if it goes.
 */
export const leadThatStays = ({ network }: Work): BatteryUnit | null =>
  network.units.find((unit): unit is BatteryUnit => unit.kind === 'battery' && unit.id === 'lead') ?? null

/** Whether there was a house bank to be taken out. */
export const bankGoes = ({ network }: Work): boolean => network.gone.some(({ id }) => id === 'house-bank')

/** Plugs of the network, by their numbers: a tow plug. */
export const plugsOf = ({ network }: Work): string[] =>
  network.posts.flatMap(({ kind, fitting }) => (kind === 'plug' && fitting ? [fitting.number] : []))

/** The number of a fitting in a list; empty if there is none there. */
export const numbersOf = ({ network }: Work, ...ids: readonly string[]): string[] =>
  ids.flatMap((id) => {
    const post = network.posts.find((one) => one.id === id)
    return post?.fitting?.number ? [post.fitting.number] : []
  })
