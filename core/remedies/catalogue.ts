import type { JobDocument, FieldPath } from '#core/job/document'
import { charging } from './entries/charging'
import { fitting } from './entries/fitting'
import { linking } from './entries/linking'
import type { Write } from '#core/units/format'
import type { Remedy, RemedyOrder } from './remedy'

/** Every remedy by id, with all that is known of it. */
export const remedyCatalogue = { ...charging, ...linking, ...fitting } as const satisfies Record<
  string,
  Remedy
>

export type RemedyId = keyof typeof remedyCatalogue

/** A remedy for one part, with its value where it has one. */
export interface RemedyRef extends RemedyOrder {
  readonly id: RemedyId
}

/** All that is known of a remedy. */
export const remedyOf = ({ id }: RemedyRef): Remedy => remedyCatalogue[id]

/** What the remedy is called, with its number. */
export const remedyLabel = (ref: RemedyRef, q: Write): string => remedyOf(ref).label(ref, q)
/** What it takes, in words: parts and usual time. */
export function remedyEffort(ref: RemedyRef, q: Write): string {
  const { takes, hours } = remedyOf(ref)
  if (hours === 0) return takes
  return `${takes}, ${hours < 0.5 ? q(hours * 60, 'min') : q(hours, 'h')}`
}
export const canTry = (ref: RemedyRef): boolean => remedyOf(ref).effect !== null
export const sameRemedy = (x: RemedyRef, y: RemedyRef): boolean => x.id === y.id && x.on === y.on

/**
 * Remedies each once; where one comes twice with a current, the smaller; and none for a link that a new DC-DC
 * takes the place of.
 */
export function joinRemedies(refs: readonly RemedyRef[]): RemedyRef[] {
  const joined: RemedyRef[] = []
  for (const ref of refs) {
    const i = joined.findIndex((known) => sameRemedy(known, ref))
    if (i < 0) joined.push(ref)
    else if (remedyOf(ref).smallerMeetsBoth && ref.value! < joined[i]!.value!) joined[i] = ref
  }
  const relinked = new Set(joined.filter(({ id }) => id === 'dcdc.add').map(({ on }) => on))
  return joined.filter((ref) => !(relinked.has(ref.on) && remedyOf(ref).needlessWithDcdc))
}

/**
 * The job as it would be with the remedy; the survey given is left as it is.
 * @throws when the remedy changes nothing that is surveyed: see {@link canTry}
 */
export function applyRemedy(job: JobDocument, ref: RemedyRef): JobDocument {
  const { effect } = remedyOf(ref)
  if (!effect) throw new Error(`${ref.id} changes nothing that can be tried`)
  return effect(job, ref)
}

/** Sizes in which chargers and DC-DC units are made, A. */
const sizesA = [5, 10, 15, 20, 25, 30, 40, 50, 60, 80, 100]

/**
 * The largest usual size that stays at or under a limit, A; the smallest when the limit is under all of them.
 */
export const sizeUnder = (limitA: number): number => sizesA.findLast((size) => size <= limitA) ?? sizesA[0]!

/** The field a remedy's value goes to, where it has one that can be set by hand. */
export function adjustableField(ref: RemedyRef): FieldPath | null {
  const { adjusts } = remedyOf(ref)
  return adjusts === undefined ? null : `${ref.on}/${adjusts}`
}
