import type { Post } from './network'

/** Highest charge voltage of a 12 V system, V: a fuse must interrupt it (engineering default). */
const highest12V = 14.6

/** The highest voltage that a system of a nominal voltage is charged at, V. */
export const highestChargeV = ({ nominalV }: Pick<Post, 'nominalV'>): number => (highest12V * nominalV) / 12
