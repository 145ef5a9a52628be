import { familyWords } from '#core/job/parts/wiring'
import type { FuseFamily } from '#core/physics/fuses'
import type { Write } from '#core/units/format'

/**
 * A fuse in the label of a remedy: `Fit a fuse of 80 A, class T`.
 * @param family one of the families of fuses; left out where the remedy names none
 */
export const fuseLabel = (amps: number, family: unknown, q: Write): string =>
  `Fit a fuse of ${q(amps, 'A')}${family ? `, ${familyWords(family as FuseFamily)}` : ''}`
