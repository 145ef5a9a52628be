import type { Write } from '#core/units/format'
import type { Fitting, SignalLine, Run } from './network'

/** The state of a part of the wiring, in a word. */
export const stateWords = { found: 'stays', new: 'new', goes: 'goes' } as const

/** Whether an existing conductor has an unknown size: its size is then the required one. */
export const isSizeUnknown = ({ state, areaKnown }: Pick<Run, 'state' | 'areaKnown'>): boolean =>
  state === 'found' && areaKnown === 'sized'

/** The size of a run unchanged in a list: `2 × 70 mm²`, `needs 25 mm²`. */
export function sizeWords(run: Run, q: Write): string {
  if (run.isStud) return 'no cable'
  if (run.areaMm2 === null) return 'chassis'
  return `${run.count > 1 ? `${run.count} × ` : ''}${isSizeUnknown(run) ? 'needs ' : ''}${q(run.areaMm2, 'mm²')}`
}

/** The length of a run unchanged in a list. */
export function lengthWords(run: Run, q: Write): string {
  if (run.isStud) return 'on the stud'
  return run.lengthKnown === 'open' ? 'unknown' : q(run.lengthM, 'm')
}

/** The rating of a fitting unchanged in a list; empty if it is unknown. */
export function ratingWords({ ratedA, isRatingOpen }: Fitting, q: Write): string {
  if (isRatingOpen) return 'rating unknown'
  return ratedA === null ? '' : q(ratedA, 'A')
}

/** A thin line unchanged in a list, without its number. */
export const lineWords = ({ name, fuseA, state }: SignalLine): string =>
  `${name}${fuseA === null ? '' : `, by a fuse of ${fuseA} A`}; ${stateWords[state]}`
