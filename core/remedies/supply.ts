import type { JobDocument } from '#core/job/document'
import { valuesFromShelf, type ShelfPart } from '#core/shelf/kinds'
import type { System } from '#core/system/system'
import { remedyOf, type RemedyRef } from './catalogue'
import { listed, unlisted } from './listed'
import type { Supply, Want } from './remedy'
import { cheap } from './wants'

/**
 * The ways a remedy can be supplied from the shelf, the best fitting first. One way without a part where it
 * takes none; one with an unpriced thing where the shelf holds nothing that fits.
 * @param most ways given at most
 */
export function suppliesFor(
  ref: RemedyRef,
  job: JobDocument,
  system: System,
  shelf: readonly ShelfPart[],
  most = 1,
): Supply[] {
  const { wants, supply } = remedyOf(ref)
  if (supply) return [supply(ref, job, shelf)]
  if (typeof wants === 'string') return [{ parts: [unlisted(wants)], values: {} }]
  const want = wantOf(ref)
  if (!want) return [{ parts: [], values: {} }]
  const fitting = fittingParts(want, ref, system, shelf)
  if (fitting.length === 0) return [{ parts: [unlisted(want.otherwise, quantityOf(want, job))], values: {} }]
  return distinct(fitting)
    .slice(0, most)
    .map((part) => suppliedWith(part, want, ref, job))
}

/** The ways of a remedy with every part of the shelf that fits, the best fitting first; none where it takes none. */
export function exchangesFor(
  ref: RemedyRef,
  job: JobDocument,
  system: System,
  shelf: readonly ShelfPart[],
): Supply[] {
  const want = remedyOf(ref).supply ? null : wantOf(ref)
  if (!want) return []
  return fittingParts(want, ref, system, shelf).map((part) => suppliedWith(part, want, ref, job))
}

/** The shelf part of a remedy; null if it needs none, or none that a shelf holds. */
function wantOf(ref: RemedyRef): Want | null {
  const { wants } = remedyOf(ref)
  if (wants === undefined || typeof wants === 'string') return null
  return typeof wants === 'function' ? wants(ref) : wants
}

const fittingParts = (
  want: Want,
  ref: RemedyRef,
  system: System,
  shelf: readonly ShelfPart[],
): readonly ShelfPart[] =>
  bestFirst(
    want,
    ref,
    shelf.filter((part) => part.kind === want.kind && want.fits(part, ref, system)),
  )

const quantityOf = ({ quantity }: Want, job: JobDocument): number => quantity?.(job) ?? 1

const suppliedWith = (part: ShelfPart, want: Want, ref: RemedyRef, job: JobDocument): Supply => ({
  parts: [listed(part, quantityOf(want, job))],
  values: valuesGiven(want, ref, part),
})

function bestFirst({ order = cheap }: Want, ref: RemedyRef, parts: readonly ShelfPart[]): ShelfPart[] {
  return parts.toSorted(
    (a, b) => order(a, ref) - order(b, ref) || cheap(a) - cheap(b) || (a.code < b.code ? -1 : 1),
  )
}

/** Its data for the part of the job. */
function valuesGiven({ into, fills }: Want, { on }: RemedyRef, part: ShelfPart): Supply['values'] {
  if (fills) return { [fills.field]: { value: part.values[fills.from], how: 'maker' } }
  return into && on.startsWith(into) ? valuesFromShelf(part, into) : {}
}

/** Of parts with the same rating the best fitting one. */
function distinct(parts: readonly ShelfPart[]): ShelfPart[] {
  const seen = new Set<string>()
  return parts.filter(
    ({ values, code }) =>
      seen.size < seen.add(String(values.ratedA ?? values.opensAboveA ?? values.heaterW ?? code)).size,
  )
}
