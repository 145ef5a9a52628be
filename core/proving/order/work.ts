import type { JobDocument } from '#core/job/document'
import type { Network } from '#core/network/network'
import type { System } from '#core/system/system'

/** What an order of work is made from. */
export interface Work {
  /** The job with its survey and its answer. */
  readonly found: JobDocument
  /** As it was found, and as it will be. */
  readonly before: System
  readonly after: System
  readonly network: Network
}

/** Whether the starting side’s negative is the chassis: every vehicle but a trailer, and an engine afloat on its block. */
export const hasChassisNegative = ({ after }: Work): boolean =>
  after.craft === 'vehicle' || after.craft === 'motorcycle'

/** Starting batteries that are there. */
export const startersOf = ({ after }: Work) =>
  after.many.startingBatteries.filter(({ present }) => present === 'yes')

/** Whether the old bank of lead stays beside the lithium. */
export const leadStays = ({ network }: Work): boolean => network.units.some(({ id }) => id === 'lead')

/** Whether there was a house bank to be taken out. */
export const bankGoes = ({ network }: Work): boolean => network.gone.some(({ id }) => id === 'house-bank')
