import { elementAt, firstOf } from '#core/collections/held'
import type { JobDocument, FieldPath } from '#core/job/document'
import { charging } from './entries/charging'
import { fitting } from './entries/fitting'
import { linking } from './entries/linking'
import { wiring } from './entries/wiring'
import type { Write } from '#core/units/format'
import type { Remedy, RemedyOrder } from './remedy'

/** Every remedy by id, with all that is known of it. */
export const remedyCatalogue = { ...charging, ...linking, ...fitting, ...wiring } as const satisfies Record<
  string,
  Remedy
>

export type RemedyId = keyof typeof remedyCatalogue

/** A remedy for one part, with its value if it has one. */
export interface RemedyRef extends RemedyOrder {
  readonly id: RemedyId
}

export type ValuedRef = RemedyRef & { readonly value: number }

/** All that is known of a remedy. */
export const remedyOf = ({ id }: RemedyRef): Remedy => remedyCatalogue[id]

/** The name of the remedy, with its number. */
export const remedyLabel = (ref: RemedyRef, q: Write): string => remedyOf(ref).label(ref, q)
/** Its effort, in words: parts and usual time. */
export function remedyEffort(ref: RemedyRef, q: Write): string {
  const { takes, hours } = remedyOf(ref)
  if (hours === 0) return takes
  return `${takes}, ${hours < 0.5 ? q(hours * 60, 'min') : q(hours, 'h')}`
}
export const canTry = (ref: RemedyRef): boolean => remedyOf(ref).effect !== null
export const sameRemedy = (x: RemedyRef, y: RemedyRef): boolean => x.id === y.id && x.on === y.on

/** Whether a remedy meets another of its kind on the same part besides. */
function meetsBoth(ref: RemedyRef, known: RemedyRef): boolean {
  const { smallerMeetsBoth, largerMeetsBoth } = remedyOf(ref)
  const [value, other] = [ref.value, known.value]
  if (value === undefined || other === undefined) return false
  return (smallerMeetsBoth === true && value < other) || (largerMeetsBoth === true && value > other)
}

/**
 * One shunt monitor with an alarm for all that ask for one: it takes the place of every device, and warns; and no
 * word that lead would do next to a larger battery.
 */
function withOneMonitor(refs: readonly RemedyRef[]): RemedyRef[] {
  const monitors = refs.filter((ref) => remedyOf(ref).monitors)
  const larger = refs.some(({ id }) => id === 'battery.more-parallel' || id === 'battery.other')
  const rest = refs.filter(
    (ref) =>
      !remedyOf(ref).monitors &&
      !(ref.id === 'warning.add' && monitors.length > 0) &&
      !(ref.id === 'battery.keep-lead' && larger),
  )
  if (monitors.length < 2) return refs.filter((ref) => rest.includes(ref) || monitors.includes(ref))
  const replaces = monitors.flatMap(({ id, on }) => (id === 'device.replace-by-monitor' ? [on] : []))
  const place = refs.findIndex((ref) => monitors.includes(ref))
  const before = rest.filter((ref) => refs.indexOf(ref) < place)
  return [
    ...before,
    { id: 'monitor.add', on: 'use', replaces },
    ...rest.filter((ref) => !before.includes(ref)),
  ]
}

/**
 * Remedies each once; where one comes twice with a current, the smaller; with a size or a count, the larger; none for
 * a link that a new DC-DC takes the place of; and one lead battery on an alternator.
 */
export function joinRemedies(refs: readonly RemedyRef[]): RemedyRef[] {
  const joined: RemedyRef[] = []
  for (const ref of refs) {
    const i = joined.findIndex((known) => sameRemedy(known, ref))
    if (i < 0) joined.push(ref)
    else if (meetsBoth(ref, elementAt(joined, i))) joined[i] = ref
  }
  const merged = withOneMonitor(joined)
  const on = (id: RemedyRef['id']): ReadonlySet<string> =>
    new Set(merged.filter((ref) => ref.id === id).map((ref) => ref.on))
  const [relinked, kept] = [on('dcdc.add'), on('start.keep-lead')]
  return merged.filter(
    (ref) =>
      !(relinked.has(ref.on) && remedyOf(ref).needlessWithDcdc) &&
      // One lead battery keeps the output and starts the engine.
      !(kept.has(ref.on) && ref.id === 'start.own-battery'),
  )
}

/**
 * The job as it would be with the remedy; the survey given is left as it is.
 * @throws when the remedy changes nothing that is surveyed: see {@link canTry}
 */
export function applyRemedy(job: JobDocument, ref: RemedyRef): JobDocument {
  const { effect } = remedyOf(ref)
  if (!effect) throw new Error(`${ref.id} changes nothing that can be tried`)
  return effect(ref, job)
}

/** Sizes in which DC-DC units and solar controllers are made, A. */
export const dcdcSizesA: readonly number[] = [5, 10, 15, 20, 25, 30, 40, 50, 60, 80, 100]
/** Mains chargers are made for the battery of a motorcycle, too, A. */
export const chargerSizesA: readonly number[] = [1, 2, 3, ...dcdcSizesA]

/** The smallest size of a DC-DC unit, A. */
export const leastSizeA = firstOf(dcdcSizesA)
/** The largest usual size that stays at or under a limit, A; the smallest when the limit is under all of them. */
export const sizeUnder = (limitA: number, sizes = dcdcSizesA): number =>
  sizes.findLast((size) => size <= limitA) ?? firstOf(sizes)

/** The field a remedy's value goes to, if it has one that can be set by hand. */
export function adjustableField(ref: RemedyRef): FieldPath | null {
  const { adjusts } = remedyOf(ref)
  return adjusts === undefined ? null : `${ref.on}/${adjusts}`
}
